"""The application: its parts put together."""

import gc
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from fastapi.staticfiles import StaticFiles
from fastapi.templating import Jinja2Templates

from fandle.core.warm import warm
from fandle.store.database import Database
from fandle.store.demo_data import demo_club, demo_practice
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
    pass_page,
)
from fandle.web.devices import Devices
from fandle.web.errors import handle_errors
from fandle.web.gate import Gate
from fandle.web.known import Shelf
from fandle.web.settings import Settings
from fandle.web.work import Works

HERE = Path(__file__).parent


def create_app(settings: Settings) -> FastAPI:
    """The application for a data folder. Raises StoreError if the folder cannot be used."""
    database = Database.open(settings.home)
    if settings.demo:
        fill_demo(database, demo_club(), demo_practice)

    @asynccontextmanager
    async def lifespan(_: FastAPI) -> AsyncIterator[None]:
        warm()
        for name in templates.env.list_templates(["html"]):
            templates.env.get_template(name)  # compiled now, not in front of a user
        gc.collect()
        gc.freeze()  # what is loaded stays: looking through all of it again stops every request for 0.1 s and more
        yield
        app.state.works.close()
        database.close()

    app = FastAPI(title="Fandle", docs_url=None, redoc_url=None, lifespan=lifespan)
    app.state.database = database
    app.state.shelf = Shelf(database)
    app.state.settings = settings
    app.state.devices = Devices(database)
    app.state.works = Works()
    app.state.templates = templates = Jinja2Templates(HERE / "templates")
    app.include_router(pages.router)
    app.include_router(api.router)
    app.include_router(api_log.router)
    app.include_router(log_page.router)
    app.include_router(log_files.router)
    app.include_router(club_page.router)
    app.include_router(compare_page.router)
    app.include_router(handbook_page.router)
    app.include_router(api_club.router)
    app.include_router(pass_page.router)
    app.mount(address.STATIC, StaticFiles(directory=HERE / "static"), name="static")
    handle_errors(app)
    app.add_middleware(
        Gate,
        settings=settings,
        devices=app.state.devices,
        works=app.state.works,
        pass_page=pass_page.door(templates.env),
    )
    return app
