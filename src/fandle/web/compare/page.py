"""The Compare room: which way of counting should I trust from here?"""

import json
from dataclasses import replace

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from starlette.concurrency import run_in_threadpool
from typing_extensions import TypedDict

from fandle.app.compare import compare
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.steps import Steps
from fandle.core.table.model import Table
from fandle.web import address
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS
from fandle.web.known import library_of, mine_of, player_of
from fandle.web.speech import said, screen_of
from fandle.web.system_view import SystemModel, told
from fandle.web.table.api import Question, scene_of, situation
from fandle.web.table.link import known_with
from fandle.web.table.models import SceneModel
from fandle.web.table.page import first_situation
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)


class CompareModel(TypedDict):
    """Every system on a layout, those that land nearest first. systems: the systems, as the first versions say."""

    address: str
    layout: SceneModel
    favourite: str
    systems: list[SystemModel]


@router.get(address.COMPARE_ROOM, response_class=HTMLResponse)
async def compare_room(request: Request) -> HTMLResponse:
    """All systems side by side on the layout in the address."""
    asked, favourite, fault = await run_in_threadpool(_asked, request)
    shown = await solve(request, compared(asked, favourite))
    return await run_in_threadpool(_page, request, asked.table, shown, fault)


def _asked(request: Request) -> tuple[Situation, str, str]:
    """What the address asks, the favourite system, and why that could not be opened, "" where it could."""
    database, fault, mine, query = request.app.state.database, "", mine_of(request), request.query_params
    try:
        known = known_with(library_of(request), query)
        asked = address.read(query, known) if query else first_situation(database, mine)
    except BadInputError as error:
        fault, asked = f"This link cannot be opened: {error}.", first_situation(database, mine)
    return replace(asked, player=player_of(request)), mine.system, fault


def _page(request: Request, table: Table, shown: CompareModel, fault: str) -> HTMLResponse:
    context = {
        "fault": fault,
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "state": json.dumps(said(shown, screen_of(request, table, turns=False)), allow_nan=False),
        "urls": {
            "compare": address.COMPARE,
            "map": address.MAP,
            "prefer": address.PREFER,
            "table": address.TABLE_ROOM,
            "room": address.COMPARE_ROOM,
            "preferences": address.PREFERENCES,
        },
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "compare.html", context)
    return response


@router.post(address.COMPARE, responses=FAULTS)
async def post_compare(question: Question, request: Request) -> CompareModel:
    """Every system on a layout, those that land nearest first."""
    asked, favourite = await run_in_threadpool(lambda: (situation(question, request), mine_of(request).system))
    shown = await solve(request, compared(asked, favourite))
    return said(shown, screen_of(request, asked.table, turns=False))


def compared(asked: Situation, favourite: str) -> Steps[CompareModel]:
    """What the room shows of a situation, in steps."""
    asked = address.rounded(asked)
    found = yield from compare(asked)
    return {
        "address": address.write(asked),
        "layout": scene_of(asked.layout),
        "favourite": favourite,
        "systems": [told(asked, each) for each in found],
    }
