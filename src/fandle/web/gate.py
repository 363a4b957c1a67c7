"""Who may do what: every request is looked at here before anything of it is read.

The Host must be one of ours (else a rebound name could read). Whatever writes must come from our own pages, or from
a script on this machine. Bodies are JSON unless a route takes files, and small unless it takes large ones. From
beyond this machine nothing is read or written without a device's cookie; without it there is only the pass page.
"""

import ipaddress
import socket
from collections.abc import Callable
from urllib.parse import quote

from starlette.datastructures import Headers, MutableHeaders
from starlette.requests import cookie_parser
from starlette.responses import HTMLResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fandle.web import address
from fandle.web.bodies import LARGE, RefusedError, bounded
from fandle.web.devices import COOKIE, Devices
from fandle.web.settings import LOOPBACK, Settings
from fandle.work.solvers import Works

READS = ("GET", "HEAD", "OPTIONS")
JSON_TYPE, TEXT, FORM = "application/json", "text/plain", "application/x-www-form-urlencoded"
TYPES = {
    address.READ_LAYOUT: (TEXT,),
    address.READ_TABLE: (TEXT,),
    address.READ_SET: (TEXT,),
    address.READ_RESULTS: (JSON_TYPE, TEXT),
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


class _SentAwayError(Exception):
    """Who is answered was sent away meanwhile."""


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
        """Let a request in, or answer it."""
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
            scope.setdefault("state", {})["insider"] = inside = _peer_is_here(scope) and host in LOOPBACK
            if not inside and not self._is_known(headers) and scope["path"] != address.PASS:
                await self._at_the_door(scope, headers)(scope, receive, send)
                return
            if scope["method"] in READS:
                _check_reader(headers)
            else:
                _check_origin(scope, headers, inside=inside)
                _check_type(scope, headers)
            receive = await bounded(scope, headers, receive)
        except RefusedError as refused:
            await refused.response()(scope, receive, send)
            return
        if scope["path"] in LARGE:  # takes as long as the upload
            await self.app(scope, receive, send)
            return
        leave = self.works.present()
        try:
            await self.app(scope, receive, _telling(send if inside else self._while_known(headers, send), leave))
        except _SentAwayError:
            return
        finally:
            leave()

    def _host(self, scope: Scope, headers: Headers) -> str:
        """The name in the Host header, without its port; refused where it is not ours."""
        host = _name(headers.get("host", ""))
        mine = scope.get("server") or ("", 0)
        if host in self.names or (self.settings.beyond and host == str(mine[0]).lower()):
            return host
        raise RefusedError(421, "this name is not Fandle's: open the address that it prints when it starts", "host")

    def _while_known(self, headers: Headers, send: Send) -> Send:
        """`send` for a device: a stream ends where the device is sent away meanwhile."""

        async def known(message: Message) -> None:
            if message.get("more_body") and not self._is_known(headers):
                await send({"type": "http.response.body", "body": b"", "more_body": False})
                raise _SentAwayError
            await send(message)

        return known

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


def is_loopback(peer: str) -> bool:
    """Is this the address of this machine itself?"""
    try:
        found = ipaddress.ip_address(peer.partition("%")[0])
    except ValueError:
        return False
    mapped = getattr(found, "ipv4_mapped", None)
    return bool((mapped or found).is_loopback)


def _peer_is_here(scope: Scope) -> bool:
    return is_loopback((scope.get("client") or ("", 0))[0])


def _check_origin(scope: Scope, headers: Headers, *, inside: bool) -> None:
    """Only our own pages write; a script, which sends neither header, only on this machine."""
    origin, site = headers.get("origin"), headers.get("sec-fetch-site")
    if origin is None and site is None:
        if not inside:
            raise RefusedError(403, "only Fandle's own pages may do that from another device", "origin")
        return
    ours = f"{scope.get('scheme', 'http')}://{headers.get('host', '').lower()}"
    if (origin is not None and origin.lower() != ours) or site not in (None, "same-origin"):
        raise RefusedError(403, "another web page asked for that: only Fandle's own pages may", "origin")


def _check_reader(headers: Headers) -> None:
    """A page of somebody else's may lead here, but not have things worked out by the hundred, as images, say."""
    if headers.get("sec-fetch-site", "none") in ("same-origin", "none"):
        return
    if headers.get("sec-fetch-mode") == "navigate" and headers.get("sec-fetch-dest") == "document":
        return
    raise RefusedError(403, "another web page asked for that: open the address itself", "origin")


def _check_type(scope: Scope, headers: Headers) -> None:
    length = headers.get("content-length")
    if length in (None, "0") and "transfer-encoding" not in headers:
        return  # nothing is sent
    kinds = TYPES.get(scope["path"], (JSON_TYPE,))
    if headers.get("content-type", "").partition(";")[0].strip().lower() not in kinds:
        raise RefusedError(415, f"the body must be sent as {' or '.join(kinds)}", "content-type")


def door_link(base: str, code: str) -> str:
    """The address that a device opens to use a pass."""
    return f"{base}{address.PASS}?code={quote(code)}"
