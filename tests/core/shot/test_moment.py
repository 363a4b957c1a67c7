"""The moment of contact, against the geometry of two balls that touch."""

import math

import pytest

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

POOL = STANDARDS["pool-9ft"]
LAYOUT = Layout(POOL, "nine-ball", (Ball("cue", 2.0, 2.0), Ball("7", 5.0, 2.0)), "7")


@pytest.mark.parametrize("hit", [-0.8, -0.5, 0.0, 0.3, 0.9])
def test_a_straight_hit_is_as_thick_as_it_was_aimed(hit: float) -> None:
    away = 3 * POOL.diamond_x
    direction = -math.asin(hit * 2 * POOL.ball_radius / away)  # right of full is clockwise
    moment = moment_of(LAYOUT, play(LAYOUT, Stroke(2.0), direction))
    assert moment is not None
    assert moment.hit == pytest.approx(hit, abs=0.001)
    assert moment.fullness == pytest.approx(1 - abs(hit), abs=0.001)
    assert moment.cut_deg == pytest.approx(math.degrees(math.asin(abs(hit))), abs=0.1)
    assert math.dist(moment.cue, moment.ball) == pytest.approx(2 * POOL.ball_radius, abs=1e-6)
    assert moment.comes == pytest.approx(direction, abs=1e-6)
    assert moment.rail is None
    assert moment.driven is not None  # along the line of centres, thrown by a few degrees at most
    centres = math.atan2(moment.ball[1] - moment.cue[1], moment.ball[0] - moment.cue[0])
    assert abs(math.degrees(moment.driven - centres)) < 6.0


def test_a_kicks_moment_knows_its_rail_and_a_miss_has_none() -> None:
    layout = Layout(POOL, "nine-ball", (Ball("cue", 1.0, 1.0), Ball("7", 5.2, 1.0)), "7")
    moment = moment_of(layout, play(layout, Stroke(3.0), math.atan2(3.0, 2.0)))
    assert moment is not None
    assert moment.rail is not None
    assert moment.rail[0] is Rail.FAR
    assert moment.rail[1][1] == pytest.approx(POOL.width - POOL.ball_radius, abs=1e-6)
    assert moment_of(layout, play(layout, Stroke(1.0), math.pi)) is None


def test_a_frozen_ball_is_met_at_once() -> None:
    touching = 2 * POOL.ball_radius / POOL.diamond_x
    layout = Layout(POOL, "nine-ball", (Ball("cue", 3.0, 2.0), Ball("7", 3.0 + touching, 2.0)), "7")
    moment = moment_of(layout, play(layout, Stroke(1.0), 0.0))
    assert moment is not None
    assert moment.ball_id == "7"
    assert moment.hit == pytest.approx(0.0, abs=1e-3)
