"""One server a data folder: who has it says so, and the next one is told."""

import json
import os
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from filelock import FileLock, Timeout

from fandle.store.errors import StoreError
from fandle.store.folder import FILE_MODE, make_private

LOCK, WHO = "serving.lock", "serving.json"


@contextmanager
def serving(folder: Path, address: str) -> Iterator[None]:
    """Hold a data folder while a server runs on it. Only servers do; commands read and write beside them."""
    try:
        make_private(folder)
        lock = FileLock(folder / LOCK, timeout=0, mode=FILE_MODE)
        lock.acquire()
    except Timeout:
        raise StoreError(
            f"{_who(folder)} uses this data folder already: open that address, stop it, or set FANDLE_HOME elsewhere"
        ) from None
    except OSError as fault:
        raise StoreError(
            f"cannot use the data folder {folder} ({fault.strerror}): set FANDLE_HOME to one you can write"
        ) from None
    try:
        (folder / WHO).touch(FILE_MODE)
        (folder / WHO).chmod(FILE_MODE)
        (folder / WHO).write_text(json.dumps({"process": os.getpid(), "address": address}), "utf-8")
        yield
    finally:
        with suppress(OSError):
            (folder / WHO).unlink()
        lock.release()


def held_by(folder: Path) -> str | None:
    """Which server holds a data folder, in words; None where none does."""
    if not (folder / LOCK).exists():
        return None
    lock = FileLock(folder / LOCK, timeout=0)
    try:
        lock.acquire()
    except Timeout:
        return _who(folder)
    lock.release()
    return None


def _who(folder: Path) -> str:
    try:
        who = json.loads((folder / WHO).read_text("utf-8"))
        return f"the server at {who['address']} (process {who['process']})"
    except (OSError, ValueError, KeyError, TypeError):
        return "another server"
