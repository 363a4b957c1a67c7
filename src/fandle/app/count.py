"""Counting: one system's sum, or every system's, on a situation."""

from dataclasses import dataclass, replace
from typing import Any

from fandle.app.situation import Situation
from fandle.core.layout.games import CAROM_GAMES
from fandle.core.lines.solution import Solution
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.catalogue import systems_over
from fandle.core.systems.contact import FULL_ON, Contact
from fandle.core.systems.product import METHOD as PRODUCT
from fandle.core.systems.registry import count_steps, counted, other_rails
from fandle.core.table.rails import Rail
from fandle.core.tablecheck.own_marks import Tuned, tuned


@dataclass(frozen=True)
class Counted:
    """A system's count. others: over its other rails, where none were asked for; tuned: by the table's own marks.

    favourite: why the favourite does not count here, where another system stands in for it.
    """

    found: Count | NoCount
    others: tuple[Count, ...] | None = None
    favourite: NoCount | None = None
    tuned: Tuned | None = None

    @classmethod
    def of(cls, asked: Situation, found: Count | NoCount, **more: Any) -> "Counted":
        """With what the table's own marks, and a test shot, make of it."""
        if not isinstance(found, Count) or found.contact is not None or found.goal is not None:
            return cls(found, **more)
        return cls(found, tuned=tuned(asked.layout, found, asked.carried), **more)


def count(asked: Situation, method: str | None = None, met: str | None = None) -> Counted:
    """One system (the situation's own where none is named) over the rails asked for, or over those it lands best on."""
    name = asked.system if method is None else method
    contact = contact_of(asked, met)
    found = counted(name, asked.layout, asked.rails, None, asked.kind, _banked(asked), asked.stroke.cue, contact)
    whole = asked.rails is None and asked.kind == "kick"
    others = tuple(other_rails(found, asked.layout, contact=contact)) if whole and isinstance(found, Count) else None
    return Counted.of(asked, found, others=others)


def contact_of(asked: Situation, met: str | None = None) -> Contact:
    """How the ball is to be met: full where nothing else is asked for. met: the first ball of a combination."""
    return FULL_ON if asked.kind == "bank" else Contact(asked.hit, asked.pocket, met)


def _banked(asked: Situation) -> str | None:
    return asked.pocket if asked.kind == "bank" else None


def line_contact(asked: Situation, line: Solution) -> Contact:
    """How a line that is played meets its ball: as it pots, of a combination by way of the ball that is met, or at the
    thickness asked for; a bank has its own."""
    if asked.kind == "bank":
        return FULL_ON
    if line.pot is None:
        return Contact(asked.hit)
    return Contact(0.0, line.pot.pocket, None if line.pot.ball == line.target else line.target)


def count_line(asked: Situation, rails: tuple[Rail, ...], pocket: str | None, contact: Contact = FULL_ON) -> Counted:
    """The favourite system on a line over these rails (a bank's pocket with it), to the line's own contact where it can
    carry that, else full.

    Where it does not count, the one that lands nearest of those that do; in carom the product first.
    """
    pocket = pocket if asked.kind == "bank" else None

    def counts(name: str) -> Count | NoCount:
        found = counted(name, asked.layout, rails, None, asked.kind, pocket, asked.stroke.cue, contact)
        if isinstance(found, Count) or contact.full:
            return found
        full = counted(name, asked.layout, rails, None, asked.kind, pocket, asked.stroke.cue)
        if isinstance(full, NoCount):
            return full
        return replace(full, say=f"{full.say} Counted full: to this contact it does not count ({found.reason}).")

    found = counts(asked.system)
    if isinstance(found, Count):
        return Counted.of(asked, found)
    others = [counts(name) for name in systems_over(rails, asked.kind) if name != asked.system]
    open_ones = [each for each in others if isinstance(each, Count)]
    product = [each for each in open_ones if each.method == PRODUCT and asked.layout.game in CAROM_GAMES]
    best = min(product or open_ones, key=lambda each: (not each.open, each.lands.off_balls), default=None)
    return Counted(found) if best is None else Counted.of(asked, best, favourite=found)


def count_all(asked: Situation, met: str | None = None) -> Steps[list[Count | NoCount]]:
    """Every system, those that land nearest first, those that do not apply last, in steps."""
    layout, rails, cue = asked.layout, asked.rails, asked.stroke.cue
    return count_steps(layout, rails, None, asked.kind, _banked(asked), cue, contact_of(asked, met))
