"""Banks counted by natural pairs: pairs that end in the pocket, both contact points, the shift and its warning.

Worked examples: common practice, no published source.
"""

import math

import pytest
from tests.conftest import all_counts

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.solution import Aim
from fandle.core.systems.banks import bank_count
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.registry import counted
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL = standard_table("pool-9ft")
Place = tuple[float, float]


def lay(ball: Place, cue: Place, *others: Ball) -> Layout:
    return Layout(POOL, "nine-ball", (Ball("cue", *cue), Ball("7", *ball), *others), "7")


def bank(layout: Layout, rail: Rail = Rail.FAR, pocket: str | None = "side-near") -> Count:
    found = bank_count(layout, (rail,), pocket=pocket)
    assert isinstance(found, Count), found
    return found


def on_pair(n: float, zero: float, y: float) -> Place:
    """A place on the line from n to n/2 that comes back to the pocket at `zero`, `y` diamonds up."""
    return zero - n + n / 2 * y / 4, y


def behind(ball: Place, n: float) -> Place:
    """A cue ball straight behind the ball on its pair."""
    dx, dy = n / 2, 4.0
    size = math.hypot(dx, dy)
    return ball[0] - 1.2 * dx / size, ball[1] - 1.2 * dy / size


@pytest.mark.parametrize("n", [1.0, 1.5, 2.0, 2.5, 3.0])
@pytest.mark.parametrize("pocket", ["side-near", "foot-near"])
def test_a_ball_on_a_natural_pair_is_banked_without_a_shift(n: float, pocket: str) -> None:
    """2→1, 3→1½ into the side, and the same into the corner: it is the pair itself, and played it drops."""
    zero = 4.0 if pocket == "side-near" else 8.0
    ball = on_pair(n, zero, 1.5)
    found = bank(lay(ball, behind(ball, n)), pocket=pocket)
    assert found.steps == (f"{n:g} ÷ 2 = {n / 2:g}",)
    assert found.aim.nose == pytest.approx(zero - n / 2, abs=1e-9)
    assert found.contact is not None
    assert found.contact.cut_deg < 1.0
    assert found.potted


def test_both_contact_points_are_given() -> None:
    """The ghost lies two radii behind the ball, on the line from the mark through its centre."""
    layout = lay((2.6, 1.2), (1.4, 0.5))
    found = bank(layout)
    assert found.contact is not None
    (gx, gy), (bx, by) = found.contact.ghost, (2.6, 1.2)
    reach = math.hypot((gx - bx) * POOL.diamond_x, (gy - by) * POOL.diamond_y)
    assert reach == pytest.approx(2 * POOL.ball_radius, abs=1e-9)
    run = (4 - gy) / (by - gy)
    assert gx + run * (bx - gx) == pytest.approx(found.aim.nose, abs=1e-9)


def test_the_nearest_pair_is_shifted_and_comes_back_as_much_beside() -> None:
    """Shifted by s through the ball, two mirrors' worth of it ends s beside the pocket (geometry)."""
    layout = lay((1.9, 1.0), (0.9, 0.4))
    found = bank(layout)
    number, shift = found.steps[0].split(" ÷ ")[0], found.steps[1]
    assert float(number) * 2 == int(float(number) * 2)
    assert f"Of the natural pairs that end in side-near, {number} to {float(number) / 2:g} passes nearest" in found.say
    moved = float(shift.split(" = ")[0].replace("−", "-").replace(" ", "").split("+" if "+" in shift else "-")[-1])
    mark = found.aim.nose
    ball = layout.ball("7")
    back = mark + (mark - ball.x) / (4 - ball.y) * 4
    assert abs(back - 4.0) == pytest.approx(moved, abs=0.011)
    assert "expect to miss" not in found.say


def test_a_long_shift_warns_and_does_miss() -> None:
    """Common practice: shifting far from a wrong pair misses badly."""
    lengthwise = [(x, y) for x in (4.6, 5.2, 5.8) for y in (3.2, 3.5)]
    found = [
        bank_count(lay(ball, (ball[0] - 0.9, ball[1] - 0.1)), (Rail.FOOT,), pocket="head-near") for ball in lengthwise
    ]
    far = [c for c in found if isinstance(c, Count) and "expect to miss" in c.say]
    assert len(far) >= 3
    assert not any(c.potted for c in far)
    assert min(c.lands.off_balls for c in far) > 1.0


def test_a_cut_is_played_firmer() -> None:
    """Cut, the object ball gets the cosine's share of the speed: still the pairs drop."""
    ball = on_pair(2.0, 8.0, 1.5)
    straight = bank(lay(ball, behind(ball, 2.0)), pocket="foot-near")
    cut = bank(lay(ball, (ball[0] - 0.9, ball[1] - 0.6)), pocket="foot-near")
    assert cut.contact is not None
    assert cut.contact.cut_deg > 25
    assert cut.stroke.speed > 1.1 * straight.stroke.speed


def test_the_pair_agrees_with_the_solved_bank_where_it_drops() -> None:
    layout = lay((2.6, 1.2), (1.4, 0.5))
    found = bank(layout)
    solved = solve_bank(layout, (Rail.FAR,), found.stroke, pocket="side-near")
    assert isinstance(solved, Aim)
    assert found.aim.nose == pytest.approx(solved.best.corrected.nose, abs=0.25)


def test_without_pocket_or_rail_the_best_landing_leads() -> None:
    layout = lay((2.6, 1.2), (1.4, 0.5))
    one = counted("M3", layout, kind="bank")
    assert isinstance(one, Count)
    assert one.lands.off_balls <= bank(layout).lands.off_balls
    ranked = all_counts(layout, kind="bank")
    assert isinstance(ranked[0], Count)
    assert all("counts kicks" in c.reason for c in ranked[1:] if isinstance(c, NoCount))


def test_what_cannot_be_banked_says_why() -> None:
    def why(layout: Layout, rails: tuple[Rail, ...] | None, pocket: str | None) -> str:
        found = bank_count(layout, rails, pocket=pocket)
        assert isinstance(found, NoCount)
        return found.reason

    layout = lay((2.6, 1.2), (1.4, 0.5))
    assert "over one rail" in why(layout, (Rail.FAR, Rail.NEAR), None)
    assert "no pair over the far rail ends in side-far" in why(layout, (Rail.FAR,), "side-far")
    assert "wrong side" in why(lay((2.6, 1.2), (4.0, 3.0)), (Rail.FAR,), "side-near")
    assert "straight opposite" in why(lay((4.1, 1.2), (4.0, 0.5)), (Rail.FAR,), "side-near")
    assert "against the far rail" in why(lay((2.6, 3.91), (1.4, 0.5)), (Rail.FAR,), "side-near")
    with pytest.raises(BadInputError, match="unknown pocket"):
        bank_count(layout, None, pocket="hole")
    carom = Layout(standard_table("carom-10ft"), "three-cushion", (Ball("cue", 1, 1), Ball("red", 3, 1)), "red")
    assert "no pockets" in why(carom, None, None)


def test_what_lies_in_the_way_is_told() -> None:
    free = bank(lay((2.6, 1.2), (1.4, 0.5)))
    assert free.blocked == ""
    assert "in the way of the 7" in bank(lay((2.6, 1.2), (1.4, 0.5), Ball("2", 3.0, 2.4))).blocked
    assert "the 2 is in the way of the cue ball" in bank(lay((2.6, 1.2), (1.4, 0.5), Ball("2", 2.0, 0.82))).blocked


@pytest.mark.parametrize(("pocket", "zero"), [("head-near", 0.0), ("side-near", 4.0), ("foot-near", 8.0)])
def test_pairs_are_counted_from_the_corner_of_the_noses_or_the_sides_middle(pocket: str, zero: float) -> None:
    n = 2.0 if pocket != "head-near" else -2.0
    ball = on_pair(n, zero, 1.5)
    found = bank(lay(ball, behind(ball, n)), pocket=pocket)
    assert [number.at for number in found.numbers if number.role == "zero"] == [zero]
    assert found.aim.nose == pytest.approx(zero - n / 2, abs=1e-9)
