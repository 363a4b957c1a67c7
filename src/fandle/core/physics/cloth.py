"""Ball on cloth: sliding parabola, rolling line, spin about the vertical. Closed form.

Coulomb sliding and rolling resistance: Coriolis 1835; Marlow 1995. With u the
velocity of the point touching the cloth, sliding decelerates the ball by μs·g along û, û stays
fixed, and |u| falls by 7/2·μs·g per second; then the ball rolls, losing μr·g per second.
"""

import math

from fandle.core.constants import GRAVITY
from fandle.core.physics.jit import kernel
from fandle.core.physics.state import Motion, Phase

RESTING = 0
SLIDING = 1
ROLLING = 2
SUNK = 3  # in the rubber of a cushion that gives, see `give`
SLIP_LIMIT = 1e-9  # m/s: below this the ball counts as rolling
REST_LIMIT = 1e-9  # m/s: below this it counts as at rest


@kernel
def phase(vx: float, vy: float, wx: float, wy: float, mu_s: float, mu_r: float) -> Phase:
    """Phase of motion now, and how long it lasts undisturbed.

    w = R·ω in m/s; accelerations in m/s².
    """
    ux = vx - wy
    uy = vy + wx
    slip = math.sqrt(ux * ux + uy * uy)
    if slip > SLIP_LIMIT:
        a = mu_s * GRAVITY
        return Phase(SLIDING, slip / (3.5 * a), -a * ux / slip, -a * uy / slip)
    speed = math.sqrt(vx * vx + vy * vy)
    if speed > REST_LIMIT:
        a = mu_r * GRAVITY
        return Phase(ROLLING, speed / a, -a * vx / speed, -a * vy / speed)
    return Phase(RESTING, math.inf, 0.0, 0.0)


@kernel
def advance(ball: Motion, now: Phase, whole: bool, spin_decay_w: float) -> Motion:
    """Motion after `now.lasts` seconds in one phase; `whole` says that is the phase's full length.

    spin_decay_w = R·spin_decay in m/s²: the vertical spin's own steady decay.
    """
    t = now.lasts
    x = ball.x + t * (ball.vx + 0.5 * now.ax * t)
    y = ball.y + t * (ball.vy + 0.5 * now.ay * t)
    vx = ball.vx + now.ax * t
    vy = ball.vy + now.ay * t
    wx, wy = ball.wx, ball.wy
    if now.kind == SLIDING:
        wy -= 2.5 * now.ax * t
        wx += 2.5 * now.ay * t
        if whole:  # land on rolling exactly, not within rounding of it
            wx, wy = -vy, vx
    elif whole:
        vx, vy, wx, wy = 0.0, 0.0, 0.0, 0.0
    else:
        wx, wy = -vy, vx
    fall = spin_decay_w * t
    wz = math.copysign(max(abs(ball.wz) - fall, 0.0), ball.wz)
    return Motion(x, y, vx, vy, wx, wy, wz)


@kernel
def reach_line(gap: float, v: float, a: float, longest: float) -> float:
    """First time in [0, longest] at which a ball crosses a line `gap` metres ahead, outward.

    v, a: speed and acceleration towards the line. Returns inf if it does not get there.
    """
    gap = max(gap, 0.0)
    if gap == 0.0:
        if v > 0.0 or (v == 0.0 and a > 0.0):
            return 0.0
        if a > 0.0:
            t = -2.0 * v / a
            return t if t <= longest else math.inf
        return math.inf
    if a == 0.0:
        t = gap / v if v > 0.0 else math.inf
        return t if t <= longest else math.inf
    disc = v * v + 2.0 * a * gap
    if disc < 0.0:
        return math.inf
    root = math.sqrt(disc)
    t = math.inf
    if v > 0.0:
        t = 2.0 * gap / (v + root)
    elif a > 0.0:
        t = (root - v) / a
    return t if t <= longest else math.inf
