"""Counting: one system's sum, or every system's, on a situation."""

from dataclasses import dataclass

from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.registry import count_steps, counted, other_rails, systems_over
from fandle.core.table.rails import Rail
from fandle.service.situation import Situation


@dataclass(frozen=True)
class Counted:
    """A system's count. others: over its other rails, where none were asked for; instead: systems that count here."""

    found: Count | NoCount
    others: tuple[Count, ...] | None = None
    instead: tuple[str, ...] = ()


def count(asked: Situation, method: str | None = None) -> Counted:
    """One system (the situation's own where none is named) over the rails asked for, or over those it lands best on."""
    name = asked.system if method is None else method
    found = counted(name, asked.layout, asked.rails, kind=asked.kind, pocket=asked.pocket)
    whole = asked.rails is None and asked.kind == "kick"
    others = tuple(other_rails(found, asked.layout)) if whole and isinstance(found, Count) else None
    return Counted(found, others)


def count_line(asked: Situation, rails: tuple[Rail, ...], pocket: str | None) -> Counted:
    """The favourite system on a line over these rails (a bank's pocket with it), and which others count there."""
    pocket = pocket if asked.kind == "bank" else None
    found = counted(asked.system, asked.layout, rails, kind=asked.kind, pocket=pocket)
    others = systems_over(rails, asked.kind) if isinstance(found, NoCount) else []
    return Counted(found, instead=tuple(name for name in others if name != asked.system))


def count_all(asked: Situation) -> Steps[list[Count | NoCount]]:
    """Every system, those that land nearest first, those that do not apply last, in steps."""
    return count_steps(asked.layout, asked.rails, kind=asked.kind, pocket=asked.pocket)
