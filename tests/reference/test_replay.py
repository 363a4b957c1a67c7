"""The second simulator by itself, and the engine held against it; `make proofs` does the same at length.

Closed forms: Coriolis 1835; half-ball deflection of a rolling ball, common knowledge of the physics of the game.
"""

import math
import statistics

import numpy as np
import pytest
from tests.reference import held
from tests.reference.games import came_of, mark_scatter, turned
from tests.reference.replay import BALL, DOWN, JAW, RAIL, advance, cushion, numbers_of, replay, rubber_of, struck

TABLE = {
    "ball_radius": 0.028575, "cloth_sliding": 0.2, "cloth_rolling": 0.01, "spin_decay": 10.0,
    "cushion_restitution": 0.85, "cushion_friction": 0.2, "nose_height": 0.0363, "ball_restitution": 1.0,
    "ball_friction_floor": 0.0, "ball_friction_rise": 0.0, "ball_friction_fall": 1.0,
}  # fmt: skip
OPEN = rubber_of(50.0, 25.0, None)  # a bed so large that nothing is met


def test_a_ball_struck_in_the_middle_slides_and_rolls_as_the_closed_form_has_it() -> None:
    """12v²/(49 μg) of sliding, 2v/(7μg) long, then 5v/7."""
    numbers, v = numbers_of(TABLE), 3.0
    ball = struck(0.0, 0.0, 0.0, v, 0.0, 0.0)
    lasts = 2 * v / (7 * 0.2 * 9.81)
    for _ in range(1000):
        advance(ball, lasts / 1000, numbers)
    assert ball[0] == pytest.approx(12 * v * v / (49 * 0.2 * 9.81), rel=1e-6)
    assert ball[2] == pytest.approx(5 * v / 7, rel=1e-6)
    assert ball[5] == pytest.approx(ball[2], rel=1e-6)


def test_a_rolling_ball_deflects_by_the_half_ball_angle() -> None:
    """33.67°: tan θ = sin φ cos φ / (sin² φ + 2/5), φ = 30°."""
    numbers, r, phi = numbers_of(TABLE), TABLE["ball_radius"], math.radians(30.0)
    balls = np.zeros((2, 7))
    balls[:, :2] = [[20.0, 10.0], [20.0 + 0.5, 10.0 + 2 * r * math.sin(phi)]]
    balls[0, 2], balls[0, 5] = 2.0, 2.0
    ends, _, events = replay(balls, numbers, OPEN)
    assert events[0, :3].tolist() == [BALL, 0, 1]
    off = ends[0, :2] - events[0, 3:5]
    theta = math.atan2(math.sin(phi) * math.cos(phi), math.sin(phi) ** 2 + 0.4)
    slid = math.degrees(math.atan2(-off[1], off[0]))
    assert slid == pytest.approx(math.degrees(theta), abs=1.5)  # its slide is over before a tenth of its way


@pytest.mark.parametrize("vt", [0.0, 1.5, -1.5])
def test_a_cushion_takes_energy_and_is_alike_either_way(vt: float) -> None:
    numbers = numbers_of(TABLE)
    ball = np.array([0.0, 0.0, 2.0, vt, -vt, 2.0, 0.0])  # rolling
    mirrored = ball * [1, 1, 1, -1, -1, 1, -1]
    before = (ball[2:4] ** 2).sum() / 2 + (ball[4:] ** 2).sum() / 5
    cushion(ball, 1.0, 0.0, numbers)
    cushion(mirrored, 1.0, 0.0, numbers)
    assert ball[2] < -0.8
    assert (ball[2:4] ** 2).sum() / 2 + (ball[4:] ** 2).sum() / 5 < before
    assert mirrored == pytest.approx(ball * [1, 1, 1, -1, -1, 1, -1], abs=1e-9)


def test_what_came_of_a_shot_is_read_from_its_events() -> None:
    events = np.array([
        [RAIL, 0, 1, 0.1, 0.2], [BALL, 0, 2, 0, 0], [JAW, 2, 5, 0, 0], [RAIL, 0, 3, 0, 0], [BALL, 1, 0, 0, 0],
        [DOWN, 2, 4, 0, 0],
    ])  # fmt: skip
    came = came_of(events)
    assert (came.first, came.rails, came.jaw, came.clean) == (2, (1,), False, True)
    assert (came.down, came.second_after, came.places) == (((2, 4),), 2, ((0.1, 0.2),))
    assert not came_of(events[:2]).clean
    assert came_of(np.array([[BALL, 0, 1, 0, 0], [DOWN, 0, 2, 0, 0]])).clean is False


def test_a_mark_is_missed_by_how_easily_it_is_seen_and_turns_the_cue_exactly() -> None:
    scatter = {"diamond": 1.0, "half": 2.0, "quarter": 3.0, "between": 4.0}
    assert [mark_scatter(at, scatter) for at in (3.05, 2.5, 1.28, 1.4)] == [1.0, 2.0, 3.0, 4.0]
    off = turned((0.0, 0.0), (0, 1.0, 1.0), 1.0, 0.5)  # from 45° to atan(1/1.5)
    assert off == pytest.approx(math.atan2(1.0, 1.5) - math.pi / 4)


def test_the_engine_meets_what_the_second_simulator_meets() -> None:
    met = held.events(3, 80)
    assert met.same >= 0.96 * met.n
    assert max(met.first_mm) < 0.01
    assert statistics.median(met.third_mm) < 1.5


def test_no_order_is_missed_that_the_second_simulator_finds() -> None:
    seen, faults = held.orders(5, 1)
    assert seen > 5
    assert faults == []


def test_chances_and_ends_are_what_errors_of_our_own_come_to() -> None:
    told, halves = held.chances(7, 6)
    assert len(told) >= 6
    assert statistics.fmean(each.inside for each in told) >= 0.8
    assert abs(statistics.fmean(each.p - each.came for each in told)) < 0.03
    assert statistics.fmean(halves) == pytest.approx(0.5, abs=0.08)
