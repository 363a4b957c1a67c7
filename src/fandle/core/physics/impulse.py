"""Ball at the nose of a cushion: frictions, rates and steps in impulse, of which `cushion` makes an impact.

Frame: t along the cushion, n into it, z up, right-handed. Velocities per unit mass: `w = R·ω`, so the
ball's radius and mass drop out (solid sphere, I = 2/5 m R²).
"""

import math
from typing import NamedTuple

from fandle.core.physics.jit import kernel, kernel_by_constant


class Impact(NamedTuple):
    """Velocities of a ball at the nose, m/s: vt, vn along and into the cushion; w = R·ω. Also rates of them."""

    vt: float
    vn: float
    wt: float
    wn: float
    wz: float


class Nose(NamedTuple):
    """Where the nose meets the ball, θ above its centre (s = sin θ, c = cos θ), and the frictions at nose and cloth."""

    s: float
    c: float
    mu_w: float
    mu_s: float


class Hold(NamedTuple):
    """Is the slip at the nose taken to keep its direction (h1, h2)?"""

    held: bool
    h1: float
    h2: float


class Friction(NamedTuple):
    """Per unit of normal impulse: at the nose (along t, up its face), at the cloth (along t, along n)."""

    ft: float
    fz: float
    gt: float
    gn: float


IMPULSE, SPEED, WORK = range(3)  # what a step is long in


@kernel
def _friction(
    s1: float, s2: float, b1: float, b2: float, a1: float, a2: float, limit: float, tiny: float
) -> tuple[float, float]:
    """Friction on the ball for slip (s1, s2): sliding, sticking, or setting off.

    b: rate of slip without this friction; a: rate of slip per unit of it.
    """
    size = math.sqrt(s1 * s1 + s2 * s2)
    if size > tiny:
        return -limit * s1 / size, -limit * s2 / size
    f1, f2 = -b1 / a1, -b2 / a2
    if f1 * f1 + f2 * f2 <= limit * limit:
        return f1, f2
    d1, d2 = b1, b2
    for _ in range(12):  # onset: the direction d with d ∥ b − limit·A·d
        size = math.sqrt(d1 * d1 + d2 * d2)
        d1, d2 = b1 - limit * a1 * d1 / size, b2 - limit * a2 * d2 / size
    size = math.sqrt(d1 * d1 + d2 * d2)
    return -limit * d1 / size, -limit * d2 / size


@kernel
def slip_at_nose(ball: Impact, nose: Nose) -> tuple[float, float]:
    """Velocity of the ball's surface over the nose: along t, up its face."""
    return ball.vt + ball.wn * nose.s - ball.wz * nose.c, ball.wt - nose.s * ball.vn


@kernel
def slip_at_cloth(ball: Impact) -> tuple[float, float]:
    """The same over the cloth: along t, along n."""
    return ball.vt - ball.wn, ball.vn + ball.wt


@kernel
def _held_forces(ball: Impact, nose: Nose, tiny_nose: float, tiny: float) -> Friction:
    """Friction where a slip is nought: nose and cloth depend on each other, so iterate.

    The coupling is weak (a pass shrinks the error at least by 0.6): 60 passes are plenty.
    """
    s, c = nose.s, nose.c
    st, sz = slip_at_nose(ball, nose)
    ut, un = slip_at_cloth(ball)
    ft, fz, gt, gn = 0.0, 0.0, 0.0, 0.0
    for _ in range(60):
        ft_old, fz_old = ft, fz
        ft, fz = _friction(st, sz, (1 - 2.5 * s) * gt, s * c + (2.5 - s) * gn, 3.5, 2.5 + s * s, nose.mu_w, tiny_nose)
        press = max(s - c * fz, 0.0)
        gt, gn = _friction(ut, un, (1 - 2.5 * s) * ft, -c + (2.5 - s) * fz, 3.5, 3.5, nose.mu_s * press, tiny)
        if abs(ft - ft_old) + abs(fz - fz_old) < 1e-15:
            break
    return Friction(ft, fz, gt, gn)


@kernel
def forces(ball: Impact, nose: Nose, tiny_nose: float, tiny: float, hold: Hold) -> Friction:
    """Friction on the ball as it slips now."""
    s, c = nose.s, nose.c
    st, sz = slip_at_nose(ball, nose)
    ut, un = slip_at_cloth(ball)
    at_nose = st * st + sz * sz
    at_cloth = ut * ut + un * un
    if at_nose > tiny_nose * tiny_nose and at_cloth > tiny * tiny:
        q = -nose.mu_w / math.sqrt(at_nose)
        ft, fz = q * st, q * sz
        if hold.held:
            ft, fz = -nose.mu_w * hold.h1, -nose.mu_w * hold.h2
        q = -nose.mu_s * max(s - c * fz, 0.0) / math.sqrt(at_cloth)  # the cloth can push, not pull
        return Friction(ft, fz, q * ut, q * un)
    if at_cloth > tiny * tiny:  # the nose holds the ball: the balance is linear
        share = nose.mu_s / math.sqrt(at_cloth)
        fz = (-s * c + (2.5 - s) * share * un * s) / (2.5 + s * s + (2.5 - s) * share * un * c)
        press = s - c * fz
        gt, gn = -share * press * ut, -share * press * un
        ft = -(1 - 2.5 * s) * gt / 3.5
        if press >= 0.0 and ft * ft + fz * fz <= nose.mu_w * nose.mu_w:
            return Friction(ft, fz, gt, gn)
    return _held_forces(ball, nose, tiny_nose, tiny)


@kernel
def rates(f: Friction, s: float, c: float) -> Impact:
    """Rates of the ball's velocities per unit of normal impulse under the frictions f."""
    return Impact(f.ft + f.gt, -c - s * f.fz + f.gn, 2.5 * (f.fz + f.gn), 2.5 * (s * f.ft - f.gt), -2.5 * c * f.ft)


@kernel_by_constant
def _scale(mode: int, dvn: float, vn: float, c: float) -> float:
    """Turn rates per impulse into rates per impulse, per n-velocity or per work done."""
    if mode == SPEED:
        return 1.0 / dvn
    if mode == WORK:
        return 1.0 / (-c * vn)
    return 1.0


@kernel_by_constant
def step_by(
    ball: Impact, work: float, rate: Impact, step: float, mode: int, nose: Nose, tiny: float, hold: Hold
) -> tuple[Impact, float]:
    """One classical Runge-Kutta step in impulse, n-velocity or work: the ball and the work done, after it.

    rate: at the start, as `rates` gives it.
    """
    c = nose.c
    q = _scale(mode, rate.vn, ball.vn, c)
    k0, k1, k2, k3, k4 = q * rate.vt, q * rate.vn, q * rate.wt, q * rate.wn, q * rate.wz
    k5 = q * c * ball.vn
    a0, a1, a2, a3, a4, a5 = k0, k1, k2, k3, k4, k5
    for stage in range(3):
        reach = step if stage == 2 else 0.5 * step
        weight = 1.0 if stage == 2 else 2.0
        there = Impact(
            ball.vt + reach * k0, ball.vn + reach * k1, ball.wt + reach * k2, ball.wn + reach * k3, ball.wz + reach * k4
        )
        d = rates(forces(there, nose, tiny, tiny, hold), nose.s, c)
        q = _scale(mode, d.vn, there.vn, c)
        k0, k1, k2, k3, k4, k5 = q * d.vt, q * d.vn, q * d.wt, q * d.wn, q * d.wz, q * c * there.vn
        a0 += weight * k0
        a1 += weight * k1
        a2 += weight * k2
        a3 += weight * k3
        a4 += weight * k4
        a5 += weight * k5
    h = step / 6.0
    after = Impact(ball.vt + h * a0, ball.vn + h * a1, ball.wt + h * a2, ball.wn + h * a3, ball.wz + h * a4)
    return after, work + h * a5
