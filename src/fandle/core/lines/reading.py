"""Where a line of aim is read so that no number lies off its rail: at its own rail, at the next one, or by a thing."""

import math
from dataclasses import dataclass, replace

from fandle.core.lines.marks import Marks, crossing, marks, rail_ahead
from fandle.core.lines.remembered import Remembered, remember
from fandle.core.table.model import Table
from fandle.core.table.pocket import Mouth, Point, mouths
from fandle.core.table.rails import Rail

MIDDLE = 0.15  # of a mouth's width: so near to its middle it is the middle


@dataclass(frozen=True)
class Reading:
    """At which rail an aim is read, the aim there (None where it is told by a thing), and how it is remembered."""

    rail: Rail
    aim: Marks | None
    mark: Remembered


def on_rail(found: Marks, rail: Rail) -> Marks | None:
    """The marks that lie on the rail: None where that at the nose does not; sights past its ends are left out."""
    if not 0.0 <= found.nose <= rail.diamonds:
        return None
    sight = found.sight
    return found if sight is None or 0.0 <= sight <= rail.diamonds else replace(found, sight=None)


def read_at(table: Table, first: Rail, start: Point, direction: float) -> Reading:
    """An aim from `start` (m) in `direction` (rad), read at `first` where it has a mark there.

    A line that leaves the bed at another rail is read at that one, one into a pocket's mouth by the pocket.
    """
    here = on_rail(marks(table, first, start, direction), first) if leads_to(first, direction) else None
    if here is not None:
        return Reading(first, here, remember(table, first, here.nose))
    rail = rail_ahead(table, start, direction)
    mouth = next((each for each in mouths(table) if _side(each, start, direction) is not None), None)
    there = on_rail(marks(table, rail, start, direction), rail)
    if mouth is None and there is not None:
        return Reading(rail, there, remember(table, rail, there.nose))
    return Reading(rail, None, Remembered(_thing(table, rail, mouth, start, direction), "between"))


def leads_to(rail: Rail, direction: float) -> bool:
    """Does a line in this direction come nearer to the rail?"""
    ahead = math.sin(direction) if rail.is_long else math.cos(direction)
    return (ahead if rail.at_end else -ahead) > 1e-9


def _side(mouth: Mouth, start: Point, direction: float) -> float | None:
    """How far left of a mouth's middle a line runs into it, as a share of its width; None where it does not."""
    ux, uy = math.cos(direction), math.sin(direction)
    off = [ux * (y - start[1]) - uy * (x - start[0]) for x, y in (mouth.first, mouth.second)]  # + left of the line
    ahead = ux * (mouth.middle[0] - start[0]) + uy * (mouth.middle[1] - start[1])
    if ahead <= 0.0 or off[0] * off[1] > 0.0:
        return None
    return -0.5 * (off[0] + off[1]) / abs(off[0] - off[1])


def _thing(table: Table, rail: Rail, mouth: Mouth | None, start: Point, direction: float) -> str:
    """What a line is aimed at where no rail has a mark for it."""
    if mouth is None:
        end = "near" if crossing(table, rail, start, direction, 0.0) < rail.diamonds / 2 else "far"
        return f"the {rail}-{end} corner" if not rail.is_long else f"the end of the {rail} rail"
    share = _side(mouth, start, direction) or 0.0
    if abs(share) <= MIDDLE:
        return f"the middle of the {mouth.name} pocket"
    return f"the {'left' if share > 0.0 else 'right'} half of the {mouth.name} pocket"
