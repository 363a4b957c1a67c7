"""What is seen from where a ball lies, against tangent corridors cut by `shapely`; a plain twin of the corridor."""

import math

import numpy as np
import pytest
from shapely import LineString, Point, Polygon
from shapely.ops import unary_union

from fandle.core.physics.sight import clear, first_met, is_seen, sights

WIDE = 0.05715  # two radii of a pool ball
FAR = 6.0  # m, beyond the table
SLIVER = 2e-4  # m of the ball's near side: less is as good as hidden, and beyond what polygons tell


def shadow(cue: tuple[float, float], ball: tuple[float, float]) -> Polygon:
    """Everything that a ball hides: its disc, and what lies behind it between the tangents."""
    disc = Point(ball).buffer(WIDE, 256)
    away, towards = math.dist(cue, ball), math.atan2(ball[1] - cue[1], ball[0] - cue[0])
    half, long = math.asin(WIDE / away), math.sqrt(away**2 - WIDE**2)
    ends = [
        (cue[0] + d * math.cos(towards + s * half), cue[1] + d * math.sin(towards + s * half))
        for s, d in ((-1, long), (-1, FAR), (1, FAR), (1, long))
    ]
    return unary_union([disc, Polygon(ends)])


def shown(cue: tuple[float, float], ball: tuple[float, float], others: list[tuple[float, float]]) -> float:
    """How much of the near side of a ball no other hides, m."""
    long = math.sqrt(math.dist(cue, ball) ** 2 - WIDE**2)
    near: LineString = Point(ball).buffer(WIDE, 256).exterior.intersection(Point(cue).buffer(long, 1024))
    return float(near.difference(unary_union([shadow(cue, other) for other in others])).length)


def test_what_is_seen_is_what_tangent_corridors_leave() -> None:
    """300 random layouts of six balls, some of them in clusters."""
    rng = np.random.default_rng(3)
    told = hidden = 0
    for k in range(300):
        while True:
            spread = (2.3, 1.0) if k % 2 else (0.5, 0.35)
            places = rng.uniform((0.1, 0.1), spread, (6, 2)) + (0.0 if k % 2 else 0.3)
            gaps = np.hypot(*(places[:, None] - places[None]).transpose(2, 0, 1))[np.triu_indices(6, 1)]
            if gaps.min() > 1.02 * WIDE:
                break
        cue, ball, *others = [(float(x), float(y)) for x, y in places]
        length = shown(cue, ball, others)
        if 0.0 < length < SLIVER:
            continue
        assert is_seen(places[1:], 0, *cue, WIDE) == (length > 0.0), (k, length)
        told, hidden = told + 1, hidden + (length == 0.0)
    assert told > 290
    assert hidden > 20


def test_a_ball_rolls_clear_where_its_corridor_is_empty() -> None:
    rng = np.random.default_rng(4)
    for _ in range(300):
        places = rng.uniform((0.0, 0.0), (1.5, 0.8), (5, 2))
        (x, y), (to_x, to_y), *others = [(float(a), float(b)) for a, b in places]
        corridor = LineString([(x, y), (to_x, to_y)]).buffer(WIDE, 256)
        empty = not any(corridor.contains(Point(other)) for other in others)
        edge = min(abs(LineString([(x, y), (to_x, to_y)]).distance(Point(other)) - WIDE) for other in others)
        if edge > 1e-5:
            assert clear(places[2:], -1, x, y, to_x, to_y, WIDE) == empty


def test_the_nearest_ball_on_and_what_lies_before_it() -> None:
    """The 2 hides the 1 wholly, the 3 is gone; with the 2 on, it is seen."""
    rests = np.array([[(0.5, 0.5), (1.0, 0.5), (0.7, 0.5), (np.nan, np.nan)]])
    for on, seen, hider, near in (
        ((False, True, False, True), False, 2, 0.5),
        ((False, True, True, True), True, 0, 0.2),
        ((False, False, False, True), False, 0, math.inf),
    ):
        told = np.empty(1, np.bool_), np.empty(1, np.int64), np.empty(1)
        sights(rests, np.array([on]), WIDE, *told)
        assert (bool(told[0][0]), int(told[1][0])) == (seen, hider)
        assert told[2][0] == pytest.approx(near)


def test_what_is_met_first_is_the_nearest_in_line() -> None:
    balls = np.array([(1.0, 0.5), (0.7, 0.52), (np.nan, np.nan), (0.2, 0.5)])
    assert first_met(balls, 0.5, 0.5, 0.0, WIDE) == 1
    assert first_met(balls, 0.5, 0.5, math.pi, WIDE) == 3
    assert first_met(balls, 0.5, 0.5, 0.5 * math.pi, WIDE) == -1
