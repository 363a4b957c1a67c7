"""Where many balls arrive at once, against the reading of each one played by itself."""

import math

import numpy as np
import pytest

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics.arrive import Goal, arrive
from fandle.core.physics.batch import Strokes
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.played import landing
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, usual_game

MM = 1e-3


@pytest.mark.parametrize("name", sorted(STANDARDS))
def test_arrivals_are_the_landings_of_the_same_shots(name: str) -> None:
    """600 strokes to a place over whatever rails they meet: off and beside to a thousandth of a millimetre."""
    table, rng, compared = STANDARDS[name], np.random.default_rng(4), 0
    for _ in range(600):
        place, goal = rng.uniform((0.3, 0.3), (7.7, 3.7)), rng.uniform((0.2, 0.2), (7.8, 3.8))
        stroke = Stroke(rng.uniform(0.6, 5.0), side=rng.uniform(-0.3, 0.3), up=rng.uniform(-0.2, 0.2))
        direction = float(rng.uniform(0.0, 2 * math.pi))
        layout = Layout(table, usual_game(table), (Ball("cue", *place.tolist()),))
        met = approach(layout, stroke, direction).rails[:3]
        if not met:
            continue
        rails = met[: int(rng.integers(1, len(met) + 1))]
        shot = approach(layout, stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
        wanted = landing(layout, rails, (float(goal[0]), float(goal[1])), shot)
        rows = Strokes(
            np.array([direction]), stroke.array()[None], np.array([layout.metres(layout.cue)]), np.zeros(1, np.int64)
        )
        x, y = goal[0] * table.diamond_x, goal[1] * table.diamond_y
        numbers = np.array([rail.number for rail in rails])
        found = arrive(rows, table.params(), numbers, Goal(x, y, 0 if rails[-1].is_long else 1))
        if wanted is None:
            assert math.isnan(found.off[0])
            continue
        unit = table.diamond_x if rails[-1].is_long else table.diamond_y
        assert abs(found.off[0] - wanted.off * unit) < 1e-3 * MM
        assert abs(abs(found.past[0]) - wanted.off_balls * 2 * table.ball_radius) < 1e-3 * MM
        compared += 1
    assert compared > 150


def test_what_meets_other_rails_does_not_arrive() -> None:
    table = STANDARDS["pool-9ft"]
    rows = Strokes(np.array([0.0]), Stroke(3.0).array()[None], np.array([[0.6, 0.6]]), np.zeros(1, np.int64))
    for rails in ([Rail.FAR], [Rail.HEAD], [Rail.FOOT, Rail.FAR]):
        found = arrive(rows, table.params(), np.array([rail.number for rail in rails]), Goal(1.0, 0.6, 0))
        assert math.isnan(found.off[0])


def test_a_ball_that_rests_at_the_target_is_carried_on_the_way_it_came() -> None:
    """It stops a ball short of the level of its target: carried on straight it would come there, not anywhere."""
    table = STANDARDS["pool-9ft"]
    layout = Layout(table, "nine-ball", (Ball("cue", 2.0, 1.0),))
    up = math.pi / 2 - 0.3
    slow = Stroke(1.4)
    rest = approach(layout, slow, up).events[-1]
    assert rest.kind == "stop"
    assert rest.y < 3.5
    shot = approach(layout, slow, up, most_rails=2, ignore_balls=True)
    goal = rest.x, rest.y - 0.15  # less than a ball further on
    found = landing(layout, (Rail.FAR,), goal, shot)
    assert found is not None
    assert abs(found.off) < 0.2
