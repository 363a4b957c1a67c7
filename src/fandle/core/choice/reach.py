"""Reach: where can a body stand for a line?

A player stands anywhere outside the table, beside the cue as well as behind it, with one straight cue over the cue
ball: the bridge hand 0.2 to 0.3 m behind it, the grip hand 0.7 to 0.9 m behind the bridge. Feet at F, bridge at B and
grip at G go together where |F − B| ≤ lean and |F − G| ≤ grip, with F on the side of the cue on which the gripping
hand's player stands. Common practice, no published source; the lengths are estimates.
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.player.body import ANYBODY, Body
from fandle.core.table.model import Table
from fandle.core.words.balls import spoken

Floats = NDArray[np.float64]
Sizes = tuple[float, float, float]  # of a table: length, width, rail width, m
STANCES = 48  # places along each rail at which one may stand
BRIDGES = np.linspace(*k.BRIDGE_M, 3)  # behind the cue ball, m
GRIPS = np.linspace(*k.GRIP_M, 3)  # behind the bridge, m


@dataclass(frozen=True)
class Reach:
    """short_m: by how much the body that stands best would have to be longer; 0 where a hand reaches. under: the ball
    that the bridge hand would have to stand on, wherever it stands; aid: what helps out of reach."""

    short_m: float
    under: Ball | None
    aid: str = "mechanical bridge"

    @property
    def by_hand(self) -> bool:
        """Can it be played without an aid?"""
        return self.short_m <= 0.0

    @property
    def said(self) -> str:
        """The reason in words; "" where there is none."""
        if not self.by_hand:
            return f"{100 * self.short_m:.0f} cm out of reach: with the {self.aid}"
        return "" if self.under is None else f"{spoken(self.under.id)} is under the bridge hand: raise the cue"


def reach_of(layout: Layout, direction: float, body: Body = ANYBODY) -> Reach:
    """Whether one can reach the cue ball to send it along `direction` (rad)."""
    cue, (ux, uy) = layout.metres(layout.cue), (math.cos(direction), math.sin(direction))
    aid = "rest" if layout.game == "snooker" else "mechanical bridge"
    return Reach(shortfall(layout.table, cue, direction, body), _under(layout, cue, (ux, uy)), aid)


def shortfall(table: Table, cue: tuple[float, float], direction: float, body: Body = ANYBODY) -> float:
    """By how much body and arms are too short for the cue ball at `cue` (m) along `direction`, m; 0 within reach.

    Directions are told apart by half degrees: nobody stands more exactly, and the strokes of a line share an answer.
    """
    halves = round(math.degrees(direction) * 2.0) % 720
    return _shortfall((table.length, table.width, table.rail_width), cue, halves, body)


@lru_cache(maxsize=8192)
def _shortfall(sizes: Sizes, cue: tuple[float, float], halves: int, body: Body) -> float:
    direction = math.radians(halves / 2.0)
    unit, at = np.array([math.cos(direction), math.sin(direction)]), np.array(cue)
    bridges = at - BRIDGES[:, None] * unit
    grips = (bridges[:, None] - GRIPS[:, None] * unit).reshape(-1, 2)
    feet = _beside(np.concatenate([_around(sizes), _outside(sizes, grips)]), at, unit, body)
    far_bridge = np.hypot(*(feet[:, None] - bridges).T).repeat(len(GRIPS), axis=0)
    far_grip = np.hypot(*(feet[:, None] - grips).T)
    short = np.maximum(far_bridge - body.lean, far_grip - body.grip)
    return max(float(short.min()), 0.0)


@lru_cache(maxsize=16)
def _around(sizes: Sizes) -> Floats:
    """Places round the outer edges of the rails, (n, 2) m."""
    (length, width, wide), steps = sizes, np.linspace(0.0, 1.0, STANCES)
    x, y = -wide + steps * (length + 2 * wide), -wide + steps * (width + 2 * wide)
    ends = [np.column_stack([np.full(STANCES, at), y]) for at in (-wide, length + wide)]
    sides = [np.column_stack([x, np.full(STANCES, at)]) for at in (-wide, width + wide)]
    return np.concatenate([*ends, *sides])


def _outside(sizes: Sizes, places: Floats) -> Floats:
    """Those of some places that lie beyond the rails: one stands there as well as at the edge."""
    length, width, wide = sizes
    x, y = places.T
    beyond = (x < -wide) | (x > length + wide) | (y < -wide) | (y > width + wide)
    found: Floats = places[beyond]
    return found


def _beside(feet: Floats, at: Floats, unit: Floats, body: Body) -> Floats:
    """Those places at which the player of that hand stands: a right-hander left of the cue, or astride it."""
    if body.hand == "both":
        return feet
    left = unit[0] * (feet[:, 1] - at[1]) - unit[1] * (feet[:, 0] - at[0])
    kept: Floats = feet[(left if body.hand == "right" else -left) >= -k.ASTRIDE_M]
    return kept


def _under(layout: Layout, cue: tuple[float, float], unit: tuple[float, float]) -> Ball | None:
    """The ball that is under the bridge hand, however long the bridge; None where there is room for it."""
    near = k.HALF_HAND_M + layout.table.ball_radius
    under = []
    for back in BRIDGES.tolist():
        hand = cue[0] - back * unit[0], cue[1] - back * unit[1]
        under.append(next((b for b in layout.object_balls() if math.dist(layout.metres(b), hand) < near), None))
    return under[0] if all(under) else None
