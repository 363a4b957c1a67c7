"""A question about a line: who is to be met, over which rails, how thickly; and where to look."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing, markable, rail_ahead
from fandle.core.lines.mirror import natural_direction, rail_line
from fandle.core.physics.scene import Scene, scene_of
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES, Mouth, Point, mouths
from fandle.core.table.rails import Rail

CURVE_RAD = 1.4  # how far a raised cue may bend the ball away from its line, at 90°
MOST_RAILS = 4
ANY = "any"  # in place of a pocket: whichever it goes into
FULLEST = 0.999  # ball diameters
SPARE_RAD = 0.02  # beyond the target's edges a straight shot is looked for this much further


@dataclass(frozen=True)
class Question:
    """A kick put to the search: the same for every table and stroke it is asked with.

    mark: where a straight line is read if not at the rail behind the target (see `read_along`).
    """

    layout: Layout
    target: str
    rails: tuple[Rail, ...]
    hit: float
    mark: Rail | None = None

    @property
    def rail(self) -> Rail:
        """Where the mark is read: the first rail, or the one a straight line would come to."""
        if self.rails:
            return self.rails[0]
        if self.mark is not None:
            return self.mark
        (x, y), (gx, gy) = self.start, self.goal
        return rail_ahead(self.layout.table, self.start, math.atan2(gy - y, gx - x))

    def read_along(self, direction: float, natural: float) -> "Question | None":
        """The question with its marks at a rail where this direction has one; None where no rail has.

        Over rails that is the first or none. A straight line whose cue points past the rail behind the target
        (squirt, a curve, a thin hit near a corner) is read where both it and the natural line cross soonest.
        """
        if markable(self.rail, self.nose(direction)):
            return self
        if self.rails:
            return None
        others = [replace(self, mark=rail) for rail in Rail]

        def beyond(other: "Question") -> float:
            middle = other.rail.diamonds / 2
            return max(abs(self.ahead(other, way) - middle) - middle for way in (direction, natural))

        best = min(others, key=beyond)
        return best if math.isfinite(beyond(best)) else None

    def ahead(self, other: "Question", direction: float) -> float:
        """The mark of a direction as another question reads it; inf where it leads away from that rail."""
        start, rail = self.start, other.rail
        x, y = start[0] + math.cos(direction), start[1] + math.sin(direction)
        step = rail.across(x, y) - rail.across(*start)
        return other.nose(direction) if (step if rail.at_end else -step) > 1e-9 else math.inf

    @property
    def start(self) -> Point:
        """The cue ball, m."""
        return self.layout.metres(self.layout.cue)

    @property
    def goal(self) -> Point:
        """The target, m."""
        return self.layout.metres(self.layout.ball(self.target))

    @property
    def offset(self) -> float:
        """How far right of the target's centre the last leg is to pass, m."""
        return self.hit * 2 * self.layout.table.ball_radius

    @property
    def order(self) -> NDArray[np.int64]:
        """The rails as the kernels number them."""
        return np.array([rail.number for rail in self.rails], dtype=np.int64)

    def scene(self, table: Table, stroke: Stroke) -> Scene:
        """The question for the kernels, on this or another table, with this or another stroke."""
        layout = self.layout
        place = layout.index(self.target)
        return scene_of(np.array(self.start), stroke.array(), table.params(), layout.obstacles(), place, self.order)

    def geometric(self, inset: float) -> float | None:
        """Direction of the unfolded straight line; None where the thickness asked has none."""
        return natural_direction(self.layout.table, self.rails, self.start, self.goal, inset, self.offset)

    def nose(self, direction: float) -> float:
        """The mark of a direction, diamonds at the nose."""
        return crossing(self.layout.table, self.rail, self.start, direction, 0.0)

    def span(self, stroke: Stroke) -> tuple[float, float]:
        """Directions of the cue worth looking at: rail's end to rail's end, or across the target."""
        if self.rails:
            return _rail_span(self.layout.table, self.rails[0], self.start, stroke)
        return _straight_span(self, stroke)


def _rail_span(table: Table, rail: Rail, start: Point, stroke: Stroke) -> tuple[float, float]:
    """Directions of the cue between the two ends of a rail, rising; wider for a curving ball."""
    line = rail_line(table, rail, table.ball_radius)
    whole = table.length if rail.is_long else table.width
    middle = {"far": math.pi / 2, "near": -math.pi / 2, "head": math.pi, "foot": 0.0}[rail.value]
    ends = []
    for along in (table.ball_radius, whole - table.ball_radius):
        x, y = rail.point(along, line)
        dx, dy = x - start[0], y - start[1]
        if abs(dx) + abs(dy) < 1e-9:  # the ball lies in that very corner
            dx, dy = rail.point(1.0 if along > whole / 2 else -1.0, 0.0)
        turned = math.remainder(math.atan2(dy, dx) - middle, 2 * math.pi)
        ends.append(middle + turned - stroke.squirt)
    spare = CURVE_RAD * math.sin(math.radians(stroke.elevation))
    return min(ends) - spare, max(ends) + spare


def _straight_span(question: Question, stroke: Stroke) -> tuple[float, float]:
    """Directions of the cue from one edge of the target to the other, and a little."""
    (x, y), (gx, gy) = question.start, question.goal
    middle = math.atan2(gy - y, gx - x) - stroke.squirt
    half = math.asin(min(1.0, 2 * question.layout.table.ball_radius / math.hypot(gx - x, gy - y)))
    spare = SPARE_RAD + CURVE_RAD * math.sin(math.radians(stroke.elevation))
    return middle - half - spare, middle + half + spare


def check_hit(hit: float) -> None:
    """Raises BadInputError where it is no thickness."""
    if not -1.0 <= hit <= 1.0 or math.isnan(hit):
        raise BadInputError(f"hit {hit} is not a thickness: give -1 to 1, 0 is full", "hit", code="out_of_range")


def ask(layout: Layout, rails: tuple[Rail, ...], target: str | None, hit: float) -> Question:
    """A checked question. hit: ball diameters by which the last leg passes right of the target's centre."""
    check_hit(hit)
    if len(rails) > MOST_RAILS:
        raise BadInputError(f"{len(rails)} rails: give at most {MOST_RAILS}", "rails", code="out_of_range")
    return Question(layout, layout.require_target(target).id, rails, clear_of_edge(hit))


def clear_of_edge(hit: float) -> float:
    """A thickness that meets the ball at all: nothing is met thinner on purpose."""
    return max(-FULLEST, min(FULLEST, hit))


def wanted_mouths(layout: Layout, pocket: str | None) -> list[Mouth]:
    """The pockets a ball may go to: the one named, or all of them; refused where the table has none."""
    known = mouths(layout.table)
    if not known:
        raise BadInputError(
            f"table {layout.table.name!r} has no pockets: nothing can be banked or potted", "pocket", code="no_pockets"
        )
    if pocket not in (None, ANY, *POCKET_NAMES):
        raise BadInputError(
            f"unknown pocket {pocket!r}: use one of {', '.join(POCKET_NAMES)}, or {ANY}", "pocket", code="unknown"
        )
    return [mouth for mouth in known if pocket in (None, ANY, mouth.name)]
