"""Where a ball stops over the draws: the middle, and an ellipse that holds half of them."""

import math
from dataclasses import dataclass

import numpy as np

from fandle.core import constants as k
from fandle.core.choice.chance import Chance
from fandle.core.choice.field import Field

MOVES = 0.15  # of the draws: a ball that is moved more seldom is not told
STILL_M2 = 1e-12  # of spread along an axis: less is none


@dataclass(frozen=True)
class Rest:
    """x, y: the mean, diamonds, NaN where the ball never stays. a, b: half-axes of the ellipse (mm), turn_deg: of its
    long one from +x; gone: the share of the draws in which the ball is not on the bed afterwards; near: in which it
    stops within a hand's span of the mean."""

    x: float
    y: float
    a: float
    b: float
    turn_deg: float
    gone: float
    near: float


def rest_of(field: Field, chance: Chance, ball: int) -> Rest:
    """Where a ball, by number, stops; the ellipse has the axes of the covariance, and is as large as holds half."""
    table = field.layout.table
    rests = chance.rests[:, ball]
    stays = rests[~np.isnan(rests[:, 0])]
    gone = 1.0 - len(stays) / len(rests)
    if not len(stays):
        return Rest(math.nan, math.nan, 0.0, 0.0, 0.0, 1.0, 0.0)
    x, y = stays.mean(axis=0)
    off = stays - (x, y)
    values, axes = np.linalg.eigh(off.T @ off / len(stays))
    spread = np.maximum(values, STILL_M2)
    half = math.sqrt(float(np.median(((off @ axes) ** 2 / spread).sum(axis=1))))  # stops are no normal law: count them
    b, a = (1000.0 * half * math.sqrt(float(value)) for value in spread)
    turn = math.degrees(math.atan2(axes[1, 1], axes[0, 1]))
    near = float((np.hypot(off[:, 0], off[:, 1]) <= k.SPAN_M).sum()) / len(rests)
    return Rest(float(x) / table.diamond_x, float(y) / table.diamond_y, a, b, (turn + 90.0) % 180.0 - 90.0, gone, near)


def moved(field: Field, chance: Chance, but: int) -> tuple[int, ...]:
    """The other object balls, by number, that are moved in more than a few of the draws."""
    off = np.hypot(*np.moveaxis(chance.rests[:, 1:] - field.balls, -1, 0))
    share = (np.isnan(off) | (off > field.layout.table.ball_radius)).mean(axis=0)
    return tuple(int(k) + 1 for k in np.flatnonzero(share >= MOVES) if k + 1 != but)
