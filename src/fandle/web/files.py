"""Files that go out and come in a part at a time, so that their length costs no memory."""

import logging
from collections.abc import Callable, Iterator
from tempfile import SpooledTemporaryFile
from typing import IO, TypeVar, cast

from fastapi import Request
from fastapi.responses import StreamingResponse
from starlette.concurrency import run_in_threadpool

from fandle.store.errors import StoreError

LOG = logging.getLogger(__name__)
T = TypeVar("T")
IN_MEMORY = 1_000_000  # bytes of what comes in that are kept in memory; the rest waits on the disk
TOGETHER = 200  # parts sent at a time
BROKEN_OFF = "\n!!! this file breaks off here: what comes next could not be read; see the server's log\n"


def download(parts: Iterator[str], media: str, name: str) -> StreamingResponse:
    """A file to keep, sent as it is made."""
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return StreamingResponse(_together(parts), media_type=media, headers=headers)


def _together(parts: Iterator[str]) -> Iterator[str]:
    """Some hundred parts at a time: each is a trip to another thread.

    Where making them fails, the file says so on a line that no reader takes for one of its own, and the connection
    ends in the middle: a browser shows a download that failed.
    """
    waiting: list[str] = []
    try:
        for part in parts:
            waiting.append(part)
            if len(waiting) >= TOGETHER:
                yield "".join(waiting)
                waiting.clear()
    except Exception:
        LOG.exception("a file breaks off")
        yield "".join(waiting) + BROKEN_OFF
        raise
    yield "".join(waiting)


async def received(request: Request, use: Callable[[IO[bytes]], T]) -> T:
    """What `use` makes, in a thread, of the file that comes as the request's body."""
    try:
        with SpooledTemporaryFile(IN_MEMORY) as file:
            async for part in request.stream():
                await run_in_threadpool(file.write, part)
            file.seek(0)
            return await run_in_threadpool(use, cast(IO[bytes], file))
    except OSError as fault:
        raise StoreError(f"nothing was saved ({fault.strerror}): free some space on the disk, then try again") from None
