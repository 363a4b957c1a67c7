"""A technique's page in the Handbook: solved on its own layout or on any, its moment of contact drawn large."""

import json
from dataclasses import replace
from typing import NotRequired

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from pydantic import BaseModel, ConfigDict
from starlette.concurrency import run_in_threadpool
from typing_extensions import TypedDict

from fandle.app.situation import Situation
from fandle.app.technique import technique
from fandle.core.errors import BadInputError
from fandle.core.handbook.close_work import TechniquePage, technique_page
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import at_once
from fandle.core.systems.catalogue import METHODS
from fandle.core.table.condition import CLOTHS, OWN, RUBBERS, conditioned
from fandle.core.table.speeds import default_speed, lengths_of
from fandle.core.techniques.base import NoTechnique, Technique
from fandle.core.techniques.registry import TECHNIQUES
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import plural_lengths
from fandle.web import address
from fandle.web.drawing import drawing, path
from fandle.web.faults import FAULTS
from fandle.web.known import library_of, mine_of
from fandle.web.moment import MomentModel, moment_model
from fandle.web.speech import said, screen_of
from fandle.web.table.api import Scene, scene_layout, scene_of
from fandle.web.table.models import SceneModel
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)


class TechniqueQuestion(BaseModel):
    """A layout, and what cloth and rubber are made of."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    cloth: str = OWN
    rubber: str = OWN
    cue: str | None = None  # the player's own


class WayModel(TypedDict):
    """A way of striking it: its window as a share of the widest, and in words."""

    name: str
    share: float
    window: str
    says: str


class NumberModel(TypedDict):
    """A number written at a rail."""

    rail: str
    at: float
    label: str
    role: str


class TechniqueModel(TypedDict):
    """What the page shows. Where it does not work here, only the reason and the layout."""

    address: str
    layout: SceneModel
    cloth: str
    rubber: str
    cue: str
    works: bool
    reason: NotRequired[str]
    say: NotRequired[str]
    adjust: NotRequired[str]
    steps: NotRequired[list[str]]
    aim_at: NotRequired[str]
    in_off: NotRequired[str]
    room: NotRequired[str]
    strike: NotRequired[str]
    shot: NotRequired[str]
    driven: NotRequired[str]
    rails: NotRequired[list[str]]
    numbers: NotRequired[list[NumberModel]]
    ways: NotRequired[list[WayModel]]
    moment: NotRequired[MomentModel]


async def show(method: str, request: Request) -> HTMLResponse:
    """A technique's page, its example the layout in the address if there is one."""
    page = technique_page(method)
    asked, fault = await run_in_threadpool(_opened, page, request)
    found = await solve(request, at_once(lambda: _model(page.method, asked)))
    return await run_in_threadpool(_show, request, page, asked, found, fault)


def _opened(page: TechniquePage, request: Request) -> tuple["TechniqueAsked", str]:
    """(what the address asks, "" or why that could not be opened: then the page's own example)."""
    try:
        return _linked(page, request), ""
    except BadInputError as error:
        return TechniqueAsked(page.example), f"This link cannot be opened: {error}."


def _show(
    request: Request, page: TechniquePage, asked: "TechniqueAsked", found: "TechniqueModel", fault: str
) -> HTMLResponse:
    layout = asked.layout
    screen = screen_of(request, layout.table, turns=False)
    shown = said(found, screen)
    before, after = _beside(page)
    context = {
        "page": page, "screen": screen, "fault": fault, "drawing": drawing(layout.table),
        "diamond": (layout.table.diamond_x * 1000, layout.table.diamond_y * 1000),
        "state": json.dumps(shown, allow_nan=False), "tables": library_of(request).choices(),
        "cloths": (OWN, *CLOTHS), "rubbers": (OWN, *RUBBERS), "table_name": layout.table.name, "before": before,
        "after": after,
        "urls": {
            "solve": f"{address.TECHNIQUE}/{page.method}", "page": f"{address.HANDBOOK}/{page.method}",
            "move": address.MOVE,
        },
    }  # fmt: skip
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "technique.html", context)
    return response


class TechniqueAsked:
    """A layout with its words of condition and its cue."""

    def __init__(self, layout: Layout, cloth: str = OWN, rubber: str = OWN, cue: Cue = HOUSE) -> None:
        self.layout = replace(layout, table=conditioned(layout.table, cloth, rubber))
        self.cloth, self.rubber, self.cue = cloth, rubber, cue


def _linked(page: TechniquePage, request: Request) -> TechniqueAsked:
    query = request.query_params
    cloth, rubber = query.get("cloth", OWN), query.get("rubber", OWN)
    if "balls" not in query:
        return TechniqueAsked(page.example, cloth, rubber, mine_of(request).cue)
    asked = address.read(query, library_of(request).known)
    return TechniqueAsked(asked.layout, cloth, rubber, asked.stroke.cue)


def _beside(page: TechniquePage) -> tuple[str, str]:
    """The methods before and after it."""
    names = [*METHODS, *TECHNIQUES]
    place = names.index(page.method)
    return names[place - 1], names[place + 1] if place + 1 < len(names) else ""


@router.post(address.TECHNIQUE + "/{method}", responses=FAULTS)
async def post_technique(method: str, question: TechniqueQuestion, request: Request) -> TechniqueModel:
    """A technique solved on a layout."""
    asked = await run_in_threadpool(_question, question, request)
    shown = await solve(request, at_once(lambda: _model(method.upper(), asked)))
    return said(shown, screen_of(request, asked.layout.table, turns=False))


def _question(question: TechniqueQuestion, request: Request) -> TechniqueAsked:
    cue = mine_of(request).cue if question.cue is None else library_of(request).cue(question.cue)
    return TechniqueAsked(scene_layout(question.layout, request), question.cloth, question.rubber, cue)


def _model(method: str, asked: TechniqueAsked) -> TechniqueModel:
    layout = asked.layout
    stroke = Stroke(default_speed(layout.table), cue=asked.cue)
    situation = address.rounded(Situation(layout, stroke, None))
    more = "".join(f"&{k}={v}" for k, v in (("cloth", asked.cloth), ("rubber", asked.rubber)) if v != OWN)
    base: TechniqueModel = {
        "address": address.write(situation) + more, "layout": scene_of(layout), "cloth": asked.cloth,
        "rubber": asked.rubber, "cue": asked.cue.name, "works": False,
    }  # fmt: skip
    if layout.target is None:
        return {**base, "reason": "no ball is chosen to be hit: do so on the Table"}
    found = technique(situation, method)
    if isinstance(found, NoTechnique):
        return {**base, "reason": found.reason}
    return _told(situation, found, base)


def _told(asked: Situation, found: Technique, base: TechniqueModel) -> TechniqueModel:
    table, way = asked.table, found.way
    less, more = found.room_mm
    widest = max(each.window_deg for each in found.ways)
    lead = f"Send {spoken(found.target)} to" if found.banked else "Aim at"
    room, ways = f"{less:.1f} mm one way, {more:.1f} mm the other", found.shot.paths
    return {
        **base, "works": True, "say": found.say, "adjust": found.adjust, "steps": list(found.steps),
        "aim_at": f"{lead} the {found.mark_rail} rail, {found.mark.say}", "room": room,
        "strike": f"{way.name.capitalize()}; {plural_lengths(round(4 * lengths_of(table, way.stroke.speed)) / 4)}",
        "shot": path(table, ways.get("cue", ())), "driven": path(table, ways.get(found.target, ())),
        "in_off": "" if found.in_off is None else f"Mind: the cue ball goes into the {found.in_off} pocket.",
        "rails": [rail.value for rail in found.rails],
        "numbers": [{"rail": n.rail.value, "at": n.at, "label": n.label, "role": n.role} for n in found.numbers],
        "ways": [
            {"name": each.name, "share": each.window_deg / widest if widest else 0.0, "says": each.says,
             "window": f"{each.window_deg:.2f}°" if each.window_deg else "does not go"}
            for each in found.ways
        ],
        "moment": moment_model(table, found.moment, way.stroke),
    }  # fmt: skip
