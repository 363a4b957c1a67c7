"""The application: its parts put together."""

import gc
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from fastapi.templating import Jinja2Templates

from fandle.app.library import Library
from fandle.core.physics import kernel_folder
from fandle.core.physics.jit import PLAIN
from fandle.store.database import Database
from fandle.store.stored_club import StoredClub
from fandle.web import demo, docs, me, pass_page, static_files, trust
from fandle.web.check import page as check_page
from fandle.web.club import api as club_api
from fandle.web.club import cue_test
from fandle.web.club import page as club_page
from fandle.web.compare import page as compare_page
from fandle.web.devices import Devices
from fandle.web.errors import handle_errors
from fandle.web.gate import Gate
from fandle.web.handbook import more, technique
from fandle.web.handbook import page as handbook_page
from fandle.web.log import api as log_api
from fandle.web.log import files as log_files
from fandle.web.log import page as log_page
from fandle.web.practice import coach, own
from fandle.web.practice import page as practice_page
from fandle.web.practice import quiz as practice_quiz
from fandle.web.settings import Settings
from fandle.web.speech import words_of
from fandle.web.table import after as table_after
from fandle.web.table import api as table_api
from fandle.web.table import layouts as table_layouts
from fandle.web.table import link as table_link
from fandle.web.table import miss as table_miss
from fandle.web.table import page as table_page
from fandle.web.table import plan as table_plan
from fandle.web.table import steady, test_shot
from fandle.web.waiting import Waiting, preparing_of, waiting_page
from fandle.work.latest import Latest
from fandle.work.solvers import Works
from fandle.work.warm import Elsewhere, Warming

HERE = Path(__file__).parent
PARTS = (
    table_page, table_api, table_plan, table_after, table_miss, test_shot, steady, table_layouts, table_link,
    log_api, log_page, log_files, check_page, practice_page, practice_quiz, coach, own, club_page,
    compare_page, more, handbook_page, technique, trust, club_api,
    cue_test, me, pass_page, docs,
)  # fmt: skip


def create_app(settings: Settings, say: Callable[[float], None] = lambda _: None) -> FastAPI:
    """The application for a data folder. Raises StoreError if the folder cannot be used.

    say: hears how far the engine is, where it must be compiled first; until then pages say so, too.
    """
    database = Database.open(settings.home)
    compiled = kernel_folder.ready()
    at_once = compiled or PLAIN
    later = settings.demo and not at_once  # the demo club's practice is solved: that waits for the engine
    if settings.demo and at_once:
        demo.fill(database)

    @asynccontextmanager
    async def lifespan(_: FastAPI) -> AsyncIterator[None]:
        warming.start(say, then=(lambda: demo.fill(database)) if later else None)
        for name in templates.env.list_templates(["html"]):
            templates.env.get_template(name)  # compiled now, not in front of a user
        gc.collect()
        gc.freeze()  # what is loaded stays: looking through all of it again stops every request for 0.1 s and more
        yield
        app.state.works.close()
        database.close()

    app = FastAPI(title="Fandle", docs_url=None, redoc_url=None, lifespan=lifespan)
    app.state.database = database
    app.state.warming = warming = Elsewhere() if PLAIN else Warming(compiled=compiled)
    app.state.library = Library(StoredClub(database))
    app.state.settings = settings
    app.state.devices = Devices(database)
    app.state.works, app.state.plans = Works(), Latest(table_plan.MOST_PLANS)
    app.state.templates = templates = Jinja2Templates(
        HERE / "templates", context_processors=[words_of, table_page.header_of, preparing_of]
    )
    for part in PARTS:
        app.include_router(part.router)
    static_files.mount(app, templates)
    handle_errors(app)
    app.add_middleware(Waiting, warming=warming, page=waiting_page(templates.env))
    door = pass_page.door(templates.env)
    app.add_middleware(Gate, settings=settings, devices=app.state.devices, works=app.state.works, pass_page=door)
    return app
