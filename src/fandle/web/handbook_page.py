"""The Handbook: how does this way of counting work? An index, and a page a school with a live example."""

import json
from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from pydantic import BaseModel, ConfigDict, Field

from fandle.core.errors import BadInputError
from fandle.core.handbook.holds import by_cloth, by_pace, column, columns
from fandle.core.handbook.page import Page, all_pages, page_of
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.registry import METHODS, best_count, count
from fandle.core.table.condition import CLOTHS, OWN, RUBBERS, conditioned
from fandle.core.table.rails import Rail, parse_rails, rails_name
from fandle.core.table.speeds import default_speed
from fandle.formats.files import layout_json
from fandle.store.log import preference
from fandle.web import address
from fandle.web.api import FAULTS, Scene, scene_layout
from fandle.web.drawing import drawing
from fandle.web.handbook_view import bank_href, curves_json, index, rivals, spots_json
from fandle.web.known import shelf_of
from fandle.web.pages import table_choices
from fandle.web.school_view import told
from fandle.web.work import works_of

router = APIRouter()


class Example(BaseModel):
    """A live example: a layout, the rails in use, and what cloth and rubber are made of."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    rails: str | None = None
    cloth: str = OWN
    rubber: str = OWN


class MapColumn(BaseModel):
    """One column of a map: which school, over which rails, how far along the bed (0 is the head end)."""

    model_config = ConfigDict(extra="forbid")

    example: Example
    method: str
    at: int = Field(ge=0)


@router.get(address.HANDBOOK, response_class=HTMLResponse)
def handbook(request: Request) -> HTMLResponse:
    """All schools, by the number of rails they count over."""
    return _index(request)


def _index(request: Request, fault: str = "") -> HTMLResponse:
    context = {
        "fault": fault,
        "groups": index(all_pages()),
        "favourite": preference(request.app.state.database, "school", "M3"),
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(
        request, "handbook.html", context, 404 if fault else 200
    )
    return response


@router.get(address.HANDBOOK + "/{method}", response_class=HTMLResponse)
async def school_page(method: str, request: Request) -> HTMLResponse:
    """A school's page, its example the layout in the address if there is one."""
    if method.upper() not in METHODS:
        return _index(request, f"There is no school {method}: choose one of these.")
    page, query, fault = page_of(method), request.query_params, ""
    layout, rails, cloth, rubber = page.example, page.rails, query.get("cloth", OWN), query.get("rubber", OWN)
    try:
        if "balls" in query:
            state = address.read(query, shelf_of(request).known)
            layout, rails = state.layout, state.rails or page.rails
        layout = replace(layout, table=conditioned(layout.table, cloth, rubber))
    except BadInputError as error:
        fault = f"This link cannot be opened: {error}."
        cloth = rubber = OWN
    example = await works_of(request).run(request, _example(page, layout, rails, cloth, rubber))
    names = list(METHODS)
    place = names.index(page.method)
    context = {
        "page": page,
        "bank": bank_href(page),
        "fault": fault,
        "drawing": drawing(layout.table),
        "diamond": (layout.table.diamond_x * 1000, layout.table.diamond_y * 1000),
        "state": json.dumps(example, allow_nan=False),
        "tables": table_choices(shelf_of(request)),
        "cloths": (OWN, *CLOTHS),
        "rubbers": (OWN, *RUBBERS),
        "table_name": layout.table.name,
        "before": page_of(names[place - 1]) if place else None,
        "after": page_of(names[place + 1]) if place + 1 < len(names) else None,
        "urls": {
            "example": f"{address.EXAMPLE}/{page.method}",
            "drift": f"{address.EXAMPLE}/{page.method}/drift",
            "map": address.MAP,
            "page": f"{address.HANDBOOK}/{page.method}",
            "preferences": address.PREFERENCES,
            "move": address.MOVE,
        },
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "school.html", context)
    return response


@router.post(address.EXAMPLE + "/{method}", responses=FAULTS)
async def post_example(method: str, example: Example, request: Request) -> dict[str, Any]:
    """The live example: the sum, the landing, the hands, and the other schools on the same layout."""
    page = page_of(method)
    layout, rails = _asked(page, example, request)
    return await works_of(request).run(request, _example(page, layout, rails, example.cloth, example.rubber))


@router.post(address.EXAMPLE + "/{method}/drift", responses=FAULTS)
async def post_drift(method: str, example: Example, request: Request) -> dict[str, Any]:
    """How the school lands along its page's row of cue balls, by cloth and by pace."""
    page = page_of(method)
    layout, rails = _asked(page, example, request)
    return await works_of(request).run(request, _drift(page, layout, rails), quick=False)


def _drift(page: Page, layout: Layout, rails: tuple[Rail, ...]) -> Steps[dict[str, Any]]:
    cloth = yield from by_cloth(page, layout, rails)
    pace = yield from by_pace(page, layout, rails)
    return {"axis": page.axis, "cloth": curves_json(cloth), "pace": curves_json(pace)}


@router.post(address.MAP, responses=FAULTS)
async def post_map(part: MapColumn, request: Request) -> dict[str, Any]:
    """One column of the map of where a school holds, and how many columns there are."""
    page = page_of(part.method)
    layout, rails = _asked(page, part.example, request)
    places = columns()
    if part.at >= len(places):
        raise BadInputError(f"column {part.at}: the map has {len(places)}", "at")
    steps = column(page.method, layout, rails, places[part.at])
    spots = await works_of(request).run(request, steps, quick=False)
    return {"of": len(places), "spots": spots_json(layout.table, spots)}


def _asked(page: Page, example: Example, request: Request) -> tuple[Layout, tuple[Rail, ...]]:
    layout = scene_layout(example.layout, request)
    table = conditioned(layout.table, example.cloth, example.rubber)
    return replace(layout, table=table), parse_rails(example.rails) if example.rails else page.rails


def _example(page: Page, layout: Layout, rails: tuple[Rail, ...], cloth: str, rubber: str) -> Steps[dict[str, Any]]:
    """What the live example shows, in steps. Over other rails where the school does not count over the ones asked."""
    stroke = Stroke(default_speed(layout.table))
    state = address.rounded(address.State(layout, stroke, rails, page.method))
    layout = state.layout
    found: Count | NoCount = NoCount(
        page.method, page.title, rails, "no ball is chosen to be hit: do so in the Table room"
    )
    yield
    if layout.target is not None:
        found = count(page.method, layout, rails)
        yield
        other = best_count(page.method, layout) if isinstance(found, NoCount) else found
        found = other if isinstance(other, Count) else found
    state = replace(state, rails=found.rails)
    query = address.write(state) + "".join(
        f"&{name}={value}" for name, value in (("cloth", cloth), ("rubber", rubber)) if value != OWN
    )
    others = (yield from rivals(page, layout, found.rails)) if isinstance(found, Count) else []
    return {
        "address": query,
        "layout": layout_json(layout, by_name=True),
        "rails": rails_name(found.rails),
        "cloth": cloth,
        "rubber": rubber,
        "school": told(state, found),
        "rivals": others,
    }
