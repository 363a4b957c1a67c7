"""Which line? What the route of the plan is asked."""

from typing import Literal

from pydantic import ConfigDict, Field

from fandle.formats.base import Number
from fandle.formats.player import PlayerFile
from fandle.web.table.afterwards import Afterwards
from fandle.web.table.api import Scene


class PlanQuestion(Afterwards):
    """A layout with a stroke, and what is wanted. player: new, club, strong or a scatter; the page's own where null.

    pocket: the one called; null for any. ease: as of the other questions; plain: without side, the player's
    own habit where null. all: every line, else as many as anyone looks at.
    """

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    goal: Literal["hit", "pot", "safe"] = "hit"
    pocket: Literal["head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far", "any"] | None = None
    player: Literal["new", "club", "strong"] | PlayerFile | None = None
    strokes: Literal["this", "usual"] = "usual"
    draws: int = Field(default=300, ge=1, le=5000)
    seed: int = Field(default=0, ge=0, le=2**31)
    speed: Number | None = None
    lengths: Number | None = Field(default=None, gt=0, le=20)
    side: Number = 0.0
    up: Number = 0.0
    tips: Number | None = None
    height: Number | None = None
    elevation: Number = 0.0
    cue: str | None = None
    frame: str = "nose"
    ease: bool = False
    plain: bool | None = None
    all: bool = False
