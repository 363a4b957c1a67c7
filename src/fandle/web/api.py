"""JSON of the Table room."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, Request
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field

from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.edit import Way, add_ball, edited
from fandle.core.errors import BadInputError
from fandle.core.rails import Rail, parse_rails, rails_name
from fandle.core.stroke import Stroke, find_cue
from fandle.core.table import Table
from fandle.core.units import default_speed, offset_of, speed_of
from fandle.formats.base import Number
from fandle.formats.files import LAYOUT_FORMAT, BallFile, layout_json, layout_of, read_layout
from fandle.store.log import preference
from fandle.web import address
from fandle.web.view import answer
from fandle.web.ways import all_lines, held_stroke

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
    hit: Number = Field(default=0.0, ge=-1, le=1)
    kind: Literal["kick", "bank"] = "kick"
    count: Literal["1", "2", "3", "4", "all"] = "1"
    pocket: Literal["head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far"] | None = None
    method: str = "M3"
    frame: str = "nose"

    def stroke(self, table: Table, tip: float) -> Stroke:
        """The stroke; lengths and tips win over m/s and radii. tip: the player's tip, m."""
        speed = default_speed(table) if self.speed is None else self.speed
        if self.lengths is not None:
            speed = speed_of(table, round(self.lengths, 3))
        side = self.side if self.tips is None else offset_of(self.tips, table, tip)
        up = self.up if self.height is None else offset_of(self.height, table, tip)
        return Stroke(speed, side, up, cue=find_cue(self.cue))


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


def rails_of(text: str | None) -> tuple[Rail, ...] | None:
    """Rails as a page names them; None where it leaves the choice to us."""
    return parse_rails(text) if text else None


def tip_of(request: Request) -> float:
    """Diameter of the player's tip in metres."""
    return float(preference(request.app.state.database, "tip_mm", TIP_DIAMETER_M * 1000)) / 1000


def state_of(question: Question, tip: float) -> address.State:
    """The state a question asks about."""
    layout = layout_of(question.layout.model_dump())
    return address.State(
        layout,
        question.stroke(layout.table, tip),
        rails_of(question.rails),
        question.method,
        address.check_frame(question.frame),
        question.hit,
        question.kind,
        question.count,
        question.pocket,
    )


@router.post(address.ANSWER, responses=FAULTS)
def post_answer(question: Question, request: Request) -> dict[str, Any]:
    """Everything the Table room shows for a layout and a stroke."""
    tip = tip_of(request)
    return answer(state_of(question, tip), tip)


@router.post(address.LINES, responses=FAULTS)
def post_lines(question: Question, request: Request) -> dict[str, Any]:
    """All lines over as many rails as asked for, best first, without drawing any."""
    return {"lines": all_lines(state_of(question, tip_of(request)))}


@router.post(address.INSTEAD, responses=FAULTS)
def post_instead(held: Held, request: Request) -> dict[str, Any]:
    """The stroke with which the held mark is right; everything but what is to change is kept."""
    return held_stroke(state_of(held.question, tip_of(request)), held.mark, held.change)


@router.post(address.EDIT, responses=FAULTS)
def post_edit(change: Edit) -> dict[str, Any]:
    """A layout flipped, swapped or cleared; a flip turns side, thickness and rails with it."""
    layout = layout_of(change.layout.model_dump())
    new, way = edited(layout, change.how, Way(rails_of(change.rails), change.side, change.hit))
    rails = None if way.rails is None else rails_name(way.rails)
    return {"layout": layout_json(new), "side": way.side, "hit": way.hit, "rails": rails}


@router.post(address.ADD_BALL, responses=FAULTS)
def post_add_ball(scene: Scene) -> dict[str, Any]:
    """The layout with one more ball on a free place."""
    return layout_json(add_ball(layout_of(scene.model_dump())))


@router.post(address.READ_LAYOUT, responses=FAULTS)
def post_read_layout(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)],
) -> dict[str, Any]:
    """A layout file, checked, as the page holds it."""
    data = layout_json(read_layout(text))
    if not isinstance(data["table"], str):
        raise BadInputError(
            f"the file brings its own table {data['table']['name']!r}: this page plays standard tables so far, "
            "ask the command line about it",
            "table",
        )
    return data


@router.get(address.SAVE_LAYOUT, responses=FAULTS)
def get_layout_file(request: Request) -> JSONResponse:
    """The layout an address holds, as a file to keep."""
    state = address.read(request.query_params)
    headers = {"Content-Disposition": 'attachment; filename="layout.fandle.json"'}
    return JSONResponse(layout_json(state.layout), headers=headers)


@router.get(address.HEALTH)
def get_health() -> dict[str, str]:
    """Is the server up?"""
    return {"status": "ok"}
