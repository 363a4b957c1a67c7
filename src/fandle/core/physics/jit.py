"""The decorators through which every kernel is compiled, and the folder where compiled kernels are kept."""

import hashlib
import os
import shutil
import sys
import tempfile
from collections.abc import Callable
from functools import cache
from importlib.metadata import version
from pathlib import Path
from typing import Any, TypeVar, cast

import numba
import numpy as np
from numba.core import types
from numpy.typing import NDArray
from platformdirs import user_cache_path

from fandle.core.physics.inner import lean

F = TypeVar("F", bound=Callable[..., Any])
Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
PREFIX = "fandle-kernels-"
PRIVATE = 0o700
CONFIG: Any = numba.config
TYPES: Any = types
PLAIN = bool(CONFIG.DISABLE_JIT)  # do kernels run as plain Python, a hundred times slower?


@cache
def cache_folder() -> Path:
    """Folder for compiled kernels, named by what they are compiled from; nobody but the user may look into it.

    Numba's own cache does not notice an edited callee in another module, so the name carries a hash of all kernel
    sources and of the versions. It lies in the virtual environment where that is writable, else in the user's cache.
    """
    digest = hashlib.sha256(f"{version('numba')} {version('numpy')} {sys.version}".encode())
    for source in sorted(Path(__file__).parent.glob("*.py")):
        digest.update(source.read_bytes())
    name = f"{PREFIX}{digest.hexdigest()[:16]}"
    own = [Path(sys.prefix) / "var"] if sys.prefix != sys.base_prefix else []
    for base in (*own, user_cache_path("fandle")):
        if _private(base / name):
            return base / name
    return Path(tempfile.mkdtemp(prefix=name))  # for this run only; mkdtemp's folders are private


def _private(folder: Path) -> bool:
    """Make the folder ours alone; False where that cannot be."""
    try:
        folder.mkdir(PRIVATE, parents=True, exist_ok=True)
        if folder.is_symlink() or folder.stat().st_uid != os.geteuid():
            return False
        folder.chmod(PRIVATE)
    except OSError:
        return False
    return os.access(folder, os.W_OK)


def forget_old() -> None:
    """Remove the folders of kernels that were compiled from other sources."""
    here = cache_folder()
    for other in here.parent.glob(f"{PREFIX}*"):
        if other != here:
            shutil.rmtree(other, ignore_errors=True)


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
