"""The folder where compiled kernels are kept, and whether all of them are there. Loads no compiler."""

import hashlib
import os
import shutil
import sys
import tempfile
from contextlib import suppress
from functools import cache
from importlib.metadata import version
from pathlib import Path

from platformdirs import user_cache_path

PREFIX = "fandle-kernels-"
PRIVATE = 0o700
PROGRESS = "progress"  # a file there: the share that is done
DONE = "complete"  # another: all of them are there


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


def progress() -> float:
    """How far another process is that compiles into the same folder, 0 to 1; 0 where none does."""
    try:
        return 1.0 if ready() else float((cache_folder() / PROGRESS).read_text("ascii"))
    except (OSError, ValueError):
        return 0.0


def tell(done: float) -> None:
    """Say to other processes how far this one is."""
    with suppress(OSError):
        (cache_folder() / PROGRESS).write_text(f"{done:.3f}", "ascii")


def ready() -> bool:
    """Were all kernels compiled from these very sources before? Then warming takes a second, not a minute."""
    return (cache_folder() / DONE).exists()


def mark() -> None:
    """All of them are there; those of other sources go."""
    if not ready():
        forget_old()
        (cache_folder() / DONE).touch()
