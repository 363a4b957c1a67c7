"""What the Table room's routes answer. Places are drawing points, mm; paths are SVG path data."""

from typing import Any, NotRequired

from pydantic import ConfigDict, with_config
from typing_extensions import TypedDict

from fandle.web.moment import MomentModel
from fandle.web.table.help_models import Help, OwnMark
from fandle.web.table.row_models import RowModel, ShutModel
from fandle.web.table.stroke_models import StrokeModel

Point = tuple[float, float]
Rails = list[str]


class BallModel(TypedDict):
    """A ball: its id and its centre, diamonds."""

    id: str
    x: float
    y: float


class StateModel(TypedDict):
    """Where the game stands, see `docs/formats.md`."""

    group: str | None
    on: str | None
    free_ball: bool


class SceneModel(TypedDict):
    """A layout as a page holds it: the table by name. state: only where it says anything."""

    format: str
    table: str
    game: str
    balls: list[BallModel]
    target: str | None
    state: NotRequired[StateModel]


class Headline(TypedDict):
    """What is to be done, and what stands in its way."""

    ball: str
    way: str


class ZoneData(TypedDict):
    """A circle on the cloth, diamonds."""

    x: float
    y: float
    r: float


class Called(TypedDict):
    """Something of the table (a pocket, an axis) and what this screen calls it."""

    id: str
    name: str


class OtherFrame(TypedDict):
    """The mark in the frame that is printed small."""

    frame: str
    before: str
    mark: str
    after: str


# a row of the chain: how far it moves the mark, from and to; the first has only where it begins
ChainRow = TypedDict("ChainRow", {"label": str, "term": str | None, "from": float | None, "to": float, "text": str})


class RestModel(TypedDict):
    """Where a ball that moved comes to rest."""

    id: str
    at: Point


class Moment(TypedDict):
    """What happens when, in words."""

    t: float
    at: Point
    text: str


class Blow(TypedDict):
    """How the first ball is met, and to which side there is room to write it."""

    text: str
    way: Point


class WholeModel(TypedDict):
    """The whole shot: the loud path, the others, where balls rest, each ball's film, what happens when."""

    shot: str
    after: list[str]
    rests: list[RestModel]
    films: dict[str, list[list[float]]]
    moments: list[Moment]
    lasts: float
    blow: Blow | None
    told: str


# the line along which short and long are read
AcrossLine = TypedDict("AcrossLine", {"from": Point, "to": Point, "whole": int, "target": float})
Joint = TypedDict("Joint", {"rail": str, "from": Point, "to": Point, "turn": Point})


class MirrorTable(TypedDict):
    """One image of the table in the mirror view, with what it is called and where its middle is."""

    name: str
    middle: Point
    outline: str
    balls: list[RestModel]


class MirrorModel(TypedDict):
    """The mirror view: tables unfolded over the rails."""

    view: str
    wide: float
    high: float
    radius: float
    tables: list[MirrorTable]
    joints: list[Joint]
    natural: str
    played: str


class MarkModel(TypedDict):
    """The mark and its windows, of the hit and of the pot, diamonds at the nose."""

    nose: float
    natural: float
    less: float
    more: float
    pot: Point | None


class PictureModel(WholeModel):
    """What is drawn of a solved line."""

    line: AcrossLine | None
    natural: str
    ghost: Point
    aim_line: str
    ahead: Point
    back: Point
    mark: MarkModel
    mirror: MirrorModel | None
    involved: list[str]


class ResultKey(TypedDict):
    """What can be noted of a shot, and the word on its key. potted: what the key says of the ball, null nothing."""

    id: str
    label: str
    potted: bool | None


class ChosenModel(TypedDict):
    """The chosen line; of one that is not solved only the reason. answer: the answer of `fandle aim`."""

    rails: str
    way: str
    solved: bool
    answer: dict[str, Any]
    reason: NotRequired[str]
    rail: NotRequired[str]
    lead: NotRequired[str]
    counted_from: NotRequired[str]
    remembered: NotRequired[str]
    own: NotRequired[OwnMark | None]
    helps: NotRequired[list[Help]]
    beside: NotRequired[str]
    contact: NotRequired[str]
    seen: NotRequired[str]
    cushions: NotRequired[list[str]]
    big: NotRequired[str]
    big_words: NotRequired[str]
    other: NotRequired[OtherFrame | None]
    measured: NotRequired[str]
    give: NotRequired[str]
    running: NotRequired[str]
    window: NotRequired[str]
    room: NotRequired[str]
    thickness: NotRequired[str]
    chain: NotRequired[list[ChainRow]]
    results: NotRequired[list[ResultKey]]
    drawing: NotRequired[PictureModel]
    moment: NotRequired[MomentModel | None]


class MethodModel(TypedDict):
    """A system one can choose."""

    method: str
    title: str
    chosen: bool


class PlayedModel(TypedDict):
    """The stroke a system means, in words."""

    how: str
    speed: str
    frame_words: str


class StandsIn(TypedDict):
    """The favourite system, and why another one stands in for it."""

    title: str
    reason: str


class Verdict(TypedDict):
    """Where a count lands, and what that means."""

    where: str
    what: str


@with_config(ConfigDict(extra="allow"))
class CountModel(TypedDict):
    """The favourite system on the chosen line: the answer of `fandle count`, and how it is said."""

    applies: bool
    methods: list[MethodModel]
    reason: NotRequired[str]
    page: NotRequired[str]
    stands_in: NotRequired[StandsIn]
    verdict: NotRequired[Verdict]
    played: NotRequired[PlayedModel]
    lead: NotRequired[str]
    result: NotRequired[str]


class AnswerModel(TypedDict):
    """Everything the Table room shows.

    lines: null where they are asked for by themselves; tray: balls not on it; upright: rails are called as the drawing
    stands on a phone.
    """

    address: str
    layout: SceneModel
    stroke: StrokeModel
    hit: float
    hit_text: str
    frame: str
    method: str
    kind: str
    goal: str
    called: str | None
    zones: list[ZoneData]
    away: list[ZoneData]
    next: str | None
    pocket: str | None
    pockets: list[Called]
    axes: list[Called]
    tray: list[str]
    target_on: bool
    on_in: tuple[str, str] | None
    headline: Headline
    lines: list[RowModel] | None
    shut: list[ShutModel] | None
    advice: str
    chosen: ChosenModel | None
    count: NotRequired[CountModel | None]
    upright: NotRequired[bool]
