"""Ball on ball, against closed forms, a general integrator and the published facts.

Sources, all from memory: stun angle and natural angle, tan θ = sinφ·cosφ/(sin²φ + 2/5):
Coriolis 1835, Alciatore TP 3.3; throw and gearing: Alciatore TP A.14; friction fit: Marlow 1995.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from campaign.audit import POOL, Array, at_end, raw, struck
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from tests.core.crowd import PERFECT, R

from fandle.core.physics.collision import collide, friction_impulse
from fandle.core.physics.slots import DECAY
from fandle.core.physics.state import EV_BALL, EVENT, PIECE
from fandle.core.shot.stroke import Stroke

FLOOR, RISE, FALL = POOL.ball_friction_floor, POOL.ball_friction_rise, POOL.ball_friction_fall
velocity = st.floats(-8, 8)


def pair(phi: float, v: tuple[float, float, float, float, float]) -> tuple[Array, Array]:
    """Ball a at the origin moving as v, ball b at rest in touch with it, `phi` left of +x."""
    a = np.array([0.0, 0.0, *v])
    b = np.array([2 * R * math.cos(phi), 2 * R * math.sin(phi), 0.0, 0.0, 0.0, 0.0, 0.0])
    return a, b


def cut(phi: float, speed: float = 2.0, side: float = 0.0, roll: float = 0.0) -> tuple[Array, Array]:
    """A cut shot along +x at angle φ: side and roll as w/v, side + = right."""
    a, b = pair(phi, (speed, 0.0, 0.0, roll * speed, side * speed))
    collide(a, b, POOL.ball_restitution, 1.0, POOL.params())
    return a, b


def throw_deg(phi: float, **stroke: float) -> float:
    """Angle by which the object ball leaves the line of centres, + = carried the cue ball's way."""
    _, b = cut(phi, **stroke)
    return math.degrees(phi - math.atan2(b[3], b[2]))


@settings(max_examples=300, deadline=None)
@given(st.floats(-1.5, 1.5), velocity, velocity, velocity, velocity, velocity, st.floats(0.5, 1.0))
def test_momentum_is_kept_and_energy_not_gained(
    phi: float, vx: float, vy: float, wx: float, wy: float, wz: float, e: float
) -> None:
    a, b = pair(phi, (vx, vy, wx, wy, wz))
    b[2:] = -0.3 * a[2:][::-1]
    before, momentum = 0.5 * (a[2:4] @ a[2:4] + b[2:4] @ b[2:4]) + 0.2 * (a[4:] @ a[4:] + b[4:] @ b[4:]), a + b
    n = (b[:2] - a[:2]) / np.hypot(*(b[:2] - a[:2]))
    near = float((a[2:4] - b[2:4]) @ n)
    if near <= 0.0:
        return
    collide(a, b, e, 1.0, POOL.params())
    assert a[2:4] + b[2:4] == pytest.approx(momentum[2:4], abs=1e-12)
    assert float((b[2:4] - a[2:4]) @ n) == pytest.approx(e * near, abs=1e-12)
    after = 0.5 * (a[2:4] @ a[2:4] + b[2:4] @ b[2:4]) + 0.2 * (a[4:] @ a[4:] + b[4:] @ b[4:])
    assert after <= before + 1e-12


@pytest.mark.parametrize("slip", [0.05, 0.8, 3.0, 12.0])
@pytest.mark.parametrize("push", [0.01, 0.5, 4.0])
@pytest.mark.parametrize("floor", [FLOOR, 0.0])
def test_friction_against_a_general_integrator(slip: float, push: float, floor: float) -> None:
    """d slip/d push = −7·μ(slip) until the slip is nought, by scipy with its own event."""

    def ends(_: float, s: Array) -> float:
        return float(s[0])

    ends.terminal = True  # type: ignore[attr-defined]
    run = solve_ivp(
        lambda _, s: [-7 * (floor + RISE * math.exp(-FALL * max(s[0], 0.0)))], (0, push), [slip],
        rtol=1e-11, atol=1e-13, events=ends,
    )  # fmt: skip
    expected = (slip - max(run.y[0, -1], 0.0)) / 7
    assert friction_impulse(slip, push, floor, RISE, FALL) == pytest.approx(expected, rel=1e-8)


def test_constant_friction_is_coulombs() -> None:
    assert friction_impulse(2.0, 0.5, 0.06, 0.0, 0.0) == pytest.approx(0.03)
    assert friction_impulse(0.1, 0.5, 0.06, 0.0, 0.0) == pytest.approx(0.1 / 7)
    assert friction_impulse(0.0, 0.5, 0.06, 0.1, 1.0) == 0.0


@pytest.mark.parametrize("phi_deg", [10, 30, 45, 70])
def test_stun_leaves_at_ninety_degrees(phi_deg: float) -> None:
    """e = 1, no friction: a struck ball without roll leaves square to the line of centres. Published."""
    a, b = pair(math.radians(phi_deg), (2.0, 0.0, 0.0, 0.0, 0.0))
    collide(a, b, 1.0, 1.0, PERFECT.params())
    assert abs(float(a[2:4] @ b[2:4])) < 1e-12
    assert math.degrees(math.atan2(b[3], b[2])) == pytest.approx(phi_deg, abs=1e-9)


def natural_deflection(fullness: float, speed: float = 2.0) -> float:
    """Degrees between a rolling cue ball's way before the hit and after, once it rolls again."""
    phi = math.asin(1 - fullness)
    away = 0.05
    aim = np.array([[1.2, 0.6], [1.2 + away + 2 * R * math.cos(phi), 0.6 + 2 * R * math.sin(phi)]])
    played = raw(aim, (speed, 0.0, 0.0, speed, 0.0), PERFECT)
    hit = played.events[played.events[:, EVENT.kind] == EV_BALL][0, 1]
    rows = played.pieces[(played.pieces[:, PIECE.ball] == 0) & (played.pieces[:, PIECE.t] >= hit)]
    rolling = rows[rows[:, 8] == 2][0]
    return abs(math.degrees(math.atan2(rolling[5], rolling[4])))


def test_half_ball_hit_of_a_rolling_ball_deflects_by_33_67_degrees() -> None:
    """Published: 33.67° at half ball."""
    assert natural_deflection(0.5, 1.0) == pytest.approx(33.67, abs=0.005)


def test_largest_natural_deflection_is_near_half_ball() -> None:
    """Published: 33.75° at sin²φ = 2/9, that is 52.9 % full; a quarter and three quarters give about 27°."""
    found = {f: natural_deflection(f, 1.0) for f in np.linspace(0.4, 0.65, 51)}
    best = max(found, key=lambda f: found[f])
    assert found[best] == pytest.approx(33.749, abs=0.005)
    assert best == pytest.approx(1 - math.sqrt(2) / 3, abs=0.006)
    assert natural_deflection(0.75, 1.0) == pytest.approx(27.3, abs=1.0)
    assert natural_deflection(0.25, 1.0) == pytest.approx(27.3, abs=1.0)


def test_the_angle_does_not_depend_on_speed() -> None:
    assert natural_deflection(0.5, 2.0) == pytest.approx(natural_deflection(0.5, 0.7), abs=1e-6)


def test_throw_of_a_stun_cut_and_its_fall_with_speed() -> None:
    """A slow stun half-ball cut is thrown about 5°, a fast one about 2° (Alciatore, from memory)."""
    half = math.asin(0.5)
    slow, medium, fast = (throw_deg(half, speed=v) for v in (0.45, 1.34, 3.1))
    assert slow > medium > fast > 0
    assert slow == pytest.approx(5.0, abs=1.0)
    assert fast == pytest.approx(2.0, abs=1.0)


def test_small_cuts_are_thrown_by_a_seventh_of_the_slip() -> None:
    """Near full the slip ends within the impact: tan(throw) = tanφ/7·2/(1 + e). Follows from no slip left."""
    phi = math.radians(5)
    expected = math.tan(phi) / 7 * 2 / (1 + POOL.ball_restitution)
    assert math.tan(math.radians(throw_deg(phi, speed=1.0))) == pytest.approx(expected, rel=1e-9)


def test_roll_lessens_throw_at_thick_cuts() -> None:
    """With follow or draw part of the friction goes up or down the ball. Published (from memory)."""
    thick = math.radians(30)
    assert throw_deg(thick, roll=1.0) < throw_deg(thick)
    assert throw_deg(thick, roll=-1.0) == pytest.approx(throw_deg(thick, roll=1.0), abs=1e-9)


def test_gearing_outside_side_takes_throw_away() -> None:
    """v·sinφ = R·ω rolls the balls on each other like gears: no throw, no spin given. Published.

    The object ball lies left of the line and is cut to the left, so right side is outside side;
    more of it throws the ball on to the left.
    """
    phi = math.radians(35)
    _, b = cut(phi, side=math.sin(phi))
    assert math.atan2(b[3], b[2]) == pytest.approx(phi, abs=1e-12)
    assert b[6] == pytest.approx(0.0, abs=1e-12)
    _, b = cut(phi, side=2 * math.sin(phi))
    assert math.atan2(b[3], b[2]) > phi + 0.01
    _, b = cut(phi, side=-math.sin(phi))
    assert math.atan2(b[3], b[2]) < phi - 0.01


def test_spin_passes_on_with_the_other_hand() -> None:
    """A full hit with right side gives the object ball left side, and throws it left. Published."""
    # w about the vertical: right side turns the ball anticlockwise seen from above, wz > 0
    a, b = pair(0.0, (2.0, 0.0, 0.0, 0.0, 2.0))
    collide(a, b, POOL.ball_restitution, 1.0, POOL.params())
    assert b[6] < 0 < a[6] < 2.0
    assert math.degrees(math.atan2(b[3], b[2])) > 0.5


def final_x(up: float, distance: float = 0.5, speed: float = 2.5) -> float:
    """Where a cue ball struck `up` stops after a full hit, along the line, less where it hit."""
    table = replace(POOL, length=5.0, width=2.4)
    places = np.array([[1.5, 1.2], [1.5 + distance + 2 * R, 1.2]])
    played = raw(places, struck(Stroke(speed, up=up), 0.0), table)
    return float(played.state[0, 0]) - (1.5 + distance)


def test_follow_goes_on_draw_comes_back_stun_stops() -> None:
    """Facts of the trade; a centre-struck ball at stun distance stops within a hand's breadth."""
    assert final_x(0.4) > 0.3
    assert final_x(-0.4) < -0.3
    assert abs(final_x(-0.16)) < 0.1


def test_end_states_of_stretches_follow_the_closed_forms() -> None:
    """The audit's own arithmetic: every stretch's end is the next one's start when nothing is met."""
    played = raw(np.array([[0.5, 0.6]]), (1.2, 0.2, 0.3, -0.4, 1.0))
    v, w = at_end(played.pieces, POOL.params()[DECAY])
    assert v[0] == pytest.approx(played.pieces[1, 4:6], abs=1e-12)
    assert w[0] == pytest.approx(played.pieces[1, 11:14], abs=1e-12)
