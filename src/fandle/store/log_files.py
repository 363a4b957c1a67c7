"""A log file taken in."""

from contextlib import closing
from typing import IO, Any, cast

from fandle.core.errors import BadInputError
from fandle.core.words.names import clean_name
from fandle.formats.log import club_of, read_log
from fandle.store import log
from fandle.store.database import Database
from fandle.store.staged import Staged
from fandle.store.standing import guest


def take_in(database: Database, file: IO[bytes], called: str = "") -> dict[str, int]:
    """Keep the attempts of a log file that are new: all of them, or none where anything is wrong with one.

    called: the name of a player who has none in the file, or mine. Raises BadInputError, code "whose", where such a
    name is needed and not given.
    """
    club, called = club_of(cast(Any, file)), clean_name(called, "player") if called else ""
    with closing(Staged()) as staged:
        for attempt in read_log(cast(Any, file)):
            staged.add(attempt.model_dump(mode="json", exclude_unset=True))
        if not staged.count:
            raise BadInputError("the file holds no attempt: export a log first", "file")
        rows = (log.Noted(**record) for record in staged)
        new = log.note_all(database, rows, lambda session, nickname: guest(session, nickname, club, called))
        return {"attempts": staged.count, "new": new}
