"""The decorators through which every kernel is compiled."""

from collections.abc import Callable
from typing import Any, TypeVar, cast

import numba
import numpy as np
from numba.core import types
from numpy.typing import NDArray

from fandle.core.physics.inner import lean
from fandle.core.physics.kernel_folder import cache_folder

F = TypeVar("F", bound=Callable[..., Any])
Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
CONFIG: Any = numba.config
TYPES: Any = types
PLAIN = bool(CONFIG.DISABLE_JIT)  # do kernels run as plain Python, a hundred times slower?


def kernel(function: F) -> F:
    """Compile one kernel: cached, without the interpreter lock, serial, strict floats, one signature.

    No fastmath (NaN means "misses") and no parallel loops (one threading layer aborts on concurrent calls, another
    breaks forked children). Left to itself numba compiles a kernel again for every constant that it is called with:
    17 times `write_event`, 5 times the engine; that doubled the whole compilation (docs/decisions/kernel-cache.md).
    """
    compiled = kernel_by_constant(function)
    if not CONFIG.DISABLE_JIT:
        dispatcher: Any = compiled
        template = dispatcher.get_call_template
        dispatcher.get_call_template = lambda args, kws: template(tuple(_plain(arg) for arg in args), kws)
    return compiled


def kernel_by_constant(function: F) -> F:
    """The same, compiled for every constant it is called with: a step in impulse, in velocity, in work (1.1 times)."""
    before, CONFIG.CACHE_DIR = CONFIG.CACHE_DIR, str(cache_folder())
    try:  # numba looks there when a function is decorated: whoever else uses it keeps a folder of their own
        compiled = numba.njit(cache=True, nogil=True, error_model="numpy")(function)
    finally:
        CONFIG.CACHE_DIR = before
    if not CONFIG.DISABLE_JIT:
        lean(compiled)
    return cast(F, compiled)


def _plain(kind: Any) -> Any:
    """The type of a value, whatever value it is."""
    if isinstance(kind, TYPES.BaseNamedTuple):
        return TYPES.BaseTuple.from_types([_plain(part) for part in kind], kind.instance_class)
    return TYPES.unliteral(kind)
