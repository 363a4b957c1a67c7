"""The log as files: exports and the import, streamed, so that their length costs no memory."""

from collections.abc import Iterator
from typing import IO, Annotated

from fastapi import APIRouter, Depends, Query, Request
from fastapi.responses import StreamingResponse

from fandle.formats.log import csv_parts, json_parts
from fandle.store import log
from fandle.store.database import Database
from fandle.store.log_files import take_in
from fandle.store.standing import my_club
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.files import download, received
from fandle.web.known import library_of

router = APIRouter()
Key = Annotated[int | None, Query(ge=1, le=2**53)]  # a record's id


def wanted_of(set_up: str = "", result: str = "", table: Key = None, version: Key = None) -> log.Filter:
    """What the Log room's address asks for: everything, one set-up, one result."""
    return log.Filter(set_up, result, table, version)


Wanted = Annotated[log.Filter, Depends(wanted_of)]


@router.get(address.LOG_CSV, response_class=StreamingResponse, responses=FAULTS)
def log_csv(request: Request, wanted: Wanted) -> StreamingResponse:
    """The attempts wanted as CSV: one header line, UTF-8, decimal points, empty where nothing is known."""
    database = request.app.state.database
    parts = csv_parts(log.every(database, wanted), my_club(database))
    return download(parts, "text/csv; charset=utf-8", "fandle-log.csv")


@router.get(address.LOG_JSON, response_class=StreamingResponse, responses=FAULTS)
def log_json(request: Request, wanted: Wanted) -> StreamingResponse:
    """The attempts wanted as JSON, with their layouts, strokes and aims whole."""
    return download(_json(request.app.state.database, wanted), "application/json", "fandle-log.json")


def _json(database: Database, wanted: log.Filter) -> Iterator[str]:
    return json_parts(log.every(database, wanted), my_club(database))


@router.post(address.LOG_IMPORT, responses=KEPT)
async def import_log(request: Request, player: str = "") -> dict[str, int]:
    """A log file, JSON or CSV, taken in: all of it or nothing. Attempts that are kept already stay as they are.

    player: what a player is to be called here who has no name in the file, or mine.
    """
    return await received(request, lambda file: _taken(request, file, player))


def _taken(request: Request, file: IO[bytes], player: str) -> dict[str, int]:
    done = take_in(request.app.state.database, file, player)
    library_of(request).forget()  # tables may have come with the attempts
    return done
