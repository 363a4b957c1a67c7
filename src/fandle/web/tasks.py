"""Long work for whoever asked over the web: to its end, or told on the way as lines of JSON."""

import json
from collections.abc import AsyncIterator, Callable, Mapping
from typing import Any, TypeVar

from fastapi import Request
from fastapi.responses import StreamingResponse

from fandle.core.errors import FandleError
from fandle.core.steps import Steps, Telling
from fandle.web.faults import fault_line
from fandle.work.solvers import Works

T = TypeVar("T")
NDJSON = "application/x-ndjson"


def works_of(request: Request) -> Works:
    """The server's solvers."""
    works: Works = request.app.state.works
    return works


async def solve(request: Request, steps: Steps[T], *, quick: bool = True) -> T:
    """What the steps come to. Raises BusyError, ClientGoneError, or BadInputError where it is too much."""
    return await works_of(request).run(steps, request.is_disconnected, quick=quick)


def streamed(
    request: Request, steps: Telling[Any, Any], line_of: Callable[[Any], Mapping[str, object]], questions: int = 1
) -> StreamingResponse:
    """What is known on the way and at last what it comes to, a line each; closing the connection stops the work.

    questions: how many it answers. Raises BusyError where too much is under way.
    """
    works = works_of(request)
    works.room_for_long()

    async def lines() -> AsyncIterator[str]:
        try:
            async for found in works.stream(steps, questions):
                yield json.dumps(line_of(found), allow_nan=False) + "\n"
        except FandleError as error:  # the answer has begun: told in it
            yield fault_line(error)

    return StreamingResponse(lines(), media_type=NDJSON)
