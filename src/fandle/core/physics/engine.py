"""One moving ball among resting ones: event by event, exact times, no fixed step.

Parameters travel as one float array (`PARAMS` names its places); events and path pieces are
written into arrays of the caller's. Kernels never raise: the code they return says how it ended.
"""

import math

from fandle.core.physics.cloth import RESTING, advance, phase, reach_line
from fandle.core.physics.cushion import bounce
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.touch import first_touch

PARAMS = (
    "length", "width", "radius", "cloth_sliding", "cloth_rolling", "spin_decay_w",
    "cushion_restitution", "cushion_friction", "sin_theta", "corner_gap", "side_gap", "impulse_steps",
)  # fmt: skip
LENGTH, WIDTH, RADIUS, MU_S, MU_R, DECAY, REST, MU_W, SIN_T, CORNER, SIDE, STEPS = range(12)

NEAR, FAR, HEAD, FOOT = range(4)

# how a run ended
STOPPED, HIT_BALL, HIT_JAW, LAST_RAIL, TOO_MANY, BROKEN = range(6)
# kinds of event
EV_RAIL, EV_BALL, EV_JAW, EV_STOP = range(4)
# columns of an event: kind, time, index, x, y, speed, speed after, angle in, angle out
EVENT_WIDTH = 9
# columns of a path piece: start, duration, x, y, vx, vy, ax, ay, phase, leg
PIECE_WIDTH = 10
MOST_EVENTS = 300
MOST_PIECES = 1000
PRESSED = 2e-3  # m/s: a bounce slower than this, driven back into the rail, stays on it


@kernel
def _outward(rail: int) -> tuple[float, float]:
    if rail == NEAR:
        return 0.0, -1.0
    if rail == FAR:
        return 0.0, 1.0
    if rail == HEAD:
        return -1.0, 0.0
    return 1.0, 0.0


@kernel
def _gap(rail: int, x: float, y: float, p: Floats) -> float:
    r = p[RADIUS]
    if rail == NEAR:
        return y - r
    if rail == FAR:
        return p[WIDTH] - r - y
    if rail == HEAD:
        return x - r
    return p[LENGTH] - r - x


@kernel
def in_mouth(rail: int, x: float, y: float, p: Floats) -> bool:
    """Is there no nose beside this point of the rail, but the mouth of a pocket?"""
    if rail in (NEAR, FAR):
        along, whole = x, p[LENGTH]
        if abs(along - 0.5 * whole) < p[SIDE]:
            return True
    else:
        along, whole = y, p[WIDTH]
    return along < p[CORNER] or whole - along < p[CORNER]


@kernel
def rebound(
    rail: int, vx: float, vy: float, wx: float, wy: float, wz: float, p: Floats
) -> tuple[float, float, float, float, float, float, float]:
    """State after the cushion, and the angles in and out, measured from the rail (rad)."""
    nx, ny = _outward(rail)
    tx, ty = ny, -nx
    vt, vn = vx * tx + vy * ty, vx * nx + vy * ny
    wt, wn = wx * tx + wy * ty, wx * nx + wy * ny
    vt2, vn2, wt2, wn2, wz2 = bounce(vt, vn, wt, wn, wz, p[SIN_T], p[REST], p[MU_W], p[MU_S], p[STEPS])
    return (
        vt2 * tx + vn2 * nx,
        vt2 * ty + vn2 * ny,
        wt2 * tx + wn2 * nx,
        wt2 * ty + wn2 * ny,
        wz2,
        math.atan2(vn, abs(vt)),
        math.atan2(-vn2, abs(vt2)),
    )


@kernel
def _press(rail: int, vx: float, vy: float, wx: float, wy: float) -> tuple[float, float, float, float]:
    """Hold a ball on a rail it no longer leaves: no speed and no slip across it."""
    if rail in (NEAR, FAR):
        return vx, 0.0, 0.0, wy
    return 0.0, vy, wx, 0.0


@kernel
def _event(
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
) -> None:
    row = events[n]
    row[0], row[1], row[2] = kind, t, index
    row[3], row[4] = x, y
    row[5], row[6] = before, after
    row[7], row[8] = angle_in, angle_out


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
    """Play one ball until it rests, meets a ball or a jaw, or comes to its rail number `most_rails`.

    balls: (n, 2) centres of the resting balls, solid from leg `solid_leg` on (leg 0 = before
    the first rail). jaws: stop where there is no nose. At the last rail the ball is left as it
    arrives. Returns (code, events, pieces): how it
    ended and how many rows of `events` and `pieces` were written.
    """
    t = 0.0
    leg = 0
    n_ev = 0
    n_pc = 0
    held = -1  # rail the ball is pressed on
    while True:
        kind, lasts, ax, ay = phase(vx, vy, wx, wy, p[MU_S], p[MU_R])
        if kind == RESTING:
            _event(events, n_ev, EV_STOP, t, -1, x, y, 0.0, 0.0, 0.0, 0.0)
            return STOPPED, n_ev + 1, n_pc
        if n_ev >= events.shape[0] - 2 or n_pc >= pieces.shape[0] - 2:
            return TOO_MANY, n_ev, n_pc
        first = lasts
        rail = -1
        for k in range(4):
            if k == held:
                continue
            nx, ny = _outward(k)
            hit = reach_line(_gap(k, x, y, p), vx * nx + vy * ny, ax * nx + ay * ny, first)
            if hit < first:
                first, rail = hit, k
        ball = -1
        if leg >= solid_leg:
            for j in range(balls.shape[0]):
                hit = first_touch(x - balls[j, 0], y - balls[j, 1], vx, vy, ax, ay, 2.0 * p[RADIUS], first)
                if hit < first:
                    first, ball = hit, j
        piece = pieces[n_pc]
        piece[0], piece[1], piece[2], piece[3] = t, first, x, y
        piece[4], piece[5], piece[6], piece[7] = vx, vy, ax, ay
        piece[8], piece[9] = kind, leg
        n_pc += 1
        whole = rail < 0 and ball < 0
        x, y, vx, vy, wx, wy, wz = advance(kind, first, whole, x, y, vx, vy, wx, wy, wz, ax, ay, p[DECAY])
        t += first
        if whole:
            continue
        speed = math.sqrt(vx * vx + vy * vy)
        if ball >= 0:
            _event(events, n_ev, EV_BALL, t, ball, x, y, speed, math.nan, 0.0, 0.0)
            return HIT_BALL, n_ev + 1, n_pc
        if rail == NEAR:
            y = p[RADIUS]
        elif rail == FAR:
            y = p[WIDTH] - p[RADIUS]
        elif rail == HEAD:
            x = p[RADIUS]
        else:
            x = p[LENGTH] - p[RADIUS]
        if jaws and in_mouth(rail, x, y, p):
            _event(events, n_ev, EV_JAW, t, rail, x, y, speed, math.nan, 0.0, 0.0)
            return HIT_JAW, n_ev + 1, n_pc
        if leg + 1 >= most_rails:
            _event(events, n_ev, EV_RAIL, t, rail, x, y, speed, math.nan, 0.0, 0.0)
            return LAST_RAIL, n_ev + 1, n_pc
        vx, vy, wx, wy, wz, angle_in, angle_out = rebound(rail, vx, vy, wx, wy, wz, p)
        if math.isnan(vx):
            return BROKEN, n_ev, n_pc
        leg += 1
        after = math.sqrt(vx * vx + vy * vy)
        _event(events, n_ev, EV_RAIL, t, rail, x, y, speed, after, angle_in, angle_out)
        n_ev += 1
        held = -1
        nx, ny = _outward(rail)
        if -(vx * nx + vy * ny) < PRESSED:
            _, _, ax, ay = phase(vx, vy, wx, wy, p[MU_S], p[MU_R])
            if ax * nx + ay * ny > 0.0:
                vx, vy, wx, wy = _press(rail, vx, vy, wx, wy)
                held = rail
