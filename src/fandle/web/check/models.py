"""The check room, as its page asks and is told."""

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.formats.base import Number

Point = tuple[float, float]
Kind = Literal["plain", "lag", "firm", "reverse", "route", "three", "corner", "running", "plain-near", "lag-head"]


class LandedModel(BaseModel):
    """A contact, diamonds along its rail; a ball that dropped landed at that corner's end."""

    model_config = ConfigDict(extra="forbid")

    rail: Literal["near", "far", "head", "foot"]
    at: Number


class StopModel(BaseModel):
    """Where the cue ball stopped, diamonds."""

    model_config = ConfigDict(extra="forbid")

    x: Number = Field(ge=0, le=8)
    y: Number = Field(ge=0, le=4)


class PlayedModel(BaseModel):
    """A reference shot as it was played."""

    model_config = ConfigDict(extra="forbid")

    shot: Kind
    landed: list[LandedModel] = Field(max_length=5)
    rest: StopModel | None = None


class CheckQuestion(BaseModel):
    """The shots so far. hidden: the club's numbers are hidden, the check begins with the table as it was made."""

    model_config = ConfigDict(extra="forbid")

    table: str
    hidden: bool = False
    shots: list[PlayedModel] = Field(default=[], max_length=60)


class ShooterQuestion(BaseModel):
    """A shot for the simulated shooter, on the club's own numbers; turn: which of its tries."""

    model_config = ConfigDict(extra="forbid")

    table: str
    shot: Kind
    turn: int = Field(default=0, ge=0, le=1000)


class MarkModel(TypedDict):
    """Where a rail is met: the rail and diamonds along it."""

    rail: str
    at: float


class PlaceModel(TypedDict):
    """A place on the cloth, diamonds."""

    x: float
    y: float


class ReadModel(TypedDict):
    """What was read of a shot."""

    landed: list[MarkModel]
    rest: PlaceModel | None


class ShotModel(TypedDict):
    """A reference shot as the page shows it. marks: where the table should meet the rails; path: SVG; aim: in words.

    compares: it is the mirror image of another, to compare two rails.
    """

    id: str
    say: str
    place: PlaceModel
    where: str
    aim: str
    stroke: str
    path: str
    marks: list[MarkModel]
    stop: PlaceModel | None
    compares: bool


class PlaysRow(TypedDict):
    """How a kind of shot plays: diamonds longer (+), with its range, and in words."""

    kind: str
    off: float
    sd: float
    say: str


class LearnedRow(TypedDict):
    """A number of the table in words: before, now, and how much of it was learned, 0 to 1."""

    label: str
    before: str
    now: str
    learned: float


class ResultModel(TypedDict):
    """What the shots so far come to; table: the fitted table, to be kept."""

    verdict: str
    who: str
    like: str
    plays: list[PlaysRow]
    learned: list[LearnedRow]
    says: list[str]
    wild: list[int]
    table: dict[str, object]
