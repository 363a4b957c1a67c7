"""Cue on ball: spin and squirt."""

import math

import pytest

from fandle.core.physics.strike import squirt_rad, strike


def test_spin_follows_from_the_impulse() -> None:
    """ω = 5/2·v·offset/R² (rigid sphere, from memory): follow turns about the left, right side is + up."""
    vx, vy, wx, wy, wz = strike(0.0, 2.0, 0.3, 0.4, 0.0, math.inf)
    assert (vx, vy) == (2.0, 0.0)
    assert (wx, wy, wz) == pytest.approx((0.0, 2.5 * 2.0 * 0.4, 2.5 * 2.0 * 0.3))


def test_directions_turn_with_the_shot() -> None:
    a = strike(0.0, 2.0, 0.3, 0.4, 0.5, 20.0)
    b = strike(math.pi / 2, 2.0, 0.3, 0.4, 0.5, 20.0)
    assert b == pytest.approx((-a[1], a[0], -a[3], a[2], a[4]))


def test_squirt_formula() -> None:
    """tan α = (5/2)(b/R)√(1−b²/R²)/(1 + m/m_end + (5/2)(1−b²/R²)): published relation, from memory.

    m/m_end = 20 at half a radius gives about 2.7 degrees (common figure); the formula itself says 2.71.
    """
    b, ratio = 0.5, 20.0
    expected = math.atan(2.5 * b * math.sqrt(1 - b * b) / (1 + ratio + 2.5 * (1 - b * b)))
    assert squirt_rad(b, ratio) == pytest.approx(expected, rel=1e-12)
    assert math.degrees(squirt_rad(b, ratio)) == pytest.approx(2.7, abs=0.1)


def test_squirt_goes_away_from_the_side_struck_and_an_ideal_cue_has_none() -> None:
    """Right side sends the ball left of the cue's line: a positive angle."""
    assert squirt_rad(0.3, 20.0) > 0 > squirt_rad(-0.3, 20.0)
    assert squirt_rad(0.3, math.inf) == 0.0
