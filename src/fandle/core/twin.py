"""Beside each count its exact twins: the mirror's mark and the played one, over the same rails with the same stroke."""

from dataclasses import dataclass

from fandle.core.aim import solve_kick
from fandle.core.counts.base import Count
from fandle.core.edit import clear
from fandle.core.layout import Layout
from fandle.core.solution import Aim

FULLEST = 0.99  # a thinner hit is another line, not the twin of a count


@dataclass(frozen=True)
class Twin:
    """Marks along the first rail in the count's own frame, diamonds; played None where only thinner hits are open."""

    counted: float
    mirror: float
    played: float | None


def twin_of(layout: Layout, count: Count) -> Twin | None:
    """The twins of a count, other balls aside; None where even the mirror has no line."""
    answer = solve_kick(clear(layout), count.rails, count.stroke, with_chain=False)
    counted = getattr(count.aim, count.frame)
    if not isinstance(answer, Aim):
        return None
    full = [s for s in answer.solutions if s.fullness > FULLEST]
    best = min(full or answer.solutions, key=lambda s: abs(getattr(s.corrected, count.frame) - counted))
    return Twin(counted, getattr(best.mirror, count.frame), getattr(best.corrected, count.frame) if full else None)
