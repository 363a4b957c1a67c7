"""What is wanted of a line, by whom: the goal, where the cue ball is to stop, what comes next."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.chance import Chance, Share
from fandle.core.choice.position import Next
from fandle.core.errors import BadInputError
from fandle.core.player.scatter import CLUB, Player
from fandle.core.table.model import Table

Floats = NDArray[np.float64]
Goal = Literal["hit", "pot", "safe"]
GOALS: tuple[Goal, ...] = ("hit", "pot", "safe")
VERDICT: dict[str, str] = {"hit": "legal", "pot": "pot", "safe": "safe"}  # what a line is ranked by
DRAWS = 300


@dataclass(frozen=True)
class Zone:
    """A circle on the cloth, m."""

    x: float
    y: float
    r: float

    def holds(self, places: NDArray[np.float64]) -> NDArray[np.bool_]:
        """Which places, (n, 2), lie in it; one that is NaN does not."""
        return np.asarray(np.hypot(places[:, 0] - self.x, places[:, 1] - self.y) <= self.r, np.bool_)


def zone_of(table: Table, text: str) -> Zone:
    """A circle written x,y,r in diamonds, r in those along the table. Raises BadInputError."""
    try:
        x, y, r = (float(part) for part in text.split(","))
    except ValueError:
        x = y = r = math.nan
    if not (0.0 <= x <= 8.0 and 0.0 <= y <= 4.0 and 0.0 < r <= 8.0):
        raise BadInputError(f"zone {text!r} is not understood: write x,y,r in diamonds, like 6,2,0.5", "zone")
    return Zone(x * table.diamond_x, y * table.diamond_y, r * table.diamond_x)


@dataclass(frozen=True)
class Wish:
    """What is wanted, by whom. usual: over the usual strokes, else at the one given. pocket: called; None for any.

    zones, away: where the cue ball is to stop, and where not; next: the ball that is to be potted after this one.
    """

    goal: Goal = "hit"
    pocket: str | None = None
    player: Player = CLUB
    usual: bool = True
    draws: int = DRAWS
    seed: int = 0
    zones: tuple[Zone, ...] = ()
    away: tuple[Zone, ...] = ()
    next: Next | None = None

    @property
    def placed(self) -> bool:
        """Is it asked for where the cue ball stops?"""
        return bool(self.zones or self.away)

    def worth(self, chance: Chance) -> Floats:
        """What each draw is worth, 0 to 1: the goal reached, the cue ball where it is to stop, the next ball on.

        A pot before a next ball is worth the chance of that one.
        """
        reached = chance.safe if self.goal == "safe" else getattr(chance.verdicts, VERDICT[self.goal])
        found = (reached & self.in_zones(chance.rests[:, 0])).astype(float)
        return found * chance.ahead.p if self.next is not None and self.goal == "pot" else found

    def in_zones(self, cue: Floats) -> NDArray[np.bool_]:
        """Which places, (n, 2), are where the cue ball is to stop: in one of the zones, in none to keep out of."""
        found = np.ones(len(cue), np.bool_)
        if self.zones:
            found = np.logical_or.reduce([zone.holds(cue) for zone in self.zones])
        for zone in self.away:
            found &= ~zone.holds(cue)
        return found

    def share(self, chance: Chance, n: int | None = None) -> float:
        """The mean over the draws (over the first n)."""
        return float(self.worth(chance)[:n].mean())

    def wanted(self, chance: Chance) -> Share:
        """The same over all draws, with its range."""
        worth = self.worth(chance)
        return Share(float(worth.sum()), len(worth))
