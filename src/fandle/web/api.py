"""JSON of the Table room."""

from dataclasses import replace
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, Request
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field

from fandle.core.layout.edit import Way, add_ball, edited, moved_to
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.steps import at_once
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail, parse_rails, rails_name
from fandle.core.table.speeds import default_speed, speed_of
from fandle.formats.base import Number
from fandle.formats.files import LAYOUT_FORMAT, BallFile, layout_json, layout_of, read_layout
from fandle.web import address
from fandle.web.known import shelf_of, tip_of
from fandle.web.noted import layout_href
from fandle.web.view import answer
from fandle.web.ways import all_lines, held_stroke
from fandle.web.work import works_of

router = APIRouter()
LARGEST_FILE = 1_000_000  # bytes of a layout file


class Fault(BaseModel):
    """What is wrong with a question."""

    error: str
    field: str


FAULTS: dict[int | str, dict[str, Any]] = {
    400: {"model": Fault, "description": "The body is not JSON."},
    422: {"model": Fault, "description": "The question cannot be; the sentence says what to do."},
}


class Scene(BaseModel):
    """A layout as the page holds it: a table by name, balls, target."""

    model_config = ConfigDict(extra="forbid")

    format: str = LAYOUT_FORMAT
    table: str
    game: str
    balls: list[BallFile] = Field(max_length=64)
    target: str | None = None


class Question(BaseModel):
    """A layout with a stroke: speed in m/s or lengths, side and height in radii or tips."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    speed: Number | None = None
    lengths: Number | None = Field(default=None, gt=0, le=20)
    side: Number = 0.0
    up: Number = 0.0
    tips: Number | None = None
    height: Number | None = None
    cue: str | None = None
    rails: str | None = None
    among: list[str] = Field(default=[], max_length=6)
    hit: Number = Field(default=0.0, ge=-1, le=1)
    kind: Literal["kick", "bank"] = "kick"
    count: Literal["1", "2", "3", "4", "all"] = "1"
    pocket: Literal["head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far"] | None = None
    method: str = "M3"
    frame: str = "nose"

    def stroke(self, table: Table, cue: Cue, tip: float) -> Stroke:
        """The stroke; lengths and tips win over m/s and radii. tip: of that cue, m."""
        speed = default_speed(table) if self.speed is None else self.speed
        if self.lengths is not None:
            speed = speed_of(table, round(self.lengths, 3))
        side = self.side if self.tips is None else offset_of(self.tips, table, tip)
        up = self.up if self.height is None else offset_of(self.height, table, tip)
        return Stroke(speed, side, up, cue=cue)


class Held(BaseModel):
    """A mark that is to stay, diamonds along the first rail in the page's frame, and what may change."""

    model_config = ConfigDict(extra="forbid")

    question: Question
    mark: Number = Field(ge=-20, le=20)
    change: Literal["side", "up", "speed"]


class Edit(BaseModel):
    """A layout to change as a whole, with the way over its rails that may change with it."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    how: Literal["left-right", "end-to-end", "swap", "clear"]
    side: Number = 0.0
    hit: Number = 0.0
    rails: str | None = None


class Move(BaseModel):
    """A layout to be played on another table."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    table: str


def rails_of(text: str | None) -> tuple[Rail, ...] | None:
    """Rails as a page names them; None where it leaves the choice to us."""
    return parse_rails(text) if text else None


def scene_layout(scene: Scene, request: Request) -> Layout:
    """The layout a page holds."""
    return layout_of(scene.model_dump(), shelf_of(request).table)


def state_of(question: Question, request: Request) -> address.State:
    """The state a question asks about."""
    layout = scene_layout(question.layout, request)
    cue = shelf_of(request).cue(question.cue)
    return address.State(
        layout,
        question.stroke(layout.table, cue, tip_of(request, cue)),
        rails_of(question.rails),
        question.method,
        address.check_frame(question.frame),
        question.hit,
        question.kind,
        question.count,
        question.pocket,
        tuple(parse_rails(text) for text in question.among) if question.kind == "kick" else (),
    )


@router.post(address.ANSWER, responses=FAULTS)
async def post_answer(question: Question, request: Request) -> dict[str, Any]:
    """Everything the Table room shows for a layout and a stroke."""
    state = state_of(question, request)
    return await works_of(request).run(request, answer(state, tip_of(request, state.stroke.cue)))


@router.post(address.LINES, responses=FAULTS)
async def post_lines(question: Question, request: Request) -> dict[str, Any]:
    """All lines over as many rails as asked for, best first, without drawing any."""
    return {"lines": await works_of(request).run(request, all_lines(state_of(question, request)), quick=False)}


@router.post(address.INSTEAD, responses=FAULTS)
async def post_instead(held: Held, request: Request) -> dict[str, Any]:
    """The stroke with which the held mark is right; everything but what is to change is kept."""
    state = state_of(held.question, request)
    return await works_of(request).run(request, at_once(lambda: held_stroke(state, held.mark, held.change)))


@router.post(address.EDIT, responses=FAULTS)
def post_edit(change: Edit, request: Request) -> dict[str, Any]:
    """A layout flipped, swapped or cleared; a flip turns side, thickness and rails with it."""
    layout = scene_layout(change.layout, request)
    new, way = edited(layout, change.how, Way(rails_of(change.rails), change.side, change.hit))
    rails = None if way.rails is None else rails_name(way.rails)
    return {"layout": layout_json(new, by_name=True), "side": way.side, "hit": way.hit, "rails": rails}


@router.post(address.ADD_BALL, responses=FAULTS)
def post_add_ball(scene: Scene, request: Request) -> dict[str, Any]:
    """The layout with one more ball on a free place."""
    return layout_json(add_ball(scene_layout(scene, request)), by_name=True)


@router.post(address.READ_LAYOUT, responses=FAULTS)
def post_read_layout(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> dict[str, Any]:
    """A layout file, checked, as the page holds it. A table that comes with it stands in the club from then on."""
    layout = read_layout(text, shelf_of(request).table)
    layout = replace(layout, table=shelf_of(request).take_in(layout.table))
    return {"layout": layout_json(layout, by_name=True), "href": layout_href(layout)}


@router.post(address.MOVE, responses=FAULTS)
def post_move(move: Move, request: Request) -> dict[str, str]:
    """Where the same layout is opened on another table, its balls renamed if the game changes."""
    layout = moved_to(scene_layout(move.layout, request), shelf_of(request).table(move.table))
    return {"href": layout_href(layout)}


@router.get(address.SAVE_LAYOUT, responses=FAULTS)
def get_layout_file(request: Request) -> JSONResponse:
    """The layout an address holds, as a file to keep."""
    state = address.read(request.query_params, shelf_of(request).known)
    headers = {"Content-Disposition": 'attachment; filename="layout.fandle.json"'}
    return JSONResponse(layout_json(state.layout), headers=headers)


@router.get(address.HEALTH)
async def get_health() -> dict[str, str]:
    """Is the server up?"""
    return {"status": "ok"}
