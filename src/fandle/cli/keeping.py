"""What the verbs that keep the data do. Loaded by them alone: the database takes 0.7 s."""

import sys
from contextlib import closing
from pathlib import Path

from fandle.core.errors import BadInputError
from fandle.formats.log import csv_parts, json_parts
from fandle.store import log
from fandle.store.backup import Backup
from fandle.store.backup import backup as make_backup
from fandle.store.backup import restore as put_back
from fandle.store.database import Database
from fandle.store.folder import home_folder
from fandle.store.log_files import take_in as take_log_in


def copied(file: Path) -> Backup:
    """Everything that is kept, copied into one file."""
    return make_backup(home_folder(), file)


def restored(file: Path) -> Path | None:
    """A copy put in place of what is kept; where that went, None where nothing was kept."""
    return put_back(home_folder(), file)


def write_log(file: str) -> bool:
    """The log written into a file; False where it went to standard output instead ("-")."""
    with closing(Database.open(home_folder())) as database:
        rows = log.every(database)
        parts = csv_parts(rows) if file.endswith(".csv") else json_parts(rows)
        if file == "-":
            sys.stdout.writelines(parts)
            return False
        try:
            with Path(file).open("w", encoding="utf-8", newline="") as out:
                out.writelines(parts)
        except OSError as fault:
            raise BadInputError(
                f"cannot write {file!r} ({fault.strerror}): check the file's name and folder", code="no_file"
            ) from None
    return True


def take_in(file: Path) -> dict[str, int]:
    """The attempts of an exported log, taken in: how many there are, and how many were new."""
    try:
        with file.open("rb") as source, closing(Database.open(home_folder())) as database:
            return take_log_in(database, source)
    except OSError as fault:
        raise BadInputError(
            f"cannot read {str(file)!r} ({fault.strerror}): check the file's name", code="no_file"
        ) from None
