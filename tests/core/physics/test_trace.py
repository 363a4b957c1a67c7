"""Traces of many strokes at once, against the way of each played by itself."""

import math

import numpy as np

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics.batch import Strokes
from fandle.core.physics.trace import MOST_RAILS, Line, trace
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

POOL = STANDARDS["pool-9ft"]
RAILS = tuple(Rail)


def test_a_trace_is_the_way_of_the_ball() -> None:
    """Contacts, the stop, and where the first leg off a long rail crosses a line, of 200 strokes."""
    rng, n = np.random.default_rng(1), 200
    at, start = rng.uniform(0.0, 2 * math.pi, n), rng.uniform((0.2, 0.2), (2.3, 1.0), (n, 2))
    strokes = [Stroke(rng.uniform(1.0, 5.0), side=rng.uniform(-0.3, 0.3)) for _ in range(n)]
    rows = Strokes(at, np.array([stroke.array() for stroke in strokes]), start, np.zeros(n, np.int64))
    found = trace(rows, POOL.params()[None], Line(0, 0.3, 1))
    compared = crossed = 0
    for k, stroke in enumerate(strokes):
        place = start[k, 0] / POOL.diamond_x, start[k, 1] / POOL.diamond_y
        way = approach(Layout(POOL, "straight", (Ball("cue", *place),)), stroke, float(at[k]))
        if any(event.kind == "jaw" for event in way.events):
            continue
        rails = [event for event in way.events if event.kind == "rail"][:MOST_RAILS]
        assert [RAILS[number] for number in found.rails[k] if number >= 0] == [event.rail for event in rails]
        for event, (x, y) in zip(rails, found.at[k], strict=False):
            assert math.dist((event.x * POOL.diamond_x, event.y * POOL.diamond_y), (x, y)) < 1e-9
        last = way.events[-1]
        if last.kind == "stop":
            assert math.dist((last.x * POOL.diamond_x, last.y * POOL.diamond_y), found.rest[k]) < 1e-9
        compared += 1
        if rails and rails[0].rail is not None and rails[0].rail.is_long:
            met = crosses(way, rails[0].rail, 1, 0.3 / POOL.diamond_y)
            assert (met is None) == bool(np.isnan(found.crossed[k]))
            if met is not None:
                assert abs(met[0] * POOL.diamond_x - found.crossed[k]) < 1e-6
                crossed += 1
    assert compared > 150
    assert crossed > 30


def test_a_leg_carried_on_meets_the_rail_it_meets() -> None:
    rows = Strokes(np.array([1.1]), Stroke(3.0).array()[None], np.array([[0.4, 0.3]]), np.zeros(1, np.int64))
    found = trace(rows, POOL.params()[None])
    first = int(found.rails[0, 0])
    axis = 0 if RAILS[first].is_long else 1
    assert abs(found.carried[0, 0, first] - found.at[0, 0, axis]) < 1e-9
    assert np.isnan(found.carried[0, 0, RAILS.index(Rail.NEAR)])  # it moves away from that one
