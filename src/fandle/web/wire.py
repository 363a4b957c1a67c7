"""A connection as the wire brings it: how many there may be, how long a head may be, how long anybody waits for one.

The parser grows a header line as it comes, so a line without an end costs quadratic time; what is read between two
steps of the parser is bounded here before it is parsed. TLS is begun here too, so that a connection that says nothing
is counted and ended like any other.
"""

import asyncio
import json
import ssl
from collections import Counter
from collections.abc import Callable
from http import HTTPStatus
from typing import Any, cast

from uvicorn.config import Config
from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol
from uvicorn.server import ServerState

from fandle.web.faults import fault_body
from fandle.web.gate import SECURITY, is_loopback

HEAD_S = 20.0  # for the head of a request, and for TLS to begin
MOST_LINE = 8_000  # bytes of the request line or of one header
MOST_HEAD = 32_000  # bytes of a whole head, of trailers, or of whatever else brings the parser no further
MOST_LINES = 100  # headers
MOST_AHEAD = 4  # requests sent before the one before them is answered: no browser does, and each is kept
MOST_OF_ADDRESS = 64  # connections of one address; of this machine's own there is no such bound
MOST_STRANGERS = 256  # connections from beyond this machine
MOST_HERE = 512  # connections from this machine: files run out at 1,024


class _HeadTooLargeError(Exception):
    """A request whose head is longer than any of ours: the status that says so."""

    def __init__(self, status: int) -> None:
        super().__init__(status)
        self.status = status


class TimedProtocol(HttpToolsProtocol):
    """A connection that is closed where the head of its next request does not come, or is too long."""

    _late: asyncio.TimerHandle | None = None
    _unparsed = 0  # bytes since the parser last got somewhere
    _lines = 0
    _too_large = 0  # the status with which the head was refused

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Begin to wait for the first request."""
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        """Read on, unless what has come leads nowhere; begin to wait again where another request has begun."""
        self._unparsed += len(data)
        if self._unparsed - len(data) > MOST_HEAD:
            self._refuse(431)
            return
        super().data_received(data)
        if self._late is None and (self.cycle is None or self.cycle.response_complete):
            self._wait()

    def on_message_begin(self) -> None:
        """A head begins."""
        self._lines = 0
        super().on_message_begin()

    def on_url(self, url: bytes) -> None:
        """More of the address."""
        super().on_url(url)
        if len(self.url) > MOST_LINE:
            self._stop(414)

    def on_header(self, name: bytes, value: bytes) -> None:
        """One more header, or a trailer."""
        self._lines += 1
        if self._lines > MOST_LINES or len(name) + len(value) > MOST_LINE:
            self._stop(431)
        super().on_header(name, value)
        if sum(len(name) + len(value) for name, value in self.headers) > MOST_HEAD:
            self._stop(431)

    def on_headers_complete(self) -> None:
        """The head is there."""
        self._unparsed = 0
        if len(self.pipeline) >= MOST_AHEAD:
            self._stop(503)
        self._stop_waiting()
        super().on_headers_complete()

    def on_chunk_header(self) -> None:
        """A part of the body begins."""
        self._unparsed = 0

    def on_body(self, body: bytes) -> None:
        """A part of the body."""
        self._unparsed = 0
        super().on_body(body)

    def on_message_complete(self) -> None:
        """The request is there."""
        self._unparsed = 0
        super().on_message_complete()

    def connection_lost(self, exc: Exception | None) -> None:
        """Nothing to wait for any more."""
        self._stop_waiting()
        super().connection_lost(exc)

    def send_400_response(self, msg: str) -> None:
        """What cannot be parsed is refused like everything else: a sentence, with the headers of every answer."""
        self._refuse(self._too_large or 400)

    def _stop(self, status: int) -> None:
        """Leave the parser: it hands the error on as its own, to `send_400_response`."""
        self._too_large = status
        raise _HeadTooLargeError(status)

    def _refuse(self, status: int) -> None:
        if self.transport.is_closing():
            return
        if self.cycle is None or self.cycle.response_complete:  # else it would stand in the middle of an answer
            self.transport.write(refusal(status))
        self.transport.close()

    def _wait(self) -> None:
        self._stop_waiting()
        self._late = self.loop.call_later(HEAD_S, self._close)

    def _stop_waiting(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _close(self) -> None:
        self._late = None
        if not self.transport.is_closing():
            self.transport.close()


SENTENCES = {
    400: "that is not a request in HTTP/1.1: open the address in a browser",
    414: "the address is too long: save the layout as a file instead",
    431: "the head of the request is too long: send fewer and shorter headers",
    503: "too much at once: close some connections, then try again",
}


def refusal(status: int) -> bytes:
    """A whole answer that refuses, for what never becomes a request."""
    body = json.dumps(fault_body(status, SENTENCES[status])).encode()
    head = {
        **SECURITY, "Cache-Control": "no-store", "Content-Type": "application/json",
        "Content-Length": str(len(body)), "Connection": "close",
    }  # fmt: skip
    lines = [f"HTTP/1.1 {status} {HTTPStatus(status).phrase}", *(f"{name}: {value}" for name, value in head.items())]
    return "\r\n".join((*lines, "", "")).encode() + body


class _Count:
    """Connections that are open, by address."""

    def __init__(self) -> None:
        self.of: Counter[str] = Counter()
        self.strangers = self.here = 0

    def come(self, peer: str) -> bool:
        """One more; False where that is too many."""
        if is_loopback(peer):
            if self.here >= MOST_HERE:
                return False
            self.here += 1
            return True
        if self.strangers >= MOST_STRANGERS or self.of[peer] >= MOST_OF_ADDRESS:
            return False
        self.strangers += 1
        self.of[peer] += 1
        return True

    def go(self, peer: str) -> None:
        """One less."""
        if is_loopback(peer):
            self.here -= 1
            return
        self.strangers -= 1
        self.of[peer] -= 1
        if not self.of[peer]:
            del self.of[peer]


class Door(asyncio.Protocol):
    """What a connection meets first: it is counted, and TLS is begun; then it is an HTTP connection.

    secrets: the server's certificate and key, where it speaks HTTPS; count: its open connections.
    """

    secrets: ssl.SSLContext | None = None
    count: _Count

    def __init__(
        self, config: Config, server_state: ServerState, app_state: dict[str, Any],
        _loop: asyncio.AbstractEventLoop | None = None,
    ) -> None:  # fmt: skip
        self._made: Callable[[], TimedProtocol] = lambda: TimedProtocol(config, server_state, app_state, _loop)
        self._inside: TimedProtocol | None = None
        self._early: list[bytes] = []
        self._peer: str | None = None
        self._beginning: asyncio.Task[None] | None = None

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        """Count it, and let it in."""
        plain = cast(asyncio.Transport, transport)
        peer = str((plain.get_extra_info("peername") or ("",))[0])
        if not self.count.come(peer):
            if self.secrets is None:
                plain.write(refusal(503))
                plain.close()
            else:
                plain.abort()
            return
        self._peer = peer
        if self.secrets is None:
            self._enter(plain)
        else:
            plain.pause_reading()  # what comes now belongs to TLS
            self._beginning = asyncio.get_running_loop().create_task(self._begin_tls(plain, self.secrets))

    async def _begin_tls(self, plain: asyncio.Transport, secrets: ssl.SSLContext) -> None:
        loop = asyncio.get_running_loop()
        try:
            found = await loop.start_tls(
                plain, self, secrets, server_side=True, ssl_handshake_timeout=HEAD_S, ssl_shutdown_timeout=HEAD_S
            )
        except (OSError, ssl.SSLError, asyncio.CancelledError):  # a timeout is an OSError, too
            plain.abort()
            self._gone()
            return
        if found is not None:
            self._enter(found)

    def _enter(self, transport: asyncio.Transport) -> None:
        self._inside = self._made()
        self._inside.connection_made(transport)
        for data in self._early:
            self._inside.data_received(data)
        self._early.clear()

    def data_received(self, data: bytes) -> None:
        """Hand on; what comes before TLS is known to have begun waits."""
        if self._inside is None:
            self._early.append(data)
        else:
            self._inside.data_received(data)

    def eof_received(self) -> None:
        """Hand on."""
        if self._inside is not None:
            self._inside.eof_received()

    def pause_writing(self) -> None:
        """Hand on."""
        if self._inside is not None:
            self._inside.pause_writing()

    def resume_writing(self) -> None:
        """Hand on."""
        if self._inside is not None:
            self._inside.resume_writing()

    def connection_lost(self, exc: Exception | None) -> None:
        """Hand on, and count one less."""
        if self._inside is not None:
            self._inside.connection_lost(exc)
        self._gone()

    def _gone(self) -> None:
        if self._peer is not None:
            self.count.go(self._peer)
            self._peer = None


def door(secrets: ssl.SSLContext | None) -> type[Door]:
    """The protocol class of one server. secrets: its certificate and key, where it speaks HTTPS."""
    return type("Door", (Door,), {"secrets": secrets, "count": _Count()})
