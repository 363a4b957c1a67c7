"""The back of the side pocket and the edges of jaws, against places counted by hand."""

import math

import pytest

from fandle.core.lines.pocket_sights import back_of_side, beside_jaw
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

POOL, CAROM = STANDARDS["pool-9ft"], STANDARDS["carom-10ft"]


def test_a_line_square_to_the_pocket_points_at_the_middle_of_its_back() -> None:
    start = (4 * POOL.diamond_x, 1.0 * POOL.diamond_y)
    seen = back_of_side(POOL, Rail.FAR, start, math.pi / 2)
    assert seen == ("side-far", pytest.approx(0.0, abs=1e-9))
    aside = back_of_side(POOL, Rail.FAR, (start[0] + 0.02, start[1]), math.pi / 2)
    assert aside == ("side-far", pytest.approx(20.0, abs=1e-6))


def test_a_slanting_line_meets_the_rail_before_the_pocket_and_still_points_at_its_back() -> None:
    """From (1, 0.5) at 45° or so: the nose is crossed short of the pocket, the back behind it is pointed at."""
    start = (1 * POOL.diamond_x, 0.5 * POOL.diamond_y)
    mouth = next(each for each in mouths(POOL) if each.name == "side-far")
    deep = mouth.middle[1] + 0.5 * math.dist(mouth.first, mouth.second)
    direction = math.atan2(deep - start[1], 4 * POOL.diamond_x - start[0])
    seen = back_of_side(POOL, Rail.FAR, start, direction)
    assert seen is not None
    assert abs(seen.off_mm) < 8.0  # the mouth's line lies a hair behind the nose's
    assert back_of_side(POOL, Rail.FAR, start, math.pi / 2) is None


def test_there_is_none_without_pockets_or_on_a_short_rail() -> None:
    assert back_of_side(CAROM, Rail.FAR, (1.0, 0.5), 0.8) is None
    assert back_of_side(POOL, Rail.FOOT, (1.0, 0.5), 0.0) is None
    assert beside_jaw(CAROM, Rail.FAR, 4.0) is None


def test_a_mark_near_a_jaw_is_told_from_its_edge() -> None:
    mouth = next(each for each in mouths(POOL) if each.name == "side-far")
    edge = max(mouth.first[0], mouth.second[0])
    seen = beside_jaw(POOL, Rail.FAR, (edge + 0.03) / POOL.diamond_x)
    assert seen == ("side-far", pytest.approx(30.0, abs=1e-6))
    assert beside_jaw(POOL, Rail.FAR, 2.0) is None
    assert beside_jaw(POOL, Rail.FOOT, 2.0) is None
