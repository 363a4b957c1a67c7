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
Bools = NDArray[np.bool_]
Goal = Literal["hit", "pot", "safe"]
GOALS: tuple[Goal, ...] = ("hit", "pot", "safe")
VERDICT: dict[str, str] = {"hit": "legal", "pot": "pot", "safe": "safe"}  # what a line is ranked by
DRAWS = 300
NEARLY = 0.05  # what a stroke that leaves the cue ball beside its zone counts for in the choice of one, at most


@dataclass(frozen=True)
class Zone:
    """A circle on the cloth, diamonds; its radius in those along the table."""

    x: float
    y: float
    r: float

    def __post_init__(self) -> None:
        if not (0.0 <= self.x <= 8.0 and 0.0 <= self.y <= 4.0 and 0.0 < self.r <= 8.0):
            raise BadInputError(
                f"zone {self.x:g},{self.y:g},{self.r:g} does not lie on the table: x 0 to 8, y 0 to 4, r up to 8",
                "zone",
            )

    def holds(self, table: Table, places: Floats) -> Bools:
        """Which places, (n, 2) m, lie in it; one that is NaN does not."""
        return np.asarray(self.beside(table, places) <= 0.0, np.bool_)

    def beside(self, table: Table, places: Floats) -> Floats:
        """How far places, (n, 2) m, lie outside it, diamonds; 0 and less inside, NaN where a place is."""
        off = places - np.array([self.x * table.diamond_x, self.y * table.diamond_y])
        found: Floats = np.hypot(off[:, 0], off[:, 1]) / table.diamond_x - self.r
        return found


def zone_of(text: str) -> Zone:
    """A circle written x,y,r. Raises BadInputError."""
    try:
        x, y, r = (float(part) for part in text.split(","))
    except ValueError:
        raise BadInputError(
            f"zone {text!r} is not understood: write x,y,r in diamonds, like 6,2,0.5", "zone", code="not_understood"
        ) from None
    return Zone(x, y, r)


@dataclass(frozen=True)
class Then:
    """What is to become of the cue ball: where it is to stop, where not, and the ball that is to be potted next."""

    zones: tuple[Zone, ...] = ()
    away: tuple[Zone, ...] = ()
    next: Next | None = None

    @property
    def placed(self) -> bool:
        """Is it asked for where the cue ball stops?"""
        return bool(self.zones or self.away)

    def in_zones(self, table: Table, cue: Floats) -> Bools:
        """Which places, (n, 2) m, are where the cue ball is to stop: in one of the zones, in none to keep out of."""
        found = np.ones(len(cue), np.bool_)
        if self.zones:
            found = np.logical_or.reduce([zone.holds(table, cue) for zone in self.zones])
        for zone in self.away:
            found &= ~zone.holds(table, cue)
        return found

    def beside(self, table: Table, cue: Floats) -> Floats:
        """How far places, (n, 2) m, are from where the cue ball is to stop, diamonds; infinite where there is none."""
        found = np.zeros(len(cue))
        if self.zones:
            found = np.minimum.reduce([zone.beside(table, cue) for zone in self.zones])
        for zone in self.away:
            found = np.maximum(found, -zone.beside(table, cue))
        return np.nan_to_num(np.maximum(found, 0.0), nan=math.inf)

    def nearness(self, table: Table, cue: Floats) -> Floats:
        """1 where the cue ball is to stop, and the further from it the less, at most `NEARLY`."""
        off = self.beside(table, cue)
        found: Floats = np.where(self.in_zones(table, cue), 1.0, NEARLY * np.exp2(-off))
        return found


ANYHOW = Then()


@dataclass(frozen=True)
class Wish:
    """What is wanted, by whom. usual: over the usual strokes, else at the one given. pocket: called; None for any.

    plain: without side, as the natural angle is played. every: all lines, else as many as anyone looks at.
    """

    goal: Goal = "hit"
    pocket: str | None = None
    player: Player = CLUB
    usual: bool = True
    draws: int = DRAWS
    seed: int = 0
    then: Then = ANYHOW
    plain: bool = False
    every: bool = False

    @property
    def chained(self) -> bool:
        """Is a next ball part of what is wanted?"""
        return self.goal == "pot" and self.then.next is not None

    def worth(self, chance: Chance) -> Floats:
        """What each draw is worth, 0 to 1: the goal reached, the cue ball where it is to stop, the next ball on.

        A pot before a next ball is worth the chance of that one.
        """
        reached = chance.safe if self.goal == "safe" else getattr(chance.verdicts, VERDICT[self.goal])
        found = (reached & self.then.in_zones(chance.field.layout.table, chance.rests[:, 0])).astype(float)
        return found * chance.ahead.p if self.chained else found

    def merit(self, chance: Chance, n: int | None = None) -> float:
        """What strokes of a line are compared by: the share, and where the cue ball's place is missed, how nearly."""
        found = self.share(chance, n)
        if not self.then.placed:
            return found
        near = self.then.nearness(chance.field.layout.table, chance.rests[:, 0])
        reached = chance.verdicts.pot if self.goal == "pot" else chance.verdicts.legal
        return found + float((reached & (near < 1.0))[:n].astype(float) @ near[:n]) / len(near[:n])

    def share(self, chance: Chance, n: int | None = None) -> float:
        """The mean over the draws (over the first n)."""
        return float(self.worth(chance)[:n].mean())

    def wanted(self, chance: Chance) -> Share:
        """The same over all draws, with its range."""
        return Share.of(self.worth(chance), chance.drawn)
