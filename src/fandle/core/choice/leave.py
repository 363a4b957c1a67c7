"""What balls that lie somewhere leave to a shooter: the best pot in closed form, and whether a ball is seen at all."""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.pocket_room import room_of
from fandle.core.physics.pots import best_pots
from fandle.core.physics.sight import sights
from fandle.core.table.model import Table

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]


class Best(NamedTuple):
    """Of n draws: the chance of the best pot, and of which ball (number, 0 for none) into which pocket."""

    p: Floats
    ball: Ints
    pocket: Ints

    @classmethod
    def none(cls, n: int) -> "Best":
        """No pot in any of n draws."""
        return cls(np.zeros(n), np.zeros(n, np.int64), np.full(n, -1))

    def put(self, rows: Ints, some: "Best") -> None:
        """Write what was found for some of the draws."""
        for every, part in zip(self, some, strict=True):
            every[rows] = part

    def commonest(self, rows: Ints) -> tuple[int, int]:
        """(ball, pocket) of the pot that is the best one most often in some draws; (0, −1) where there is none."""
        some = rows[self.ball[rows] > 0]
        if not some.size:
            return 0, -1
        pots = np.bincount(self.ball[some] * 10 + self.pocket[some])
        ball, pocket = divmod(int(pots.argmax()), 10)
        return ball, pocket


class Sight(NamedTuple):
    """Of n draws: is any ball on seen; how far the nearest one is (m), and what lies before its middle (0: nothing)."""

    seen: Bools
    hider: Ints
    near: Floats


def best_pot(table: Table, rests: Floats, on: Bools, direction_deg: float, pocket: int = -1) -> Best:
    """The best straight pot from where the balls lie.

    rests: (n, m + 1, 2) m, the cue ball first, NaN where down; on: (n, m + 1) which of them may be played.
    direction_deg: the standard deviation σ of the cue's line. pocket: the only one, by number; −1 for any. See
    `fandle.core.physics.pots`.
    """
    n = len(rests)
    best = Best(np.empty(n), np.empty(n, np.int64), np.empty(n, np.int64))
    best_pots(np.ascontiguousarray(rests), on, room_of(table), math.radians(direction_deg), pocket, *best)
    return best


def sees(table: Table, rests: Floats, on: Bools) -> Sight:
    """What the cue ball sees of the balls that may be played, exactly: see `fandle.core.physics.sight`."""
    n = len(rests)
    found = Sight(np.empty(n, np.bool_), np.empty(n, np.int64), np.empty(n))
    sights(np.ascontiguousarray(rests), on, 2.0 * table.ball_radius, *found)
    return found
