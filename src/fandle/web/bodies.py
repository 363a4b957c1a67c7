"""What a request brings: no larger than its route takes, no deeper than ours, and not waited for without end."""

import asyncio
import json
import time

from starlette.datastructures import Headers
from starlette.responses import JSONResponse, Response
from starlette.types import Message, Receive, Scope

from fandle.core.errors import BadInputError
from fandle.formats.depth import check_depth
from fandle.web import address
from fandle.web.faults import fault_body

MOST_BODY = 1_000_000  # bytes
MOST_IMPORT = 100_000_000  # of a file that is taken in as it comes
LARGE = (address.LOG_IMPORT, address.READ_RESULTS)
BODY_S = 20.0  # for a body to come, and for each part of a large one
SLOWEST = 10_000.0  # bytes a second of a large one, after the first 20 s


class RefusedError(Exception):
    """A request that is not let in: the status, the sentence, the field."""

    def __init__(self, status: int, sentence: str, field: str = "") -> None:
        super().__init__(sentence)
        self.status, self.body = status, fault_body(status, sentence, field)

    def response(self) -> Response:
        """What the client gets. Where its body was not read, the connection ends."""
        closing = {"Connection": "close"} if self.status in (408, 411, 413, 415) else {}
        return JSONResponse(self.body, self.status, closing)


async def bounded(scope: Scope, headers: Headers, receive: Receive) -> Receive:
    """`receive` that gives a body no larger than its route takes, and waits for no part of it for ever.

    A small body is read whole before anything is worked out; an import is passed on part by part.
    """
    large = scope["path"] in LARGE
    most = MOST_IMPORT if large else MOST_BODY
    length = headers.get("content-length", "0")
    if not (length.isascii() and length.isdigit()):
        raise RefusedError(400, "the length of the body is not a number", "content-length")
    if int(length) > most:
        raise _too_large(most)
    if large:
        return _counted(receive, most)
    if length == "0" and "transfer-encoding" not in headers:
        return receive
    body, until = b"", time.monotonic() + BODY_S
    while True:
        message = await _part(receive, until)
        if message["type"] == "http.disconnect":
            return _replay(message, receive)
        body += message.get("body", b"")
        if len(body) > most:
            raise _too_large(most)
        if not message.get("more_body", False):
            break
    _check_text(body, headers)
    return _replay({"type": "http.request", "body": body, "more_body": False}, receive)


def _too_large(most: int) -> RefusedError:
    return RefusedError(413, f"that is more than {most // 1_000_000} MB: send less at once", "body")


async def _part(receive: Receive, until: float) -> Message:
    try:
        return await asyncio.wait_for(receive(), max(until - time.monotonic(), 0.0))
    except TimeoutError:
        raise RefusedError(408, "the rest of the body did not come: send it again", "body") from None


def _check_text(body: bytes, headers: Headers) -> None:
    r"""Refuse text that no database and no file takes: bytes that are not UTF-8, half a surrogate pair (\ud800).

    And JSON that is nested too deep; a file sent as text is looked at where it is read.
    """
    try:
        if "json" in headers.get("content-type", ""):
            check_depth(body)
        text = body.decode("utf-8")
        if "\\ud" in text.lower():
            json.dumps(json.loads(text), ensure_ascii=False).encode()
    except UnicodeError:
        raise RefusedError(
            422, "the text holds half a character, which cannot be kept: type it again", "body"
        ) from None
    except BadInputError as error:
        raise RefusedError(400, str(error), "body") from None
    except ValueError:
        return  # not JSON: said where it is read


def _replay(first: Message, receive: Receive) -> Receive:
    waiting = [first]

    async def again() -> Message:
        return waiting.pop() if waiting else await receive()

    return again


def _counted(receive: Receive, most: int) -> Receive:
    seen, began = 0, time.monotonic()

    async def next_part() -> Message:
        nonlocal seen
        message = await _part(receive, min(time.monotonic(), began + seen / SLOWEST) + BODY_S)
        seen += len(message.get("body", b""))
        if seen > most:
            raise _too_large(most)
        return message

    return next_part
