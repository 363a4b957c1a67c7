"""How well a point beyond the table holds: where in the room the played lines of neighbouring cue balls really point.

From each start the line that meets the target full with the same stroke on this table is found and carried on
past the rail; the places where these lines cross the spot's distance should be one. And from each start the
spot itself is aimed at and played. Common practice names the spot; how far it spreads is our own figure.
"""

import math
from dataclasses import dataclass, replace
from statistics import mean

from fandle.core.constants import DIAMONDS_LONG
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import clear
from fandle.core.layout.model import Layout
from fandle.core.lines.question import ask
from fandle.core.physics.roots import root_near
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.played import landing
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

AREA = (-1.0, -0.5, 0.0, 0.5, 1.0)  # diamonds along the rail from the cue ball: the neighbourhood looked at


@dataclass(frozen=True)
class Spread:
    """starts: how many count; spread_m: between the outermost lines at the spot's distance, along the rail, m.

    middle: where they pass it on average, diamonds along the rail.
    low, high: where shots at the spot itself land, diamonds, long positive.
    """

    starts: int
    spread_m: float
    middle: float
    low: float
    high: float


def spread(layout: Layout, rails: tuple[Rail, ...], target: Ball, stroke: Stroke, spot: Point) -> Spread | None:
    """The spread of the lines to `target` at `spot` (diamonds) over the neighbourhood; None for fewer than two."""
    table, places, lands = layout.table, [], []
    x, y = spot[0] * table.diamond_x, spot[1] * table.diamond_y
    for step in AREA:
        moved = _moved(layout, layout.cue.x + step)
        if moved is None:
            continue
        sx, sy = moved.metres(moved.cue)
        at_spot = math.atan2(y - sy, x - sx)
        shot = approach(moved, stroke, at_spot, most_rails=len(rails) + 1, ignore_balls=True)
        found = landing(moved, rails, (target.x, target.y), shot)
        line = float(root_near(at_spot, 0.0, ask(moved, rails, target.id, 0.0).scene(table, stroke)))
        if found is None or math.isnan(line):
            continue
        lands.append(found.off)
        places.append(sx + (y - sy) / math.tan(line))
    if len(places) < 2:
        return None
    return Spread(len(places), max(places) - min(places), mean(places) / table.diamond_x, min(lands), max(lands))


def _moved(layout: Layout, x: float) -> Layout | None:
    """The layout with its cue ball further along the rail, other balls aside; None where it cannot lie there."""
    cue = layout.cue
    if not 0.0 < x < DIAMONDS_LONG:
        return None
    try:
        alone = clear(layout)
        return replace(alone, balls=tuple(replace(b, x=x) if b.id == cue.id else b for b in alone.balls))
    except BadInputError:
        return None
