"""The practice room, as its page asks and is told."""

from typing import Literal, NotRequired

from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.formats.base import Number
from fandle.web.hand_view import HandModel

Point = tuple[float, float]
Topic = Literal["one rail", "two rails", "three rails", "rail", "side", "change", "contacts", "sum"]


class PracticeQuestion(BaseModel):
    """On which table; the plan of how many minutes, or which drill; sums: false for its steps with hands and cue."""

    model_config = ConfigDict(extra="forbid")

    table: str
    minutes: int = 20
    drill: str = ""
    sums: bool = True


class TryNote(BaseModel):
    """A try at a drill. uid: the page's own name for it, so that it is never noted twice."""

    model_config = ConfigDict(extra="forbid")

    uid: str = Field(min_length=8, max_length=64)
    table: str
    drill: str
    made: bool


class AskQuestion(BaseModel):
    """A question of the quiz; topic: "" for the one that is due; sums: false for none that is a sum."""

    model_config = ConfigDict(extra="forbid")

    table: str
    topic: Topic | Literal[""] = ""
    sums: bool = True


class Reply(BaseModel):
    """An answer: the question's seed and difficulty, the mark (diamonds) or the option, how long it took (s)."""

    model_config = ConfigDict(extra="forbid")

    uid: str = Field(min_length=8, max_length=64)
    table: str
    topic: Topic
    seed: int = Field(ge=0, le=2**31)
    difficulty: Number = Field(ge=0, le=1)
    given: Number | str
    seconds: Number = Field(ge=0, le=3600)


class RoundModel(TypedDict):
    """The round under way: its shots, how many were played, how many of them counted; best: of the rounds so far."""

    of: int
    played: int
    made: int
    best: int


class RecordModel(TypedDict):
    """What was made of a drill. last: the last ten, the newest last; reached: is its goal reached? round: of a drill
    that is played in rounds."""

    attempts: int
    hits: int
    streak: int
    best: int
    last: list[bool]
    reached: bool
    round: RoundModel | None
    say: str


class BallModel(TypedDict):
    """A ball as it is drawn, mm; where: how it is set up with a tape."""

    id: str
    x: float
    y: float
    where: str


class MarkModel(TypedDict):
    """A contact with a rail, diamonds along it; where: in words."""

    rail: str
    at: float
    where: str


class CircleModel(TypedDict):
    """A circle on the drawing, mm."""

    x: float
    y: float
    r: float


class DrillShotModel(TypedDict):
    """One shot of a drill: the target is the ball `aim`; path: the cue ball's, runs: the target's into its pocket."""

    balls: list[BallModel]
    aim: str
    path: str
    runs: str
    marks: list[MarkModel]
    circle: CircleModel | None
    stroke: str


class DrillModel(DrillShotModel):
    """A drill on the table. hands: its line measured without sums; remember: its mark in words, "" for none; then: the
    shots after the first one."""

    key: str
    title: str
    family: str
    say: str
    wanted: str
    goal: str
    why_not: str
    then: list[DrillShotModel]
    record: RecordModel
    hands: list[HandModel]
    remember: str


class PartModel(TypedDict):
    """A part of tonight's plan; swaps: (name, title) of what it can be exchanged for."""

    key: str
    title: str
    minutes: int
    why: str
    say: str
    pause: bool
    swaps: list[tuple[str, str]]


class TonightModel(TypedDict):
    """Tonight's plan."""

    minutes: int
    parts: list[PartModel]


class EntryModel(TypedDict):
    """A drill in the list."""

    key: str
    title: str
    family: str
    why_not: str
    made: str


class OwnListModel(TypedDict):
    """More drills that players made; older: the record from which still older ones begin, null where there are none."""

    entries: list[EntryModel]
    older: int | None


class MadeModel(EntryModel):
    """A drill a player made. on: the table of its layout; new: was it not there before?"""

    on: str
    new: bool


class AskedModel(TypedDict):
    """A question. rail: on which a mark is asked for; options: to choose from, says: in words; neither: a number
    is asked for."""

    topic: str
    what: str
    seed: int
    difficulty: float
    text: str
    balls: list[BallModel]
    rail: str
    options: list[str]
    says: list[str]
    seconds: float
    level: str


class RepliedModel(TypedDict):
    """What an answer comes to. path: the right line; at: the right mark."""

    right: bool
    say: str
    at: NotRequired[float]
    path: str
    level: str


class ProgressRow(TypedDict):
    """A drill, or a topic of the quiz, week by week: (week's Monday, tries, hits, share, low, high)."""

    key: str
    title: str
    attempts: int
    hits: int
    weeks: list[tuple[str, int, int, float, float, float]]
    say: str
    verdict: str


class ProgressModel(TypedDict):
    """What changed, the last so many days against all before, and what did not. bias: of marks named in the quiz."""

    days: int
    by: str
    goal: float
    rows: list[ProgressRow]
    bias: str
