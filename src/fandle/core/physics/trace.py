"""Where a lone ball meets rails, crosses a line and rests, for many strokes at once: what a fit stands on. Kernels."""

import math
from typing import NamedTuple

import numpy as np

from fandle.core.physics.batch import Strokes
from fandle.core.physics.bed import NOTHING, gap_to
from fandle.core.physics.cloth import advance
from fandle.core.physics.engine import LAST_RAIL, MOST_EVENTS, MOST_PIECES, OFF_JAWS, POTTED, STOPPED, Until, run
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.moving import BALL_WIDTH, blank_row, motion_of
from fandle.core.physics.single import strike_into
from fandle.core.physics.slots import DECAY
from fandle.core.physics.state import (
    EV_POCKET,
    EV_RAIL,
    EV_STOP,
    EVENT,
    EVENT_WIDTH,
    PIECE,
    PIECE_WIDTH,
    Motion,
    Phase,
    Tape,
)

MOST_RAILS = 5  # that are written down


class Line(NamedTuple):
    """A line parallel to two rails that is crossed after so many rails.

    axis: 0 where it lies along x (then y = value), 1 along y (x = value); leg: 0 before the first rail.
    """

    axis: int
    value: float
    leg: int


class Traces(NamedTuple):
    """Of n strokes: rails in order (−1 for none) and where the centre turned there, m; where it crossed the line along
    it, m, NaN where it did not; the pocket it dropped into, −1 for none; where it rests, m, NaN where it dropped.

    carried: (n, MOST_RAILS, 4) where each leg, carried on straight from where it ends, would turn at each of the rails,
    m along it; NaN where it moves away from it. Leg 0 runs to the first rail.
    """

    rails: Ints
    at: Floats
    crossed: Floats
    down: Ints
    rest: Floats
    carried: Floats


def blank_traces(n: int) -> Traces:
    """Room for n of them, nothing having happened."""
    nowhere = np.full((n, MOST_RAILS, 2), math.nan)
    return Traces(
        np.full((n, MOST_RAILS), NOTHING, np.int64), nowhere, np.full(n, math.nan), np.full(n, NOTHING, np.int64),
        np.full((n, 2), math.nan), np.full((n, MOST_RAILS, 4), math.nan),
    )  # fmt: skip


@kernel
def crossing(pieces: Floats, n_pc: int, line: Line) -> float:
    """Where a leg crosses a line, along it, m: carried on straight where it ends before; NaN where it never does."""
    last = -1
    for k in range(n_pc):
        q = pieces[k]
        if int(q[PIECE.leg]) != line.leg or q[PIECE.lasts] <= 0.0:
            continue
        last = k
        across, speed, bends = (
            (q[PIECE.y] - line.value, q[PIECE.vy], q[PIECE.ay]) if line.axis == 0
            else (q[PIECE.x] - line.value, q[PIECE.vx], q[PIECE.ax])
        )  # fmt: skip
        t = first_root(across, speed, bends, q[PIECE.lasts])
        if t >= 0.0:
            return along_at(q, t, line.axis)
    if last < 0:
        return math.nan
    q = pieces[last]
    t = q[PIECE.lasts]
    vx, vy = q[PIECE.vx] + t * q[PIECE.ax], q[PIECE.vy] + t * q[PIECE.ay]
    if math.hypot(vx, vy) < 1e-6:
        vx, vy = q[PIECE.vx], q[PIECE.vy]
    x, y = (
        q[PIECE.x] + t * (q[PIECE.vx] + 0.5 * t * q[PIECE.ax]),
        q[PIECE.y] + t * (q[PIECE.vy] + 0.5 * t * q[PIECE.ay]),
    )
    left, speed = (line.value - y, vy) if line.axis == 0 else (line.value - x, vx)
    if left * speed <= 0.0:
        return math.nan
    return x + left / speed * vx if line.axis == 0 else y + left / speed * vy


@kernel
def along_at(q: Floats, t: float, axis: int) -> float:
    """Where a ball is along the bed (axis 0) or across it, t seconds into a stretch of its way, m."""
    if axis == 0:
        return float(q[PIECE.x] + t * (q[PIECE.vx] + 0.5 * t * q[PIECE.ax]))
    return float(q[PIECE.y] + t * (q[PIECE.vy] + 0.5 * t * q[PIECE.ay]))


@kernel
def first_root(across: float, speed: float, bends: float, lasts: float) -> float:
    """The first time from 0 to `lasts` at which across + speed·t + ½ bends·t² is 0; −1 for none."""
    a, found = 0.5 * bends, -1.0
    if abs(a) < 1e-12:
        t = -across / speed if speed != 0.0 else -1.0
        return t if 0.0 <= t <= lasts else -1.0
    disc = speed * speed - 4.0 * a * across
    if disc < 0.0:
        return -1.0
    for sign in (-1.0, 1.0):
        t = (-speed + sign * math.sqrt(disc)) / (2.0 * a)
        if 0.0 <= t <= lasts and (found < 0.0 or t < found):
            found = t
    return found


@kernel
def _carry(pieces: Floats, n_pc: int, p: Floats, carried: Floats) -> None:
    """Where the last stretch of every leg points to."""
    for k in range(n_pc):
        q = pieces[k]
        leg, t = int(q[PIECE.leg]), q[PIECE.lasts]
        if leg >= MOST_RAILS or t <= 0.0:
            continue
        x, y = along_at(q, t, 0), along_at(q, t, 1)
        vx, vy = q[PIECE.vx] + t * q[PIECE.ax], q[PIECE.vy] + t * q[PIECE.ay]
        if math.hypot(vx, vy) < 1e-6:
            vx, vy = q[PIECE.vx], q[PIECE.vy]
        for rail in range(4):
            gap = gap_to(rail, x, y, p)
            nx, ny = gap_to(rail, x + 1.0, y, p) - gap, gap_to(rail, x, y + 1.0, p) - gap
            nears = -(vx * nx + vy * ny)
            if nears > 1e-9:
                way = gap / nears
                carried[leg, rail] = x + way * vx if abs(ny) > 0.5 else y + way * vy
            else:
                carried[leg, rail] = math.nan


@kernel
def trace_rows(rows: Strokes, tables: Floats, line: Line, most: Ints, out: Traces) -> None:
    """Play the strokes with nothing else on the bed. tables: (k, numbers) as `Table.params`; `out` is written.

    most: the rail at which each ends, counted from 1.
    """
    tape = Tape(np.empty((MOST_EVENTS, EVENT_WIDTH)), np.empty((MOST_PIECES, PIECE_WIDTH)))
    state, balls = np.empty(BALL_WIDTH), np.empty((0, 2))
    for i in range(len(rows.direction)):
        p = tables[rows.table[i]]
        blank_row(state)
        state[0], state[1] = rows.start[i, 0], rows.start[i, 1]
        strike_into(state, rows.direction[i], rows.stroke[i])
        _, n_ev, n_pc = run(motion_of(state), p, balls, Until(0, OFF_JAWS, most[i]), tape)
        met = 0
        for k in range(n_ev):
            event = tape.events[k]
            kind = int(event[EVENT.kind])
            if kind == EV_RAIL and met < MOST_RAILS:
                out.rails[i, met] = int(event[EVENT.which])
                out.at[i, met, 0], out.at[i, met, 1] = event[EVENT.x], event[EVENT.y]
                met += 1
            elif kind == EV_POCKET:
                out.down[i] = int(event[EVENT.which])
            elif kind == EV_STOP:
                out.rest[i, 0], out.rest[i, 1] = event[EVENT.x], event[EVENT.y]
        out.crossed[i] = crossing(tape.pieces, n_pc, line)
        _carry(tape.pieces, n_pc, p, out.carried[i])


NO_LINE = Line(0, -1e3, 0)


def trace(rows: Strokes, tables: Floats, line: Line = NO_LINE, most: Ints | None = None) -> Traces:
    """The same as a value; without `most` every stroke is played until its ball rests."""
    out = blank_traces(len(rows.direction))
    tables = np.array(tables)
    tables.flags.writeable = False  # as a table's own numbers are
    trace_rows(rows, tables, line, np.full(len(rows.direction), MOST_EVENTS) if most is None else most, out)
    return out


@kernel
def _as_it_ends(piece: Floats, p: Floats) -> Motion:
    """A ball at the end of a stretch of its way."""
    ball = Motion(
        piece[PIECE.x], piece[PIECE.y], piece[PIECE.vx], piece[PIECE.vy],
        piece[PIECE.wx], piece[PIECE.wy], piece[PIECE.wz],
    )  # fmt: skip
    now = Phase(int(piece[PIECE.kind]), piece[PIECE.lasts], piece[PIECE.ax], piece[PIECE.ay])
    return advance(ball, now, False, p[DECAY])


@kernel
def trace_by_rail_rows(rows: Strokes, tables: Floats, out: Traces) -> None:
    """The same on a table whose rails differ: tables (k, 4, numbers), each rail with its own. Nothing is carried."""
    tape = Tape(np.empty((MOST_EVENTS, EVENT_WIDTH)), np.empty((MOST_PIECES, PIECE_WIDTH)))
    state, balls = np.empty(BALL_WIDTH), np.empty((0, 2))
    for i in range(len(rows.direction)):
        four = tables[rows.table[i]]
        blank_row(state)
        state[0], state[1] = rows.start[i, 0], rows.start[i, 1]
        strike_into(state, rows.direction[i], rows.stroke[i])
        ball, rail = motion_of(state), 0
        for met in range(MOST_RAILS + 1):
            code, n_ev, n_pc = run(ball, four[rail], balls, Until(0, OFF_JAWS, 1 if met == 0 else 2), tape)
            event = tape.events[n_ev - 1]
            if code == LAST_RAIL and met < MOST_RAILS:
                ball = _as_it_ends(tape.pieces[n_pc - 1], four[rail])
                rail = int(event[EVENT.which])
                ball = Motion(event[EVENT.x], event[EVENT.y], ball.vx, ball.vy, ball.wx, ball.wy, ball.wz)
                out.rails[i, met] = rail
                out.at[i, met, 0], out.at[i, met, 1] = event[EVENT.x], event[EVENT.y]
                continue
            if code == POTTED:
                out.down[i] = int(event[EVENT.which])
            elif code == STOPPED:
                out.rest[i, 0], out.rest[i, 1] = event[EVENT.x], event[EVENT.y]
            break


def trace_by_rail(rows: Strokes, tables: Floats) -> Traces:
    """The same as a value."""
    out = blank_traces(len(rows.direction))
    tables = np.array(tables)
    tables.flags.writeable = False
    trace_by_rail_rows(rows, tables, out)
    return out
