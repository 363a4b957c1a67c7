"""The Compare room: which way of counting should I trust from here?"""

import json
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from fandle.core.errors import BadInputError
from fandle.core.steps import Steps
from fandle.core.systems.registry import count_steps
from fandle.formats.files import layout_json
from fandle.store.log import preference
from fandle.store.queries import layouts
from fandle.web import address
from fandle.web.address import State
from fandle.web.api import FAULTS, Question, state_of
from fandle.web.drawing import drawing
from fandle.web.known import shelf_of
from fandle.web.pages import first_state
from fandle.web.school_view import told
from fandle.web.work import works_of

router = APIRouter()


@router.get(address.COMPARE_ROOM, response_class=HTMLResponse)
async def compare_room(request: Request) -> HTMLResponse:
    """All schools side by side on the layout in the address."""
    database, fault = request.app.state.database, ""
    try:
        query = request.query_params
        state = address.read(query, shelf_of(request).known) if query else first_state(layouts(database))
    except BadInputError as error:
        fault, state = f"This link cannot be opened: {error}.", first_state(layouts(database))
    table, favourite = state.layout.table, preference(database, "school", "M3")
    context = {
        "fault": fault,
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "state": json.dumps(await works_of(request).run(request, compared(state, favourite)), allow_nan=False),
        "urls": {
            "compare": address.COMPARE,
            "map": address.MAP,
            "table": address.TABLE_ROOM,
            "room": address.COMPARE_ROOM,
            "preferences": address.PREFERENCES,
        },
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "compare.html", context)
    return response


@router.post(address.COMPARE, responses=FAULTS)
async def post_compare(question: Question, request: Request) -> dict[str, Any]:
    """Every school on a layout, those that land nearest first."""
    favourite = preference(request.app.state.database, "school", "M3")
    return await works_of(request).run(request, compared(state_of(question, request), favourite))


def compared(state: State, favourite: str) -> Steps[dict[str, Any]]:
    """What the room shows of a state, in steps."""
    state = address.rounded(state)
    layout = state.layout
    schools = []
    if layout.target is not None:
        found = yield from count_steps(layout)
        for count in found:
            schools.append(told(state, count))
            yield
    return {
        "address": address.write(state),
        "layout": layout_json(layout, by_name=True),
        "favourite": favourite,
        "schools": schools,
    }
