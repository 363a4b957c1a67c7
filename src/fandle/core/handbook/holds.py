"""Where a system holds, as figures: along a row of cue balls.

Each is the system's own count, its own aim played on this table; nothing is fitted or smoothed.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

from fandle.core.constants import FASTEST_MPS
from fandle.core.errors import BadInputError
from fandle.core.handbook.page import Page
from fandle.core.layout.model import Layout
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import HOUSE, IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, Landing
from fandle.core.systems.played import landing
from fandle.core.systems.registry import plain_count
from fandle.core.table.condition import OWN, conditioned
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_of

STEPS = 24  # cue balls along a sweep, less one
PACE = 0.75  # lengths softer and firmer
SOFTEST = 0.5  # lengths
Placed = tuple[float, Layout, Count]  # place on the page's axis, layout, count


@dataclass(frozen=True)
class Dot:
    """A landing at one place. at: the number counted, or the cue ball's place; off: diamonds, long positive."""

    at: float
    off: float
    hit: bool


@dataclass(frozen=True)
class Curve:
    """Landings along a sweep under one condition; gaps where the system does not count are left out."""

    name: str
    dots: tuple[Dot, ...]

    @property
    def worst(self) -> float:
        """Diamonds off at worst; 0 of an empty curve."""
        return max((abs(dot.off) for dot in self.dots), default=0.0)


def placed(layout: Layout, x: float, y: float) -> Layout | None:
    """The layout with its cue ball at (x, y); None where no ball can lie."""
    try:
        return replace(layout, balls=tuple(replace(b, x=x, y=y) if b.id == "cue" else b for b in layout.balls))
    except BadInputError:
        return None


def swept(page: Page, layout: Layout, rails: tuple[Rail, ...]) -> Steps[list[Placed]]:
    """(place on the page's axis, layout, count) from cue balls placed evenly along the page's sweep, in steps."""
    (x0, y0), (x1, y1) = page.sweep
    found = []
    for k in range(STEPS + 1):
        x, y = x0 + (x1 - x0) * k / STEPS, y0 + (y1 - y0) * k / STEPS
        there = placed(layout, x, y)
        counted = None if there is None else plain_count(page.method, there, rails)
        if there is not None and isinstance(counted, Count):
            place = x if abs(x1 - x0) > abs(y1 - y0) else y
            found.append((_number(counted, place) if page.counted else place, there, counted))
        yield
    return found


def _number(found: Count, place: float) -> float:
    """The number the system counted at the cue ball; its place where there is none."""
    label = next((n.label for n in found.numbers if n.role == "cue"), "")
    return float(label) if label else place


def by_cloth(page: Page, layout: Layout, rails: tuple[Rail, ...]) -> Steps[tuple[Curve, ...]]:
    """The sweep on this table as it is, and with new and with damp cloth, in steps."""
    curves = []
    for name, cloth in (("this table", OWN), ("new cloth", "new"), ("damp cloth", "damp")):
        table = conditioned(layout.table, cloth, OWN)
        found = yield from swept(page, replace(layout, table=table), rails)
        curves.append(Curve(name, tuple(_dot(at, c.lands) for at, _, c in found)))
    return tuple(curves)


def by_pace(page: Page, layout: Layout, rails: tuple[Rail, ...]) -> Steps[tuple[Curve, ...]]:
    """The same aims played as meant, softer, and firmer, in steps."""
    found, curves = (yield from swept(page, layout, rails)), []
    for name, more in (("as meant", 0.0), ("softer", -PACE), ("firmer", PACE)):
        curves.append((yield from _curve(name, found, partial(_paced, more))))
    return tuple(curves)


def by_cue(page: Page, layout: Layout, rails: tuple[Rail, ...]) -> Steps[tuple[Curve, ...]]:
    """The same aims played with an ideal and with a house cue, in steps; () where no stroke has side."""
    found, curves = (yield from swept(page, layout, rails)), []
    if all(c.stroke.side == 0.0 for _, _, c in found):
        return ()
    for cue in (IDEAL, HOUSE):
        curves.append((yield from _curve(cue.label, found, partial(_with_cue, cue))))
    return tuple(curves)


def _curve(name: str, found: list[Placed], stroke_of: Callable[[Layout, Count], Stroke]) -> Steps[Curve]:
    """The landings of counts along a sweep, each with another stroke, in steps."""
    landed = []
    for at, there, c in found:
        stroke = stroke_of(there, c)
        landed.append((at, c.lands if stroke == c.stroke else _replayed(there, c, stroke)))
        yield
    return Curve(name, tuple(_dot(at, lands) for at, lands in landed if lands is not None))


def _with_cue(cue: Cue, _: Layout, found: Count) -> Stroke:
    """A count's stroke with another cue."""
    return replace(found.stroke, cue=cue)


def _paced(more: float, layout: Layout, found: Count) -> Stroke:
    """A count's stroke softer or firmer, by table lengths."""
    table = layout.table
    if more == 0.0:
        return found.stroke
    speed = min(speed_of(table, max(lengths_of(table, found.stroke.speed) + more, SOFTEST)), FASTEST_MPS)
    return replace(found.stroke, speed=speed)


def _replayed(layout: Layout, found: Count, stroke: Stroke) -> Landing | None:
    """A count's own aim played with another stroke."""
    target = layout.require_target()
    shot = approach(layout, stroke, found.direction, most_rails=len(found.rails) + 1, ignore_balls=True)
    return landing(layout, found.rails, (target.x, target.y), shot)


def _dot(at: float, lands: Landing) -> Dot:
    return Dot(at, lands.off, lands.off_balls < 1.0)
