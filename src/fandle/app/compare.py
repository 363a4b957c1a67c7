"""Comparing: every system on the same layout, beside the mirror's mark and the played one."""

from dataclasses import dataclass, replace

from fandle.app.count import count_all
from fandle.app.situation import Situation
from fandle.core.choice.chance import Share, hit_shares
from fandle.core.choice.error import Marked, uncertain
from fandle.core.choice.field import Field
from fandle.core.layout.model import Layout
from fandle.core.player.draws import draws
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.hands import HandStep
from fandle.core.systems.registry import hands_of
from fandle.core.systems.twin import Twin, twin_of
from fandle.core.tablecheck.own_marks import Tuned, tuned

DRAWS = 200  # that a system's chance is read from


@dataclass(frozen=True)
class Beside:
    """A system's count with its twins and how it is measured; of one that does not apply only that.

    chance: how often this player hits with it; None where that was not asked; tuned: by the table's own marks.
    """

    count: Count | NoCount
    twin: Twin | None = None
    hands: tuple[HandStep, ...] = ()
    chance: Share | None = None
    tuned: Tuned | None = None


def beside(layout: Layout, found: Count | NoCount, carried: float = 0.0) -> Beside:
    """A count with what stands beside it; carried: what a test shot found of the table."""
    if isinstance(found, NoCount):
        return Beside(found)
    return Beside(found, twin_of(layout, found), hands_of(found, layout), tuned=tuned(layout, found, carried))


def compare(asked: Situation) -> Steps[list[Beside]]:
    """Every system on a layout, in steps: the likeliest to hit first, played with the player's errors.

    None without a target.
    """
    told: list[Beside] = []
    if asked.layout.target is None:
        return told
    for found in (yield from count_all(Situation(asked.layout, asked.stroke))):
        told.append(beside(asked.layout, found, asked.carried))
        yield
    told = yield from _with_chances(asked, told)
    return sorted(told, key=_trust)


def _with_chances(asked: Situation, told: list[Beside]) -> Steps[list[Beside]]:
    """The same with how often each count that applies hits."""
    field = Field.of(asked.layout)
    open_ones = [found.count for found in told if isinstance(found.count, Count)]
    aims = [(count.direction, count.stroke, Marked(count.rails[0], count.aim.nose, field.start)) for count in open_ones]
    drawn = draws(DRAWS, 0, uncertain(asked.table))
    shares = yield from hit_shares(field, aims, asked.layout.require_target().id, asked.player, drawn)
    known = {count.method: share for count, share in zip(open_ones, shares, strict=True)}
    return [replace(found, chance=known.get(found.count.method)) for found in told]


def _trust(found: Beside) -> tuple[bool, float, bool, float]:
    """What systems are ordered by: the chance of a hit, then the verdict."""
    count, likely = found.count, 0.0 if found.chance is None else -found.chance.p
    if isinstance(count, NoCount):
        return True, 0.0, True, 0.0
    return False, likely, not count.lands.hits, count.lands.off_balls
