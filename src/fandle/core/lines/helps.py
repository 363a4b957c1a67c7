"""What players keep an eye on besides the mark: the back sight, a spot just ahead, and the further contacts."""

import math
from dataclasses import dataclass

from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing
from fandle.core.lines.remembered import Remembered, remember
from fandle.core.lines.solution import Solution
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

AHEAD_M = 0.18  # along the line from the cue ball's centre to the spot that the eye holds on to


@dataclass(frozen=True)
class BackSight:
    """Where the shaft crosses the cushion edge behind the cue ball, diamonds along that rail."""

    rail: Rail
    at: float
    mark: Remembered


@dataclass(frozen=True)
class Helps:
    """ahead: the spot on the line of the cue, diamonds; contacts: (rail, diamonds) of the rails after the first."""

    back: BackSight
    ahead: Point
    contacts: tuple[tuple[Rail, float], ...]


def helps_of(layout: Layout, found: Solution) -> Helps:
    """The helps for a solved aim; of a bank the contacts are the object ball's."""
    table, start = layout.table, layout.metres(layout.cue)
    ahead = start[0] + AHEAD_M * math.cos(found.direction), start[1] + AHEAD_M * math.sin(found.direction)
    return Helps(
        back_sight(layout, found.direction),
        (ahead[0] / table.diamond_x, ahead[1] / table.diamond_y),
        tuple((c.rail, c.at) for c in found.cushions[1 : len(found.rails)]),
    )


def back_sight(layout: Layout, direction: float) -> BackSight:
    """Where a line through the cue ball, carried back, leaves the bed over a cushion edge."""
    table, start = layout.table, layout.metres(layout.cue)
    back_x, back_y = -math.cos(direction), -math.sin(direction)
    reach = {
        Rail.HEAD: -start[0] / back_x if back_x < 0.0 else math.inf,
        Rail.FOOT: (table.length - start[0]) / back_x if back_x > 0.0 else math.inf,
        Rail.NEAR: -start[1] / back_y if back_y < 0.0 else math.inf,
        Rail.FAR: (table.width - start[1]) / back_y if back_y > 0.0 else math.inf,
    }
    rail = min(reach, key=lambda each: reach[each])
    at = crossing(table, rail, start, direction, 0.0)
    return BackSight(rail, at, remember(table, rail, at))
