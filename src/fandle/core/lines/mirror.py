"""Natural lines through one to n rails, by unfolding: no physics."""

import math
from collections.abc import Sequence

from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail


def rail_line(table: Table, rail: Rail, inset: float) -> float:
    """Coordinate across of the line `inset` metres inside a rail's nose."""
    if not rail.at_end:
        return inset
    return (table.width if rail.is_long else table.length) - inset


def reflect(table: Table, rail: Rail, point: Point, inset: float) -> Point:
    """Mirror image of a point (m) in the line `inset` metres inside a rail's nose."""
    line = rail_line(table, rail, inset)
    x, y = point
    return (x, 2 * line - y) if rail.is_long else (2 * line - x, y)


def unfold(table: Table, rails: Sequence[Rail], target: Point, inset: float) -> Point:
    """Image of the target seen over the rails in order: reflected in the last one first."""
    image = target
    for rail in reversed(rails):
        image = reflect(table, rail, image, inset)
    return image


def natural_direction(
    table: Table,
    rails: Sequence[Rail],
    start: Point,
    target: Point,
    inset: float,
    offset: float = 0.0,
) -> float | None:
    """Direction (rad) of the straight line that reaches the target over the rails.

    inset: 0 reflects in the noses (`mirror`), one radius where the centre turns (`natural`).
    offset: metres by which the last leg passes right of the target. None where the offset
    is more than the way there.
    """
    image = unfold(table, rails, target, inset)
    dx, dy = image[0] - start[0], image[1] - start[1]
    away = math.hypot(dx, dy)
    # an odd number of mirrors turns right into left
    aside = offset if len(rails) % 2 == 0 else -offset
    if away <= abs(aside):
        return None
    return math.atan2(dy, dx) - math.asin(aside / away)


def turns(table: Table, rails: Sequence[Rail], start: Point, direction: float, inset: float) -> list[Point] | None:
    """Where a natural line turns, m; None where it would meet another rail than the next one first."""
    points = contacts(table, rails, start, direction, inset)
    low, slack = inset - 1e-9, 1e-9
    inside = all(
        low <= x <= table.length - inset + slack and low <= y <= table.width - inset + slack for x, y in points
    )
    return points if inside and len(points) == len(rails) else None


def contacts(table: Table, rails: Sequence[Rail], start: Point, direction: float, inset: float) -> list[Point]:
    """Points (m) at which a straight line in `direction` turns at each rail, folded back in order."""
    points: list[Point] = []
    x, y = start
    dx, dy = math.cos(direction), math.sin(direction)
    for rail in rails:
        line = rail_line(table, rail, inset)
        speed = dy if rail.is_long else dx
        gap = line - (y if rail.is_long else x)
        if speed == 0.0 or gap / speed < 0.0:
            return points
        t = gap / speed
        x, y = x + t * dx, y + t * dy
        points.append((x, y))
        if rail.is_long:
            dy = -dy
        else:
            dx = -dx
    return points
