"""While the engine is compiled for the first time: a page that shows how far it is, and a 503 for programs.

Where it runs as plain Python meanwhile, what one aim answers is answered; what takes many shots waits.
"""

from collections.abc import Callable

from jinja2 import Environment
from starlette.datastructures import Headers
from starlette.requests import Request
from starlette.responses import HTMLResponse, JSONResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from fandle.core.physics.jit import PLAIN
from fandle.web import address
from fandle.web.faults import fault_body
from fandle.work.progress import ABOUT
from fandle.work.warm import Elsewhere, Warming

COMPILING_RETRY_S = 2
OPEN = (address.STATIC, address.HEALTH, address.PASS)  # what needs no engine

# what plain Python answers in a second or two, to the letter
BY_ONE_AIM = (
    address.TABLE_ROOM, address.ANSWER, address.ADD_BALL, address.READ_LAYOUT, address.SAVE_LAYOUT, address.EDIT,
    address.LAYOUTS, address.LINK, address.ATTEMPTS_HERE, address.PREFERENCES, address.PLAYER, address.ME,
    address.LOG_ROOM, address.LOG_CSV, address.LOG_JSON, address.CLUB_ROOM, address.CLUB_TABLES, address.CLUB_CUES,
    address.MOVE, address.DEVICES, address.API_DEVICES, address.DOCS,
)  # fmt: skip


def waiting_page(templates: Environment) -> Callable[[float], str]:
    """The page, given the share that is done."""
    return lambda done: templates.get_template("waiting.html").render(done=round(100 * done), room="", about=ABOUT)


def preparing_of(request: Request) -> dict[str, int | None]:
    """For every page: how far the engine is, percent; None where it is ready."""
    warming: Warming | Elsewhere = request.app.state.warming
    return {"preparing": None if warming.ready else round(100 * warming.done)}


class Waiting:
    """Answers for the application until the engine is ready."""

    def __init__(self, app: ASGIApp, warming: Warming | Elsewhere, page: Callable[[float], str]) -> None:
        self.app, self.warming, self.page = app, warming, page

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, or answer it."""
        if scope["type"] != "http" or self.warming.ready or self._needs_none(scope["path"]):
            await self.app(scope, receive, send)
        else:
            await self._wait(scope)(scope, receive, send)

    def _needs_none(self, path: str) -> bool:
        return path.startswith(OPEN) or (PLAIN and path in BY_ONE_AIM)

    def _wait(self, scope: Scope) -> Response:
        headers = {"Retry-After": str(COMPILING_RETRY_S), "Cache-Control": "no-store"}
        if scope["method"] == "GET" and "text/html" in Headers(scope=scope).get("accept", ""):
            return HTMLResponse(self.page(self.warming.done), 503, headers)
        told = f"{ABOUT}; {self.warming.done:.0%} is done: ask again in a moment"
        return JSONResponse(fault_body(503, told, code="compiling"), 503, headers)
