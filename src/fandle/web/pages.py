"""HTML pages."""

import json
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from fastapi.templating import Jinja2Templates

from fandle.core.constants import INCH_M
from fandle.core.errors import BadInputError
from fandle.core.glossary import WORDS
from fandle.core.stroke import CUES
from fandle.core.table import Table
from fandle.formats.files import layout_of
from fandle.store.queries import Saved, layouts, table_label
from fandle.web import address
from fandle.web.api import tip_of
from fandle.web.drawing import drawing
from fandle.web.noted import layout_href, layout_state
from fandle.web.view import answer

router = APIRouter()

FIRST_BALLS = "cue:2,1;1:6,1"  # what a room with no saved layout begins with
FIRST_TARGET = "1"


@router.get(address.TABLE_ROOM, response_class=HTMLResponse)
def table_room(request: Request) -> HTMLResponse:
    """What do I shoot, and where do I aim?"""
    database = request.app.state.database
    saved = layouts(database)
    fault, tip = "", tip_of(request)
    try:
        state = address.read(request.query_params) if request.query_params else _first(saved)
        data = answer(state, tip)
    except BadInputError as error:
        fault = f"This link cannot be opened: {error}."
        state = _first(saved)
        data = answer(state, tip)
    table = state.layout.table
    templates: Jinja2Templates = request.app.state.templates
    context: dict[str, Any] = {
        "answer": data,
        "state": json.dumps(data, allow_nan=False),
        "fault": fault,
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "table_label": table_label(database, table.name) or table.name,
        "saved": [(s.name, s.note, layout_href(layout_of(s.data))) for s in saved],
        "urls": {
            "answer": address.ANSWER,
            "lines": address.LINES,
            "instead": address.INSTEAD,
            "add": address.ADD_BALL,
            "read": address.READ_LAYOUT,
            "edit": address.EDIT,
            "layouts": address.LAYOUTS,
            "attempts": address.ATTEMPTS,
            "preferences": address.PREFERENCES,
        },
        "words": WORDS,
        "counts": address.COUNTS,
        "cues": [(cue.name, cue.label) for cue in CUES.values()],
        "unit_sizes": _unit_sizes(table),
        "tip_mm": f"{tip * 1000:g}",
        "save_url": address.SAVE_LAYOUT,
    }
    return templates.TemplateResponse(request, "table.html", context)


def _unit_sizes(table: Table) -> dict[str, list[float]]:
    """How many of each unit make a diamond along x and along y, and the decimals to show."""
    x, y = table.diamond_x, table.diamond_y
    return {"diamonds": [1, 1, 2], "mm": [x * 1000, y * 1000, 0], "inches": [x / INCH_M, y / INCH_M, 2]}


def _first(saved: list[Saved]) -> address.State:
    if saved:
        return layout_state(layout_of(saved[0].data))
    return address.read({"balls": FIRST_BALLS, "target": FIRST_TARGET})
