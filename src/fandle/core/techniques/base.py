"""What every technique has in common: its shape, and how the engine finds it.

Some named strokes are played in many directions; a technique is the widest run of directions, of all its strokes, in
which the shot does what it is meant to do, aimed at its middle. Nothing is reckoned that is not played.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.layout.model import Layout
from fandle.core.lines.marks import Marks, marks
from fandle.core.lines.question import Question
from fandle.core.lines.remembered import Remembered, remember
from fandle.core.lines.window import window
from fandle.core.physics.batch import Outcomes, Strokes, play_now
from fandle.core.shot.moment import Moment, moment_of
from fandle.core.shot.play import Shot, play
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import RailNumber
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
Ends = tuple[float, float]  # of a window, directions of the cue, rad
Tell = Callable[[Shot, Moment], "Told"]
Good = Callable[[Outcomes], Flags]
NEAREST_POINT = 0.2  # of the way to the ball, along the rail, where the nearest look at the rail lies
FINER = 16  # parts of a step in which a window's ends are looked for once more


class Way(NamedTuple):
    """One way of striking it that was tried: what it is called, the stroke, the directions in which it does what it is
    meant to (rad, nan where it does not), and what that comes to in words."""

    name: str
    stroke: Stroke
    low: float
    high: float
    says: str = ""

    @property
    def window_deg(self) -> float:
        """How much the direction of the cue may be off in all, degrees; 0 where it does not do it."""
        return 0.0 if math.isnan(self.low) else math.degrees(self.high - self.low)

    @property
    def middle(self) -> float:
        """The direction in the middle of it, rad."""
        return 0.5 * (self.low + self.high)


@dataclass(frozen=True)
class Technique:
    """A technique on a layout. rails: over which the cue ball comes to the ball; pocket: where that goes, if it does.

    way: the stroke that forgives most, ways: all that were tried, it first. aim: where its line is read, at mark_rail;
    room_mm: what the mark there forgives either way. numbers, steps: of the two that have a sum; say: what is done, in
    words; adjust: when it fails. banked: the mark is the ball's, not the cue's.
    """

    method: str
    title: str
    target: str
    rails: tuple[Rail, ...]
    pocket: str | None
    way: Way
    ways: tuple[Way, ...]
    direction: float
    shot: Shot
    moment: Moment
    mark_rail: Rail
    aim: Marks
    mark: Remembered
    room_mm: tuple[float, float]
    numbers: tuple[RailNumber, ...]
    steps: tuple[str, ...]
    say: str
    adjust: str
    banked: bool = False

    @property
    def in_off(self) -> str | None:
        """The pocket that the cue ball goes into, None where it stays on the bed."""
        return next((pocket for ball, pocket in self.shot.potted if ball == CUE), None)


@dataclass(frozen=True)
class NoTechnique:
    """A technique that does not work here, and why."""

    method: str
    title: str
    reason: str


class Told(NamedTuple):
    """What a technique says of itself on a layout."""

    steps: tuple[str, ...]
    say: str
    adjust: str
    numbers: tuple[RailNumber, ...] = ()


def played(layout: Layout, stroke: Stroke, at: Floats) -> Outcomes:
    """A stroke played to the end in every direction of `at` (rad). Balls are numbered as `numbered` has them."""
    n = len(at)
    rows = Strokes(
        np.ascontiguousarray(at), np.repeat(stroke.array()[None], n, axis=0),
        np.repeat(np.array(layout.metres(layout.cue))[None], n, axis=0), np.zeros(n, np.int64),
    )  # fmt: skip
    return play_now(rows, layout.table.params(), layout.obstacles())


def ways_of(layout: Layout, strokes: Sequence[tuple[str, Stroke]], at: Floats, good: Good) -> tuple[Way, ...]:
    """Every stroke with its widest run of good directions, the widest first.

    at: directions in which the ball leaves, evenly spaced, rising; the cue's are those less the squirt.
    """
    ways = []
    for name, stroke in strokes:
        cue_at = at - stroke.squirt
        low, high = widest(cue_at, good(played(layout, stroke, cue_at)))
        if not math.isnan(low):
            low, high = _sharper(layout, stroke, (low, high), float(at[1] - at[0]), good)
        ways.append(Way(name, stroke, low, high))
    return tuple(sorted(ways, key=lambda way: -way.window_deg))


def _sharper(layout: Layout, stroke: Stroke, ends: Ends, step: float, good: Good) -> Ends:
    """A window's ends, looked at once more within a step of where they were found."""
    part = step / FINER
    low = ends[0] + part * (np.arange(FINER) - 0.5 * FINER + 0.5)
    high = ends[1] + part * (np.arange(FINER) - 0.5 * FINER + 0.5)
    hits = good(played(layout, stroke, np.concatenate((low, high))))
    first, last = np.flatnonzero(~hits[:FINER]), np.flatnonzero(~hits[FINER:])
    return (
        float(low[first[-1]]) + 0.5 * part if len(first) else float(low[0]),
        float(high[last[0]]) - 0.5 * part if len(last) else float(high[-1]),
    )


def widest(at: Floats, good: Flags) -> Ends:
    """The ends of the widest run of good directions, half a step beyond those played; nan where none is good."""
    if not good.any():
        return math.nan, math.nan
    edges = np.flatnonzero(np.diff(np.concatenate(([0], good.astype(np.int8), [0]))))
    first, beyond = edges[::2], edges[1::2]
    k = int(np.argmax(beyond - first))
    half = 0.5 * float(at[1] - at[0])
    return float(at[first[k]]) - half, float(at[beyond[k] - 1]) + half


def fan(low: float, high: float, n: int) -> Floats:
    """So many directions evenly between two."""
    return np.linspace(low, high, n)


def technique(
    layout: Layout, method: tuple[str, str], rails: tuple[Rail, ...], ways: tuple[Way, ...], told: Tell,
    pocket: str | None = None, direction: float | None = None,
) -> Technique | NoTechnique:  # fmt: skip
    """A technique out of its ways, the first of which is played once more in full.

    direction: of the cue where it is not the middle of that way's window.
    """
    name, title = method
    way = ways[0]
    aimed = way.middle if direction is None else direction
    target = layout.require_target().id
    shot = play(layout, way.stroke, aimed)
    moment = moment_of(layout, shot)
    question = Question(layout, target, rails, 0.0).read_along(aimed, aimed)
    if moment is None or moment.ball_id != target or question is None:
        return NoTechnique(name, title, "its line cannot be read at a rail from here: move the cue ball")
    words = told(shot, moment)
    at = marks(layout.table, question.rail, layout.metres(layout.cue), aimed)
    return Technique(
        name, title, target, rails, pocket, way, ways, aimed, shot, moment, question.rail, at,
        remember(layout.table, question.rail, at.nose), window(question, aimed, way.low, way.high), words.numbers,
        words.steps, words.say, words.adjust,
    )  # fmt: skip


def nearest_rail(layout: Layout) -> tuple[Rail, float]:
    """The rail nearest to the target, and how far off it its surface lies, m."""
    x, y = layout.metres(layout.require_target())
    table = layout.table
    gaps = {Rail.NEAR: y, Rail.FAR: table.width - y, Rail.HEAD: x, Rail.FOOT: table.length - x}
    rail = min(gaps, key=lambda each: gaps[each])
    return rail, max(gaps[rail] - table.ball_radius, 0.0)


def seen(layout: Layout) -> tuple[float, float, float]:
    """(direction to the target's centre, half the angle under which its whole width is met, rad; distance, m)."""
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.require_target())
    away = math.hypot(gx - x, gy - y)
    return math.atan2(gy - y, gx - x), math.asin(min(1.0, 2 * layout.table.ball_radius / away)), away


def beside_rail(layout: Layout, rail: Rail, n: int) -> Floats:
    """Directions from the target's middle to a rail near in front of the cue ball, rising: where rail-first lies."""
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.require_target())
    table, r = layout.table, layout.table.ball_radius
    line = rail.diamonds_across * (table.diamond_y if rail.is_long else table.diamond_x) - r if rail.at_end else r
    along = rail.along(x, y) + NEAREST_POINT * (rail.along(gx, gy) - rail.along(x, y))
    px, py = rail.point(along, line)
    middle = math.atan2(gy - y, gx - x)
    turned = math.remainder(math.atan2(py - y, px - x) - middle, 2 * math.pi)
    return fan(middle + min(turned, 0.0), middle + max(turned, 0.0), n)


def rail_side(layout: Layout, rail: Rail) -> float:
    """+1 where a rail lies to the left of the line to the target, −1 to the right."""
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.require_target())
    nx, ny = {Rail.NEAR: (0, -1), Rail.FAR: (0, 1), Rail.HEAD: (-1, 0), Rail.FOOT: (1, 0)}[rail]
    return math.copysign(1.0, (gx - x) * ny - (gy - y) * nx)


def running_side(layout: Layout, rail: Rail, amount: float) -> float:
    """So much side, radii, running at a rail on the way to the target; − for reverse."""
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.require_target())
    heading = math.atan2(gy - y, gx - x)
    return amount if running(1.0, rail, heading) == "running" else -amount


def corner_ahead(layout: Layout, rail: Rail) -> str | None:
    """The corner pocket at the end of a rail towards which the target lies from the cue ball; None without pockets."""
    if layout.table.pockets is None:
        return None
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.require_target())
    onward = rail.along(gx, gy) >= rail.along(x, y)
    if rail.is_long:
        return f"{'foot' if onward else 'head'}-{rail.value}"
    return f"{rail.value}-{'far' if onward else 'near'}"


def potted_into(out: Outcomes, ball: int, pocket: str) -> Flags:
    """Does this ball drop into that pocket, row by row?"""
    return np.asarray(((out.down == ball) & (out.pockets == POCKET_NAMES.index(pocket))).any(axis=1))


def over_rail_first(out: Outcomes, ball: int, rail: Rail) -> Flags:
    """Is this ball met first, over that one rail, off no jaw?"""
    return np.asarray(
        (out.first == ball) & (out.before_first == 1) & (out.cue_rails[:, 0] == rail.number) & (out.jaw == 0)
    )


def angle_to(rail: Rail, heading: float) -> float:
    """The angle between a heading and a rail, 0 to 90 degrees."""
    along = abs(math.cos(heading) if rail.is_long else math.sin(heading))
    return math.degrees(math.acos(min(along, 1.0)))


def number_of(layout: Layout, ball: str) -> int:
    """A ball's number in an outcome."""
    return 1 + [each.id for each in layout.object_balls()].index(ball)
