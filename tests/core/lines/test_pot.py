"""Kicks and straight shots that pot, against brute force and against geometry."""

import math
from collections import Counter

import pytest
from campaign import pots

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table
from fandle.formats import words
from fandle.formats.answers import AimAnswer

POOL = standard_table("pool-9ft")
FIRM = Stroke(3.0)


def laid(cue: tuple[float, float], seven: tuple[float, float], *others: Ball) -> Layout:
    return Layout(POOL, "nine-ball", (Ball("cue", *cue), Ball("7", *seven), *others), "7")


def pot_of(layout: Layout, rails: tuple[Rail, ...], pocket: str, stroke: Stroke = FIRM) -> Solution:
    found = solve_pot(layout, rails, stroke, pocket=pocket)
    assert isinstance(found, Aim)
    assert found.best.pot is not None
    return found.best


def test_what_is_called_a_pot_pots_and_what_is_not_has_none_by_brute_force() -> None:
    """The short form of the campaign's part "pots"."""
    said: Counter[str] = Counter()
    for seed in range(28):
        what, fault = pots.fault_of(pots.case(seed))
        assert not fault, (seed, fault)
        said[what] += 1
    assert said["pot"] > 8
    assert said["no pot"] > 2


def test_a_straight_in_forgives_what_geometry_says() -> None:
    """Cue ball, ball and pocket in line on the axis: the ball may leave so far off that it still passes the jaws.

    Common practice, no published source: a metre to the ball and a metre to the pocket forgives about ±0.097°. Here
    a ball that drops off a jaw counts as well, which adds up to a half.
    """
    assert POOL.pockets is not None
    aside, diagonal, each = POOL.pockets.corner_gap / 2, math.sqrt(0.5), 0.7
    at = [
        (
            (POOL.length - aside - away * diagonal) / POOL.diamond_x,
            (POOL.width - aside - away * diagonal) / POOL.diamond_y,
        )
        for away in (2 * each, each)
    ]
    best = pot_of(laid(at[0], at[1]), (), "foot-far", Stroke(2.5))
    assert abs(best.hit) < 0.01
    assert best.pot is not None
    lever = 1 / (2 * POOL.ball_radius) - 1  # of a metre: the ball's direction changes so much more than the cue's
    passes = math.tan(math.radians(0.097) * lever)
    wanted = math.degrees(math.atan(passes / each)) / (each / (2 * POOL.ball_radius) - 1)
    assert wanted < best.pot.window_deg / 2 < 1.5 * wanted


def test_both_windows_are_told_and_the_pots_lies_in_the_hits() -> None:
    best = pot_of(laid((2.0, 1.0), (6.2, 2.9)), (Rail.NEAR,), "foot-far")
    assert best.pot is not None
    assert 0 < best.pot.less_mm + best.pot.more_mm < best.window_mm
    assert best.pot.less_mm <= best.window_less_mm
    assert best.pot.more_mm <= best.window_more_mm


def test_the_thickness_is_the_aims_own_and_its_chain_adds_up() -> None:
    layout = laid((2.0, 1.0), (6.2, 2.9))
    found = solve_pot(layout, (Rail.NEAR,), FIRM, pocket="foot-far")
    assert isinstance(found, Aim)
    best = found.best
    assert best.miss_mm < 1e-3
    assert best.fullness == pytest.approx(1 - abs(best.hit), abs=1e-6)
    assert sum(link.shift for link in found.chain) == pytest.approx(best.corrected.nose - best.mirror.nose, abs=1e-9)


def test_mirrored_across_the_table_the_pot_is_the_mirrored_one() -> None:
    one = pot_of(laid((2.0, 1.0), (6.2, 2.9)), (Rail.NEAR,), "foot-far")
    other = pot_of(laid((2.0, 3.0), (6.2, 1.1)), (Rail.FAR,), "foot-near")
    assert other.hit == pytest.approx(-one.hit, abs=1e-6)
    assert one.pot is not None
    assert other.pot is not None
    assert other.pot.window_deg == pytest.approx(one.pot.window_deg, abs=1e-4)


def test_the_cue_ball_is_kept_up_where_it_can_be_and_told_of_where_it_cannot() -> None:
    """A ball that hangs straight ahead: full follows it in (trade 6b); some thickness pots it and stays up."""
    layout = laid((5.0, 2.4), (7.88, 3.88))
    best = pot_of(layout, (), "foot-far", Stroke(3.0, 0.0, 0.3))
    assert best.pot is not None
    assert not best.pot.in_off
    shot = play(layout, Stroke(3.0, 0.0, 0.3), math.atan2((3.88 - 2.4) * POOL.diamond_y, (7.88 - 5.0) * POOL.diamond_x))
    assert {name for name, _ in shot.potted} == {"7", "cue"}
    assert "cue" not in {name for name, _ in play(layout, Stroke(3.0, 0.0, 0.3), best.direction).potted}


def test_a_pot_off_another_ball_names_it() -> None:
    """The 7 goes in off the 2 that stands beside its way."""
    layout = laid((4.0, 2.0), (6.6, 2.6), Ball("2", 7.55, 3.62))
    found = solve_pot(layout, (), FIRM, pocket="foot-far")
    assert isinstance(found, Aim)
    through = {one.pot.through for one in found.solutions if one.pot is not None}
    assert ("7", "2") in through


def test_any_pocket_is_the_widest_of_the_safe_ones() -> None:
    layout = laid((3.0, 1.2), (6.0, 2.6))
    found = solve_pot(layout, (), FIRM, pocket="any")
    assert isinstance(found, Aim)
    told = [one.pot for one in found.solutions if one.pot is not None]
    assert len({pot.pocket for pot in told}) > 1
    assert [(pot.in_off, -pot.window_deg) for pot in told] == sorted((pot.in_off, -pot.window_deg) for pot in told)


def test_where_no_thickness_pots_it_is_said_and_a_bad_pocket_is_refused() -> None:
    layout = laid((3.0, 1.2), (6.0, 2.6))
    none = solve_pot(layout, (), FIRM, pocket="head-near")
    assert isinstance(none, Refusal)
    assert (none.reason_code, none.reason) == (
        "no_pot", "the 7 is hit straight, but no thickness sends it into head-near",
    )  # fmt: skip
    with pytest.raises(BadInputError, match="unknown pocket 'top'"):
        solve_pot(layout, (), FIRM, pocket="top")
    carom = Layout(standard_table("carom-10ft"), "three-cushion", (Ball("cue", 1, 1), Ball("red", 4, 2)), "red")
    with pytest.raises(BadInputError, match="has no pockets"):
        solve_pot(carom, (), FIRM, pocket="any")


def test_a_combination_is_found_where_the_ball_itself_does_not_go() -> None:
    """The 2 drives the 9 home: the aim is at the 2, and what happens when it is played is what was said."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", 4.5, 1.8), Ball("2", 6.6, 0.9), Ball("9", 7.3, 0.45)), "9")
    found = solve_pot(layout, (), Stroke(3.0))
    assert isinstance(found, Aim)
    best = found.best
    assert best.pot is not None
    assert (best.target, best.pot.ball, best.pot.through, best.pot.pocket) == ("2", "9", ("2", "9"), "foot-near")
    assert best.pot.window_deg > 0.1
    assert sum(link.shift for link in found.chain) == pytest.approx(best.corrected.nose - best.mirror.nose, abs=1e-6)
    shot = play(layout, Stroke(3.0), best.direction)
    assert shot.potted == (("9", "foot-near"),)
    assert "on the 2, on to the 9" in words.aim(found)
    assert AimAnswer.of_aim(found).target == "9"


def test_a_run_with_a_hole_in_its_middle_is_aimed_beside_it() -> None:
    """Found by the campaign: a kiss in the middle of the directions that pot."""
    asked = pots.case(162)
    assert pots.fault_of(asked) == ("pot", "")
