"""Traces of many strokes at once, against the way of each played by itself."""

import math
from dataclasses import replace

import numpy as np

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics.batch import Strokes
from fandle.core.physics.trace import MOST_RAILS, Line, trace, trace_by_rail
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


def test_a_trace_to_a_rail_is_the_beginning_of_the_whole() -> None:
    rng, n = np.random.default_rng(2), 60
    at, start = rng.uniform(0.0, 2 * math.pi, n), rng.uniform((0.2, 0.2), (2.3, 1.0), (n, 2))
    rows = Strokes(at, np.tile(Stroke(3.5, side=0.2).array(), (n, 1)), start, np.zeros(n, np.int64))
    whole, part = (trace(rows, POOL.params()[None], most=most) for most in (None, np.full(n, 2)))
    assert np.array_equal(part.rails[:, :2], whole.rails[:, :2])
    assert np.array_equal(part.at[:, :2], whole.at[:, :2], equal_nan=True)
    assert np.array_equal(part.carried[:, :2], whole.carried[:, :2], equal_nan=True)
    assert (part.rails[:, 2:] < 0).all()
    assert (whole.rails[:, 2] >= 0).sum() > n / 2


def test_a_table_of_four_alike_rails_plays_as_one_of_one_rubber() -> None:
    """Rail by rail is the same to the last digit; another restitution shows after its own rail and not before."""
    rng, n = np.random.default_rng(8), 120
    at, start = rng.uniform(0.0, 2 * math.pi, n), rng.uniform((0.2, 0.2), (2.3, 1.0), (n, 2))
    strokes = np.array([Stroke(rng.uniform(1.0, 4.0), side=rng.uniform(-0.3, 0.3)).array() for _ in range(n)])
    rows = Strokes(at, strokes, start, np.zeros(n, np.int64))
    whole, alike = trace(rows, POOL.params()[None]), trace_by_rail(rows, np.stack([POOL.params()] * 4)[None])
    assert np.array_equal(whole.rails, alike.rails)
    assert np.array_equal(whole.at, alike.at, equal_nan=True)
    few = whole.rails[:, -1] < 0  # else more rails follow than are written down
    assert np.array_equal(whole.rest[few], alike.rest[few], equal_nan=True)
    dead = replace(POOL, cushion_restitution=POOL.cushion_restitution - 0.1)
    odd = trace_by_rail(rows, np.stack([(dead if rail is Rail.FAR else POOL).params() for rail in RAILS])[None])
    changed = 0
    for k in range(n):
        first = next((i for i, rail in enumerate(whole.rails[k]) if RAILS[rail] is Rail.FAR and rail >= 0), MOST_RAILS)
        assert np.array_equal(whole.at[k, : first + 1], odd.at[k, : first + 1], equal_nan=True)
        if first + 1 < MOST_RAILS and whole.rails[k, first + 1] >= 0:
            changed += not np.array_equal(whole.at[k, first + 1], odd.at[k, first + 1])
    assert changed > 30
