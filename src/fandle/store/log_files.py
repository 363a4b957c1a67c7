"""A log file taken in."""

from typing import IO, Any, cast

from fandle.core.errors import BadInputError
from fandle.formats.log import read_log
from fandle.store import log
from fandle.store.database import Database


def take_in(database: Database, file: IO[bytes]) -> dict[str, int]:
    """Read a log file twice: first to check every attempt, then to keep those that are new."""
    file.seek(0)
    found = sum(1 for _ in read_log(cast(Any, file)))
    if not found:
        raise BadInputError("the file holds no attempt: export a log first", "file")
    file.seek(0)
    rows = (log.Noted(**attempt.model_dump(mode="json", exclude_unset=True)) for attempt in read_log(cast(Any, file)))
    return {"attempts": found, "new": log.note_all(database, rows)}
