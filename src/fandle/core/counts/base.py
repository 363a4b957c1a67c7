"""What every count has in common: its shape, its view of the layout, and its landing."""

from dataclasses import dataclass

from fandle.core.approach import Approach, approach
from fandle.core.layout import Ball, Layout
from fandle.core.path import into_pocket
from fandle.core.rails import Rail
from fandle.core.readout import Marks, direction_to, marks
from fandle.core.stroke import Stroke
from fandle.core.travel import crosses, nearest
from fandle.core.units import speed_of

ON = 0.05  # diamonds: a landing nearer than this is "on" (contract)


@dataclass(frozen=True)
class RailNumber:
    """A number written at a rail. role: "zero", "cue", "aim" or "scale"."""

    rail: Rail
    at: float
    label: str
    role: str = "scale"


@dataclass(frozen=True)
class Landing:
    """Where a count's own aim lands: diamonds off (≥ 0) and on which side, ball diameters off."""

    off_diamonds: float
    off_balls: float
    side: str


@dataclass(frozen=True)
class Count:
    """A count that applies. say: the sum in words; adjust: what to change, and when."""

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


@dataclass(frozen=True)
class NoCount:
    """A count that does not apply here, and why."""

    method: str
    title: str
    rails: tuple[Rail, ...]
    reason: str


@dataclass(frozen=True)
class View:
    """The layout as one rail sees it: coordinates along it, distances off its nose, in diamonds."""

    layout: Layout
    rail: Rail
    target: Ball

    def along(self, ball: Ball) -> float:
        """Coordinate of a ball along the rail."""
        return self.rail.along(ball.x, ball.y)

    def off(self, ball: Ball) -> float:
        """Distance of a ball's centre off the rail's nose."""
        across = self.rail.across(ball.x, ball.y)
        return self.rail.diamonds_across - across if self.rail.at_end else across

    @property
    def whole(self) -> float:
        """Diamonds along the rail."""
        return float(self.rail.diamonds)

    @property
    def opposite(self) -> Rail:
        """The rail on the shooter's side, where the count starts."""
        return {
            Rail.NEAR: Rail.FAR, Rail.FAR: Rail.NEAR, Rail.HEAD: Rail.FOOT, Rail.FOOT: Rail.HEAD
        }[self.rail]  # fmt: skip


def figure(value: float, digits: int = 2) -> str:
    """A number as a player writes it: at most two decimals, a proper minus, no trailing noughts."""
    text = f"{value:.{digits}f}".rstrip("0").rstrip(".") if digits else f"{value:.0f}"
    return ("0" if text in ("-0", "") else text).replace("-", "−")


def landing(layout: Layout, rails: tuple[Rail, ...], target: Ball, shot: Approach) -> Landing | None:
    """How far a played aim lands from the target; None where it never comes off the last rail."""
    last, table = rails[-1], layout.table
    met = crosses(shot, last, len(rails), last.across(target.x, target.y))
    if shot.rails[: len(rails)] != rails or met is None:
        return None
    at, travel = met
    off = (at - last.along(target.x, target.y)) * travel
    leg = [q for q in shot.pieces if q.leg == len(rails)]
    near = nearest(table, leg, *layout.metres(target))
    side = "on" if abs(off) < ON else ("long" if off > 0 else "short")
    return Landing(abs(off), near / (2 * table.ball_radius), side)


def finish(
    view: View,
    method: str,
    title: str,
    at: float,
    frame: str,
    lengths: float,
    numbers: tuple[RailNumber, ...],
    steps: tuple[str, ...],
    say: str,
    adjust: str,
) -> Count | NoCount:
    """Turn a mark into an aim and play it, struck plain at the method's own speed."""
    layout, rail, table = view.layout, view.rail, view.layout.table
    rails = (rail,)
    start = layout.metres(layout.cue)
    direction = direction_to(table, rail, start, at, frame)
    stroke = Stroke(speed_of(table, lengths))
    shot = approach(layout, stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
    first = shot.events[0] if shot.events else None
    if first is not None and first.pocket is not None:
        reason = f"shooting {figure(at)} the ball would {into_pocket(first)}, not meet the {rail} rail"
        return NoCount(method, title, rails, reason)
    lands = landing(layout, rails, view.target, shot)
    if lands is None:
        reason = f"shooting {figure(at)} the ball does not come off the {rail} rail"
        return NoCount(method, title, rails, reason)
    return Count(
        method, title, rails, numbers, steps, say, adjust, frame,
        marks(table, rail, start, direction), direction, stroke, lengths, lands, shot,
    )  # fmt: skip
