"""Ball on cushion: invariants, a plain twin, and refinement.

The model is Mathavan, Jackson & Parkin, Proc. IMechE C 224 (2010) 1863-1873; the twin below
is that scheme stepped plainly (Euler), written independently of the kernel.
"""

import math
import random
from collections.abc import Sequence

import numpy as np
import pytest
from campaign.audit import Array
from tests.core.rig import bounced

from fandle.core import constants
from fandle.core.physics.cushion import Impact, Rubber
from fandle.core.physics.give import Dent, give_way
from fandle.core.physics.jit import kernel
from fandle.core.table.parameters import TABLE

S, E, MU_W, MU_S = 0.27, 0.85, 0.20, 0.20
STEPS = constants.IMPULSE_STEPS
State = tuple[float, float, float, float, float]


def random_state(rng: random.Random) -> State:
    """A ball on its way into the cushion, sliding or rolling, with side."""
    v, angle = rng.uniform(0.05, 6), rng.uniform(0.05, math.pi - 0.05)
    vt, vn = v * math.cos(angle), v * math.sin(angle)
    roll = rng.choice([1.0, rng.uniform(-1, 2)])
    return vt, vn, -roll * vn, roll * vt, rng.choice([0.0, rng.uniform(-1.25, 1.25)]) * v


def energy(s: Sequence[float]) -> float:
    """Twice the kinetic energy per unit mass: v² + 2/5 w²."""
    return s[0] ** 2 + s[1] ** 2 + 0.4 * (s[2] ** 2 + s[3] ** 2 + s[4] ** 2)


def euler(state: State, sin_theta: float, e: float, mu_w: float, mu_s: float, steps: int) -> State:
    """The published scheme, plainly stepped: slips, their directions, one impulse after another."""
    vt, vn, wt, wn, wz = state
    s, c = sin_theta, math.sqrt(1 - sin_theta**2)
    step = vn / (c * steps)
    work, goal = 0.0, None
    while True:
        nose = (vt + wn * s - wz * c, wt - s * vn)
        size = math.hypot(*nose) or 1.0
        ft, fz = -mu_w * nose[0] / size, -mu_w * nose[1] / size
        press = max(s - c * fz, 0.0)
        table = (vt - wn, vn + wt)
        size = math.hypot(*table) or 1.0
        gt, gn = -mu_s * press * table[0] / size, -mu_s * press * table[1] / size
        dvn = -c - s * fz + gn
        work += c * (vn + dvn * step / 2) * step
        vt, vn = vt + step * (ft + gt), vn + step * dvn
        wt += step * 2.5 * (fz + gn)
        wn += step * 2.5 * (s * ft - gt)
        wz += step * -2.5 * c * ft
        if goal is None and vn <= 0:
            goal = work * (1 - e * e)
        if goal is not None and work <= goal:
            return vt, vn, wt, wn, wz


def test_energy_never_rises_over_ten_thousand_impacts() -> None:
    rng = random.Random(1)
    for _ in range(10_000):
        before = random_state(rng)
        e, mu_w, mu_s = rng.uniform(0.5, 0.98), rng.uniform(0, 0.4), rng.uniform(0.05, 0.4)
        after = bounced(*before, rng.uniform(0.1, 0.4), e, mu_w, mu_s, STEPS)
        assert not any(math.isnan(v) for v in after), before
        assert after[1] < 0.0
        assert energy(after) <= energy(before) * (1 + 1e-12)


def test_plain_twin_agrees() -> None:
    """Within 0.002 of the ball's speed of 40,000 plain steps, whose own error is of that order."""
    rng = random.Random(2)
    for _ in range(16):
        before = random_state(rng)
        if before[1] < 0.2:
            continue
        ours, twin = bounced(*before, S, E, MU_W, MU_S, STEPS), euler(before, S, E, MU_W, MU_S, 40_000)
        speed = math.sqrt(energy(before))
        assert max(abs(a - b) for a, b in zip(ours, twin, strict=True)) < 2e-3 * speed, before


def test_halving_the_impulse_step_moves_a_landing_by_less_than_a_thousandth() -> None:
    """< 0.001 diamond per rail, measured 2 m beyond it, for angles above 8°."""
    rng = random.Random(3)
    for _ in range(3000):
        before = random_state(rng)
        if before[1] < 0.14 * abs(before[0]):
            continue
        angles = [math.atan2(-q[1], q[0]) for q in (bounced(*before, S, E, MU_W, MU_S, n) for n in (STEPS, 2 * STEPS))]
        assert abs(angles[0] - angles[1]) * 2.0 / 0.3175 < 1e-3, before


def test_mirror_images_bounce_as_mirror_images() -> None:
    rng = random.Random(4)
    for _ in range(500):
        vt, vn, wt, wn, wz = random_state(rng)
        a = bounced(vt, vn, wt, wn, wz, S, E, MU_W, MU_S, STEPS)
        b = bounced(-vt, vn, wt, -wn, -wz, S, E, MU_W, MU_S, STEPS)
        assert (a[0], a[1], a[2], a[3], a[4]) == pytest.approx((-b[0], b[1], b[2], -b[3], -b[4]), abs=1e-12)


def test_without_friction_the_normal_speed_falls_by_the_restitution() -> None:
    """A frictionless vertical nose: v_n' = −e·v_n, all else unchanged (by definition of e)."""
    after = bounced(1.0, 2.0, -1.5, 0.7, 0.4, 0.0, 0.8, 0.0, 0.0, STEPS)
    assert after == pytest.approx((1.0, -1.6, -1.5, 0.7, 0.4), abs=1e-6)


def test_speed_alone_scales_everything() -> None:
    """The rigid model has no speed of its own: twice the speed is the same picture."""
    state = (1.0, 1.2, -0.8, 0.9, 0.3)
    a, b = bounced(*state, S, E, MU_W, MU_S, STEPS), bounced(*(2 * v for v in state), S, E, MU_W, MU_S, STEPS)
    assert [2 * v for v in a] == pytest.approx(list(b), abs=1e-12)


@pytest.mark.parametrize(
    "state",
    [
        (0.0, 1.0, -1.0, 0.0, 0.0),  # straight in, rolling
        (0.0, 1.0, 0.0, 0.0, 0.0),  # straight in, sliding: both slips are one-dimensional
        (0.0, 1.0, 1.0, 0.0, 0.0),  # straight in, draw: the slip at the cloth turns round
        (1.0, 1e-7, 0.0, 1.0, 0.0),  # a touch along the rail
        (1e-9, 1.0, -1.0, 0.0, 0.0),  # almost straight
        (0.26, 1.0, -1.0, 0.26, 0.27),  # the nose's slip is nearly nought from the start
    ],
)
def test_nasty_states_end(state: State) -> None:
    after = bounced(*state, S, E, MU_W, MU_S, STEPS)
    assert all(math.isfinite(v) for v in after)
    assert after[1] < 0
    assert energy(after) <= energy(state)


@kernel
def _many(rows: Array, out: Array) -> None:
    for i in range(rows.shape[0]):
        r = rows[i]
        ball, rubber = Impact(r[0], r[1], r[2], r[3], r[4]), Rubber(r[6], r[7], r[8], r[9], 4.0)
        got = give_way(ball, rubber, Dent(r[5], r[10], r[11], r[12]))
        for k in range(5):
            out[i, k] = got[k]


def _any_impacts(rng: np.random.Generator, count: int) -> Array:
    """Balls with any motion into any rubber the limits allow, the limits themselves often."""

    def within(name: str) -> Array:
        low, high = TABLE[name].low, TABLE[name].high
        return np.where(rng.random(count) < 0.2, rng.choice([low, high], count), rng.uniform(low, high, count))

    speed = 12 * rng.random(count) ** rng.choice([1, 3])
    angle = np.pi / 2 * rng.random(count) ** rng.choice([1, 4])
    rows = np.empty((count, 13))
    rows[:, 0], rows[:, 1] = speed * np.cos(angle) * rng.choice([-1, 1], count), speed * np.sin(angle)
    spin = rng.normal(size=(count, 3))
    rows[:, 2:5] = spin * (1.25 * speed * rng.random(count) / np.linalg.norm(spin, axis=1))[:, None]
    rolling = rng.random(count) < 0.4
    rows[rolling, 2], rows[rolling, 3] = -rows[rolling, 1], rows[rolling, 0]
    rows[:, 5], rows[:, 6] = within("ball_radius"), 0.5 * rng.random(count)  # the nose at half to 75 % of the ball
    columns = ("cushion_restitution", "cushion_friction", "cloth_sliding", "cushion_compression", "cushion_grip")
    for k, name in enumerate((*columns, "cushion_loss"), 7):
        rows[:, k] = within(name)
    return rows


def _energy(v: Array) -> Array:
    energy: Array = 0.5 * (v[:, 0] ** 2 + v[:, 1] ** 2) + 0.2 * (v[:, 2:5] ** 2).sum(axis=1)
    return energy


def test_a_million_impacts_over_all_limits_make_no_energy() -> None:
    for seed in range(10):
        rows = _any_impacts(np.random.default_rng(seed), 100_000)
        out = np.empty((len(rows), 5))
        _many(rows, out)
        assert np.isfinite(out).all()
        assert (_energy(out) <= _energy(rows) * (1 + 1e-9)).all()


def test_the_impact_that_made_energy() -> None:
    """Low effective restitution: the ball had hardly turned when the last step in work was taken."""
    angle, v, r = math.radians(5.91), 5.8, 0.028575
    into = v * math.sin(angle)
    row = np.array([[v * math.cos(angle), into, 0, 0, 0, r, 0.5, 1.0, 0.4, 0.4, 0.006, 0.4, 0.69]])
    row[0, 2:4] = -2.5 * 0.4 * into, 2.5 * 0.4 * v * math.cos(angle)  # follow, 0.4 R
    out = np.empty((1, 5))
    _many(row, out)
    assert _energy(out)[0] <= _energy(row)[0]
    assert out[0, 1] < 0.0  # it leaves the rail, steeper than it came: the dent's wall leans back


def test_the_careful_last_step_agrees_with_fine_ones() -> None:
    """Little restitution, where the last step is closed in on: four steps a phase and four hundred come to the same.

    The few that differ more are those in which a slip dies within a step.
    """
    rng, errors = np.random.default_rng(5), []
    for _ in range(1000):
        v, angle = rng.uniform(0.5, 8), rng.uniform(0.05, 1.5)
        motion = (v * math.cos(angle), v * math.sin(angle), *rng.uniform(-0.5, 0.5, 3) * v)
        rubber = (rng.uniform(0, 0.4), rng.uniform(0.02, 0.3), rng.uniform(0, 0.25), rng.uniform(0.05, 0.25))
        coarse, fine = bounced(*motion, *rubber, 4.0), bounced(*motion, *rubber, 400.0)
        errors.append(max(abs(a - b) for a, b in zip(coarse[:2], fine[:2], strict=True)) / v)
    assert np.percentile(errors, 50) < 1e-5
    assert np.percentile(errors, 99) < 1e-3
    assert max(errors) < 1e-2
