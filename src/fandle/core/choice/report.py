"""Which line? The whole answer."""

from dataclasses import dataclass

from fandle.core.choice.refused import Refused
from fandle.core.choice.told import Line
from fandle.core.choice.wish import Goal
from fandle.core.player.scatter import Player


@dataclass(frozen=True)
class Plan:
    """Every line, best first. on: the balls on; draws: how many each chance has; say: what it comes to, in words.

    more: how many other lines there was no room for. notes: what is odd: "target_not_on" (the ball chosen may not be
    hit first), "no_line", "nothing_on".
    """

    goal: Goal
    game: str
    on: tuple[str, ...]
    notes: tuple[str, ...]
    player: Player
    draws: int
    lines: tuple[Line, ...]
    refused: tuple[Refused, ...]
    say: str
    more: int = 0


@dataclass(frozen=True)
class SoFar:
    """How far a plan is, 0 to 1, and the lines known already, each played so often."""

    progress: float
    draws: int
    lines: tuple[Line, ...]
