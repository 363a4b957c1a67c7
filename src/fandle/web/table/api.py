"""JSON of the Table room."""

from dataclasses import asdict, replace
from typing import Annotated, Literal, cast

from fastapi import APIRouter, Body, Request
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field

from fandle.app.situation import Situation
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import Turning, add_ball, edited, moved_to
from fandle.core.layout.model import Layout
from fandle.core.layout.place import eased
from fandle.core.lines.question import ANY
from fandle.core.shot.cue import Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.steps import Steps, at_once
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail, parse_rails, rails_name
from fandle.core.table.speeds import default_speed, speed_of
from fandle.core.words.balls import CUE
from fandle.formats.base import Number
from fandle.formats.files import LAYOUT_FORMAT, BallFile, StateFile, layout_json, layout_of, read_layout
from fandle.formats.tables import table_json
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.known import carried_of, library_of, mine_of, player_of, tip_of
from fandle.web.noted import layout_href
from fandle.web.speech import said, screen_of
from fandle.web.table.afterwards import Afterwards
from fandle.web.table.lists import held_stroke
from fandle.web.table.models import AnswerModel, SceneModel
from fandle.web.table.replies import EditedModel, HealthModel, HeldModel, HrefModel, ReadModel
from fandle.web.table.view import answer
from fandle.web.tasks import solve, works_of
from fandle.work.warm import Elsewhere, Warming

router = APIRouter()
LARGEST_FILE = 1_000_000  # bytes of a layout file


class Scene(BaseModel):
    """A layout as the page holds it: a table by name, balls, target."""

    model_config = ConfigDict(extra="forbid")

    format: str = LAYOUT_FORMAT
    table: str
    game: str
    balls: list[BallFile] = Field(max_length=64)
    target: str | None = None
    state: StateFile = StateFile()


class Question(Afterwards):
    """A layout with a stroke: speed in m/s or lengths, side and height in radii or tips.

    ease: a ball that lies into rubber or a little too far into a pocket is put beside it, not refused.
    """

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
    elevation: Number = 0.0
    goal: Literal["hit", "pot", "safe"] = "hit"
    called: Literal["head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far", "any"] | None = None
    pocket: Literal["head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far", "any"] | None = None
    method: str = "M3"
    frame: str = "nose"
    ease: bool = False

    def stroke(self, table: Table, cue: Cue, tip: float) -> Stroke:
        """The stroke; lengths and tips win over m/s and radii. tip: of that cue, m."""
        speed = default_speed(table) if self.speed is None else self.speed
        if self.lengths is not None:
            speed = speed_of(table, round(self.lengths, 3))
        side = self.side if self.tips is None else offset_of(self.tips, table, tip)
        up = self.up if self.height is None else offset_of(self.height, table, tip)
        return Stroke(speed, side, up, self.elevation, cue)


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
    how: Literal["left-right", "end-to-end", "swap", "clear", "rack", "scatter", "spot"]
    ball: str = CUE
    seed: int = Field(default=0, ge=0, le=2**31)
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


def scene_of(layout: Layout) -> SceneModel:
    """A layout as a page holds it."""
    return cast(SceneModel, layout_json(layout, by_name=True))


def scene_layout(scene: Scene, request: Request, *, ease: bool = False) -> Layout:
    """The layout a page holds. ease: balls that cannot lie where they are lie beside that place."""
    known = library_of(request).table
    data = scene.model_dump()
    if ease:
        table = known(scene.table)
        data["balls"] = [asdict(eased(table, Ball(**ball))) for ball in data["balls"]]
    return layout_of(data, known)


def situation(question: Question, request: Request) -> Situation:
    """The situation a question asks about."""
    layout = scene_layout(question.layout, request, ease=question.ease)
    cue = library_of(request).cue(question.cue)
    return Situation(
        layout,
        question.stroke(layout.table, cue, tip_of(request, cue)),
        rails_of(question.rails),
        question.kind,
        None if question.kind == "bank" and question.pocket == ANY else question.pocket,
        question.hit if question.pocket is None else 0.0,
        address.check_frame(question.frame),
        question.method,
        question.goal,
        None if question.called == ANY else question.called,
        player_of(request),
        question.then(layout),
        carried_of(request, layout.table),
    )


@router.post(address.ANSWER, responses=FAULTS)
async def post_answer(question: Question, request: Request) -> AnswerModel:
    """Everything the Table room shows for a layout and a stroke."""
    found: AnswerModel = await solve(request, _answered(question, request))
    return found


def _answered(question: Question, request: Request) -> Steps[AnswerModel]:
    """A question read, worked out and said as this screen says it."""
    asked = situation(question, request)
    found = yield from answer(asked, tip_of(request, asked.stroke.cue))
    screen = screen_of(request, asked.table)
    return {**said(found, screen), "upright": screen.upright}


@router.post(address.INSTEAD, responses=FAULTS)
async def post_instead(held: Held, request: Request) -> HeldModel:
    """The stroke with which the held mark is right; everything but what is to change is kept."""
    asked = await works_of(request).read(situation, held.question, request)
    found = await solve(request, at_once(lambda: held_stroke(asked, held.mark, held.change)))
    return said(found, screen_of(request, asked.table))


@router.post(address.EDIT, responses=FAULTS)
def post_edit(change: Edit, request: Request) -> EditedModel:
    """A layout flipped, swapped or cleared; a flip turns side, thickness and rails with it."""
    layout = scene_layout(change.layout, request)
    new, way = edited(
        layout, change.how, Turning(rails_of(change.rails), change.side, change.hit), change.ball, change.seed
    )
    rails = None if way.rails is None else rails_name(way.rails)
    return {"layout": scene_of(new), "side": way.side, "hit": way.hit, "rails": rails}


@router.post(address.ADD_BALL, responses=FAULTS)
def post_add_ball(scene: Scene, request: Request, ball: str | None = None) -> SceneModel:
    """The layout with one more ball on a free place: the one named, else the next."""
    return scene_of(add_ball(scene_layout(scene, request), ball))


@router.post(address.READ_LAYOUT, responses=FAULTS)
def post_read_layout(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> ReadModel:
    """A layout file, checked, as the page holds it. Nothing is kept.

    `table` is a whole table that came with it and that the club does not know yet: once it is put there (POST it to
    `/api/club/read-table`), the layout can be opened on the name that this gives it.
    """
    library = library_of(request)
    layout = read_layout(text, library.table)
    known = library.same(layout.table)
    table = None if known is not None else table_json(layout.table)
    there = layout if known is None else replace(layout, table=known)
    href = None if known is None else layout_href(there, mine_of(request))
    return {"layout": scene_of(there), "href": href, "table": table}


@router.post(address.MOVE, responses=FAULTS)
def post_move(move: Move, request: Request) -> HrefModel:
    """Where the same layout is opened on another table, its balls renamed if the game changes."""
    layout = moved_to(scene_layout(move.layout, request), library_of(request).table(move.table))
    return {"href": layout_href(layout, mine_of(request))}


@router.get(address.SAVE_LAYOUT, responses=FAULTS)
def get_layout_file(request: Request) -> JSONResponse:
    """The layout an address holds, as a file to keep."""
    asked = address.read(request.query_params, library_of(request).known)
    headers = {"Content-Disposition": 'attachment; filename="layout.fandle.json"'}
    return JSONResponse(layout_json(asked.layout), headers=headers)


@router.get(address.HEALTH)
async def get_health(request: Request) -> HealthModel:
    """Is the server up, and how far is its engine?"""
    warming: Warming | Elsewhere = request.app.state.warming
    return {"status": "ok" if warming.ready else "compiling", "done": warming.done}
