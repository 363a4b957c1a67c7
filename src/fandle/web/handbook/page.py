"""The Handbook: how does this way of counting work? An index, and a page a system with a live example."""

import json
from dataclasses import replace
from typing import NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from pydantic import BaseModel, ConfigDict
from starlette.concurrency import run_in_threadpool
from typing_extensions import TypedDict

from fandle.app.explore import drift, example
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.handbook.finder import FITS
from fandle.core.handbook.page import Page, page_of
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
from fandle.core.systems.catalogue import METHODS
from fandle.core.table.condition import CLOTHS, OWN, RUBBERS, conditioned
from fandle.core.table.rails import Rail, parse_rails, rails_name
from fandle.core.table.speeds import default_speed
from fandle.core.tablecheck.test_shot import CARRIED, carried_words
from fandle.core.techniques.registry import TECHNIQUES
from fandle.web import address
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS
from fandle.web.handbook import technique
from fandle.web.handbook.search import Search
from fandle.web.handbook.view import CurveModel, OwnModel, RivalModel, bank_href, curves_json, index, own_json, rival
from fandle.web.known import carried_of, library_of, mine_of
from fandle.web.speech import said, screen_of
from fandle.web.system_view import SystemModel, told
from fandle.web.table.api import Scene, scene_layout, scene_of
from fandle.web.table.models import SceneModel
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)


class Example(BaseModel):
    """A live example: a layout, the rails in use, and what cloth and rubber are made of."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    rails: str | None = None
    cloth: str = OWN
    rubber: str = OWN
    cue: str | None = None  # the player's own


class Asked(NamedTuple):
    """A live example as it was asked for: on which table, over which rails, with which words of condition and cue."""

    layout: Layout
    rails: tuple[Rail, ...]
    cloth: str
    rubber: str
    cue: Cue = HOUSE
    carried: float = 0.0  # what a test shot found of the table


class ExampleModel(TypedDict):
    """What the live example shows. system: the page's system."""

    address: str
    layout: SceneModel
    rails: str
    cloth: str
    rubber: str
    cue: str
    system: SystemModel
    rivals: list[RivalModel]


class DriftModel(TypedDict):
    """How a system lands along a row of cue balls, by cloth, by pace and by cue; no curves by cue without side.

    own: the table's own marks, null for a system that has none.
    """

    axis: str
    cloth: list[CurveModel]
    cue: list[CurveModel]
    pace: list[CurveModel]
    own: OwnModel | None


@router.get(address.HANDBOOK, response_class=HTMLResponse)
def handbook(request: Request) -> HTMLResponse:
    """All methods, by the number of rails they count over; or those that suit what is asked for."""
    return _index(request)


def _index(request: Request, fault: str = "") -> HTMLResponse:
    asked = Search.of(request)
    context = {
        "fault": fault, "groups": index(asked.methods()), "favourite": mine_of(request).system, "asked": asked,
        "pages": asked.pages(), "count": len(FITS),
    }  # fmt: skip
    response: HTMLResponse = request.app.state.templates.TemplateResponse(
        request, "handbook.html", context, 404 if fault else 200
    )
    return response


@router.get(
    address.HANDBOOK + "/{method}",
    response_class=HTMLResponse,
    responses={404: {"content": {"text/html": {}}, "description": "No such system: the index says which there are."}},
)
async def system_page(method: str, request: Request) -> HTMLResponse:
    """A system's page, its example the layout in the address if there is one."""
    if method.upper() in TECHNIQUES:
        return await technique.show(method.upper(), request)
    if method.upper() not in METHODS:
        return await run_in_threadpool(_index, request, f"There is no system {method}: choose one of these.")
    page = page_of(method)
    asked, fault = await run_in_threadpool(_opened, page, request)
    shown = await solve(request, _example(page, asked))
    return await run_in_threadpool(_show, request, page, asked, shown, fault)


def _opened(page: Page, request: Request) -> tuple[Asked, str]:
    """(what the address asks, "" or why that could not be opened: then the page's own example)."""
    try:
        return _linked(page, request), ""
    except BadInputError as error:
        return Asked(page.example, page.rails, OWN, OWN), f"This link cannot be opened: {error}."


def _show(request: Request, page: Page, asked: Asked, found: ExampleModel, fault: str) -> HTMLResponse:
    layout = asked.layout
    screen = screen_of(request, layout.table, turns=False)
    shown = said(found, screen)
    before, after = _beside(page)
    context = {
        "page": page,
        "favourite": mine_of(request).system,
        "screen": screen,
        "bank": bank_href(page),
        "fault": fault,
        "drawing": drawing(layout.table),
        "diamond": (layout.table.diamond_x * 1000, layout.table.diamond_y * 1000),
        "state": json.dumps(shown, allow_nan=False),
        "tables": library_of(request).choices(),
        "cloths": (OWN, *CLOTHS),
        "rubbers": (OWN, *RUBBERS),
        "table_name": layout.table.name,
        "carried": carried_words(asked.carried) if page.method in CARRIED else "",
        "before": before,
        "after": after,
        "urls": {
            "example": f"{address.EXAMPLE}/{page.method}",
            "drift": f"{address.EXAMPLE}/{page.method}/drift",
            "map": address.MAP,
            "page": f"{address.HANDBOOK}/{page.method}",
            "preferences": address.PREFERENCES,
            "move": address.MOVE,
            "testShot": address.TEST_SHOT,
        },
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "system.html", context)
    return response


def _linked(page: Page, request: Request) -> Asked:
    """The layout, cloth and rubber of a link; what it leaves out is the page's own."""
    query, layout, rails = request.query_params, page.example, page.rails
    cloth, rubber, cue = query.get("cloth", OWN), query.get("rubber", OWN), mine_of(request).cue
    if "balls" in query:
        asked = address.read(query, library_of(request).known)
        layout, rails, cue = asked.layout, asked.rails or page.rails, asked.stroke.cue
    there = replace(layout, table=conditioned(layout.table, cloth, rubber))
    return Asked(there, rails, cloth, rubber, cue, carried_of(request, layout.table))


def _beside(page: Page) -> tuple[Page | None, Page | None]:
    """The pages before and after it."""
    names = list(METHODS)
    place = names.index(page.method)
    return page_of(names[place - 1]) if place else None, page_of(names[place + 1]) if place + 1 < len(names) else None


@router.post(address.EXAMPLE + "/{method}", responses=FAULTS)
async def post_example(method: str, asked: Example, request: Request) -> ExampleModel:
    """The live example: the sum, the landing, the hands, and the other systems on the same layout."""
    page = page_of(method)
    wanted = await run_in_threadpool(asked_of, page, asked, request)
    shown = await solve(request, _example(page, wanted))
    return said(shown, screen_of(request, wanted.layout.table, turns=False))


@router.post(address.EXAMPLE + "/{method}/drift", responses=FAULTS)
async def post_drift(method: str, asked: Example, request: Request) -> DriftModel:
    """How the system lands along its page's row of cue balls, by cloth and by pace."""
    page = page_of(method)
    wanted = await run_in_threadpool(asked_of, page, asked, request)
    return await solve(request, _drift(page, wanted), quick=False)


def _drift(page: Page, asked: Asked) -> Steps[DriftModel]:
    found = yield from drift(page, asked.layout, asked.rails, asked.cue, asked.carried)
    return {
        "axis": page.axis,
        "cloth": curves_json(found.cloth),
        "pace": curves_json(found.pace),
        "own": None if found.own is None else own_json(found.own),
        "cue": curves_json(found.cue),
    }


def asked_of(page: Page, asked: Example, request: Request) -> Asked:
    """A live example as it was asked for; what is left out is the page's own."""
    layout = scene_layout(asked.layout, request)
    table = conditioned(layout.table, asked.cloth, asked.rubber)
    rails = parse_rails(asked.rails) if asked.rails else page.rails
    cue = mine_of(request).cue if asked.cue is None else library_of(request).cue(asked.cue)
    there = replace(layout, table=table)
    return Asked(there, rails, asked.cloth, asked.rubber, cue, carried_of(request, layout.table))


def _example(page: Page, asked: Asked) -> Steps[ExampleModel]:
    """What the live example shows, in steps."""
    layout = asked.layout
    stroke = Stroke(default_speed(layout.table), cue=asked.cue)
    situation = address.rounded(Situation(layout, stroke, asked.rails, system=page.method))
    found = yield from example(page, situation.layout, asked.rails, asked.cue, asked.carried)
    count = found.told.count
    situation = replace(situation, rails=count.rails)
    query = address.write(situation) + "".join(
        f"&{name}={value}" for name, value in (("cloth", asked.cloth), ("rubber", asked.rubber)) if value != OWN
    )
    return {
        "address": query,
        "layout": scene_of(situation.layout),
        "rails": rails_name(count.rails),
        "cloth": asked.cloth,
        "rubber": asked.rubber,
        "cue": asked.cue.name,
        "system": told(situation, found.told),
        "rivals": [rival(each) for each in found.rivals],
    }
