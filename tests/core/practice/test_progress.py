"""A change is called one only where the ranges say so; tonight's plan begins with what misses most."""

import math
import random

import pytest

from fandle.core.errors import BadInputError
from fandle.core.practice.drills import BY_NAME, DRILLS
from fandle.core.practice.kinds import drills_for, kind_of
from fandle.core.practice.progress import (
    Made,
    average,
    bias_change,
    change_of,
    difference,
    reached,
    rounds,
    streaks,
    within,
)
from fandle.core.practice.tonight import BREAK_AFTER, Kind, tonight
from fandle.core.table.rails import Rail

USABLE = [drill.name for drill in DRILLS]
KINDS = ("one rail, plain", "one rail, firm", "one rail, running", "one rail, reverse", "two rails", "three rails")


def test_a_change_is_claimed_falsely_in_one_of_twenty_at_most() -> None:
    rng, claimed, claimed_bias = random.Random(1), 0, 0
    for _ in range(2000):
        n, m, p = rng.randint(8, 60), rng.randint(8, 60), rng.uniform(0.1, 0.9)
        before, after = (Made(k, sum(rng.random() < p for _ in range(k))) for k in (n, m))
        claimed += change_of(before, after).verdict in ("better", "worse")
        bias, scatter = rng.uniform(-0.3, 0.3), rng.uniform(0.05, 0.4)
        was, now = (average([rng.gauss(bias, scatter) for _ in range(k)]) for k in (n, m))
        claimed_bias += "than before" in bias_change(was, now)
    assert claimed <= 0.05 * 2000
    assert claimed_bias <= 0.06 * 2000


def test_a_plain_change_is_told_and_a_doubtful_one_says_how_many_more() -> None:
    assert change_of(Made(40, 10), Made(40, 30)).verdict == "better"
    assert change_of(Made(40, 30), Made(40, 10)).verdict == "worse"
    doubtful = change_of(Made(60, 30), Made(20, 14))
    assert doubtful.verdict == "not yet clear"
    assert doubtful.more is not None
    assert f"{doubtful.more} more" in doubtful.say
    then = Made(20 + doubtful.more, round(0.7 * (20 + doubtful.more)))
    assert difference(Made(60, 30), then)[0] > 0.0
    assert change_of(Made(0, 0), Made(9, 9)).verdict == "no data"
    assert "shorter than before" in bias_change(average([0.3, 0.31, 0.29, 0.3]), average([0.0, 0.01, -0.01, 0.0]))


def test_the_difference_of_two_shares_is_newcombes() -> None:
    """56/70 against 48/80: 0.2000, 95 % 0.0524 to 0.3339 (Newcombe 1998, method 10, example a)."""
    low, high = difference(Made(80, 48), Made(70, 56))
    assert (low, high) == (pytest.approx(0.0524, abs=5e-4), pytest.approx(0.3339, abs=5e-4))


def test_a_goal_in_diamonds_is_reached_surely_only_where_the_range_says_so() -> None:
    rng = random.Random(7)
    wide = average([rng.gauss(0.1, 0.4) for _ in range(40)])
    close = average([rng.gauss(0.0, 0.1) for _ in range(60)])
    few = average([0.19, -0.17, 0.2, -0.18, 0.15, -0.2])
    assert wide.typical == pytest.approx(math.hypot(wide.mean, wide.sd), rel=0.02)
    assert "not yet" in within(wide, 0.2)
    assert "reached" in within(close, 0.2)
    assert few.typical < 0.2 < few.typical_most
    assert "nearly" in within(few, 0.2)
    assert "2 more marked landings" in within(average([0.0, 0.1, 0.0]), 0.2)


def test_the_surest_goal_is_claimed_falsely_in_one_of_twenty_at_most() -> None:
    """A player whose typical miss IS the goal is told "surely under it" in 2.5 % (the range is of 95 %)."""
    rng = random.Random(8)
    told = [within(average([rng.gauss(0.0, 0.2) for _ in range(rng.randint(5, 40))]), 0.2) for _ in range(2000)]
    assert 0.01 * 2000 < sum("reached" in each for each in told) < 0.04 * 2000


def test_streaks_and_goals() -> None:
    assert streaks([True, True, False, True]) == (1, 2)
    assert streaks([]) == (0, 0)
    kick, back, banks = BY_NAME["kick-soft"], BY_NAME["return-1"], BY_NAME["bank-fifteen"]
    assert reached([False] + [True] * 7 + [False] * 3, kick)
    assert not reached([True] * 9, kick)
    assert not reached([True] * 7 + [False] + [True] * 7, back)
    assert reached([True] * 8 + [False] * 9, back)  # a streak that stood once was made
    assert not reached([False] * 8 + [True] * 8 + [False] * 4, banks)  # seven of the first round, one of the next
    assert reached([False] * 15 + [True] * 8, banks)
    assert rounds([True] * 16 + [False], 15) == [15, 1]


def _history(rng: random.Random) -> tuple[list[Kind], str]:
    """Kinds of line of which one is clearly off by most."""
    worst = rng.choice(KINDS)
    kinds = []
    for name in KINDS:
        bias = rng.choice([-1, 1]) * (0.6 if name == worst else rng.uniform(0.0, 0.25))
        offs = [rng.gauss(bias, 0.2) for _ in range(30)]
        hits = sum(abs(off) < 0.2 for off in offs)
        kinds.append(Kind(name, Made(30, hits), average(offs), rng.uniform(0, 20), drills_for(name)))
    return kinds, worst


def test_the_worst_bias_comes_first() -> None:
    rng = random.Random(6)
    for _ in range(50):
        kinds, worst = _history(rng)
        for minutes in (20, 40, 60):
            plan = tonight(kinds, {name: rng.uniform(0, 30) for name in USABLE[::2]}, minutes, DRILLS)
            assert plan.parts[0].why == "bias"
            assert plan.parts[0].drill.name in drills_for(worst)
            assert worst in plan.parts[0].say


def test_a_plan_has_something_old_something_new_and_its_breaks() -> None:
    kinds, _ = _history(random.Random(9))
    played = dict.fromkeys(USABLE[:-3], 1.0) | {"freeze": 40.0}
    plan = tonight(kinds, played, 60, DRILLS)
    whys = [part.why for part in plan.parts]
    assert whys.count("long ago") == 1
    assert whys.count("new") == 1
    assert next(part.drill.name for part in plan.parts if part.why == "long ago") == "freeze"
    assert len({part.drill.name for part in plan.parts}) == len(plan.parts) == 7
    assert plan.breaks
    each = plan.parts[0].minutes
    assert all(k * each >= BREAK_AFTER for k in plan.breaks)
    chosen = {part.drill.name for part in plan.parts}
    assert all(part.swaps and not {each.name for each in part.swaps} & chosen for part in plan.parts)
    with pytest.raises(BadInputError, match="choose 20, 40 or 60"):
        tonight(kinds, played, 30, DRILLS)


def test_an_empty_log_still_makes_a_plan_of_drills_the_table_allows() -> None:
    usable = [BY_NAME[name] for name in ("return-1", "kick-medium", "natural-2", "freeze")]
    plan = tonight([], {}, 20, usable)
    assert [part.drill for part in plan.parts] == usable[:3]
    assert plan.parts[0].why == "new"


def test_kinds_of_line_have_drills() -> None:
    assert kind_of("kick", (Rail.FAR,), 0.2, 0.8, 2.5) == "one rail, running"
    assert kind_of("kick", (Rail.FAR,), -0.2, 0.8, 2.5) == "one rail, reverse"
    assert kind_of("kick", (Rail.FAR,), 0.0, 0.8, 4.0) == "one rail, firm"
    assert kind_of("kick", (Rail.FAR, Rail.FOOT), 0.0, 0.8, 2.5) == "two rails"
    assert kind_of("bank", (Rail.FAR,), 0.0, 0.8, 2.5) == "bank"
    assert all(name in BY_NAME for kind in KINDS for name in drills_for(kind))
