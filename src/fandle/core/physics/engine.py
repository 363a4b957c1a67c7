"""One moving ball among resting ones: event by event, exact times, no fixed step.

The search for an aim plays thousands of these; `rack` plays all balls with the same parts.
Events and path pieces are written into arrays of the caller's. Kernels never raise: the code
they return says how it ended.
"""

import math

from fandle.core.physics.bed import ENTERS, FIRST_FALL, FIRST_JAW, NOTHING, first_fixed, into, placed, press, rebound
from fandle.core.physics.cloth import RESTING, SUNK, advance, phase
from fandle.core.physics.give import dwell, glide
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.slots import DECAY, GIVE, MU_R, MU_S, RADIUS
from fandle.core.physics.touch import first_touch

# how a run ended
STOPPED, HIT_BALL, HIT_JAW, LAST_RAIL, TOO_MANY, BROKEN, POTTED = range(7)
# kinds of event
EV_RAIL, EV_BALL, EV_JAW, EV_STOP, EV_POCKET = range(5)
# columns of an event: kind, time, index, x, y, speed, speed after, angle in, angle out, ball
EVENT_WIDTH = 10
# columns of a path piece: start, duration, x, y, vx, vy, ax, ay, phase, leg, ball, wx, wy, wz
PIECE_WIDTH = 14
MOST_EVENTS = 300
MOST_PIECES = 1000
PRESSED = 2e-3  # m/s: a bounce slower than this, driven back into what it left, stays on it


@kernel
def write_event(
    events: Floats,
    n: int,
    kind: int,
    t: float,
    index: int,
    x: float,
    y: float,
    before: float,
    after: float,
    angle_in: float,
    angle_out: float,
    ball: int,
) -> None:
    """Fill row n of `events`."""
    row = events[n]
    row[0], row[1], row[2] = kind, t, index
    row[3], row[4] = x, y
    row[5], row[6] = before, after
    row[7], row[8] = angle_in, angle_out
    row[9] = ball


@kernel
def write_piece(
    pieces: Floats,
    n: int,
    t: float,
    lasts: float,
    x: float,
    y: float,
    vx: float,
    vy: float,
    wx: float,
    wy: float,
    wz: float,
    ax: float,
    ay: float,
    kind: int,
    leg: float,
    ball: int,
) -> None:
    """Fill row n of `pieces`."""
    row = pieces[n]
    row[0], row[1], row[2], row[3] = t, lasts, x, y
    row[4], row[5], row[6], row[7] = vx, vy, ax, ay
    row[8], row[9], row[10] = kind, leg, ball
    row[11], row[12], row[13] = wx, wy, wz


@kernel
def leaves(nx: float, ny: float, vx: float, vy: float, wx: float, wy: float, p: Floats) -> bool:
    """Does a ball that has just met (nx, ny) come away from it, or is it driven back at once?"""
    if -(vx * nx + vy * ny) >= PRESSED:
        return True
    _, _, ax, ay = phase(vx, vy, wx, wy, p[MU_S], p[MU_R])
    return ax * nx + ay * ny <= 0.0


@kernel
def _first_ball(
    balls: Floats, x: float, y: float, vx: float, vy: float, ax: float, ay: float, first: float, p: Floats
) -> tuple[float, int]:
    """The first resting ball met before `first` seconds: (when, which), −1 for none."""
    ball = -1
    for j in range(balls.shape[0]):
        hit = first_touch(x - balls[j, 0], y - balls[j, 1], vx, vy, ax, ay, 2.0 * p[RADIUS], first)
        if hit < first:
            first, ball = hit, j
    return first, ball


@kernel
def run(
    x: float,
    y: float,
    vx: float,
    vy: float,
    wx: float,
    wy: float,
    wz: float,
    p: Floats,
    balls: Floats,
    solid_leg: int,
    jaws: bool,
    most_rails: int,
    events: Floats,
    pieces: Floats,
) -> tuple[int, int, int]:
    """Play one ball until it rests, meets a ball, a jaw or a pocket, or comes to rail `most_rails`.

    balls: (n, 2) centres of the resting balls, solid from leg `solid_leg` on (leg 0 = before
    the first rail). jaws: are there pockets? At the last rail the ball is left as it arrives.
    Returns (code, events, pieces): how it ended and how many rows of each were written.
    """
    t = 0.0
    leg = 0
    n_ev = 0
    n_pc = 0
    held = NOTHING
    while True:
        kind, lasts, ax, ay = phase(vx, vy, wx, wy, p[MU_S], p[MU_R])
        if kind == RESTING:
            write_event(events, n_ev, EV_STOP, t, -1, x, y, 0.0, 0.0, 0.0, 0.0, 0)
            return STOPPED, n_ev + 1, n_pc
        if n_ev >= events.shape[0] - 2 or n_pc >= pieces.shape[0] - 3:
            return TOO_MANY, n_ev, n_pc
        first, what = first_fixed(x, y, vx, vy, ax, ay, lasts, held, jaws, p)
        ball = -1
        if leg >= solid_leg:
            first, ball = _first_ball(balls, x, y, vx, vy, ax, ay, first, p)
        write_piece(pieces, n_pc, t, first, x, y, vx, vy, wx, wy, wz, ax, ay, kind, leg, 0)
        n_pc += 1
        whole = what == NOTHING and ball < 0
        x, y, vx, vy, wx, wy, wz = advance(kind, first, whole, x, y, vx, vy, wx, wy, wz, ax, ay, p[DECAY])
        t += first
        if whole:
            continue
        speed = math.sqrt(vx * vx + vy * vy)
        if ball >= 0:
            write_event(events, n_ev, EV_BALL, t, ball, x, y, speed, math.nan, 0.0, 0.0, 0)
            return HIT_BALL, n_ev + 1, n_pc
        x, y = placed(what, x, y, p)
        if what >= ENTERS:
            continue
        if what >= FIRST_FALL:
            write_event(events, n_ev, EV_POCKET, t, what - FIRST_FALL, x, y, speed, math.nan, 0.0, 0.0, 0)
            return POTTED, n_ev + 1, n_pc
        if what >= FIRST_JAW:
            write_event(events, n_ev, EV_JAW, t, (what - FIRST_JAW) // 4, x, y, speed, math.nan, 0.0, 0.0, 0)
            return HIT_JAW, n_ev + 1, n_pc
        if leg + 1 >= most_rails:
            write_event(events, n_ev, EV_RAIL, t, what, x, y, speed, math.nan, 0.0, 0.0, 0)
            return LAST_RAIL, n_ev + 1, n_pc
        nx, ny = into(what, x, y, p)
        ux, uy = vx, vy
        vx, vy, wx, wy, wz, angle_in, angle_out = rebound(nx, ny, vx, vy, wx, wy, wz, p)
        if math.isnan(vx):
            return BROKEN, n_ev, n_pc
        leg += 1
        after = math.sqrt(vx * vx + vy * vy)
        write_event(events, n_ev, EV_RAIL, t, what, x, y, speed, after, angle_in, angle_out, 0)
        n_ev += 1
        if p[GIVE] > 0.0:  # along the rail while it is in the rubber, unless it meets something there
            ux, uy = glide(nx, ny, ux, uy, vx, vy)
            first, _ = first_fixed(x, y, ux, uy, 0.0, 0.0, dwell(p[GIVE]), what, jaws, p)
            if leg >= solid_leg:
                first, _ = _first_ball(balls, x, y, ux, uy, 0.0, 0.0, first, p)
            write_piece(pieces, n_pc, t, first, x, y, ux, uy, wx, wy, wz, 0.0, 0.0, SUNK, leg, 0)
            n_pc += 1
            x, y, t = x + first * ux, y + first * uy, t + first
        held = NOTHING
        if not leaves(nx, ny, vx, vy, wx, wy, p):
            vx, vy, wx, wy = press(nx, ny, vx, vy, wx, wy)
            held = what
