"""Natural lines by unfolding, against shapely's reflections and against the law itself."""

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, Point
from shapely.affinity import scale
from tests.core.rig import POOL

from fandle.core.lines.marks import crossing, direction_to, marks
from fandle.core.lines.mirror import contacts, natural_direction, rail_line, unfold
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

R = POOL.ball_radius
inside_x, inside_y = st.floats(0.03, 2.5), st.floats(0.03, 1.24)
point = st.tuples(inside_x, inside_y)
orders = st.lists(st.sampled_from(list(Rail)), min_size=1, max_size=3).filter(
    lambda rails: all(a != b for a, b in itertools.pairwise(rails))
)


def shapely_image(table: Table, rails: list[Rail], target: tuple[float, float], inset: float) -> Point:
    """The same reflections by an independent library."""
    image = Point(target)
    for rail in reversed(rails):
        line = rail_line(table, rail, inset)
        origin = (0, line) if rail.is_long else (line, 0)
        image = scale(image, 1 if rail.is_long else -1, -1 if rail.is_long else 1, origin=(*origin, 0))
    return image


@given(target=point, rails=orders, inset=st.sampled_from([0.0, R]))
def test_unfold_agrees_with_shapely(target: tuple[float, float], rails: list[Rail], inset: float) -> None:
    image = shapely_image(POOL, rails, target, inset)
    assert unfold(POOL, rails, target, inset) == pytest.approx((image.x, image.y), abs=1e-12)


@settings(max_examples=200)
@given(start=point, target=point, rail=st.sampled_from(list(Rail)), inset=st.sampled_from([0.0, R]))
def test_equal_angles_and_the_target_is_met(
    start: tuple[float, float], target: tuple[float, float], rail: Rail, inset: float
) -> None:
    """M1: folded back, the line turns on the rail with equal angles and runs to the target."""
    direction = natural_direction(POOL, [rail], start, target, inset)
    assert direction is not None
    turned = contacts(POOL, [rail], start, direction, inset)
    if len(turned) != 1:
        return
    (x, y) = turned[0]
    assert LineString([start, (x, y)]).length + LineString([(x, y), target]).length == pytest.approx(
        Point(start).distance(shapely_image(POOL, [rail], target, inset)), abs=1e-9
    )


def test_similar_triangles_in_the_centre_frame() -> None:
    """M6, exact: aim = x_c + (x_t − x_c)·d_c/(d_c + d_t), distances to where the centre turns."""
    start, target = (0.4, 0.3), (1.7, 0.8)
    direction = natural_direction(POOL, [Rail.FAR], start, target, R)
    assert direction is not None
    d_c, d_t = (POOL.width - R - y for y in (start[1], target[1]))
    expected = (start[0] + (target[0] - start[0]) * d_c / (d_c + d_t)) / POOL.diamond_x
    assert marks(POOL, Rail.FAR, start, direction).centre == pytest.approx(expected, abs=1e-12)


@pytest.mark.parametrize("rail", list(Rail))
@pytest.mark.parametrize("side", [-0.03, 0.03])
def test_an_offset_passes_right_of_the_target(rail: Rail, side: float) -> None:
    """+ = to the right as seen along the last leg."""
    start, target = (0.9, 0.5), (1.6, 0.7)
    direction = natural_direction(POOL, [rail], start, target, R, side)
    assert direction is not None
    (turn,) = contacts(POOL, [rail], start, direction, R)
    dx, dy = math.cos(direction), math.sin(direction)
    dx, dy = (dx, -dy) if rail.is_long else (-dx, dy)
    left = dx * (target[1] - turn[1]) - dy * (target[0] - turn[0])
    assert left == pytest.approx(side, abs=1e-12)


def test_too_thin_has_no_line() -> None:
    assert natural_direction(POOL, [Rail.FAR], (0.5, 1.2), (0.52, 1.2), R, 3.0) is None


@given(at=st.floats(0.5, 7.5), frame=st.sampled_from(["nose", "sight", "centre"]))
def test_aims_read_back(at: float, frame: str) -> None:
    start = (1.3, 0.4)
    direction = direction_to(POOL, Rail.FAR, start, at, frame)
    assert getattr(marks(POOL, Rail.FAR, start, direction), frame) == pytest.approx(at, abs=1e-9)


def test_nose_and_sight_differ_by_about_three_tenths_at_45_degrees() -> None:
    """On a nine-foot table: 3 11/16 in of setback over 12.5 in (WPA specification, from memory)."""
    got = marks(POOL, Rail.FAR, (0.3, 0.3), math.pi / 4)
    assert got.sight is not None
    assert got.sight - got.nose == pytest.approx(0.295, abs=1e-3)


def test_a_line_along_the_rail_never_crosses_it() -> None:
    assert math.isinf(crossing(POOL, Rail.FAR, (1.0, 1.0), 0.0, 0.0))
