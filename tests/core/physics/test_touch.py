"""When a ball on a parabola touches another: against numpy's polynomial roots and a fine search."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fandle.core.physics.state import Arc
from fandle.core.physics.touch import first_touch, nearest_time

coordinate = st.floats(-2, 2)
REACH = 0.05715


@settings(max_examples=300, deadline=None)
@given(
    d=st.tuples(coordinate, coordinate),
    v=st.tuples(coordinate, coordinate),
    a=st.tuples(coordinate, coordinate),
)
def test_first_touch_agrees_with_numpy_roots(
    d: tuple[float, float], v: tuple[float, float], a: tuple[float, float]
) -> None:
    if math.hypot(*d) < REACH + 1e-3:
        return
    ours = first_touch(Arc(*d, *v, *a), REACH, 3.0)
    square = np.polyadd(
        np.polymul([a[0] / 2, v[0], d[0]], [a[0] / 2, v[0], d[0]]),
        np.polymul([a[1] / 2, v[1], d[1]], [a[1] / 2, v[1], d[1]]),
    )
    square[-1] -= REACH**2
    times = np.linspace(0, 3, 6001)
    inside = np.flatnonzero(np.polyval(square, times) < -1e-9)
    if math.isinf(ours):
        assert inside.size == 0
    else:
        assert abs(np.polyval(square, ours)) < 1e-9
        assert inside.size == 0 or ours <= times[inside[0]] + 1e-9


@settings(max_examples=200, deadline=None)
@given(
    d=st.tuples(coordinate, coordinate),
    v=st.tuples(coordinate, coordinate),
    a=st.tuples(coordinate, coordinate),
)
def test_nearest_time_agrees_with_a_fine_search(
    d: tuple[float, float], v: tuple[float, float], a: tuple[float, float]
) -> None:
    def away(t: float) -> float:
        return math.hypot(d[0] + t * (v[0] + a[0] * t / 2), d[1] + t * (v[1] + a[1] * t / 2))

    ours = nearest_time(Arc(*d, *v, *a), 2.0)
    assert 0 <= ours <= 2
    assert away(ours) <= min(away(t) for t in np.linspace(0, 2, 801)) + 1e-9


@pytest.mark.parametrize(
    ("d", "v", "expected"),
    [
        ((REACH, 0.0), (-1.0, 0.0), 0.0),  # frozen and pushed
        ((REACH, 0.0), (1.0, 0.0), math.inf),  # frozen and parting
        ((REACH, 0.0), (0.0, 1.0), math.inf),  # frozen and sliding past
        ((1.0, REACH * 1.0001), (-1.0, 0.0), math.inf),  # passes by a hair
        ((1.0, 0.0), (-1.0, 0.0), 1.0 - REACH),
    ],
)
def test_frozen_and_grazing_balls(d: tuple[float, float], v: tuple[float, float], expected: float) -> None:
    assert first_touch(Arc(*d, *v, 0.0, 0.0), REACH, 5.0) == pytest.approx(expected, abs=1e-12)
