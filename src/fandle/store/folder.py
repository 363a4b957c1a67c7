"""Where everything is kept, and who may look into it: whoever runs Fandle, and nobody else."""

import os
import stat
from contextlib import suppress
from pathlib import Path

from fandle.store.errors import StoreError

FOLDER_MODE, FILE_MODE = 0o700, 0o600
OTHERS_WRITE = stat.S_IWGRP | stat.S_IWOTH
BESIDE = ("", "-wal", "-shm", "-journal")  # what SQLite writes beside a database


def home_folder() -> Path:
    """The data folder, as the environment names it."""
    given = os.environ.get("FANDLE_HOME", "")
    if not given:
        return Path.home() / ".fandle"
    try:
        return Path(given).expanduser().absolute()
    except RuntimeError:
        raise StoreError(f"FANDLE_HOME {given!r} names a user nobody knows: give the folder's whole path") from None


def make_private(folder: Path) -> None:
    """The folder, made where there is none, for its owner alone; what stands in it, too.

    What belongs to somebody else stays as it is, and so does a folder that everybody shares, like /tmp: `told_open`
    says so. Raises StoreError.
    """
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=FOLDER_MODE)
    except OSError as fault:
        raise StoreError(
            f"cannot make the data folder {folder} ({fault.strerror}): set FANDLE_HOME to one you can write"
        ) from None
    with suppress(OSError):
        if not folder.stat().st_mode & stat.S_ISVTX:
            folder.chmod(FOLDER_MODE)


def close_off(database: Path) -> None:
    """A database, made where there is none, for its owner alone, with what SQLite writes beside it."""
    with suppress(OSError):
        os.close(os.open(database, os.O_CREAT | os.O_WRONLY, FILE_MODE))
    for end in BESIDE:
        with suppress(OSError):
            Path(f"{database}{end}").chmod(FILE_MODE)
    for path in (database.parent / "backups").glob("*"):
        with suppress(OSError):
            path.chmod(FILE_MODE)


def open_to_others(folder: Path) -> bool:
    """Can anybody but its owner write to the folder?"""
    try:
        return bool(folder.stat().st_mode & OTHERS_WRITE)
    except OSError:
        return False


def told_open(folder: Path, *, before: bool) -> str:
    """A sentence where others can write to the data folder, or could `before` it was closed to them, or can put another
    in its place; "" where they cannot."""
    if open_to_others(folder):
        return f"others can write to the data folder {folder}: make it yours alone (chmod 700), or set FANDLE_HOME"
    if before:
        return f"others could write to the data folder {folder} until now: look whether all in it is yours"
    above = folder.resolve().parent
    with suppress(OSError):
        mode = above.stat().st_mode
        if mode & OTHERS_WRITE and not mode & stat.S_ISVTX:
            return (
                f"others can write to {above} and so put another data folder in the place of yours: set FANDLE_HOME to "
                "a folder within your own"
            )
    return ""
