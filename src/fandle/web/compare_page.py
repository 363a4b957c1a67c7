"""The Compare room: which way of counting should I trust from here?"""

import json
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from fandle.core.counts.base import Count, NoCount
from fandle.core.counts.every import all_counts
from fandle.core.errors import BadInputError
from fandle.core.rails import rails_name
from fandle.core.readout import over
from fandle.core.spoken import plural_lengths
from fandle.core.twin import twin_of
from fandle.formats.answers import count_json
from fandle.formats.files import layout_json
from fandle.store.log import preference
from fandle.store.queries import layouts
from fandle.web import address
from fandle.web.address import State
from fandle.web.api import FAULTS, Question, state_of
from fandle.web.count_view import played_how, sum_of, verdict
from fandle.web.drawing import drawing, path
from fandle.web.figures import FRAME_WORDS, mark
from fandle.web.known import shelf_of
from fandle.web.pages import first_state

router = APIRouter()


@router.get(address.COMPARE_ROOM, response_class=HTMLResponse)
def compare_room(request: Request) -> HTMLResponse:
    """All schools side by side on the layout in the address."""
    database, fault = request.app.state.database, ""
    try:
        query = request.query_params
        state = address.read(query, shelf_of(request).known) if query else first_state(layouts(database))
    except BadInputError as error:
        fault, state = f"This link cannot be opened: {error}.", first_state(layouts(database))
    table = state.layout.table
    context = {
        "fault": fault,
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "state": json.dumps(compared(state, preference(database, "school", "M3")), allow_nan=False),
        "urls": {
            "compare": address.COMPARE,
            "table": address.TABLE_ROOM,
            "room": address.COMPARE_ROOM,
            "preferences": address.PREFERENCES,
        },
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "compare.html", context)
    return response


@router.post(address.COMPARE, responses=FAULTS)
def post_compare(question: Question, request: Request) -> dict[str, Any]:
    """Every school on a layout, those that land nearest first."""
    return compared(state_of(question, request), preference(request.app.state.database, "school", "M3"))


def compared(state: State, favourite: str) -> dict[str, Any]:
    """What the room shows of a state."""
    state = address.rounded(state)
    layout = state.layout
    schools = []
    if layout.target is not None:
        found = all_counts(layout)
        schools = [_open(state, count) if isinstance(count, Count) else _shut(count) for count in found]
    return {
        "address": address.write(state),
        "layout": layout_json(layout, by_name=True),
        "favourite": favourite,
        "schools": schools,
    }


def _shut(count: NoCount) -> dict[str, Any]:
    return {"method": count.method, "title": count.title, "applies": False, "reason": count.reason}


def _open(state: State, count: Count) -> dict[str, Any]:
    layout = state.layout
    lead, result = sum_of(count)
    chosen = address.write(
        State(layout, count.stroke, count.rails, count.method, count.frame, count=str(len(count.rails)))
    )
    return {
        **count_json(count),
        "way": over(count.rails),
        "rails_text": rails_name(count.rails),
        "lead": lead,
        "result": result,
        "mark": mark(count.aim, count.frame),
        "frame_words": FRAME_WORDS[count.frame],
        "played": f"{played_how(count, layout.table)} at {plural_lengths(count.lengths)}",
        "verdict": verdict(count),
        "twin": _twin(state, count),
        "shot": path(layout.table, count.shot.pieces),
        "href": f"{address.TABLE_ROOM}?{chosen}",
    }


def _twin(state: State, count: Count) -> str:
    """One plain sentence for the difference between the sum, the mirror and the played line."""
    twin = twin_of(state.layout, count)
    if twin is None:
        return "No line over these rails meets it full with this stroke."
    counted, mirror = f"{twin.counted:.2f}", f"{twin.mirror:.2f}"
    told = (
        f"The count says {counted}, the mirror {mirror}"
        if counted != mirror
        else f"Count and mirror both say {counted}"
    )
    if twin.played is None:
        return f"{told}; full, the table has no such line with this stroke."
    played = f"{twin.played:.2f}"
    if played == counted:
        return f"{told}; played with this stroke it is just right."
    return f"{told}; with this stroke the table wants {played}."
