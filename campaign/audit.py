"""What the engine wrote about a shot, audited: does energy rise, do balls overlap or leave the bed. SI."""

import math
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fandle.core.layout.model import Layout
from fandle.core.physics import moving, rack
from fandle.core.physics.cloth import ROLLING, SLIDING, SUNK
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.slots import DECAY
from fandle.core.physics.state import EV_BALL, EV_POCKET, EVENT, PIECE
from fandle.core.physics.strike import strike_by
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import mouths
from fandle.core.table.standards import standard_table

Array = NDArray[np.float64]
POOL = standard_table("pool-9ft")


@dataclass(frozen=True)
class Raw:
    """What the kernel wrote. places: where the balls lay; state: the balls at the end."""

    code: int
    events: Array
    pieces: Array
    state: Array
    places: Array


def raw(places: Array, start: tuple[float, ...], table: Table = POOL) -> Raw:
    """Play balls at `places` (m), the first of them set going with (vx, vy, wx, wy, wz)."""
    state = np.zeros((len(places), moving.BALL_WIDTH))
    state[:, :2], state[:, moving.ON], state[0, 2:7] = places, 1.0, start
    tape = blank_tape(rack.MOST_EVENTS, rack.MOST_PIECES)
    code, n_ev, n_pc = rack.play_all(state, table.params(), *tape)
    return Raw(code, tape.events[:n_ev].copy(), tape.pieces[:n_pc].copy(), state, np.array(places))


def struck(stroke: Stroke, direction: float) -> tuple[float, ...]:
    """The cue ball's motion just after the stroke."""
    return strike_by(direction, stroke.array())


def at_end(pieces: Array, decay_w: float) -> tuple[Array, Array]:
    """Speeds (n, 2) and w (n, 3) at the end of each stretch, by the closed forms."""
    t, a = pieces[:, 1:2], pieces[:, 6:8]
    v = pieces[:, 4:6] + a * t
    w = pieces[:, 11:14].copy()
    sliding = pieces[:, PIECE.kind] == SLIDING
    w[:, 0] = np.where(sliding, w[:, 0] + 2.5 * a[:, 1] * t[:, 0], -v[:, 1])
    w[:, 1] = np.where(sliding, w[:, 1] - 2.5 * a[:, 0] * t[:, 0], v[:, 0])
    w[:, 2] = np.sign(w[:, 2]) * np.maximum(np.abs(w[:, 2]) - decay_w * t[:, 0], 0.0)
    assert np.all((pieces[:, PIECE.kind] == SLIDING) | (pieces[:, PIECE.kind] == ROLLING))
    return v, w


def energy(v: Array, w: Array) -> Array:
    """½v² + ⅕w² per unit mass."""
    total: Array = 0.5 * (v**2).sum(axis=1) + 0.2 * (w**2).sum(axis=1)
    return total


def rises(played: Raw, table: Table = POOL) -> float:
    """Largest rise of energy at any event, as a share of the stroke's.

    Of a ball that spins on the spot only the spin with which it came to rest is known, less
    what it has lost since; one set spinning without moving counts as still (that is < 1e-8).
    Inside rubber that gives a ball's energy is not its own: it counts as rebounding at once. Shots in
    which a ball is met while it is in there are left out.
    """
    inside = played.pieces[:, PIECE.kind] == SUNK
    pieces, sunk = played.pieces[~inside], played.pieces[inside]
    if not len(pieces):
        return 0.0
    begins = pieces[:, PIECE.t].copy()
    blows = played.events[played.events[:, EVENT.kind] == EV_BALL, 1]
    for q in sunk:
        if len(blows) and np.abs(blows - q[0] - q[1]).min() < 1e-9:
            return 0.0
        after = np.flatnonzero((pieces[:, PIECE.ball] == q[10]) & (pieces[:, PIECE.t] >= q[0] + q[1] - 1e-12))
        if len(after):
            begins[after[0]] = q[0]
    decay_w = table.params()[DECAY]
    started = energy(pieces[:, 4:6], pieces[:, 11:14])
    v, w = at_end(pieces, decay_w)
    until = pieces[:, PIECE.t] + pieces[:, PIECE.lasts]
    last = np.full(len(played.places), -1)
    worst = 0.0
    for t in np.unique(begins):
        rows = np.flatnonzero(begins == t)
        change = started[rows].sum()
        for ball in pieces[rows, PIECE.ball].astype(int):
            k = last[ball]
            if k >= 0:
                spin = max(abs(w[k, 2]) - decay_w * (t - until[k]), 0.0)
                change -= float(energy(v[k : k + 1], np.array([[w[k, 0], w[k, 1], spin]]))[0])
        if t > 0.0:
            worst = max(worst, float(change))
        last[pieces[rows, PIECE.ball].astype(int)] = rows
    return worst / float(started.max())


def gaps(played: Raw, table: Table = POOL) -> tuple[float, float]:
    """(least gap between two balls, least gap to a nose line beside it), over all events, metres."""
    times = np.unique([0.0, *played.events[:, EVENT.t]])
    where = np.tile(played.places, (len(times), 1, 1))
    on = np.ones(where.shape[:2], dtype=bool)
    for q in played.pieces:
        later, ball = times >= q[0], int(q[10])
        t = np.minimum(times[later] - q[0], q[1])[:, None]
        where[later, ball] = q[2:4] + t * (q[4:6] + 0.5 * t * q[6:8])
    for row in played.events[played.events[:, EVENT.kind] == EV_POCKET]:
        on[times >= row[1], int(row[9])] = False
    apart = where[:, :, None] - where[:, None]
    r, length, width = table.ball_radius, table.length, table.width
    gap = np.hypot(apart[..., 0], apart[..., 1]) - 2 * r
    gap[~(on[:, :, None] & on[:, None])] = 1.0
    gap[:, range(len(played.places)), range(len(played.places))] = 1.0
    pockets = table.pockets
    corner, side = (pockets.corner_straight, pockets.side_straight) if pockets else (-1.0, -1.0)
    x, y = where[..., 0], where[..., 1]
    beside_long = (x > corner) & (x < length - corner) & (np.abs(x - length / 2) > side)
    beside_short = (y > corner) & (y < width - corner)
    off_long = np.where(on & beside_long, np.minimum(y, width - y) - r, 1.0)
    off_short = np.where(on & beside_short, np.minimum(x, length - x) - r, 1.0)
    return float(gap.min()), float(min(off_long.min(), off_short.min()))


def metres(layout: Layout) -> Array:
    """Centres in the layout's order."""
    return np.array([layout.metres(ball) for ball in layout.balls])


HAIR_M = 1e-6  # what rounding may do


def lies_on_bed(table: Table, x: float, y: float) -> bool:
    """Can a ball's centre rest here (m)? On the bed, or in a mouth, short of the fall line."""
    r = table.ball_radius - HAIR_M
    if r <= x <= table.length - r and r <= y <= table.width - r:
        return True
    for mouth in mouths(table):
        (mx, my), (ax, ay) = mouth.middle, mouth.axis
        deep, aside = (x - mx) * ax + (y - my) * ay, abs((x - mx) * ay - (y - my) * ax)
        reach = mouth.point_radius + table.ball_radius + math.dist(mouth.first, mouth.second) / 2 + mouth.shelf
        if -2 * reach < deep <= mouth.shelf + HAIR_M and aside < reach:
            return True
    return False


def finite(data: Any, path: str = "answer") -> None:
    """Raise AssertionError naming the place where a number of an answer is not one."""
    if isinstance(data, float):
        assert math.isfinite(data), f"{path} is {data}"
    elif isinstance(data, dict):
        for name, value in data.items():
            finite(value, f"{path}.{name}")
    elif isinstance(data, (list, tuple)):
        for index, value in enumerate(data):
            finite(value, f"{path}[{index}]")
