"""Beside each count its exact twins: the mirror's mark and the played one, over the same rails with the same stroke.

The played mark is looked for from the counted one outwards, so it is the same line and not another over these rails.
"""

import math
from dataclasses import dataclass

from fandle.core.layout.edit import clear
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import marks
from fandle.core.lines.mirror import natural_direction
from fandle.core.lines.question import ask
from fandle.core.physics.roots import root_near
from fandle.core.systems.base import Count

SAME_LINE = 2.0  # diamonds: a mark further away belongs to another line


@dataclass(frozen=True)
class Twin:
    """Marks along the first rail in the count's own frame, diamonds; played None where no full hit is near."""

    counted: float
    mirror: float
    played: float | None


def twin_of(layout: Layout, count: Count) -> Twin | None:
    """The twins of a count, other balls aside; None where the mirror has no line."""
    alone, counted, table = clear(layout), getattr(count.aim, count.frame), layout.table
    start, target = alone.metres(alone.cue), alone.metres(alone.require_target())
    direction = natural_direction(table, count.rails, start, target, 0.0)
    if direction is None:
        return None
    mirror = getattr(marks(table, count.rails[0], start, direction), count.frame)
    return Twin(counted, mirror, _played(alone, count, counted))


def _played(layout: Layout, count: Count, counted: float) -> float | None:
    """The mark of the full hit that lies next to the counted one."""
    question = ask(layout, count.rails, None, 0.0)
    direction = float(root_near(count.direction, 0.0, question.scene(layout.table, count.stroke)))
    if math.isnan(direction):
        return None
    at: float = getattr(marks(layout.table, count.rails[0], question.start, direction), count.frame)
    return at if abs(at - counted) < SAME_LINE else None
