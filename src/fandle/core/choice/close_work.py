"""Close work in the list: a technique's own stroke as a line, beside those that a sweep finds."""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from fandle.core.choice.aiming import Aimed, aimed
from fandle.core.choice.bank_mark import bank_marked
from fandle.core.choice.chance import chances
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.search import HOPELESS, Search
from fandle.core.choice.stretch import Key, Stretch
from fandle.core.choice.strokes import Tried
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
from fandle.core.table.rails import Rail

LOOKS = 16  # directions of a technique's window that are told apart


class Close(NamedTuple):
    """A technique on this layout: its number, the ball, the rails (a bank's are the ball's), where it pots, the stroke
    and the directions of the cue in which it does what it is for, rad."""

    method: str
    target: str
    rails: tuple[Rail, ...]
    pocket: str | None
    stroke: Stroke
    low: float
    high: float
    banked: bool = False

    @property
    def key(self) -> Key:
        """What line it is: one of its own."""
        kind = "bank" if self.banked else "kick" if self.rails else "straight"
        return Key(kind, self.target, self.rails, self.pocket, technique=self.method)


def wanted(search: Search, every: Sequence[Close]) -> list[Close]:
    """Those that serve the goal: a pot pots, into the pocket called; a hit is a hit."""
    wish, on = search.wish, {search.field.name(int(number)) for number in search.field.court.on}
    found = [each for each in every if each.target in on and each.high > each.low]
    if wish.plain:
        found = [each for each in found if each.stroke.side == 0.0]
    if wish.goal != "pot":
        return [each for each in found if each.pocket is None]
    return [each for each in found if each.pocket is not None and wish.pocket in (None, each.pocket)]


def close_lines(search: Search, every: Sequence[Close]) -> Steps[list[Ranked]]:
    """Techniques as lines with their chances, in steps; those that are hopeless are left out."""
    aims: list[Aimed] = []
    for each in wanted(search, every):
        at = each.low + (each.high - each.low) * (np.arange(LOOKS) + 0.5) / LOOKS
        ends = (each.low, each.high)
        stretch = Stretch(each.key, Tried(each.stroke, None), *ends, ends, at, np.ones(LOOKS), each.target)
        aims.append(bank_marked(search.field, aimed(search.field, stretch, search.wish.player)))
    played = yield from chances(search.field, aims, search.wish.player, search.drawn, search.ahead)
    found = [Ranked(aim, chance) for aim, chance in zip(aims, played, strict=True)]
    return [line for line in found if search.wish.merit(line.chance) >= HOPELESS]
