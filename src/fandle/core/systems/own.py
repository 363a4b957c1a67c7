"""A system's own number as a player says it: to the nearest half, and what that leaves over."""

from dataclasses import replace

from fandle.core.lines.marks import Marks
from fandle.core.systems.base import Count, Own
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.words.spoken import mixed

SEGMENTS = 10.0  # to a diamond


def own_of(found: Count, aim: Marks) -> Own | None:
    """Another aim over the count's first rail in the numbers of its system; None where that has none."""
    if found.own is None:
        return None
    away = getattr(aim, found.frame) - getattr(found.aim, found.frame)
    return replace(found.own, number=found.own.number + away / found.own.unit)


def own_in_words(own: Own, table: Table, rail: Rail) -> str:
    """ "2", "2 plus 1½ segments", "3½ less ¼ ball": segments where there are diamonds, else balls."""
    sign = "−" if own.rounded < 0 else ""
    number = f"{sign}{mixed(own.rounded)}"
    if table.has_diamonds:
        left = round(2 * SEGMENTS * own.left) / 2
        unit = "segment" if abs(left) <= 1 else "segments"
    else:
        ball = 2 * table.ball_radius / (table.diamond_x if rail.is_long else table.diamond_y)
        left = round(4 * own.left / ball) / 4
        unit = "ball" if abs(left) <= 1 else "balls"
    if left == 0.0:
        return number
    return f"{number} {'plus' if left > 0 else 'less'} {mixed(left)} {unit}"
