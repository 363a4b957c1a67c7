"""Who may do what: every request is looked at here before anything of it is read.

The Host must be one of ours (else a rebound name could read). Whatever writes must come from our own pages, or from
a script on this machine. Bodies are JSON unless a route takes files, and small unless it takes large ones. From
beyond this machine nothing is read or written without a device's cookie; without it there is only the pass page.
"""

import asyncio
import ipaddress
import json
import socket
from collections.abc import Callable
from urllib.parse import quote

from starlette.datastructures import Headers, MutableHeaders
from starlette.requests import cookie_parser
from starlette.responses import HTMLResponse, JSONResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fandle.web import address
from fandle.web.devices import COOKIE, Devices
from fandle.web.faults import fault_body
from fandle.web.settings import Settings
from fandle.web.work import Works

MOST_BODY = 1_000_000  # bytes
MOST_IMPORT = 100_000_000  # of a log file
BODY_S = 20.0  # for the next part of a body to come
READS = ("GET", "HEAD", "OPTIONS")
LOOPBACK = ("localhost", "127.0.0.1", "::1")
JSON_TYPE, TEXT, FORM = "application/json", "text/plain", "application/x-www-form-urlencoded"
TYPES = {
    address.READ_LAYOUT: (TEXT,),
    address.READ_TABLE: (TEXT,),
    address.READ_SET: (TEXT,),
    address.READ_RESULTS: (TEXT,),
    address.LOG_IMPORT: (JSON_TYPE, "text/csv"),
    address.PASS: (FORM,),
}
SECURITY = {
    "Content-Security-Policy": (
        "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; "
        "img-src 'self' data:; connect-src 'self'; form-action 'self'; base-uri 'none'; "
        "frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class RefusedError(Exception):
    """A request that is not let in: the status, the sentence, the field."""

    def __init__(self, status: int, sentence: str, field: str = "") -> None:
        super().__init__(sentence)
        self.status, self.body = status, fault_body(status, sentence, field)

    def response(self) -> Response:
        """What the client gets. Where its body was not read, the connection ends."""
        closing = {"Connection": "close"} if self.status in (408, 411, 413, 415) else {}
        return JSONResponse(self.body, self.status, closing)


def secured(send: Send, path: str) -> Send:
    """`send` with the headers that every answer carries, errors too."""

    async def with_headers(message: Message) -> None:
        if message["type"] == "http.response.start":
            headers = MutableHeaders(scope=message)
            for name, value in SECURITY.items():
                headers.setdefault(name, value)
            # static files are asked again by their tag
            if not path.startswith(address.STATIC):
                headers["Cache-Control"] = "no-store"
            elif "Cache-Control" not in headers:  # a file that says how long it lasts knows best
                headers["Cache-Control"] = "no-cache"
        await send(message)

    return with_headers


def _telling(send: Send, begun: Callable[[], None]) -> Send:
    """`send` that tells when the answer begins: an export then goes on for a while, and nobody waits for it."""

    async def tell(message: Message) -> None:
        if message["type"] == "http.response.start":
            begun()
        await send(message)

    return tell


class Gate:
    """The ASGI application behind its gate."""

    def __init__(
        self, app: ASGIApp, settings: Settings, devices: Devices, works: Works, pass_page: Callable[[Scope], str]
    ) -> None:
        self.app, self.settings, self.devices, self.works, self.pass_page = app, settings, devices, works, pass_page
        self.names = {*LOOPBACK, *(name.lower() for name in settings.hosts)}
        if settings.beyond:
            here = socket.gethostname().lower()
            self.names |= {here, f"{here}.local"}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "websocket":
            await send({"type": "websocket.close", "code": 1008})
            return
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        send = secured(send, scope["path"])
        try:
            headers = Headers(scope=scope)
            host = self._host(scope, headers)
            scope.setdefault("state", {})["insider"] = inside = _is_loopback(scope) and host in LOOPBACK
            if not inside and not self._is_known(headers) and scope["path"] != address.PASS:
                await self._at_the_door(scope, headers)(scope, receive, send)
                return
            if scope["method"] not in READS:
                _check_origin(scope, headers, inside)
                _check_type(scope, headers)
            receive = await _bounded(scope, headers, receive)
        except RefusedError as refused:
            await refused.response()(scope, receive, send)
            return
        if scope["path"] == address.LOG_IMPORT:  # takes as long as the upload
            await self.app(scope, receive, send)
            return
        leave = self.works.present()
        try:
            await self.app(scope, receive, _telling(send, leave))
        finally:
            leave()

    def _host(self, scope: Scope, headers: Headers) -> str:
        """The name in the Host header, without its port; refused where it is not ours."""
        host = _name(headers.get("host", ""))
        mine = scope.get("server") or ("", 0)
        if host in self.names or (self.settings.beyond and host == str(mine[0]).lower()):
            return host
        raise RefusedError(421, "this name is not Fandle's: open the address that it prints when it starts", "host")

    def _is_known(self, headers: Headers) -> bool:
        return self.devices.knows(cookie_parser(headers.get("cookie", "")).get(COOKIE, ""))

    def _at_the_door(self, scope: Scope, headers: Headers) -> Response:
        """What a device without a pass gets: the pass page, or the same said to a script."""
        if scope["method"] == "GET" and "text/html" in headers.get("accept", ""):
            return pass_response(self.pass_page(scope), 401)
        return RefusedError(401, f"this device has no pass yet: open {address.PASS} on it first", "pass").response()


def pass_response(page: str, status: int = 200) -> HTMLResponse:
    """The pass page, which needs no other file; its style is its own and it runs no script."""
    policy = (
        "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
    )
    # a form sent from a page without any referrer would say that it comes from nowhere
    return HTMLResponse(page, status, {"Content-Security-Policy": policy, "Referrer-Policy": "same-origin"})


def _name(host: str) -> str:
    host = host.strip().lower()
    if host.startswith("["):
        return host[1:].partition("]")[0]
    return host.partition(":")[0]


def _is_loopback(scope: Scope) -> bool:
    try:
        peer = ipaddress.ip_address((scope.get("client") or ("", 0))[0])
    except ValueError:
        return False
    mapped = getattr(peer, "ipv4_mapped", None)
    return bool((mapped or peer).is_loopback)


def _check_origin(scope: Scope, headers: Headers, inside: bool) -> None:
    """Only our own pages write; a script, which sends neither header, only on this machine."""
    origin, site = headers.get("origin"), headers.get("sec-fetch-site")
    if origin is None and site is None:
        if not inside:
            raise RefusedError(403, "only Fandle's own pages may do that from another device", "origin")
        return
    ours = f"{scope.get('scheme', 'http')}://{headers.get('host', '').lower()}"
    if (origin is not None and origin.lower() != ours) or site not in (None, "same-origin"):
        raise RefusedError(403, "another web page asked for that: only Fandle's own pages may", "origin")


def _check_type(scope: Scope, headers: Headers) -> None:
    length = headers.get("content-length")
    if length in (None, "0") and "transfer-encoding" not in headers:
        return  # nothing is sent
    kinds = TYPES.get(scope["path"], (JSON_TYPE,))
    if headers.get("content-type", "").partition(";")[0].strip().lower() not in kinds:
        raise RefusedError(415, f"the body must be sent as {' or '.join(kinds)}", "content-type")


async def _bounded(scope: Scope, headers: Headers, receive: Receive) -> Receive:
    """`receive` that gives a body no larger than its route takes, and waits for no part of it for ever.

    A small body is read whole before anything is worked out; an import is passed on part by part.
    """
    large = scope["path"] == address.LOG_IMPORT
    most = MOST_IMPORT if large else MOST_BODY
    length = headers.get("content-length", "0")
    if not length.isdigit():
        raise RefusedError(400, "the length of the body is not a number", "content-length")
    if int(length) > most:
        raise _too_large(most)
    if large:
        return _counted(receive, most)
    if length == "0" and "transfer-encoding" not in headers:
        return receive
    body = b""
    while True:
        message = await _part(receive)
        if message["type"] == "http.disconnect":
            return _replay(message, receive)
        body += message.get("body", b"")
        if len(body) > most:
            raise _too_large(most)
        if not message.get("more_body", False):
            break
    _check_text(body)
    return _replay({"type": "http.request", "body": body, "more_body": False}, receive)


def _too_large(most: int) -> RefusedError:
    return RefusedError(413, f"that is more than {most // 1_000_000} MB: send less at once", "body")


async def _part(receive: Receive) -> Message:
    try:
        return await asyncio.wait_for(receive(), BODY_S)
    except TimeoutError:
        raise RefusedError(408, "the rest of the body did not come: send it again", "body") from None


def _check_text(body: bytes) -> None:
    r"""Refuse text that no database and no file takes: bytes that are not UTF-8, half a surrogate pair (\ud800)."""
    try:
        text = body.decode("utf-8")
        if "\\ud" in text.lower():
            json.dumps(json.loads(text), ensure_ascii=False).encode()
    except UnicodeError:
        raise RefusedError(
            422, "the text holds half a character, which cannot be kept: type it again", "body"
        ) from None
    except (ValueError, RecursionError):
        return  # not JSON: said where it is read


def _replay(first: Message, receive: Receive) -> Receive:
    waiting = [first]

    async def again() -> Message:
        return waiting.pop() if waiting else await receive()

    return again


def _counted(receive: Receive, most: int) -> Receive:
    seen = 0

    async def next_part() -> Message:
        nonlocal seen
        message = await _part(receive)
        seen += len(message.get("body", b""))
        if seen > most:
            raise _too_large(most)
        return message

    return next_part


def door_link(base: str, code: str) -> str:
    """The address that a device opens to use a pass."""
    return f"{base}{address.PASS}?code={quote(code)}"
