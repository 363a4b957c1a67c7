"""Comparing: every system on the same layout, beside the mirror's mark and the played one."""

from dataclasses import dataclass

from fandle.core.layout.model import Layout
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.hands import HandStep
from fandle.core.systems.registry import hands_of
from fandle.core.systems.twin import Twin, twin_of
from fandle.service.count import count_all
from fandle.service.situation import Situation


@dataclass(frozen=True)
class Beside:
    """A system's count with its twins and how it is measured; of one that does not apply only that."""

    count: Count | NoCount
    twin: Twin | None = None
    hands: tuple[HandStep, ...] = ()


def beside(layout: Layout, found: Count | NoCount) -> Beside:
    """A count with what stands beside it."""
    if isinstance(found, NoCount):
        return Beside(found)
    return Beside(found, twin_of(layout, found), hands_of(found, layout))


def compare(asked: Situation) -> Steps[list[Beside]]:
    """Every system on a layout, in steps: those that hit, then those with something in the way, then misses.

    Among each the nearest landing first; none without a target.
    """
    told: list[Beside] = []
    if asked.layout.target is not None:
        for found in (yield from count_all(Situation(asked.layout, asked.stroke))):
            told.append(beside(asked.layout, found))
            yield
    return sorted(told, key=_trust)


def _trust(found: Beside) -> int:
    count = found.count
    if isinstance(count, NoCount):
        return 3
    return 2 if count.lands.off_balls >= 1.0 else 1 if count.blocked else 0
