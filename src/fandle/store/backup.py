"""Copies of the database, made while it is in use, and brought back."""

import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from fandle.store.database import FILE, Database, check_file, connect, copy, copy_path
from fandle.store.errors import StoreError
from fandle.store.log import now, preference, set_preference
from fandle.store.serving import held_by

LAST = "last_backup"


@dataclass(frozen=True)
class Backup:
    """When the last copy was made, and under which file name."""

    at: str
    name: str


def backup(folder: Path, target: Path) -> Backup:
    """Copy the database in `folder` to the file `target`, which must not exist yet."""
    source = folder / FILE
    if check_file(source) is None:
        raise StoreError(f"there is no database in {folder}: start Fandle once, or set FANDLE_HOME")
    if target.exists():
        raise StoreError(f"{target} exists already: give a new name, so that no copy is written over")
    copy(source, target)
    made = Backup(now(), target.name)
    database = Database.open(folder)
    set_preference(database, LAST, {"at": made.at, "name": made.name})
    database.close()
    return made


def last_backup(database: Database) -> Backup | None:
    """The last copy that was made on purpose; None before the first."""
    kept = preference(database, LAST, None)
    return (
        Backup(str(kept["at"]), str(kept["name"])) if isinstance(kept, dict) and {"at", "name"} <= set(kept) else None
    )


def restore(folder: Path, source: Path) -> Path | None:
    """Put the copy `source` in place of the database in `folder`; what was there is kept: where is returned.

    Refused while a server holds the folder, and where the file is no Fandle database.
    """
    if not source.exists():
        raise StoreError(f"there is no file {source}: check its name")
    if check_file(source) is None:
        raise StoreError(f"{source} is empty: it is no copy of a Fandle database")
    holder = held_by(folder)
    if holder is not None:
        raise StoreError(f"{holder} uses this data folder: stop it, then restore")
    target, kept = folder / FILE, None
    folder.mkdir(parents=True, exist_ok=True)
    if check_file(target) is not None:
        kept = copy_path(target, "before-restore")
        copy(target, kept)
    try:
        with closing(connect(source, "ro")) as old, closing(connect(target, "rwc")) as new:
            old.backup(new)
    except sqlite3.Error as fault:
        raise StoreError(f"nothing was restored ({fault}): check the folder's space and rights") from None
    Database.open(folder).close()  # an older copy is migrated
    return kept
