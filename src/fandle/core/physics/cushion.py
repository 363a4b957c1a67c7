"""Ball on cushion: the impulse stepped through compression and restitution.

Model: Mathavan, Jackson & Parkin, Proc. IMechE C 224 (2010) 1863-1873. A rigid ball
meets the nose at height h, sinθ = (h − R)/R. The nose presses the ball down, so there is
Coulomb friction both at the nose (μw) and at the cloth (μs); restitution is energetic.
Frame and units as in `impulse`.
"""

import math
from typing import NamedTuple

from fandle.core.physics.impulse import (
    IMPULSE,
    SPEED,
    WORK,
    Friction,
    Hold,
    Impact,
    Nose,
    forces,
    rates,
    slip_at_cloth,
    slip_at_nose,
    step_by,
)
from fandle.core.physics.jit import kernel

__all__ = ["Impact", "Rubber", "bounce"]

MAX_STEPS = 4000
STIFF = 1.0  # of 1 / the rate at which a dying slip turns, per step
CLOSING = 0.5  # part of a slip that one step may close
TURN_PER_STEP = 0.2  # rad: how far the slip at the nose may turn in one step
CLOTH_TURN = 1.0  # rad: the same at the cloth, whose friction is a quarter of it
STRAIGHT = 1e-3  # rad: a dying slip that turns less till its end is taken as straight
SMALLEST_STEP = 1 / 256  # of the plain step, when a slip direction swings round
SNAP = 2e-4  # of the ball's speed: a slip this small that friction can hold is ended at once
STEEP = 4.0  # vn² may grow by this much in the last step in work; from a slower vn that step would blow up
MOST_HALVINGS = 50  # of the last step in impulse
ROUNDING = 1e-12  # of the energy: what rounding may add
ZERO = 1e-10  # of the ball's speed: what counts as no slip
FREE = Hold(False, 0.0, 0.0)


class Rubber(NamedTuple):
    """A cushion: sin θ of its nose, restitution, friction at the nose and at the cloth, plain steps per phase."""

    sin_theta: float
    restitution: float
    mu_w: float
    mu_s: float
    steps: float


class Grain(NamedTuple):
    """How finely an impact is stepped: the plain step and the smallest, and what counts as no slip (m/s)."""

    plain: float
    smallest: float
    tiny: float


@kernel
def _slip_step(
    slip: tuple[float, float], rate: tuple[float, float], limit: float, turn: float, step: float, grain: Grain
) -> float:
    """Longest step that neither runs past the end of a slip nor lets it swing round.

    Near its end a slip turns at a rate of about 7/2·limit/|slip|, which also bounds the step
    an explicit scheme can take.
    """
    s1, s2 = slip
    d1, d2 = rate
    size = math.sqrt(s1 * s1 + s2 * s2)
    if size <= grain.tiny:
        return step
    step = min(step, max(STIFF * size / (3.5 * limit), grain.smallest))
    closing = -(s1 * d1 + s2 * d2) / size
    if closing * step > CLOSING * size:
        step = CLOSING * size / closing
    turning = abs(s1 * d2 - s2 * d1) / (size * size)
    if turning * step > turn:
        step = min(step, max(turn / turning, grain.smallest))
    return step


@kernel
def _plan(ball: Impact, rate: Impact, nose: Nose, grain: Grain) -> tuple[float, Hold]:
    """The next step: its length, and whether the slip at the nose is taken as straight.

    A slip that creeps to its end along one line is stiff but simple: its direction is held
    and the step ends where it does. Otherwise the plain step is shortened where a slip ends
    or swings round.
    """
    s1, s2 = slip_at_nose(ball, nose)
    d1, d2 = slip_at_nose(rate, nose)
    step = _slip_step(slip_at_cloth(ball), slip_at_cloth(rate), nose.mu_s * nose.s, CLOTH_TURN, grain.plain, grain)
    size = math.sqrt(s1 * s1 + s2 * s2)
    if size > grain.tiny:
        closing = -(s1 * d1 + s2 * d2) / size
        end = min(step, size / closing) if closing > 0.0 else step
        if abs(s1 * d2 - s2 * d1) * end < STRAIGHT * size * size:
            return end, Hold(True, s1 / size, s2 / size)
    return _slip_step((s1, s2), (d1, d2), nose.mu_w, TURN_PER_STEP, step, grain), Hold(False, 0.0, 0.0)


@kernel
def _snap(ball: Impact, nose: Nose, size: float, tiny: float) -> Impact:
    """End a small slip at the nose with the one friction impulse that ends it, if it would stick.

    The whole impulse of friction while a slip dies is the same however it dies, so this
    replaces the last, ever shorter steps (checked: finer steps agree to 1e-6 of the speed).
    """
    s, c = nose.s, nose.c
    st, sz = slip_at_nose(ball, nose)
    if st * st + sz * sz > size * size or st * st + sz * sz <= tiny * tiny:
        return ball
    d1, d2 = slip_at_nose(rates(forces(ball, nose, size, tiny, FREE), s, c), nose)
    if abs(d1) + abs(d2) > 1e-9:
        return ball
    ut, un = slip_at_cloth(ball)
    slip = math.sqrt(ut * ut + un * un)
    share = nose.mu_s * c / slip if slip > tiny else 0.0  # cloth friction per unit of fz, along û
    fz = -sz / (2.5 + s * s + (2.5 - s) * share * un)
    gt, gn = share * ut * fz, share * un * fz
    ft = -(st + (1 - 2.5 * s) * gt) / 3.5
    d = rates(Friction(ft, fz, gt, gn), s, 0.0)
    return Impact(ball.vt + d.vt, ball.vn + d.vn, ball.wt + d.wt, ball.wn + d.wn, ball.wz - 2.5 * c * ft)


@kernel
def _energy(ball: Impact) -> float:
    """v²/2 + w²/5: kinetic energy per unit mass of a solid sphere."""
    return 0.5 * (ball.vt * ball.vt + ball.vn * ball.vn) + 0.2 * (
        ball.wt * ball.wt + ball.wn * ball.wn + ball.wz * ball.wz
    )


@kernel
def _no_richer(after: Impact, before: float) -> Impact:
    """The state after, with no more energy than came in: what the steps' error adds is taken off all of it."""
    energy = _energy(after)
    if energy <= before * (1.0 + ROUNDING):
        return after
    share = math.sqrt(before / energy)
    return Impact(share * after.vt, share * after.vn, share * after.wt, share * after.wn, share * after.wz)


@kernel
def _close_in(
    ball: Impact, work: float, rate: Impact, step: float, goal: float, nose: Nose, tiny: float, hold: Hold
) -> Impact:
    """The end of restitution of a ball that has hardly turned, closed in on in impulse."""
    low, high = 0.0, step
    after = ball
    for _ in range(MOST_HALVINGS):
        middle = 0.5 * (low + high)
        after, done = step_by(ball, work, rate, middle, IMPULSE, nose, tiny, hold)
        if done > goal:
            low = middle
        else:
            high = middle
    return after


@kernel
def bounce(ball: Impact, rubber: Rubber) -> Impact:
    """Velocities after the cushion, from those before it (vn > 0).

    Plain steps per phase; the end of compression, of restitution and of a slip are landed on exactly.
    All NaN where the impact never ends. A ball that lies at the nose with no speed into it to speak of
    is only turned back, nothing else.
    """
    s, c = rubber.sin_theta, math.sqrt(1.0 - rubber.sin_theta * rubber.sin_theta)
    nose = Nose(s, c, rubber.mu_w, rubber.mu_s)
    size = math.sqrt(ball.vt * ball.vt + ball.vn * ball.vn + ball.wt * ball.wt + ball.wn * ball.wn + ball.wz * ball.wz)
    tiny = ZERO * size
    if ball.vn <= tiny:
        return Impact(ball.vt, -rubber.restitution * abs(ball.vn), ball.wt, ball.wn, ball.wz)
    before = _energy(ball)
    plain = ball.vn / (c * rubber.steps)
    smallest = plain * SMALLEST_STEP
    work, goal = 0.0, 0.0
    released = False
    for _ in range(MAX_STEPS):
        ball = _snap(ball, nose, SNAP * size, tiny)
        rate = rates(forces(ball, nose, tiny, tiny, FREE), s, c)
        step, hold = _plan(ball, rate, nose, Grain(plain, smallest, tiny))
        if not released and ball.vn + step * rate.vn <= 0.0:
            turned, work = step_by(ball, work, rate, -ball.vn, SPEED, nose, tiny, hold)
            ball = Impact(turned.vt, 0.0, turned.wt, turned.wn, turned.wz)
            released = True
            goal = work * (1.0 - rubber.restitution * rubber.restitution)
            continue
        after, done = step_by(ball, work, rate, step, IMPULSE, nose, tiny, hold)
        if not released or done > goal:
            ball, work = after, done
        elif ball.vn == 0.0:  # the very first step overshoots, and work is no variable to step in here
            plain = 0.25 * plain
        elif -2.0 * rate.vn * (work - goal) < STEEP * c * ball.vn * ball.vn:
            after, _ = step_by(ball, work, rate, work - goal, WORK, nose, tiny, hold)
            return _no_richer(after, before)
        else:
            return _no_richer(_close_in(ball, work, rate, step, goal, nose, tiny, hold), before)
    nan = math.nan
    return Impact(nan, nan, nan, nan, nan)
