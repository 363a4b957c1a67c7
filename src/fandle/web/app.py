"""The application: its parts put together, and the one place where errors become HTTP."""

from collections.abc import AsyncIterator, Awaitable, Callable
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI, Request, Response
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from fastapi.staticfiles import StaticFiles
from fastapi.templating import Jinja2Templates

from fandle.core.errors import BadInputError, EngineError
from fandle.core.warm import warm
from fandle.formats.base import fault_sentence
from fandle.store.database import Database
from fandle.store.demo_data import demo_club, demo_practice
from fandle.store.errors import NameTakenError, NotFoundError, StoreError
from fandle.store.queries import fill_demo
from fandle.web import (
    address,
    api,
    api_club,
    api_log,
    club_page,
    compare_page,
    handbook_page,
    log_files,
    log_page,
    pages,
)
from fandle.web.known import Shelf
from fandle.web.settings import Settings

HERE = Path(__file__).parent
SECURITY = {
    "Content-Security-Policy": (
        "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; "
        "img-src 'self' data:; connect-src 'self'; form-action 'self'; base-uri 'none'; "
        "frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
}


def create_app(settings: Settings) -> FastAPI:
    """The application for a data folder. Raises StoreError if the folder cannot be used."""
    database = Database.open(settings.home)
    if settings.demo:
        fill_demo(database, demo_club(), demo_practice)

    @asynccontextmanager
    async def lifespan(_: FastAPI) -> AsyncIterator[None]:
        warm()
        yield
        database.close()

    app = FastAPI(title="Fandle", docs_url=None, redoc_url=None, lifespan=lifespan)
    app.state.database = database
    app.state.shelf = Shelf(database)
    app.state.templates = Jinja2Templates(HERE / "templates")
    app.include_router(pages.router)
    app.include_router(api.router)
    app.include_router(api_log.router)
    app.include_router(log_page.router)
    app.include_router(log_files.router)
    app.include_router(club_page.router)
    app.include_router(compare_page.router)
    app.include_router(handbook_page.router)
    app.include_router(api_club.router)
    app.mount(address.STATIC, StaticFiles(directory=HERE / "static"), name="static")
    _handle_errors(app)

    @app.middleware("http")
    async def secure(request: Request, call_next: Callable[[Request], Awaitable[Response]]) -> Response:
        response = await call_next(request)
        response.headers.update(SECURITY)
        static = request.url.path.startswith(address.STATIC)
        response.headers["Cache-Control"] = "no-cache" if static else "no-store"  # files are asked again by tag
        return response

    return app


def _handle_errors(app: FastAPI) -> None:
    def fault(status: int, message: str, field: str = "") -> JSONResponse:
        return JSONResponse({"error": message, "field": field}, status)

    @app.exception_handler(BadInputError)
    def bad_input(_: Request, error: BadInputError) -> JSONResponse:
        return fault(422, str(error), error.field)

    @app.exception_handler(EngineError)
    def engine(_: Request, error: EngineError) -> JSONResponse:
        return fault(422, str(error))

    @app.exception_handler(NotFoundError)
    def not_found(_: Request, error: NotFoundError) -> JSONResponse:
        return fault(404, str(error))

    @app.exception_handler(NameTakenError)
    def taken(_: Request, error: NameTakenError) -> JSONResponse:
        return fault(409, str(error), "name")

    @app.exception_handler(StoreError)
    def store(_: Request, error: StoreError) -> JSONResponse:
        return fault(503, str(error))

    @app.exception_handler(RequestValidationError)
    def validation(_: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        if first["type"] == "json_invalid":
            return fault(400, "the body is not JSON: send the question as JSON", "body")
        return fault(422, fault_sentence(first), ".".join(str(part) for part in first["loc"]))
