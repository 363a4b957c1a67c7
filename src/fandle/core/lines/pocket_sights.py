"""Two more things players aim at on a long rail: the back of the side pocket, and the edge of a jaw.

The back is where the leather is, as deep behind the mouth as the mouth is wide half: a line that meets the rail beside
the pocket is sighted at it as others are at a diamond. Common practice, no published source.
"""

import math
from typing import NamedTuple

from fandle.core.lines.marks import crossing, diamond_along
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point, mouths
from fandle.core.table.rails import Rail

NEAR_JAW_M = 0.06  # a mark farther from a jaw than about a ball is read at something else


class PocketSight(NamedTuple):
    """pocket: which; off_mm: how far the line passes the middle of its back, or the mark lies from the edge of its jaw,
    + towards the foot end."""

    pocket: str
    off_mm: float


def back_of_side(table: Table, rail: Rail, start: Point, direction: float) -> PocketSight | None:
    """Where a line of aim over a long rail points at the back of its side pocket; None where it points beside it."""
    if table.pockets is None or not rail.is_long:
        return None
    name = f"side-{rail.value}"
    mouth = next(each for each in mouths(table) if each.name == name)
    span = math.dist(mouth.first, mouth.second)
    deep = abs(rail.across(*mouth.middle) - (table.width if rail.at_end else 0.0)) + 0.5 * span
    at = crossing(table, rail, start, direction, -deep)
    off = (at - 0.5 * rail.diamonds) * diamond_along(table, rail)
    return PocketSight(name, 1000 * off) if abs(off) <= 0.5 * span else None


def beside_jaw(table: Table, rail: Rail, at: float) -> PocketSight | None:
    """The edge of the jaw nearest to a mark at the cushion edge, where it is near enough to be aimed by."""
    best: PocketSight | None = None
    for mouth in mouths(table):
        for point in (mouth.first, mouth.second):
            across = rail.across(*point)
            edge = rail.diamonds_across * (table.diamond_y if rail.is_long else table.diamond_x) if rail.at_end else 0.0
            if abs(across - edge) > 0.02:
                continue
            off = at * diamond_along(table, rail) - rail.along(*point)
            if abs(off) <= NEAR_JAW_M and (best is None or abs(off) < abs(best.off_mm) / 1000):
                best = PocketSight(mouth.name, 1000 * off)
    return best
