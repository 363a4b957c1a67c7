"""The log as files: exports and the import, streamed, so that their length costs no memory."""

from collections.abc import Iterator
from tempfile import SpooledTemporaryFile
from typing import IO, Annotated, cast

from fastapi import APIRouter, Depends, Query, Request
from fastapi.responses import StreamingResponse
from starlette.concurrency import run_in_threadpool

from fandle.formats.log import csv_parts, json_parts
from fandle.store import log
from fandle.store.database import Database
from fandle.store.log_files import take_in
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT

router = APIRouter()
Key = Annotated[int | None, Query(ge=1, le=2**53)]  # a record's id


def wanted_of(set_up: str = "", result: str = "", table: Key = None, version: Key = None) -> log.Filter:
    """What the Log room's address asks for: everything, one set-up, one result."""
    return log.Filter(set_up, result, table, version)


Wanted = Annotated[log.Filter, Depends(wanted_of)]
IN_MEMORY = 1_000_000  # bytes of an import kept in memory; the rest waits on the disk
LINES = 200  # attempts sent at a time


@router.get(address.LOG_CSV, response_class=StreamingResponse, responses=FAULTS)
def log_csv(request: Request, wanted: Wanted) -> StreamingResponse:
    """The attempts wanted as CSV: one header line, UTF-8, decimal points, empty where nothing is known."""
    parts = csv_parts(log.every(request.app.state.database, wanted))
    return _file(parts, "text/csv; charset=utf-8", "fandle-log.csv")


@router.get(address.LOG_JSON, response_class=StreamingResponse, responses=FAULTS)
def log_json(request: Request, wanted: Wanted) -> StreamingResponse:
    """The attempts wanted as JSON, with their layouts, strokes and aims whole."""
    return _file(json_parts(log.every(request.app.state.database, wanted)), "application/json", "fandle-log.json")


def _file(parts: Iterator[str], media: str, name: str) -> StreamingResponse:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return StreamingResponse(_together(parts), media_type=media, headers=headers)


def _together(parts: Iterator[str]) -> Iterator[str]:
    """Some hundred parts at a time: each is a trip to another thread."""
    waiting: list[str] = []
    for part in parts:
        waiting.append(part)
        if len(waiting) >= LINES:
            yield "".join(waiting)
            waiting.clear()
    yield "".join(waiting)


@router.post(address.LOG_IMPORT, responses=KEPT)
async def import_log(request: Request) -> dict[str, int]:
    """A log file, JSON or CSV, taken in: all of it or nothing. Attempts that are kept already stay as they are."""
    database: Database = request.app.state.database
    with SpooledTemporaryFile(IN_MEMORY) as file:
        async for part in request.stream():
            file.write(part)
        return await run_in_threadpool(take_in, database, cast(IO[bytes], file))
