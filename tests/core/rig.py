"""A bare rig for one ball on the default table: strike it, see where it goes. Diamonds, m/s."""

import math
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fandle.core.physics import engine as e
from fandle.core.physics import slots
from fandle.core.physics.cushion import Impact, Rubber, bounce
from fandle.core.physics.give import Dent, give_way
from fandle.core.physics.state import EV_RAIL, EVENT, EVENT_WIDTH, PIECE, PIECE_WIDTH, Motion, Tape
from fandle.core.physics.strike import strike
from fandle.core.table.model import Table
from fandle.core.table.standards import standard_table

NO_BALLS = np.empty((0, 2))
POOL = standard_table("pool-9ft")
NEW_CLOTH = replace(POOL, cushion_friction=0.14, cloth_sliding=0.15, cloth_rolling=0.008)
OLD_CLOTH = replace(POOL, cushion_friction=0.25, cloth_sliding=0.25, cloth_rolling=0.014)


@dataclass(frozen=True)
class Run:
    """A played ball: raw events and path pieces of the engine."""

    code: int
    events: NDArray[np.float64]
    pieces: NDArray[np.float64]

    def rails(self) -> list[tuple[int, float, float]]:
        """(rail, x, y) of every rail met, in diamonds."""
        rows = self.events[self.events[:, EVENT.kind] == EV_RAIL]
        return [(int(r[EVENT.which]), r[EVENT.x] / POOL.diamond_x, r[EVENT.y] / POOL.diamond_y) for r in rows]


def run(
    start: tuple[float, float],
    direction: float,
    speed: float,
    side: float = 0.0,
    up: float = 0.0,
    table: Table = POOL,
    most_rails: int = 50,
    elevation: float = 0.0,
    steps: int | None = None,
) -> Run:
    """Strike a ball at `start` (diamonds) along `direction` (rad), without jaws."""
    p = table.params().copy()
    if steps is not None:
        p[slots.STEPS] = steps
    events = np.zeros((e.MOST_EVENTS, EVENT_WIDTH))
    pieces = np.zeros((e.MOST_PIECES, PIECE_WIDTH))
    off = strike(direction, speed, side, up, elevation, math.inf)
    x, y = start[0] * table.diamond_x, start[1] * table.diamond_y
    tape = Tape(events, pieces)
    code, n_ev, n_pc = e.run(Motion(x, y, *off), p, NO_BALLS, e.Until(0, e.NO_JAWS, most_rails), tape)
    return Run(code, events[:n_ev].copy(), pieces[:n_pc].copy())


def towards(start: tuple[float, float], x: float, y: float, table: Table = POOL) -> float:
    """Direction from `start` to the point (x, y), all in diamonds."""
    return math.atan2((y - start[1]) * table.diamond_y, (x - start[0]) * table.diamond_x)


def line_of(frame: str, table: Table = POOL) -> float:
    """y in diamonds of the far rail's line in a frame."""
    setback = table.sight_setback or 0.0
    return 4.0 + (setback / table.diamond_y if frame == "sight" else 0.0)


def return_x(played: Run, leg: int, y: float, table: Table = POOL) -> float:
    """x in diamonds at which a leg crosses the line y (diamonds), found on the pieces themselves."""
    goal = y * table.diamond_y
    for q in played.pieces:
        if q[PIECE.leg] != leg:
            continue
        for t in np.roots([0.5 * q[PIECE.ay], q[PIECE.vy], q[PIECE.y] - goal]):
            if abs(t.imag) < 1e-12 and -1e-12 <= t.real <= q[PIECE.lasts] + 1e-12:
                along = q[PIECE.x] + q[PIECE.vx] * t.real + 0.5 * q[PIECE.ax] * t.real**2
                return float(along / table.diamond_x)
    return math.nan


def one_rail(speed: float, frame: str = "nose", table: Table = POOL, **stroke: Any) -> float:
    """The trade's one-rail check: from (1, 1) at far:3, where it recrosses y = 1. Exact answer 5."""
    start = (1.0, 1.0)
    played = run(start, towards(start, 3.0, line_of(frame), table), speed, table=table, **stroke)
    return return_x(played, 1, 1.0, table)


def bounced(*numbers: float) -> tuple[float, ...]:
    """`cushion.bounce` of a row of numbers: (vt, vn, wt, wn, wz), then those of the rubber."""
    return bounce(Impact(*numbers[:5]), Rubber(*numbers[5:]))


def sunk(*numbers: float) -> tuple[float, ...]:
    """`give.give_way` of a row: the ball's five, its radius, those of the rubber, then give, grip and loss."""
    radius, *dent = numbers[5], *numbers[11:]
    return give_way(Impact(*numbers[:5]), Rubber(*numbers[6:11]), Dent(radius, *dent))
