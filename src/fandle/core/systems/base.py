"""What every count has in common: its shape, and its view of the layout.

A method is a module with METHOD, TITLE, ORDERS and `count`. It is written once, for the orders of rails
in ORDERS and a target that lies further on; the layout is turned to that, and the answer turned back.
"""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import Marks
from fandle.core.lines.remembered import Remembered
from fandle.core.lines.solution import ObjectContact
from fandle.core.shot.approach import Approach
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.symmetry import ACROSS, Turn
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

ON = 0.05  # diamonds: a landing nearer than this is "on" (contract)
FULL = 0.02  # ball diameters: a hit nearer than this to the middle has no side
ON_RAIL = 0.5  # diamonds: a target this near to a rail counts as lying on it


@dataclass(frozen=True)
class RailNumber:
    """A number written at a rail. role: "zero", "cue", "aim" or "scale"."""

    rail: Rail
    at: float
    label: str
    role: str = "scale"


@dataclass(frozen=True)
class Own:
    """The aim in the system's own numbers. unit: diamonds along the rail to one number, − where they run back."""

    number: float
    unit: float

    @property
    def rounded(self) -> float:
        """The half number a player says."""
        return round(2 * self.number) / 2

    @property
    def left(self) -> float:
        """What rounding leaves over, diamonds; + where the exact number is larger."""
        return (self.number - self.rounded) * abs(self.unit)


@dataclass(frozen=True)
class Landing:
    """Where a count's own aim lands. off: diamonds, long positive; off_balls: ball diameters.

    met: which side of the ball it passes, as seen along the last leg, "left" or "right"; "full" within FULL.
    The verdict, once it is played (`verdict.proved`): hits: is the target the first ball met; after: over which rails
    beyond the counted ones; before: which of those it does not come to any more; full: ball diameters right of full,
    None where it goes by; pots: into which pocket.
    """

    off: float
    off_balls: float
    met: Literal["left", "right", "full"]
    hits: bool = False
    after: tuple[Rail, ...] = ()
    before: tuple[Rail, ...] = ()
    full: float | None = None
    pots: str | None = None

    @property
    def off_diamonds(self) -> float:
        """Diamonds off, ≥ 0."""
        return abs(self.off)

    @property
    def side(self) -> Literal["short", "long", "on"]:
        """Short, long, or on."""
        return "on" if abs(self.off) < ON else ("long" if self.off > 0 else "short")

    @property
    def where(self) -> str:
        """As a player says it: "on", "0.29 long"."""
        return "on" if self.side == "on" else f"{figure(self.off_diamonds)} {self.side}"


@dataclass(frozen=True)
class Draft:
    """A count in the method's own frame: the mark along the first rail, and how it is to be played.

    exact: the mark before it was moved to one that is easier to sight.
    """

    at: float
    frame: str
    stroke: Stroke
    numbers: tuple[RailNumber, ...]
    steps: tuple[str, ...]
    say: str
    adjust: str
    own: Own | None = None
    exact: float | None = None

    @property
    def base(self) -> float:
        """The mark that changes evenly with what is counted."""
        return self.at if self.exact is None else self.exact


@dataclass(frozen=True)
class Count:
    """A count that applies. say: the sum in words; adjust: what to change, and when; blocked: what lies in its way;
    open: no other ball does; squirt: what the cue's squirt does to it, "" where it makes no difference.

    mark: the aim as one remembers it, in its frame; own: in the system's numbers, where it has any; own_say: that
    number to a half, with what is left over.
    goal: the place counted to, diamonds, where that is not the ball's own; pocket: where it is to drop.
    Of a bank (`contact` given) numbers, aim and landing are the object ball's, direction and stroke the cue ball's.
    """

    method: str
    title: str
    rails: tuple[Rail, ...]
    numbers: tuple[RailNumber, ...]
    steps: tuple[str, ...]
    say: str
    adjust: str
    frame: str
    aim: Marks
    direction: float
    stroke: Stroke
    lengths: float
    lands: Landing
    shot: Approach
    mark: Remembered
    own: Own | None = None
    own_say: str = ""
    blocked: str = ""
    open: bool = True
    squirt: str = ""
    pocket: str | None = None
    potted: bool = False
    contact: ObjectContact | None = None
    goal: Point | None = None

    def place(self, ball: Ball) -> Ball:
        """What it counts to: the ball itself, or the ghost ball that it is to be met with, under the same name."""
        return ball if self.goal is None else Ball(ball.id, *self.goal)


@dataclass(frozen=True)
class NoCount:
    """A count that does not apply here, and why."""

    method: str
    title: str
    rails: tuple[Rail, ...]
    reason: str


@dataclass(frozen=True)
class View:
    """The layout as a method sees it: turned to its own order of rails, in diamonds.

    stick: the cue played with; ghost: the target is the ghost ball that it is to be met with.
    """

    layout: Layout
    rails: tuple[Rail, ...]
    target: Ball
    turn: Turn
    stick: Cue = IDEAL
    ghost: bool = False

    @property
    def rail(self) -> Rail:
        """The first rail, where the mark is."""
        return self.rails[0]

    @property
    def cue(self) -> Ball:
        """The cue ball."""
        return self.layout.cue

    def name(self, rail: Rail) -> str:
        """What a rail is called on the real table."""
        return self.turn.rail(rail).value

    def shown(self, rail: Rail, along: float) -> float:
        """A mark along a rail as it is counted on the real table."""
        return self.turn.at(rail, along)

    def along(self, ball: Ball) -> float:
        """Coordinate of a ball along the first rail."""
        return self.rail.along(ball.x, ball.y)

    def off(self, ball: Ball, rail: Rail | None = None) -> float:
        """Distance of a ball's centre off a rail's nose, the first one's where none is named."""
        rail = rail or self.rail
        across = rail.across(ball.x, ball.y)
        return rail.diamonds_across - across if rail.at_end else across

    def at_edge(self, ball: Ball) -> bool:
        """Whether a ball's centre lies on the first rail's nose line, in a pocket's mouth: no image lies beyond it."""
        return self.off(ball) <= 0.0

    def mirror_mark(self, inset: float = 0.0) -> float:
        """Where both angles are alike in a mirror `inset` diamonds inside the nose: similar triangles."""
        here, there = self.off(self.cue) - inset, self.off(self.target) - inset
        return self.along(self.cue) + (self.along(self.target) - self.along(self.cue)) * here / (here + there)

    def lift(self, rail: Rail) -> float:
        """How far the cue ball lies off a rail it could touch, diamonds: a ball on the rail stands on its number."""
        return max(self.off(self.cue, rail) - self.ball_across(rail), 0.0)

    def ball_across(self, rail: Rail) -> float:
        """The ball's radius in diamonds square to a rail."""
        table = self.layout.table
        return table.ball_radius / (table.diamond_y if rail.is_long else table.diamond_x)

    @cached_property
    def radius(self) -> float:
        """The ball's radius in diamonds square to the first rail."""
        return self.ball_across(self.rail)

    def angle(self, at: float) -> float:
        """Degrees from the first rail at which the cue ball's line comes to a mark on its nose."""
        table, rail = self.layout.table, self.rail
        along, across = (table.diamond_x, table.diamond_y) if rail.is_long else (table.diamond_y, table.diamond_x)
        return math.degrees(math.atan2(self.off(self.cue) * across, abs(at - self.along(self.cue)) * along))

    @property
    def whole(self) -> float:
        """Diamonds along the first rail."""
        return float(self.rail.diamonds)

    @property
    def opposite(self) -> Rail:
        """The rail on the shooter's side, where most counts start."""
        return ACROSS[self.rail]

    @cached_property
    def sight(self) -> tuple[float, float]:
        """How far the sights lie behind the noses, in diamonds along x and along y; nought without."""
        table = self.layout.table
        back = table.sight_setback or 0.0
        return back / table.diamond_x, back / table.diamond_y


def figure(value: float, digits: int = 2) -> str:
    """A number as a player writes it: at most two decimals, a proper minus, no trailing noughts."""
    text = f"{value:.{digits}f}".rstrip("0").rstrip(".") if digits else f"{value:.0f}"
    return ("0" if text in ("-0", "") else text).replace("-", "−")


def halved(n: float, digits: int = 2) -> str:
    """The step of a halving: of the number as it is written, so that it adds up on the page."""
    written = round(n, digits)
    return f"{figure(written, digits)} ÷ 2 = {figure(written / 2, digits + 1)}"


def added(a: float, b: float, digits: int = 2) -> str:
    """The step a + b: both a and the result as they are written, and the difference of the two."""
    first, total = round(a, digits), round(a + b, digits)
    sign = "+" if b >= 0 else "−"
    return f"{figure(first, digits)} {sign} {figure(abs(total - first), digits)} = {figure(total, digits)}"
