"""Copies of the database, made while it is in use, and brought back."""

import os
import shutil
import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from fandle.store.database import FILE, Database, check_file, connect, copy, copy_path, synced
from fandle.store.errors import BusyStoreError, StoreError
from fandle.store.folder import BESIDE, FILE_MODE, FOLDER_MODE, make_private
from fandle.store.log import now
from fandle.store.preferences import preference, set_preference
from fandle.store.schema import foreign_to
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
    if target.exists() or target.is_symlink():
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

    What was there may be damaged, or newer than this version. Refused while a server holds the folder, and where the
    file is no Fandle database, or holds what none of ours does. At every moment the folder holds one whole database:
    the one before, or the one restored.
    """
    if not source.exists():
        raise StoreError(f"there is no file {source}: check its name")
    version = check_file(source)
    if version is None:
        raise StoreError(f"{source} is empty: it is no copy of a Fandle database")
    with closing(connect(source, "ro")) as found:
        foreign = foreign_to(found, version)
    if foreign:
        raise StoreError(f"{source} is no copy that Fandle made ({foreign}): nothing was restored")
    holder = held_by(folder)
    if holder is not None:
        raise StoreError(f"{holder} uses this data folder: stop it, then restore")
    make_private(folder)
    target = (folder / FILE).resolve()  # a link stays one
    fresh = target.parent / f"restoring-{os.getpid()}.sqlite3"
    try:
        _make_ready(source, fresh)
        kept = _keep_aside(target, folder)
        os.replace(fresh, target)
        synced(target)
    except (OSError, sqlite3.Error) as fault:
        raise StoreError(f"nothing was restored ({fault}): check the folder's space and rights") from None
    finally:
        for end in BESIDE:
            Path(f"{fresh}{end}").unlink(missing_ok=True)
    return kept


def _make_ready(source: Path, fresh: Path) -> None:
    """A copy of the copy, migrated, whole in its one file."""
    copy(source, fresh)
    database = Database(fresh)
    database.migrate()
    database.close()
    with closing(connect(fresh, "rw")) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        connection.execute("PRAGMA journal_mode = DELETE")


def _keep_aside(target: Path, folder: Path) -> Path | None:
    """What is in the way of a restored database, copied into the folder of copies; None where there is nothing.

    A sound one is copied by SQLite, and what it has still beside it is folded in. Of one that cannot be read every
    file is kept as it is.
    """
    if not target.exists() or target.stat().st_size == 0:
        return None
    kept = copy_path(folder / FILE, "before-restore")
    try:
        check_file(target)
        copy(target, kept)
        with closing(connect(target, "rw")) as old:
            busy = old.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()[0]
            if busy or old.execute("PRAGMA journal_mode = DELETE").fetchone()[0] != "delete":
                raise BusyStoreError("another program uses this database: close that, then restore")
    except BusyStoreError:
        raise
    except StoreError:
        kept.parent.mkdir(parents=True, exist_ok=True, mode=FOLDER_MODE)
        for end in BESIDE:
            part = Path(f"{target}{end}")
            if part.exists():
                shutil.copyfile(part, f"{kept}{end}")
                os.chmod(f"{kept}{end}", FILE_MODE)
                synced(Path(f"{kept}{end}"))
        for end in BESIDE[1:]:  # else SQLite would play what is left of the old one into the new one
            Path(f"{target}{end}").unlink(missing_ok=True)
    return kept
