"""The one decorator through which every kernel is compiled."""

import hashlib
import os
import sys
import tempfile
from collections.abc import Callable
from importlib.metadata import version
from pathlib import Path
from typing import Any, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

F = TypeVar("F", bound=Callable[..., Any])
Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


def _cache_folder() -> Path:
    """Folder for compiled kernels, named by what they are compiled from.

    Numba's own cache does not notice an edited callee in another module, so the
    name carries a hash of all kernel sources and of the compiler's version. It lies
    in the environment where that is writable, else in the system's temporary folder.
    """
    digest = hashlib.sha256(version("numba").encode() + sys.version.encode())
    for source in sorted(Path(__file__).parent.glob("*.py")):
        digest.update(source.read_bytes())
    name = f"fandle-kernels-{digest.hexdigest()[:16]}"
    for base in (Path(sys.prefix), Path(tempfile.gettempdir())):
        folder = base / "var" / name if base == Path(sys.prefix) else base / name
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError:
            continue
        if os.access(folder, os.W_OK):
            return folder
    return Path(tempfile.mkdtemp(prefix=name))


os.environ.setdefault("NUMBA_CACHE_DIR", str(_cache_folder()))

import numba  # noqa: E402  (reads NUMBA_CACHE_DIR when it is imported)


def kernel(function: F) -> F:
    """Compile one kernel: cached, without the interpreter lock, serial, strict floats.

    No fastmath (NaN means "misses") and no parallel loops (one threading layer aborts
    on concurrent calls, another breaks forked children).
    """
    compiled = numba.njit(cache=True, nogil=True, error_model="numpy")(function)
    return cast(F, compiled)
