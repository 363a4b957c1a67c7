"""What holds for every count: numbers inside its scale, jaws told, balls in the way told, balls where they lie.

Properties of our own; the scales are common practice, no published source.
"""

import re
from collections.abc import Iterator

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.conftest import all_counts

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.approach import Approach
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.systems.banks import bank_count
from fandle.core.systems.base import Count, Landing, NoCount
from fandle.core.systems.catalogue import METHODS, orders_of
from fandle.core.systems.played import Aiming
from fandle.core.systems.registry import best_count, count, other_rails
from fandle.core.systems.verdict import verdict_of
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, standard_table, usual_game

POOL = standard_table("pool-9ft")
FAR, FOOT, NEAR, HEAD = Rail.FAR, Rail.FOOT, Rail.NEAR, Rail.HEAD
SCALES = {  # least and greatest number a system writes
    "M2": (0, 8), "M3": (0, 8), "M4": (0, 80), "M5": (0, 40), "M11": (0, 9), "M14": (0, 90), "M17": (0, 9),
    "M18": (0, 42),
}  # fmt: skip
along = st.one_of(st.floats(0.3, 7.7), st.sampled_from([0.12, 7.88]))
across = st.one_of(st.floats(0.3, 3.7), st.sampled_from([0.12, 3.88]))


def lay(cue: tuple[float, float], target: tuple[float, float], *others: Ball, table: Table = POOL) -> Layout:
    game = usual_game(table)
    name = {"snooker": "red1", "three-cushion": "red"}.get(game, "7")
    return Layout(table, game, (Ball("cue", *cue), Ball(name, *target), *others), name)


def all_of(layout: Layout) -> Iterator[Count]:
    for method in METHODS:
        for rails in orders_of(method):
            found = count(method, layout, rails)
            if isinstance(found, Count):
                yield found


@pytest.mark.parametrize(
    "table", [table for table in STANDARDS.values() if table.pockets], ids=lambda table: table.name
)
@pytest.mark.parametrize("y", [0.0, 4.0])
@pytest.mark.parametrize("hangs", ["cue", "target"])
def test_a_ball_on_the_nose_line_breaks_no_system(
    table: Table, y: float, hangs: str, caplog: pytest.LogCaptureFixture
) -> None:
    """In a side pocket's mouth a ball's centre may lie on the nose line: no distance from that rail to divide by."""
    for place in ((1.0, 0.5), (3.1, 3.1), (6.2, 2.0)):
        layout = lay((4.0, y), place, table=table) if hangs == "cue" else lay(place, (4.0, y), table=table)
        found = [count(method, layout, rails) for method in METHODS for rails in orders_of(method)]
        assert not caplog.records
        assert sum(isinstance(one, Count) for one in found) > 10


def test_systems_that_measure_from_the_edge_say_that_the_ball_hangs_over_it() -> None:
    layout = lay((1.0, 0.5), (4.0, 0.0))
    for method in ("M3", "M8"):
        found = count(method, layout, (NEAR,))
        assert isinstance(found, NoCount)
        assert "the 7 hangs over the edge of the near rail" in found.reason


@settings(max_examples=25, deadline=None)
@given(cue=st.tuples(along, across), target=st.tuples(along, across), table=st.sampled_from(list(STANDARDS.values())))
def test_numbers_stay_in_their_scale_and_jaws_are_told(
    cue: tuple[float, float], target: tuple[float, float], table: Table
) -> None:
    try:
        layout = lay(cue, target, table=table)
    except BadInputError:
        return  # in a pocket, in a jaw, on one another
    ball = layout.ball(layout.target or "")
    for found in all_of(layout):
        low, high = SCALES.get(found.method, (float("-inf"), float("inf")))
        for number in found.numbers:
            assert -1e-9 <= number.at <= number.rail.diamonds + 1e-9, (found.method, number)
            if found.method in SCALES and number.label not in ("end", "start"):
                assert low <= float(number.label.replace("−", "-")) <= high, (found.method, number)
        assert sum(number.role == "aim" for number in found.numbers) <= 1
        # no jaw and no pocket on the way, unless the target is met before
        assert found.shot.rails[: len(found.rails)] == found.rails
        stopped = found.shot.events[-1].pocket is not None
        last = found.rails[-1]
        arrives = crosses(found.shot, last, len(found.rails), last.across(ball.x, ball.y), carry=False)
        assert not stopped or arrives is not None or found.lands.off_balls < 1.0


ARITHMETIC = re.compile(r"[-0-9.+×÷() ]+")


def evaluated(step: str) -> tuple[float, float] | None:
    """Both sides of a step that is a sum; None for one in words."""
    plain = step.replace("−", "-").replace(" diamonds", "")
    left, equals, right = re.sub(r"^(moved [0-9.]+ parallel:|start|target) ", "", plain).rpartition(" = ")
    if not equals or not ARITHMETIC.fullmatch(left) or not re.search(r"[+×÷-] ", left):
        return None
    return float(eval(left.replace("×", "*").replace("÷", "/"))), float(right)


@settings(max_examples=25, deadline=None)
@given(cue=st.tuples(along, across), target=st.tuples(along, across))
def test_sums_add_up_as_they_are_written(cue: tuple[float, float], target: tuple[float, float]) -> None:
    """Whoever checks a step with the numbers on the page gets the number on the page."""
    try:
        layout = lay(cue, target)
    except BadInputError:
        return
    for found in all_of(layout):
        sums = [both for step in found.steps if (both := evaluated(step)) is not None]
        assert sums or found.method not in ("M2", "M3", "M4", "M5", "M6", "M7", "M14", "M15", "M18"), found.steps
        for left, right in sums:
            assert left == pytest.approx(right, abs=0.0051), found.steps


def test_systems_without_numbers_give_contact_marks_with_angles() -> None:
    """M1, M9, M12, M13, M19: a mark a rail, its angles as the label, and steps that name them (contract)."""
    layout = lay((1.3, 1.2), (5.4, 1.6))
    ways = {"M1": (FAR,), "M9": (FAR,), "M12": (FAR, FOOT), "M13": (FAR, FOOT), "M19": (FOOT, FAR, HEAD, NEAR)}
    for method, rails in ways.items():
        found = count(method, layout, rails)
        assert isinstance(found, Count), found
        assert [n.rail for n in found.numbers] == list(rails), method
        assert all(re.fullmatch(r"\d+°( \d+°)?", n.label) for n in found.numbers), method
        assert "in " in found.steps[0]
        assert "out " in found.steps[0]


def test_a_jaw_is_told_with_the_neighbouring_choice() -> None:
    """M7, as the trade has it: where the mark is a jaw, say so and offer the neighbour."""
    found = count("M7", lay((2.1, 0.6), (5.9, 0.6)), (FAR,))
    assert isinstance(found, NoCount)
    assert "side-far" in found.reason
    mark = float(found.reason.partition("neighbouring choice ")[2].split()[0])
    assert 0.2 < abs(mark - 4.0) < 0.6
    assert found.reason.endswith(("short", "long", "on"))
    alone = best_count("M7", lay((2.2, 2.0), (5.8, 2.0)))  # half way between both long rails: jaws on either
    assert isinstance(alone, NoCount)
    assert alone.reason.count("neighbouring choice") == 2


class _OpenAt(Aiming):
    """Every mark is spoiled but one."""

    def play(self, at: float) -> tuple[float, Approach, Landing | None]:
        direction, shot, lands = super().play(at)
        return direction, shot, lands if at == pytest.approx(OPEN_MARK) else None


OPEN_MARK = 5.2


def test_the_neighbouring_choice_is_no_further_than_a_player_would_look() -> None:
    """At most 1.2 diamonds away, to either side."""
    layout = lay((2.0, 0.5), (6.0, 0.5))
    aiming = _OpenAt(layout, (FAR,), "nose", Stroke(3.0), (6.0, 0.5))
    assert "neighbouring choice 5.2 is open" in aiming.neighbour(4.0)
    assert "neighbouring choice 5.2 is open" in aiming.neighbour(6.4)
    assert aiming.neighbour(3.95) == aiming.neighbour(6.45) == ""


class _OpenEverywhere(Aiming):
    """No mark is spoiled, whatever is asked of it."""

    def play(self, at: float) -> tuple[float, Approach, Landing | None]:
        direction, shot, _ = super().play(3.0)
        return direction, shot, super().play(5.2)[2]


def test_the_neighbouring_choice_lies_on_the_rail() -> None:
    """Of a mark at the end of the rail the neighbour is the one inside, of one at 8 as of one at 0."""
    aiming = _OpenEverywhere(lay((2.0, 0.5), (6.0, 0.5)), (FAR,), "nose", Stroke(3.0), (6.0, 0.5))
    assert "neighbouring choice 0.05 is open" in aiming.neighbour(0.0)
    assert "neighbouring choice 7.95 is open" in aiming.neighbour(8.0)
    assert "neighbouring choice 0 is open" in aiming.neighbour(0.05)
    assert "neighbouring choice 8 is open" in aiming.neighbour(8.05)


def test_angles_that_match_over_no_such_rails_are_told_so() -> None:
    found = count("M12", lay((4.0, 1.8), (5.1, 3.0)), (FAR, FOOT))
    assert isinstance(found, NoCount)
    assert found.reason == "no angles match over the far and foot rails: another rail comes first"


def test_a_target_behind_a_jaw_is_not_reached() -> None:
    for found in all_counts(lay((6.5, 0.09), (0.5, 0.1)), (FOOT, FAR)):
        if found.method == "M11":
            assert isinstance(found, NoCount)
            assert "head-near jaw, before it comes to the 7" in found.reason


def test_a_ball_in_the_way_is_told_and_on_which_leg() -> None:
    free = count("M3", lay((1.3, 1.2), (5.3, 1.2)), (FAR,))
    before = count("M3", lay((1.3, 1.2), (5.3, 1.2), Ball("2", 2.3, 2.6)), (FAR,))
    after = count("M3", lay((1.3, 1.2), (5.3, 1.2), Ball("2", 4.3, 2.6)), (FAR,))
    assert isinstance(free, Count)
    assert isinstance(before, Count)
    assert isinstance(after, Count)
    assert free.blocked == ""
    assert before.blocked == "the 2 is in the way before the far rail"
    assert after.blocked == "the 2 is in the way after the far rail"
    assert before.lands.off == free.lands.off == after.lands.off
    assert (free.lands.hits, before.lands.hits, after.lands.hits) == (True, False, False)
    assert (free.open, before.open, after.open) == (True, False, False)
    early = count("M1", lay((1.0, 1.6), (3.0, 1.66)), (FOOT,))
    assert isinstance(early, Count)
    assert early.blocked == "the 7 is met on the way to the foot rail already"
    assert early.open
    assert verdict_of(early.lands) == "hits before the foot rail"


def test_open_ways_are_chosen_before_blocked_ones() -> None:
    """Snookered, the way up the table through the blocker lands best and is of no use."""
    layout = lay((1.1, 0.55), (5.3, 0.5), Ball("2", 3.2, 0.5))
    for method in ("M1", "M3", "M6"):
        best = best_count(method, layout)
        assert isinstance(best, Count)
        assert best.open
        others = other_rails(best, layout)
        assert {c.rails for c in others} | {best.rails} <= set(orders_of(method))
        assert best.rails not in {c.rails for c in others}
        blocked = [c.lands.off_diamonds for c in others if not c.open]
        assert method != "M1" or min(blocked) < best.lands.off_diamonds
        assert [c.open for c in others] == sorted((c.open for c in others), reverse=True)


def test_the_side_of_the_ball_is_seen_along_the_last_leg() -> None:
    """Over far towards foot a long ball passes on the target's left as it comes down, a short one on its right."""
    for target, side in (((5.4, 1.6), "long"), ((5.4, 1.25), "short")):
        method = "M3" if side == "long" else "M2"
        found = count(method, lay((1.3, 1.2), target), (FAR,))
        assert isinstance(found, Count)
        assert found.lands.side == side
        assert found.lands.met == ("left" if side == "long" else "right")
    exact = count("M19", lay((2.0, 1.5), (2.0, 1.0)), (FOOT, FAR, HEAD, NEAR))
    assert isinstance(exact, Count)
    assert exact.lands.met == "full"


def test_a_cue_ball_against_the_rail_is_not_played_over_it() -> None:
    for method in ("M1", "M6", "M8"):
        found = count(method, lay((2.0, 3.91), (5.0, 1.0)), (FAR,))
        assert isinstance(found, NoCount)
        assert "against the far rail" in found.reason


def test_the_slowest_table_asks_for_no_impossible_stroke() -> None:
    """Damp cloth and dead rubber on twelve feet: 3½ lengths would be faster than any break."""
    slow = conditioned(standard_table("snooker-12ft"), "damp", "dead")
    found = [c for c in all_counts(lay((2.0, 0.8), (6.2, 0.8), table=slow)) if isinstance(c, Count)]
    assert len(found) >= 6
    assert max(c.stroke.speed for c in found) <= 12.0
    bank = bank_count(lay((1.4, 0.5), (2.6, 1.2), table=slow), (FAR,))
    if isinstance(bank, NoCount):
        raise AssertionError(bank.reason)
    assert 0.0 < bank.stroke.speed <= 12.0


def test_a_frozen_ball_counts_where_it_lies() -> None:
    """Written a hair into the nose or exactly on it, a ball is the same ball."""
    r = POOL.ball_radius / POOL.diamond_y
    one, other = (count("M11", lay((6.0, y), (1.5, 0.3)), (FOOT, FAR)) for y in (r, r - 1e-4))
    assert isinstance(one, Count)
    assert isinstance(other, Count)
    assert one.aim.sight == other.aim.sight == pytest.approx(4 - (4.5 - 1) / 2, abs=1e-9)


def test_the_pairs_of_m3_end_with_the_rail() -> None:
    """Cue ball near the aim rail's opposite, target near the aim rail: the pair would start off the table."""
    ended = 0
    for x in np.arange(0.3, 7.0, 0.2):
        for y in (0.3, 1.2, 2.4, 3.4):
            found = count("M3", lay((float(x), y), (7.4, 0.4)), (FAR,))
            if isinstance(found, Count):
                assert all(0 <= n.at <= 8 for n in found.numbers)
                n = float(found.steps[0].split()[0])
                assert n <= 7.4
                ended += n > 6.5
    assert ended > 3
