"""What the verbs that keep the data do. Loaded by them alone: the database takes 0.7 s."""

import sys
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import TextIO

from fandle.core.errors import BadInputError
from fandle.core.words.names import clean_name
from fandle.formats.log import csv_parts, json_parts
from fandle.store import log, me
from fandle.store.backup import Backup
from fandle.store.backup import backup as make_backup
from fandle.store.backup import restore as put_back
from fandle.store.database import Database
from fandle.store.folder import home_folder
from fandle.store.log_files import take_in as take_log_in
from fandle.store.standing import my_club


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
        parts = (csv_parts if file.endswith(".csv") else json_parts)(rows, my_club(database))
        if file == "-":
            sys.stdout.writelines(parts)
            return False
        try:
            with replacing(Path(file)) as out:
                out.writelines(parts)
        except OSError as fault:
            raise BadInputError(
                f"cannot write {file!r} ({fault.strerror}): check the file's name and folder", code="no_file"
            ) from None
    return True


def ask_nickname(nickname: str | None) -> bool:
    """Take the nickname that was given; is one still to be asked for? That is said once."""
    with closing(Database.open(home_folder())) as database:
        asked = nickname is None and me.to_be_asked(database)
        if asked or nickname is not None:
            me.answer(database, None if nickname is None else clean_name(nickname, "nickname"))
        return asked


@contextmanager
def replacing(path: Path) -> Iterator[TextIO]:
    """A file to be written, which takes its place only once it is whole; what cannot be replaced is written to."""
    if path.exists() and not path.is_file():
        with path.open("w", encoding="utf-8", newline="") as out:
            yield out
        return
    part = path.with_name(f"{path.name}.part")
    try:
        with part.open("w", encoding="utf-8", newline="") as out:
            yield out
        part.replace(path)
    finally:
        part.unlink(missing_ok=True)


def take_in(file: Path, player: str) -> dict[str, int]:
    """The attempts of an exported log, taken in: how many there are, and how many were new. player: what one is to be
    called here who has no name in it, or mine."""
    try:
        with file.open("rb") as source, closing(Database.open(home_folder())) as database:
            return take_log_in(database, source, player)
    except BadInputError as fault:
        if fault.code != "whose":
            raise
        raise BadInputError(f"{fault}: give --player NAME", fault.field, code=fault.code) from None
    except OSError as fault:
        raise BadInputError(
            f"cannot read {str(file)!r} ({fault.strerror}): check the file's name", code="no_file"
        ) from None
