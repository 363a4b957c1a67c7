"""What the kernels pass on: a ball's motion, a stretch of its path, what happened. SI, R·ω in m/s.

An `Event` and a `Piece` are written as rows of arrays; EVENT and PIECE name the columns.
"""

from typing import Any, NamedTuple

from fandle.core.physics.jit import Floats, kernel


class Motion(NamedTuple):
    """Where a ball's centre is and how it moves: m, m/s, and R·ω in m/s."""

    x: float
    y: float
    vx: float
    vy: float
    wx: float
    wy: float
    wz: float


class Arc(NamedTuple):
    """A parabola from now on: place, velocity, acceleration (m, m/s, m/s²), of a ball or from one to another."""

    x: float
    y: float
    vx: float
    vy: float
    ax: float
    ay: float


class Phase(NamedTuple):
    """Sliding, rolling or resting: for how long (s) undisturbed, with which acceleration (m/s²)."""

    kind: int
    lasts: float
    ax: float
    ay: float


class Event(NamedTuple):
    """One contact or the end: when, which rail, ball or pocket, where, speeds before and after, angles (rad)."""

    kind: int
    t: float
    which: int
    x: float
    y: float
    before: float
    after: float
    angle_in: float
    angle_out: float
    ball: int


class Piece(NamedTuple):
    """A stretch of path: since when, for how long, from where and how; after how many rails; whose."""

    t: float
    lasts: float
    x: float
    y: float
    vx: float
    vy: float
    ax: float
    ay: float
    kind: int
    leg: int
    ball: int
    wx: float
    wy: float
    wz: float


class Tape(NamedTuple):
    """Room for what is written of a shot: (n, EVENT_WIDTH) events, (n, PIECE_WIDTH) pieces."""

    events: Floats
    pieces: Floats


EVENT: Any = Event(*range(10))  # columns; whole numbers, whatever the fields hold
PIECE: Any = Piece(*range(14))
EVENT_WIDTH, PIECE_WIDTH = len(EVENT), len(PIECE)
# kinds of event
EV_RAIL, EV_BALL, EV_JAW, EV_STOP, EV_POCKET = range(5)


@kernel
def write_event(events: Floats, n: int, event: Event) -> None:
    """Fill row n of `events`."""
    row = events[n]
    row[EVENT.kind], row[EVENT.t], row[EVENT.which] = event.kind, event.t, event.which
    row[EVENT.x], row[EVENT.y] = event.x, event.y
    row[EVENT.before], row[EVENT.after] = event.before, event.after
    row[EVENT.angle_in], row[EVENT.angle_out] = event.angle_in, event.angle_out
    row[EVENT.ball] = event.ball


@kernel
def write_piece(pieces: Floats, n: int, t: float, now: Motion, phase: Phase, leg: int, ball: int) -> None:
    """Fill row n of `pieces`: `phase.lasts` seconds from `now` on."""
    row = pieces[n]
    row[PIECE.t], row[PIECE.lasts] = t, phase.lasts
    row[PIECE.x], row[PIECE.y], row[PIECE.vx], row[PIECE.vy] = now.x, now.y, now.vx, now.vy
    row[PIECE.ax], row[PIECE.ay], row[PIECE.kind] = phase.ax, phase.ay, phase.kind
    row[PIECE.leg], row[PIECE.ball] = leg, ball
    row[PIECE.wx], row[PIECE.wy], row[PIECE.wz] = now.wx, now.wy, now.wz


@kernel
def arc_of(piece: Floats) -> Arc:
    """The parabola of a written stretch."""
    return Arc(piece[PIECE.x], piece[PIECE.y], piece[PIECE.vx], piece[PIECE.vy], piece[PIECE.ax], piece[PIECE.ay])


@kernel
def place_on(arc: Arc, t: float) -> tuple[float, float]:
    """Where an arc is after t seconds."""
    return arc.x + t * (arc.vx + 0.5 * arc.ax * t), arc.y + t * (arc.vy + 0.5 * arc.ay * t)
