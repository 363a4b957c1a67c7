"""Where lone balls come to a place off their last rail, for many strokes at once: maps of systems stand on it. Kernels.

The compiled twin of `systems.played.landing`, which reads one played shot.
"""

import math
from typing import NamedTuple

import numpy as np

from fandle.core.physics.batch import Strokes
from fandle.core.physics.engine import AT_JAWS, BROKEN, LAST_RAIL, TOO_MANY, Until, run
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.moving import BALL_WIDTH, blank_row, motion_of
from fandle.core.physics.single import strike_into
from fandle.core.physics.slots import RADIUS
from fandle.core.physics.state import EV_RAIL, EVENT, EVENT_WIDTH, PIECE, PIECE_WIDTH, Arc, Tape, arc_of
from fandle.core.physics.touch import nearest_time
from fandle.core.physics.trace import along_at, first_root

FEW_EVENTS, FEW_PIECES = 60, 200  # of a ball that ends at its fifth rail or sooner
ROUNDING_S = 1e-12
STILL = 1e-6  # m/s: a ball slower than this has come to rest there


class Goal(NamedTuple):
    """A place (m) and the line through it that is crossed: axis 0 where that lies along x, 1 along y."""

    x: float
    y: float
    axis: int


class Arrivals(NamedTuple):
    """Of n strokes: how far along the line, in the direction of travel, it is crossed beyond the place (m); how far the
    way passes beside the place, + where it does so on its right (m). NaN where it never comes there off those rails."""

    off: Floats
    past: Floats


@kernel
def _passes(pieces: Floats, n_pc: int, leg: int, goal: Goal) -> float:
    """Least distance of a leg from the place, + where it passes on its right; inf without a leg."""
    least = math.inf
    for k in range(n_pc):
        q = pieces[k]
        if int(q[PIECE.leg]) != leg or q[PIECE.lasts] <= 0.0:
            continue
        way = arc_of(q)
        apart = Arc(way.x - goal.x, way.y - goal.y, way.vx, way.vy, way.ax, way.ay)
        t = nearest_time(apart, q[PIECE.lasts])
        px = apart.x + t * (apart.vx + 0.5 * t * apart.ax)
        py = apart.y + t * (apart.vy + 0.5 * t * apart.ay)
        away = math.hypot(px, py)
        if away < abs(least):
            turn = (apart.vx + t * apart.ax) * py - (apart.vy + t * apart.ay) * px
            least = math.copysign(away, -turn)
    return least


@kernel
def _crosses(pieces: Floats, n_pc: int, leg: int, goal: Goal, carry: bool) -> float:
    """Where a leg crosses the line beyond the place, in the direction of travel, m; NaN where it does not.

    carry: carried on straight where it ends before.
    """
    first = last = -1
    here = math.nan
    for k in range(n_pc):
        q = pieces[k]
        if int(q[PIECE.leg]) != leg or q[PIECE.lasts] <= 0.0:
            continue
        first, last = (k if first < 0 else first), k
        if not math.isnan(here):
            continue
        across, speed, bends = (
            (q[PIECE.y] - goal.y, q[PIECE.vy], q[PIECE.ay]) if goal.axis == 0
            else (q[PIECE.x] - goal.x, q[PIECE.vx], q[PIECE.ax])
        )  # fmt: skip
        t = first_root(across, speed, bends, q[PIECE.lasts] + ROUNDING_S)
        if t >= 0.0:
            here = along_at(q, t, goal.axis)
    if last < 0:
        return math.nan
    if math.isnan(here) and carry:
        here = _carried(pieces, first, last, leg, goal)
    start, q = pieces[first], pieces[last]
    way = along_at(q, q[PIECE.lasts], goal.axis) - along_at(start, 0.0, goal.axis)
    return (here - (goal.x if goal.axis == 0 else goal.y)) * math.copysign(1.0, way)


@kernel
def _carried(pieces: Floats, first: int, last: int, leg: int, goal: Goal) -> float:
    """Where the last stretch that points to the line, carried on straight, crosses it."""
    for k in range(last, first - 1, -1):
        q = pieces[k]
        t = q[PIECE.lasts]
        if int(q[PIECE.leg]) != leg or t <= 0.0:
            continue
        vx, vy = q[PIECE.vx] + t * q[PIECE.ax], q[PIECE.vy] + t * q[PIECE.ay]
        if math.hypot(vx, vy) < STILL:
            vx, vy = q[PIECE.vx], q[PIECE.vy]
        x, y = along_at(q, t, 0), along_at(q, t, 1)
        left, speed, aside, here = (goal.y - y, vy, vx, x) if goal.axis == 0 else (goal.x - x, vx, vy, y)
        if left * speed > 0.0:
            return here + left / speed * aside
    return math.nan


@kernel
def _over(tape: Tape, n_ev: int, rails: Ints) -> bool:
    """Did it meet these rails first, in this order?"""
    met = 0
    for k in range(n_ev):
        if int(tape.events[k][EVENT.kind]) == EV_RAIL and met < len(rails):
            if int(tape.events[k][EVENT.which]) != rails[met]:
                return False
            met += 1
    return met == len(rails)


@kernel
def arrive_rows(rows: Strokes, p: Floats, rails: Ints, goal: Goal, out: Arrivals) -> None:
    """Play the strokes with nothing else on the bed; `out`, all NaN, is written."""
    tape = Tape(np.empty((FEW_EVENTS, EVENT_WIDTH)), np.empty((FEW_PIECES, PIECE_WIDTH)))
    state, balls, order = np.empty(BALL_WIDTH), np.empty((0, 2)), len(rails)
    for i in range(len(rows.direction)):
        blank_row(state)
        state[0], state[1] = rows.start[i, 0], rows.start[i, 1]
        strike_into(state, rows.direction[i], rows.stroke[i])
        code, n_ev, n_pc = run(motion_of(state), p, balls, Until(0, AT_JAWS, order + 1), tape)
        if code in (TOO_MANY, BROKEN) or not _over(tape, n_ev, rails):
            continue
        past = _passes(tape.pieces, n_pc, order, goal)
        carry = code == LAST_RAIL or abs(past) < 2.0 * p[RADIUS]
        off = _crosses(tape.pieces, n_pc, order, goal, carry)
        if not math.isnan(off):
            out.off[i], out.past[i] = off, past


def arrive(rows: Strokes, p: Floats, rails: Ints, goal: Goal) -> Arrivals:
    """The same as a value. p: `Table.params`."""
    n = len(rows.direction)
    out = Arrivals(np.full(n, math.nan), np.full(n, math.nan))
    arrive_rows(rows, p, rails, goal, out)
    return out
