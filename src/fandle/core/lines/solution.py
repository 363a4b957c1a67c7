"""What a question about a line gets: an aim, proved by playing it, or a refusal with its reason."""

import math
from dataclasses import dataclass
from typing import Literal

from fandle.core.lines.marks import Marks
from fandle.core.lines.remembered import Remembered
from fandle.core.shot.approach import Approach
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

ReasonCode = Literal["jaw", "blocked", "short_of_speed", "too_much_side", "no_such_line", "double_kiss", "no_pot"]
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
class Part:
    """A part of a hanging ball's window: what the ball is met off there ("direct", a rail, "jaw"), the directions of
    the cue it runs from and to (rad), and its width at the mark (mm)."""

    off: str
    low: float
    high: float
    mm: float


@dataclass(frozen=True)
class Pot:
    """What a pot forgives: the mark may be off by so much either way (mm) and the target still drops in `pocket`.

    in_off: the cue ball follows it down, or drops elsewhere. through: the balls met, in the order in which the stroke
    is passed on, from the one the cue ball hits on. ball: the one that drops, of a combination not the one that is hit.
    """

    pocket: str
    less_mm: float
    more_mm: float
    window_deg: float
    in_off: bool
    through: tuple[str, ...]
    ball: str

    def by(self, first: str) -> str:
        """By way of what, in words after the ball that is hit; "" of a plain pot."""
        if self.ball != first:
            between = [spoken(name) for name in self.through[1:] if name != self.ball]
            return f" on {spoken(first)}, on to {' and '.join([*between, spoken(self.ball)])}"
        return "".join(f", off {spoken(name)}" for name in self.through[1:])


@dataclass(frozen=True)
class Solution:
    """One verified aim. window: how far the mark at the nose (mm), the cue (degrees), may be off.

    mark_rail: where the marks are read, the first rail or the one behind the target. Of a bank
    (`pocket` and `contact` given) rails, marks, window and cushions are the object ball's, and
    `direction` is the cue's; `object_run` is the object ball's own way.
    hit: the thickness asked for, ball diameters right of full. mark: the corrected one at the nose as it is remembered.
    push: the target is frozen to the cue ball and driven on at once, so that both go on together.
    parts: of the window of a ball that hangs in a pocket's mouth. pot: of a kick or straight shot that is to pot.
    edges: the window's ends as directions of the cue, rad; not of a bank.
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
    mark: Remembered
    pocket: str | None = None
    contact: ObjectContact | None = None
    object_run: Approach | None = None
    push: bool = False
    parts: tuple[Part, ...] = ()
    pot: Pot | None = None
    hit: float = 0.0
    edges: tuple[float, float] = (math.nan, math.nan)

    @property
    def window_mm(self) -> float:
        """Whole width of the window."""
        return self.window_less_mm + self.window_more_mm


@dataclass(frozen=True)
class Refusal:
    """No aim: the code of the contract and the reason in a player's words. by: the ball that is in the way, if any."""

    rails: tuple[Rail, ...]
    target: str
    reason_code: ReasonCode
    reason: str
    by: str | None = None


@dataclass(frozen=True)
class Aim:
    """All aims over one order of rails, widest window first, with the chain of the first."""

    solutions: tuple[Solution, ...]
    chain: tuple[Link, ...]

    @property
    def best(self) -> Solution:
        """The aim with the widest window."""
        return self.solutions[0]
