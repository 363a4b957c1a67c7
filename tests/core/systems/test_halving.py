"""The counts M2 and M3: worked examples, symmetry, landings, and when they do not apply.

Worked examples: common practice, no published source.
"""

import json
from dataclasses import replace

import pytest
from tests.conftest import all_counts, make

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count, NoCount, figure
from fandle.core.systems.halving import lengths_for
from fandle.core.systems.registry import best_count, count
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail


def counted(method: str, layout: Layout, rail: Rail = Rail.FAR) -> Count:
    found = count(method, layout, (rail,))
    assert isinstance(found, Count), found
    return found


def refused(method: str, layout: Layout, rail: Rail = Rail.FAR) -> str:
    found = count(method, layout, (rail,))
    assert isinstance(found, NoCount), found
    return found.reason


def refused_over(method: str, layout: Layout, rails: tuple[Rail, ...]) -> str:
    found = count(method, layout, rails)
    assert isinstance(found, NoCount), found
    return found.reason


@pytest.mark.parametrize(("n", "marks"), [(4.0, 2.0), (3.0, 1.5), (2.0, 1.0), (6.0, 3.0), (6.5, 3.25)])
def test_halving_examples(pool: Table, n: float, marks: float) -> None:
    """4→2, 3→1½, 2→1, 6→3: marks from the target, read at the nose."""
    layout = make(pool, (7.85 - n, 1.0), (7.85, 1.0))
    found = counted("M3", layout)
    assert found.aim.nose == pytest.approx(7.85 - marks, abs=1e-9)
    assert found.steps == (f"{figure(n)} ÷ 2 = {figure(marks)}",)


@pytest.mark.parametrize(("n", "diamonds"), [(4.0, 2.0), (3.0, 1.5), (6.5, 3.25)])
def test_doubling_examples(pool: Table, n: float, diamonds: float) -> None:
    """4 → the mark "4", two diamonds along; 3 → between 2 and 4; 6½ → between 6 and 8. Sighted.

    Where the lines through level balls leave the shooter's rail they are counted at their own level.
    """
    found = counted("M2", make(pool, (7.85 - n, 1.0), (7.85, 1.0)))
    assert found.aim.sight == pytest.approx(7.85 - diamonds, abs=1e-9)
    assert [m.label for m in found.numbers if m.role == "aim"] == [figure(n)]
    labels = {round(m.at, 6): m.label for m in found.numbers if m.rail == Rail.FAR and m.role == "scale"}
    assert labels[6.85] == "2"


@pytest.mark.parametrize(
    ("cue", "target"), [((1.0, 0.5), (5.0, 1.5)), ((1.5, 2.0), (4.0, 0.5)), ((5.0, 0.3), (1.6, 0.6))]
)
def test_doubling_is_counted_through_the_balls(
    pool: Table, cue: tuple[float, float], target: tuple[float, float]
) -> None:
    """The lines through both balls meet the shooter's rail n apart and the aim rail's sights half-way between."""
    found = counted("M2", make(pool, cue, target))
    setback = pool.sight_setback
    assert setback is not None
    sights, mark = 4.0 + setback / pool.diamond_y, found.aim.sight
    assert mark is not None
    start, zero = (mark + (x - mark) * sights / (sights - y) for x, y in (cue, target))
    assert mark == pytest.approx((start + zero) / 2, abs=1e-9)
    assert found.own is not None
    assert found.own.number == pytest.approx(abs(start - zero), abs=1e-9)
    assert [n.at for n in found.numbers if n.role == "zero"] == [pytest.approx(zero, abs=1e-9)]


def test_the_contracts_example(blocked: Layout) -> None:
    found = counted("M3", blocked)
    assert found.steps == ("4.2 ÷ 2 = 2.1",)
    assert found.aim.nose == pytest.approx(3.2)
    assert {m.role for m in found.numbers} >= {"zero", "cue", "aim"}


def test_off_the_level_a_pair_is_shifted_and_the_shift_is_said(pool: Table) -> None:
    """Pairs from the target's level; the nearest whole or half pair goes through the ball."""
    found = counted("M3", make(pool, (1.5, 1.6), (5.5, 0.5)))
    assert len(found.steps) == 2
    n, half = 4.5, 2.25
    at_ball = half * (1 + 2.4 / 3.5)
    assert found.steps[0] == f"{figure(n)} ÷ 2 = {figure(half)}"
    assert found.aim.nose == pytest.approx(5.5 - (half + 4.0 - at_ball), abs=1e-9)
    assert "shifted" in found.say


def test_counts_work_across_the_width(pool: Table) -> None:
    found = counted("M3", make(pool, (1.0, 0.6), (1.05, 3.4)), Rail.FOOT)
    assert found.aim.nose == pytest.approx(3.4 - 1.4, abs=1e-9)
    assert {m.rail for m in found.numbers} == {Rail.FOOT, Rail.HEAD}


@pytest.mark.parametrize(("method", "limit"), [("M2", 0.5), ("M3", 0.5)])
@pytest.mark.parametrize("n", [2, 3, 4, 5, 6])
def test_landing_over_the_core_range(pool: Table, method: str, limit: float, n: int) -> None:
    """At the method's own stroke, n 2-6, within half a diamond on the default table."""
    found = counted(method, make(pool, (7.85 - n, 1.0), (7.85, 1.0)))
    assert found.lands.off_diamonds <= limit


def test_landings_agree_with_a_straight_reading_of_the_path(pool: Table) -> None:
    """Off in diamonds along the target's line, off in balls across the path, hit under 1."""
    found = counted("M3", make(pool, (1.0, 1.0), (5.0, 1.0)))
    leg = [q for q in found.shot.pieces if q.leg == 1]
    crossing = next(q for q in leg if q.end[1] <= 1.0)
    share = (crossing.start[1] - 1.0) / (crossing.start[1] - crossing.end[1])
    x = crossing.start[0] + share * (crossing.end[0] - crossing.start[0])
    assert found.lands.off_diamonds == pytest.approx(abs(x - 5.0), abs=0.02)
    assert (found.lands.side == "long") == (x > 5.05)


def test_landing_depends_on_the_table(pool: Table) -> None:
    places = (1.0, 1.0), (5.4, 1.0)
    slick = replace(pool, cushion_friction=0.12)
    assert counted("M3", make(pool, *places)).lands != counted("M3", make(slick, *places)).lands


def test_when_counts_do_not_apply(pool: Table) -> None:
    assert "the lines leave it" in refused("M2", make(pool, (0.5, 2.5), (7.0, 0.5)))
    assert "straight opposite" in refused("M2", make(pool, (3.0, 1.0), (3.1, 1.2)))
    assert "straight opposite" in refused("M3", make(pool, (3.0, 1.0), (3.1, 2.2)))
    assert "drop into the side-far pocket" in refused("M3", make(pool, (2.0, 1.0), (6.0, 1.0)))
    blind = replace(pool, sight_setback=None)
    assert "no sights" in refused("M2", make(blind, (1.0, 1.0), (5.0, 1.0)))


def test_all_counts_are_ranked_and_best_rail_is_found(blocked: Layout) -> None:
    found = all_counts(blocked, (Rail.FAR,))
    misses = [c.lands.off_balls for c in found if isinstance(c, Count)]
    assert misses == sorted(misses)
    best = best_count("M3", blocked)
    assert isinstance(best, Count)
    nowhere = best_count("M2", make(replace(blocked.table, sight_setback=None), (1.0, 1.0), (5.0, 1.0)))
    assert isinstance(nowhere, NoCount)
    assert json.dumps(nowhere.reason)


def test_unknown_methods_and_rails(blocked: Layout) -> None:
    with pytest.raises(BadInputError, match="unknown method 'M99'"):
        count("M99", blocked, (Rail.FAR,))
    assert "one rail, not over far,foot" in refused_over("M3", blocked, (Rail.FAR, Rail.FOOT))


def test_the_scale_is_written_from_one_to_just_beyond_the_count(pool: Table) -> None:
    """From the target: 1, 2, (3 lies under the 3.3), 4 where it is counted; up to two beyond the half where it is shot."""
    found = counted("M3", make(pool, (2.0, 0.5), (5.3, 0.5)))
    scale = {
        rail: [(n.label, round(n.at, 6)) for n in found.numbers if n.role == "scale" and n.rail is rail]
        for rail in Rail
    }
    assert scale[Rail.NEAR] == [("1", 4.3), ("2", 3.3), ("4", 1.3)]
    assert scale[Rail.FAR] == [("1", 4.3), ("2", 3.3), ("3", 2.3)]
    assert scale[Rail.HEAD] == scale[Rail.FOOT] == []


@pytest.mark.parametrize(("n", "lengths"), [(1, 2.5), (3, 2.5), (3.5, 2.5625), (4, 2.625), (5, 2.75), (7, 2.75)])
def test_a_longer_count_is_struck_firmer_within_its_ends(n: float, lengths: float) -> None:
    assert lengths_for(n) == pytest.approx(lengths)
