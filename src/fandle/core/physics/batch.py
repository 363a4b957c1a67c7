"""Many strokes at once, what comes of each in a row of numbers: what chances, fits and maps stand on.

A row has its own cue ball, stroke and table; the object balls lie alike for all. Every chunk of rows is one call that
holds no interpreter lock and has memory of its own, so chunks can run in threads, be counted, and be stopped between.
"""

import math
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import NamedTuple

import numpy as np

from fandle.core.physics.bed import NOTHING, gap_to
from fandle.core.physics.collision import X, Y
from fandle.core.physics.engine import MOST_EVENTS as FEW_EVENTS
from fandle.core.physics.engine import MOST_PIECES as FEW_PIECES
from fandle.core.physics.engine import OFF_JAWS, Until, run
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.moving import BALL_WIDTH, ON, blank_row, motion_of
from fandle.core.physics.rack import MOST_EVENTS, MOST_PIECES, play_until
from fandle.core.physics.single import strike_into
from fandle.core.physics.state import EV_BALL, EV_JAW, EV_POCKET, EV_RAIL, EVENT, EVENT_WIDTH, PIECE, PIECE_WIDTH, Tape
from fandle.core.steps import Steps, finish

CHUNK = 64  # rows a call: a few milliseconds
MOST_CUE_RAILS = 8  # that are written down in order
MOST_BANK_RAILS = 3  # of the first object ball's
STUCK_M = 1e-6  # a ball this near to a rail is frozen to it
AWAY_M = 5e-5  # and has left it once it was this far off
WHOLE, TO_FIRST_BALL = False, True  # how far each stroke is played


class Strokes(NamedTuple):
    """n strokes: directions (rad), (n, 5) strokes as `Stroke.array`, (n, 2) cue balls (m), which table of each."""

    direction: Floats
    stroke: Floats
    start: Floats
    table: Ints


class Outcomes(NamedTuple):
    """What came of n strokes with the cue ball, number 0, and m object balls, 1 to m. −1 where there is none.

    code: how it ended, as `engine` has it. first, second: object balls that the cue ball met; again: it met the first
    one twice; jaw: it met a jaw before that. first_rails: (n, MOST_BANK_RAILS) rails that the first one met in order.
    cue_rails: (n, MOST_CUE_RAILS) rails the cue ball met in order up to the second ball; before_first,
    before_second: how many up to each. rails_after: (n, m + 1) rails and jaws met since the first contact, ball by
    ball; one that was frozen to a rail counts for that rail only after it has left it (left: 1, else 0).
    down, pockets: (n, m + 1) balls in the order in which they fell, and where. rests: (n, m + 1, 2) m, NaN where down.
    """

    code: Ints
    first: Ints
    second: Ints
    again: Ints
    jaw: Ints
    first_rails: Ints
    cue_rails: Ints
    before_first: Ints
    before_second: Ints
    rails_after: Ints
    left: Ints
    down: Ints
    pockets: Ints
    rests: Floats

    def rows(self, first: int, beyond: int) -> "Outcomes":
        """Some of the rows."""
        return Outcomes._make(column[first:beyond] for column in self)


def blank(n: int, object_balls: int) -> Outcomes:
    """Room for n outcomes, nothing having happened in any."""

    def none(*shape: int) -> Ints:
        return np.full((n, *shape), NOTHING, dtype=np.int64)

    def nought(*shape: int) -> Ints:
        return np.zeros((n, *shape), dtype=np.int64)

    m = object_balls + 1
    return Outcomes(
        none(), none(), none(), nought(), nought(), none(MOST_BANK_RAILS), none(MOST_CUE_RAILS),
        nought(), nought(), nought(m), nought(m), none(m), none(m), np.full((n, m, 2), math.nan),
    )  # fmt: skip


@kernel
def _frozen_to(x: float, y: float, p: Floats) -> int:
    """The rail that a ball is frozen to, −1 for none."""
    for rail in range(4):
        if abs(gap_to(rail, x, y, p)) <= STUCK_M:
            return rail
    return NOTHING


@kernel
def _leaves_at(ball: int, rail: int, pieces: Floats, n_pc: int, p: Floats) -> float:
    """When a ball that was frozen to a rail is first away from it, inf if never."""
    for i in range(n_pc):
        q = pieces[i]
        if q[PIECE.ball] != ball:
            continue
        for part in range(1, 5):
            t = 0.25 * part * q[PIECE.lasts]
            x = q[PIECE.x] + t * (q[PIECE.vx] + 0.5 * q[PIECE.ax] * t)
            y = q[PIECE.y] + t * (q[PIECE.vy] + 0.5 * q[PIECE.ay] * t)
            if gap_to(rail, x, y, p) > AWAY_M:
                return q[PIECE.t] + t
    return math.inf


@kernel
def _cue_event(row: Floats, i: int, out: Outcomes) -> None:
    """An event in which the cue ball has part, told in row i."""
    kind = int(row[EVENT.kind])
    if kind == EV_BALL:
        other = int(row[EVENT.which]) if row[EVENT.ball] == 0.0 else int(row[EVENT.ball])
        if out.first[i] == NOTHING:
            out.first[i] = other
        elif out.first[i] == other:
            out.again[i] = 1
        elif out.second[i] == NOTHING:
            out.second[i] = other
    elif kind == EV_RAIL and out.second[i] == NOTHING:
        if out.before_second[i] < MOST_CUE_RAILS:
            out.cue_rails[i, out.before_second[i]] = int(row[EVENT.which])
        out.before_second[i] += 1
        if out.first[i] == NOTHING:
            out.before_first[i] += 1
    elif kind == EV_JAW and out.first[i] == NOTHING:
        out.jaw[i] = 1


@kernel
def _tell(places: Floats, p: Floats, tape: Tape, n_ev: int, n_pc: int, i: int, out: Outcomes) -> None:
    """Row i from what was written of the whole shot. places: the balls before it."""
    n = places.shape[0]
    own = np.empty(n, dtype=np.int64)
    leaves = np.empty(n)
    for ball in range(n):
        own[ball] = _frozen_to(places[ball, 0], places[ball, 1], p)
        leaves[ball] = math.inf
        if own[ball] != NOTHING:
            leaves[ball] = _leaves_at(ball, own[ball], tape.pieces, n_pc, p)
            out.left[i, ball] = 1 if leaves[ball] < math.inf else 0
    fallen = banked = 0
    for k in range(n_ev):
        row = tape.events[k]
        kind, ball = int(row[EVENT.kind]), int(row[EVENT.ball])
        if ball == 0 or (kind == EV_BALL and row[EVENT.which] == 0.0):
            _cue_event(row, i, out)
        if kind == EV_RAIL and out.first[i] != NOTHING:
            mine = int(row[EVENT.which]) == own[ball] and row[EVENT.t] <= leaves[ball]
            out.rails_after[i, ball] += 0 if mine else 1
            if ball == out.first[i] and banked < MOST_BANK_RAILS and not mine:
                out.first_rails[i, banked] = int(row[EVENT.which])
                banked += 1
        elif kind == EV_JAW and out.first[i] != NOTHING:
            out.rails_after[i, ball] += 1  # a jaw is a rail (common practice; no text of the rules spells it out)
        elif kind == EV_POCKET:
            out.down[i, fallen], out.pockets[i, fallen] = ball, int(row[EVENT.which])
            fallen += 1


@kernel
def _approach(row: Floats, p: Floats, balls: Floats, tape: Tape, i: int, out: Outcomes) -> None:
    """Play the cue ball alone, to the first ball, a pocket or rest."""
    code, n_ev, _ = run(motion_of(row), p, balls, Until(0, OFF_JAWS, FEW_EVENTS), tape)
    out.code[i] = code
    for k in range(n_ev):
        event = tape.events[k]
        kind = int(event[EVENT.kind])
        if kind == EV_BALL:
            out.first[i] = int(event[EVENT.which]) + 1
        elif kind == EV_POCKET:
            out.down[i, 0], out.pockets[i, 0] = 0, int(event[EVENT.which])
        else:
            _cue_event(event, i, out)


@kernel
def play_rows(rows: Strokes, tables: Floats, balls: Floats, first: int, last: int, short: bool, out: Outcomes) -> None:
    """Play the strokes from row `first` on, up to `last`, into `out`.

    tables: (k, numbers) as `Table.params`; balls: (m, 2) object balls, m. short: only to the first ball.
    """
    n = balls.shape[0] + 1
    state = np.empty((n, BALL_WIDTH))
    few = Tape(np.empty((FEW_EVENTS, EVENT_WIDTH)), np.empty((FEW_PIECES, PIECE_WIDTH)))
    tape = few if short else Tape(np.empty((MOST_EVENTS, EVENT_WIDTH)), np.empty((MOST_PIECES, PIECE_WIDTH)))
    places = np.empty((n, 2))
    for ball in range(1, n):
        places[ball, 0], places[ball, 1] = balls[ball - 1, 0], balls[ball - 1, 1]
    for i in range(first, last):
        p = tables[rows.table[i]]
        places[0, 0], places[0, 1] = rows.start[i, 0], rows.start[i, 1]
        for ball in range(n):
            blank_row(state[ball])
            state[ball, X], state[ball, Y], state[ball, ON] = places[ball, 0], places[ball, 1], 1.0
        strike_into(state[0], rows.direction[i], rows.stroke[i])
        if short:
            _approach(state[0], p, balls, tape, i, out)
            continue
        code, n_ev, n_pc = play_until(state, p, tape, NOTHING, 0)
        out.code[i] = code
        _tell(places, p, tape, n_ev, n_pc, i, out)
        for ball in range(n):
            if state[ball, ON] != 0.0:
                out.rests[i, ball, 0], out.rests[i, ball, 1] = state[ball, X], state[ball, Y]


def play_now(rows: Strokes, p: Floats, balls: Floats) -> Outcomes:
    """What comes of a few strokes on one table (`Table.params`), to the end, here and now."""
    out = blank(len(rows.direction), len(balls))
    play_rows(rows, p[None], balls, 0, len(rows.direction), WHOLE, out)
    return out


def play_steps(
    rows: Strokes, tables: Floats, balls: Floats, short: bool = WHOLE, threads: int = 1, chunk: int = CHUNK
) -> Steps[Outcomes]:
    """What comes of every stroke, in steps of a chunk for each thread."""
    n = len(rows.direction)
    out = blank(n, len(balls))
    tables = tables.copy()
    tables.flags.writeable = False  # as a table's own numbers are: the same kernels serve both
    parts = _chunks(n, chunk)
    if threads == 1 or n <= chunk:  # no thread is started for what one does
        for first, last in parts:
            play_rows(rows, tables, balls, first, last, short, out)
            yield
        return out
    with ThreadPoolExecutor(threads) as pool:
        while jobs := [
            pool.submit(play_rows, rows, tables, balls, first, last, short, out)
            for first, last in (part for _, part in zip(range(threads), parts, strict=False))
        ]:
            for job in jobs:
                job.result()
            yield
    return out


def play_batch(rows: Strokes, tables: Floats, balls: Floats, short: bool = WHOLE, threads: int = 1) -> Outcomes:
    """All of them one after the other."""
    return finish(play_steps(rows, tables, balls, short, threads))


def _chunks(n: int, size: int) -> Iterator[tuple[int, int]]:
    return ((first, min(first + size, n)) for first in range(0, n, size))
