"""What a question about a line gets: an aim, proved by playing it, or a refusal with its reason."""

from dataclasses import dataclass
from typing import Literal

from fandle.core.lines.marks import Marks
from fandle.core.shot.approach import Approach
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

ReasonCode = Literal["jaw", "blocked", "short_of_speed", "too_much_side", "no_such_line", "double_kiss"]
LINKS = ("ball size", "cushion", "compression", "side", "follow", "table", "squirt and swerve")
THICKNESS = "thickness"


@dataclass(frozen=True)
class Cushion:
    """One contact with a rail: where the centre turns (diamonds) and the angles from the rail."""

    rail: Rail
    at: float
    in_deg: float
    out_deg: float


@dataclass(frozen=True)
class Link:
    """One link of the chain: what it is and how far it moves the mark at the nose, in diamonds."""

    link: str
    shift: float


@dataclass(frozen=True)
class ObjectContact:
    """How a banked ball is met: the cut (degrees) and the cue ball's centre then, in diamonds."""

    cut_deg: float
    ghost: Point


@dataclass(frozen=True)
class Solution:
    """One verified aim. window: how far the mark at the nose (mm), the cue (degrees), may be off.

    mark_rail: where the marks are read, the first rail or the one behind the target. Of a bank
    (`pocket` and `contact` given) rails, marks, window and cushions are the object ball's, and
    `direction` is the cue's; `object_run` is the object ball's own way.
    push: the target is frozen to the cue ball and driven on at once, so that both go on together.
    """

    rails: tuple[Rail, ...]
    mark_rail: Rail
    target: str
    mirror: Marks
    natural: Marks
    corrected: Marks
    direction: float
    miss_mm: float
    fullness: float
    window_less_mm: float
    window_more_mm: float
    window_deg: float
    cushions: tuple[Cushion, ...]
    shot: Approach
    pocket: str | None = None
    contact: ObjectContact | None = None
    object_run: Approach | None = None
    push: bool = False

    @property
    def window_mm(self) -> float:
        """Whole width of the window."""
        return self.window_less_mm + self.window_more_mm


@dataclass(frozen=True)
class Refusal:
    """No aim: the code of the contract and the reason in a player's words."""

    rails: tuple[Rail, ...]
    target: str
    reason_code: ReasonCode
    reason: str


@dataclass(frozen=True)
class Aim:
    """All aims over one order of rails, widest window first, with the chain of the first."""

    solutions: tuple[Solution, ...]
    chain: tuple[Link, ...]

    @property
    def best(self) -> Solution:
        """The aim with the widest window."""
        return self.solutions[0]
