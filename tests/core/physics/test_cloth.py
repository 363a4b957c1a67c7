"""Ball on cloth, against closed forms and against a general integrator.

Closed forms: Coriolis 1835 (from memory), g = 9.81.
"""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from tests.core.rig import POOL, run

from fandle.core.constants import GRAVITY
from fandle.core.physics import cloth
from fandle.core.physics.state import PIECE, Motion, Phase

G = GRAVITY
MU, ROLL = POOL.cloth_sliding, POOL.cloth_rolling
SPEEDS = (0.5, 1.0, 2.0, 3.0)


@pytest.mark.parametrize("v", SPEEDS)
def test_centre_hit_slides_then_rolls_at_five_sevenths(v: float) -> None:
    """Slides 12v²/(49 μg) for 2v/(7 μg), rolls away at 5v/7 (textbook, from memory)."""
    kind, lasts, ax, ay = cloth.phase(v, 0.0, 0.0, 0.0, MU, ROLL)
    assert kind == cloth.SLIDING
    assert lasts == pytest.approx(2 * v / (7 * MU * G), rel=1e-12)
    x, y, vx, vy, wx, wy, _ = cloth.advance(
        Motion(0.0, 0.0, v, 0.0, 0.0, 0.0, 0.0), Phase(kind, lasts, ax, ay), True, 0.3
    )
    assert x == pytest.approx(12 * v * v / (49 * MU * G), rel=1e-12)
    assert (vx, vy, y) == (pytest.approx(5 * v / 7, rel=1e-12), 0.0, 0.0)
    assert (wx, wy) == (-vy, vx)


def test_rolling_ball_runs_v_squared_over_two_mu_g() -> None:
    """A rolling ball stops after v²/(2 μr g)."""
    kind, lasts, ax, ay = cloth.phase(1.0, 0.0, 0.0, 1.0, MU, ROLL)
    x, *_ = cloth.advance(Motion(0.0, 0.0, 1.0, 0.0, 0.0, 1.0, 0.0), Phase(kind, lasts, ax, ay), True, 0.3)
    assert kind == cloth.ROLLING
    assert x == pytest.approx(1 / (2 * ROLL * G), rel=1e-12)


def test_natural_roll_strike_does_not_slide() -> None:
    """Struck 2/5 R above centre the ball rolls at once (textbook, from memory)."""
    assert run((1.0, 2.0), 0.0, 1.0, up=0.4).pieces[0, PIECE.kind] == cloth.ROLLING


def test_vertical_spin_decays_steadily_and_never_turns_round() -> None:
    state = cloth.advance(Motion(0.0, 0.0, 1.0, 0.0, 0.0, 1.0, -0.1), Phase(cloth.ROLLING, 0.5, -0.1, 0.0), False, 0.3)
    assert state[6] == 0.0
    state = cloth.advance(Motion(0.0, 0.0, 1.0, 0.0, 0.0, 1.0, -0.1), Phase(cloth.ROLLING, 0.1, -0.1, 0.0), False, 0.3)
    assert state[6] == pytest.approx(-0.07)


def _twin(v: tuple[float, float], w: tuple[float, float], seconds: float) -> np.ndarray:
    """The same force laws handed to scipy, sliding phase only. State x, y, vx, vy, wx, wy."""

    def rates(_t: float, s: np.ndarray) -> list[float]:
        ux, uy = s[2] - s[5], s[3] + s[4]
        slip = math.hypot(ux, uy)
        fx, fy = -MU * G * ux / slip, -MU * G * uy / slip
        return [s[2], s[3], fx, fy, 2.5 * fy, -2.5 * fx]

    solved = solve_ivp(rates, (0, seconds), [0, 0, *v, *w], method="DOP853", rtol=1e-11, atol=1e-13)
    return np.asarray(solved.y[:, -1])


@settings(max_examples=40, deadline=None)
@given(
    v=st.tuples(st.floats(0.5, 5), st.floats(-3, 3)),
    w=st.tuples(st.floats(-6, 6), st.floats(-6, 6)),
)
def test_sliding_agrees_with_a_general_integrator(v: tuple[float, float], w: tuple[float, float]) -> None:
    """≤ 0.1 mm over 3 m of cloth, unbounded bed (scipy DOP853 on the same force law)."""
    kind, lasts, ax, ay = cloth.phase(*v, *w, MU, ROLL)
    if kind != cloth.SLIDING:
        return
    seconds = min(0.999 * lasts, 3.0 / math.hypot(*v))
    ours = cloth.advance(Motion(0.0, 0.0, *v, *w, 0.0), Phase(kind, seconds, ax, ay), False, 0.0)
    twin = _twin(v, w, seconds)
    assert math.hypot(ours[0] - twin[0], ours[1] - twin[1]) < 1e-4
    assert ours[2:6] == pytest.approx(tuple(twin[2:6]), abs=1e-6)


def test_whole_run_over_three_metres_agrees_with_the_integrator() -> None:
    """Slide, then roll: the stitched path against one integration of both laws."""
    v0, seconds = 3.0, 1.2

    def rates(_t: float, s: np.ndarray) -> list[float]:
        slip = s[1] - s[2]
        if slip > 1e-9:
            return [s[1], -MU * G, 2.5 * MU * G]
        return [s[1], -ROLL * G, -ROLL * G]

    def rolls(_t: float, s: np.ndarray) -> float:
        return float(s[1] - s[2])

    rolls.terminal = True  # type: ignore[attr-defined]  # scipy's way to mark an event
    slide = solve_ivp(rates, (0, seconds), [0, v0, 0], events=rolls, rtol=1e-11, atol=1e-13)
    state = slide.y[:, -1].copy()
    state[2] = state[1]
    roll = solve_ivp(rates, (slide.t[-1], seconds), state, rtol=1e-11, atol=1e-13)
    kind, lasts, ax, ay = cloth.phase(v0, 0.0, 0.0, 0.0, MU, ROLL)
    mid = cloth.advance(Motion(0.0, 0.0, v0, 0.0, 0.0, 0.0, 0.0), Phase(kind, lasts, ax, ay), True, 0.3)
    kind, _, ax, ay = cloth.phase(mid.vx, mid.vy, mid.wx, mid.wy, MU, ROLL)
    end = cloth.advance(mid, Phase(kind, seconds - lasts, ax, ay), False, 0.3)
    assert roll.y[0, -1] > 2.5
    assert end[0] == pytest.approx(roll.y[0, -1], abs=1e-4)


@pytest.mark.parametrize(
    ("gap", "v", "a", "longest", "expected"),
    [
        (1.0, 2.0, 0.0, 9.0, 0.5),
        (1.0, 2.0, 0.0, 0.4, math.inf),
        (1.0, -2.0, 0.0, 9.0, math.inf),
        (1.0, 1.0, -0.49, 9.0, (1 - math.sqrt(0.02)) / 0.49),
        (1.0, 1.0, -0.51, 9.0, math.inf),
        (0.0, 1.0, -1.0, 9.0, 0.0),
        (0.0, -1.0, 1.0, 9.0, 2.0),
        (0.0, -1.0, -1.0, 9.0, math.inf),
        (0.0, 0.0, 1.0, 9.0, 0.0),
        (1.0, -1.0, 2.0, 9.0, (1 + math.sqrt(5)) / 2),
        (-1e-17, 1.0, 0.0, 9.0, 0.0),
    ],
)
def test_reach_line(gap: float, v: float, a: float, longest: float, expected: float) -> None:
    """Nasty cases of meeting a rail: frozen, parting, turning back, just short."""
    assert cloth.reach_line(gap, v, a, longest) == pytest.approx(expected)
