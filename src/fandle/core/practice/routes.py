"""Return routes: a stroke from a spot that comes back to it over so many rails. Found by the engine, table by table.

Marks are tried in quarters of a diamond, so that each can be remembered, at every speed from a crawl to hard; plain up
to three rails, over four with running side, too. Taken is the easiest mark that comes back, then the one that comes
nearest. Common practice, no published source.
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from fandle.core.lines.marks import direction_to
from fandle.core.physics.batch import Strokes
from fandle.core.physics.trace import MOST_RAILS, trace
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import speed_of

CENTRE: Point = (4.0, 2.0)
CIRCLE = 0.5  # diamonds along the table: the radius of the circle it is to come back to
SLOWEST, FASTEST, PACE = 0.8, 5.0, 0.02  # table lengths
WITH_SIDE, SIDES = 4, (0.17, 0.35)  # rails from which on side is tried, radii of running side
STRAIGHT = {1: Rail.FOOT, 2: Rail.FOOT}  # over one and two rails: up and down the table


@dataclass(frozen=True)
class Route:
    """A mark on the first rail (nose, diamonds), a speed (m/s) and side (radii) whose ball comes back, and how near."""

    rail: Rail
    at: float
    speed: float
    side: float
    away: float


@lru_cache(maxsize=256)
def return_route(table: Table, rails: int) -> Route | None:
    """The route over so many rails from the centre back to it; None where this table has none."""
    cases = _cases(rails)
    lengths = np.arange(SLOWEST, FASTEST, PACE)
    speeds = np.array([speed_of(table, round(float(each), 3)) for each in lengths])
    start = CENTRE[0] * table.diamond_x, CENTRE[1] * table.diamond_y
    directions = np.array([direction_to(table, rail, start, at, "nose") for rail, at, _ in cases])
    n = len(cases) * len(speeds)
    stroke = np.tile(Stroke(1.0).array(), (n, 1))
    stroke[:, 0] = np.tile(speeds, len(cases))
    stroke[:, 1] = np.repeat([side for _, _, side in cases], len(speeds))
    rows = Strokes(np.repeat(directions, len(speeds)), stroke, np.tile(start, (n, 1)), np.zeros(n, np.int64))
    found = trace(rows, table.params()[None])
    met = (found.rails >= 0).sum(axis=1)
    away = np.hypot(found.rest[:, 0] - start[0], found.rest[:, 1] - start[1]) / table.diamond_x
    fits = (met == rails) & (met < MOST_RAILS) & (away < CIRCLE) & _clear(table, cases, len(speeds), found.at[:, 0])
    if not fits.any():
        return None
    grade = np.repeat([_difficulty(*case) for case in cases], len(speeds))
    order = np.where(fits, 2 * grade + away, math.inf)
    best = int(order.argmin())
    rail, at, side = cases[best // len(speeds)]
    return Route(rail, at, float(stroke[best, 0]), side, float(away[best]))


def _cases(rails: int) -> list[tuple[Rail, float, float]]:
    """Marks with their side: quarters of a diamond along the far rail, towards the head, clear of the side pocket."""
    if rails in STRAIGHT:
        return [(STRAIGHT[rails], CENTRE[1], 0.0)]
    plain = [(Rail.FAR, k / 4, 0.0) for k in range(2, 15)]
    return plain if rails < WITH_SIDE else plain + [(rail, at, -side) for rail, at, _ in plain for side in SIDES]


def _clear(table: Table, cases: list[tuple[Rail, float, float]], speeds: int, first: np.ndarray) -> np.ndarray:
    """Is the first contact on the rail that is aimed at, near its mark? A jaw sends it elsewhere."""
    wanted = np.repeat([at for _, at, _ in cases], speeds)
    long_ = np.repeat([rail.is_long for rail, _, _ in cases], speeds)
    seen = np.where(long_, first[:, 0] / table.diamond_x, first[:, 1] / table.diamond_y)
    clear: np.ndarray = np.abs(seen - wanted) < 0.35
    return clear


def _difficulty(_: Rail, at: float, side: float) -> float:
    """Diamonds from the centre that a mark is worth: whole ones are aimed at best, then halves; no side is easiest."""
    grade = 0.0 if at == round(at) else 0.05 if 2 * at == round(2 * at) else 0.1
    return grade + (0.2 if side else 0.0)
