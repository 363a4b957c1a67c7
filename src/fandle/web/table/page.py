"""HTML pages."""

import json
from dataclasses import replace
from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, RedirectResponse
from fastapi.templating import Jinja2Templates

from fandle.core.constants import INCH_M
from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.edit import moved_to
from fandle.core.shot.cue import CUES
from fandle.core.table.model import Table
from fandle.core.table.standards import LABELS
from fandle.core.words.glossary import WORDS
from fandle.core.words.screen import Screen
from fandle.formats.files import layout_of, table_json
from fandle.service.situation import Situation
from fandle.store import club
from fandle.store.demo_data import demo_club
from fandle.store.queries import Saved, layouts
from fandle.web import address
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS
from fandle.web.known import Mine, Shelf, mine_of, player_of, shelf_of, tip_of
from fandle.web.noted import layout_href, plain
from fandle.web.speech import said, screen_of
from fandle.web.table.games import game_choices
from fandle.web.table.link import known_with
from fandle.web.table.view import answer
from fandle.web.work import BusyError, ClientGoneError, works_of

router = APIRouter(responses=FAULTS)

URLS = {
    "answer": address.ANSWER,
    "plan": address.PLAN,
    "position": address.POSITION,
    "strategy": address.STRATEGY,
    "diagnose": address.DIAGNOSE,
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


@router.get(address.TABLE_ROOM, response_class=HTMLResponse)
async def table_room(request: Request) -> HTMLResponse:
    """What do I shoot, and where do I aim?"""
    database = request.app.state.database
    shelf, works = shelf_of(request), works_of(request)
    mine = mine_of(request)
    saved = layouts(database)
    fault = ""
    try:
        asked = (
            address.read(request.query_params, known_with(shelf.known, request.query_params))
            if request.query_params
            else first_situation(saved, mine)
        )
        asked = replace(asked, player=player_of(request))
        data = await works.run(request, answer(asked, tip_of(request, asked.stroke.cue)))
    except FandleError as error:
        if isinstance(error, BusyError | ClientGoneError):
            raise
        fault = f"This link cannot be opened: {error}."
        asked = replace(first_situation(saved, mine), player=player_of(request))
        data = await works.run(request, answer(asked, tip_of(request, asked.stroke.cue)))
    table = asked.table
    screen = screen_of(request, table)
    data = {**said(data, screen), "upright": screen.upright}
    templates: Jinja2Templates = request.app.state.templates
    context = {
        **_furniture(shelf, table, screen),
        "state": json.dumps(data, allow_nan=False),
        "fault": fault,
        "saved": kept_layouts(saved, mine),
        "tip_mm": f"{tip_of(request) * 1000:g}",
        "name": request.query_params.get("name", "") if request.query_params or not saved else saved[0].name,
    }
    return templates.TemplateResponse(request, "table.html", context)


def _furniture(shelf: Shelf, table: Table, screen: Screen) -> dict[str, Any]:
    """What the page is given of the table and the club, whatever lies on it."""
    return {
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "tables": table_choices(shelf),
        "marks": table.marks,
        "games": game_choices(table),
        "table_name": table.name,
        "urls": URLS,
        "words": {name: screen.say(text) for name, text in WORDS.items()},
        "cues": [(cue.name, cue.label) for cue in (*CUES.values(), *shelf.cues().values())],
        "unit_sizes": _unit_sizes(table),
        "save_url": address.SAVE_LAYOUT,
        "incoming": None if shelf.same(table) is not None else json.dumps(table_json(table)),
    }


@router.get(address.MOVE_TO, response_class=RedirectResponse, include_in_schema=False)
def move_to(request: Request, to: str) -> RedirectResponse:
    """The layout of the address on another table, in the Table room: what the header's list of tables leads to."""
    shelf, mine = shelf_of(request), mine_of(request)
    try:
        query = {name: value for name, value in request.query_params.items() if name != "to"}
        saved = layouts(request.app.state.database)
        asked = address.read(query, shelf.known) if "balls" in query else first_situation(saved, mine)
        href = layout_href(moved_to(asked.layout, shelf.table(to)), mine)
    except BadInputError:
        href = address.TABLE_ROOM
    return RedirectResponse(href, 303)


def header_of(request: Request) -> dict[str, Any]:
    """What every page's header shows: the tables to play on."""
    return {"header_tables": table_choices(shelf_of(request))}


def table_choices(shelf: Shelf) -> list[tuple[str, str]]:
    """(name, what it is called) of every table one can play on, the club's own first."""
    standing = club.tables(shelf.database)
    named = [(row.data if isinstance(row.data, str) else row.label, row.label) for row in standing]
    here = {name for name, _ in named}
    return named + [(name, label) for name, label in LABELS.items() if name not in here]


def _unit_sizes(table: Table) -> dict[str, list[float]]:
    """How many of each unit make a diamond along x and along y, and the decimals to show."""
    x, y = table.diamond_x, table.diamond_y
    return {table.marks: [1, 1, 2], "mm": [x * 1000, y * 1000, 0], "inches": [x / INCH_M, y / INCH_M, 2]}


class Kept(NamedTuple):
    """A layout of the list to open: href is None where its record cannot be read."""

    name: str
    note: str
    href: str | None
    demo: bool


def kept_layouts(saved: list[Saved], mine: Mine) -> list[Kept]:
    """The player's own layouts, the newest first, then those of the demo club."""
    shipped = {each["name"] for each in demo_club()["layouts"]}
    rows = [Kept(s.name, s.note, saved_href(s, mine), s.name in shipped) for s in saved]
    return [row for row in reversed(rows) if not row.demo] + [row for row in rows if row.demo]


def saved_href(saved: Saved, mine: Mine) -> str | None:
    """Where a named layout is opened; None where its record cannot be read."""
    try:
        return layout_href(layout_of(saved.data), mine, saved.name)
    except BadInputError:
        return None


def first_situation(saved: list[Saved], mine: Mine) -> Situation:
    """What a room shows that is asked for nothing."""
    for kept in saved:
        try:
            return plain(layout_of(kept.data), mine)
        except BadInputError:
            continue  # a malformed record: the next one
    return plain(address.read({"balls": FIRST_BALLS, "target": FIRST_TARGET}).layout, mine)
