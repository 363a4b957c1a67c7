"""While the engine is compiled for the first time: a page that shows how far it is, and a 503 for programs."""

from collections.abc import Callable

from jinja2 import Environment
from starlette.datastructures import Headers
from starlette.responses import HTMLResponse, JSONResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from fandle.service.warm import ABOUT, Warming
from fandle.web import address
from fandle.web.faults import fault_body

RETRY_S = 2
OPEN = (address.STATIC, address.HEALTH, address.PASS)  # what needs no engine


def waiting_page(templates: Environment) -> Callable[[float], str]:
    """The page, given the share that is done."""
    return lambda done: templates.get_template("waiting.html").render(done=round(100 * done), room="", about=ABOUT)


class Waiting:
    """Answers for the application until the engine is ready."""

    def __init__(self, app: ASGIApp, warming: Warming, page: Callable[[float], str]) -> None:
        self.app, self.warming, self.page = app, warming, page

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, or answer it."""
        if scope["type"] != "http" or self.warming.ready or scope["path"].startswith(OPEN):
            await self.app(scope, receive, send)
        else:
            await self._wait(scope)(scope, receive, send)

    def _wait(self, scope: Scope) -> Response:
        headers = {"Retry-After": str(RETRY_S), "Cache-Control": "no-store"}
        if scope["method"] == "GET" and "text/html" in Headers(scope=scope).get("accept", ""):
            return HTMLResponse(self.page(self.warming.done), 503, headers)
        told = f"{ABOUT}; {self.warming.done:.0%} is done: ask again in a moment"
        return JSONResponse(fault_body(503, told, code="compiling"), 503, headers)
