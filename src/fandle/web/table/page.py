"""HTML pages."""

import json
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, RedirectResponse
from starlette.concurrency import run_in_threadpool

from fandle.app.library import Library
from fandle.app.situation import Situation
from fandle.core.constants import INCH_M
from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.edit import moved_to
from fandle.core.player.body import BUILDS, HANDS
from fandle.core.shot.cue import CUES
from fandle.core.table.model import Table
from fandle.core.words.glossary import WORDS
from fandle.core.words.screen import Screen
from fandle.formats.files import layout_of
from fandle.formats.tables import table_json
from fandle.store.database import Database
from fandle.store.queries import first_layouts, layouts_named
from fandle.web import address
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS
from fandle.web.known import Mine, carried_of, habits_of, library_of, mine_of, player_of, tip_of
from fandle.web.noted import layout_href, plain
from fandle.web.speech import said, screen_of
from fandle.web.table.games import game_choices
from fandle.web.table.kept import listed
from fandle.web.table.link import OWN, known_with, unpacked
from fandle.web.table.models import AnswerModel
from fandle.web.table.view import answer
from fandle.web.tasks import solve
from fandle.work.solvers import BusyError, ClientGoneError

router = APIRouter(responses=FAULTS)

URLS = {
    "answer": address.ANSWER,
    "plan": address.PLAN,
    "position": address.POSITION,
    "strategy": address.STRATEGY,
    "diagnose": address.DIAGNOSE,
    "testShot": address.TEST_SHOT,
    "player": address.PLAYER,
    "instead": address.INSTEAD,
    "add": address.ADD_BALL,
    "read": address.READ_LAYOUT,
    "read_table": address.READ_TABLE,
    "edit": address.EDIT,
    "layouts": address.LAYOUTS,
    "link": address.LINK,
    "attempts": address.ATTEMPTS,
    "here": address.ATTEMPTS_HERE,
    "preferences": address.PREFERENCES,
    "move": address.MOVE,
}
FIRST_BALLS = "cue:2,1;1:6,1"  # what a room with no saved layout begins with
FIRST_TARGET = "1"
FIRST_TRIED = 20  # records looked at for a layout that can be read


@router.get(address.TABLE_ROOM, response_class=HTMLResponse)
async def table_room(request: Request) -> HTMLResponse:
    """What do I shoot, and where do I aim?"""
    fault = ""
    try:
        asked, tip = await run_in_threadpool(_asked, request)
        data = await solve(request, answer(asked, tip))
    except FandleError as error:
        if isinstance(error, BusyError | ClientGoneError):
            raise
        fault = f"This link cannot be opened: {error}."
        asked, tip = await run_in_threadpool(_first, request)
        data = await solve(request, answer(asked, tip))
    return await run_in_threadpool(_page, request, asked, data, fault)


def _asked(request: Request) -> tuple[Situation, float]:
    """What the address asks, the first layout where it asks nothing; and the tip's diameter, m."""
    query = request.query_params
    if not query:
        return _first(request)
    asked = replace(address.read(query, known_with(library_of(request), query)), player=player_of(request))
    asked = replace(asked, carried=carried_of(request, asked.table))
    if "method" not in query:  # a link that names no system is counted by the player's own
        asked = replace(asked, system=mine_of(request).system)
    return asked, tip_of(request, asked.stroke.cue)


def _first(request: Request) -> tuple[Situation, float]:
    first = first_situation(request.app.state.database, mine_of(request))
    first = replace(first, player=player_of(request), carried=carried_of(request, first.table))
    return first, tip_of(request, first.stroke.cue)


def _page(request: Request, asked: Situation, data: AnswerModel, fault: str) -> HTMLResponse:
    database, library, query = request.app.state.database, library_of(request), request.query_params
    screen = screen_of(request, asked.table)
    name = query.get("name", "") if query else next((kept.name for kept in first_layouts(database, 1)), "")
    context = {
        **_furniture(library, asked.table, screen),
        "state": json.dumps({**said(data, screen), "upright": screen.upright}, allow_nan=False),
        "fault": fault,
        "saved": listed(request),
        "incoming": None if library.same(asked.table) is not None else _sent(query),
        "kept": next(iter(layouts_named(database, [name])), None) if name else None,
        "tip_mm": f"{tip_of(request) * 1000:g}",
        "habits": habits_of(request),
        "builds": BUILDS,
        "hands": HANDS,
        "name": name,
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "table.html", context)
    return response


def _sent(query: Mapping[str, str]) -> str | None:
    """The table that a link brings, as a file, under the name it has where it comes from."""
    return json.dumps(table_json(unpacked(query[OWN]))) if query.get(OWN) else None


def _furniture(library: Library, table: Table, screen: Screen) -> dict[str, Any]:
    """What the page is given of the table and the club, whatever lies on it."""
    return {
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "tables": library.choices(table.name),
        "marks": table.marks,
        "games": game_choices(table),
        "table_name": table.name,
        "urls": URLS,
        "words": {name: screen.say(text) for name, text in WORDS.items()},
        "cues": [(cue.name, cue.label) for cue in (*CUES.values(), *library.cues().values())],
        "unit_sizes": _unit_sizes(table),
        "save_url": address.SAVE_LAYOUT,
    }


@router.get(address.MOVE_TO, response_class=RedirectResponse, include_in_schema=False)
def move_to(request: Request, to: str) -> RedirectResponse:
    """The layout of the address on another table, in the Table room: what the header's list of tables leads to."""
    library, mine = library_of(request), mine_of(request)
    try:
        query = {name: value for name, value in request.query_params.items() if name != "to"}
        database = request.app.state.database
        asked = address.read(query, library.known) if "balls" in query else first_situation(database, mine)
        href = layout_href(moved_to(asked.layout, library.table(to)), mine)
    except BadInputError:
        href = address.TABLE_ROOM
    return RedirectResponse(href, 303)


def header_of(request: Request) -> dict[str, Any]:
    """What every page's header shows: the tables to play on."""
    return {"header_tables": library_of(request).choices()}


def _unit_sizes(table: Table) -> dict[str, list[float]]:
    """How many of each unit make a diamond along x and along y, and the decimals to show."""
    x, y = table.diamond_x, table.diamond_y
    return {table.marks: [1, 1, 2], "mm": [x * 1000, y * 1000, 0], "inches": [x / INCH_M, y / INCH_M, 2]}


def first_situation(database: Database, mine: Mine) -> Situation:
    """What a room shows that is asked for nothing: the first layout that can be read."""
    for kept in first_layouts(database, FIRST_TRIED):
        try:
            return plain(layout_of(kept.data), mine)
        except BadInputError:
            continue  # a malformed record: the next one
    return plain(address.read({"balls": FIRST_BALLS, "target": FIRST_TARGET}).layout, mine)
