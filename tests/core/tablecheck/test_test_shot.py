"""One test shot sets a table's own numbers: what it found is carried to the other tracks, and lands them nearer."""

import math
import statistics
from dataclasses import replace

import numpy as np
import pytest

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE
from fandle.core.systems.base import Count, Landing
from fandle.core.systems.played import Aiming
from fandle.core.systems.registry import count
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table
from fandle.core.tablecheck.own_marks import carrying, own_marks, tuned
from fandle.core.tablecheck.test_shot import CARRIED, MOST, carried_words, sets_it, shift_of

POOL = standard_table("pool-9ft")
TRACK = (Rail.FAR, Rail.FOOT, Rail.NEAR)
APART = 0.15


def layout(cue: tuple[float, float], along: float) -> Layout:
    edge = POOL.ball_radius / POOL.diamond_y
    return Layout(POOL, "nine-ball", (Ball("cue", *cue), Ball("7", along, edge)), "7")


def lands(case: Layout, found: Count, at: float, table: Table) -> Landing | None:
    ball = case.ball("7")
    return Aiming(replace(case, table=table), found.rails, found.frame, found.stroke, (ball.x, ball.y)).play(at)[2]


def by_a_test_shot(hidden: Table) -> float:
    """What the track to 5.4 from (1.2, 0.5) finds of a hidden table."""
    case = layout((1.2, 0.5), 5.4)
    found = count("M14", case, TRACK)
    assert isinstance(found, Count)
    own = tuned(case, found)
    assert own is not None
    came, low, high = (
        lands(case, found, own.at + by, table) for by, table in ((0.0, hidden), (-APART, POOL), (APART, POOL))
    )
    assert came is not None
    assert low is not None
    assert high is not None
    return shift_of(came.off, (high.off - low.off) / (2 * APART))


@pytest.mark.parametrize("rubber", ["dead", "soft"])
def test_what_one_shot_found_lands_the_other_tracks_nearer(rubber: str) -> None:
    hidden = conditioned(POOL, "standard", rubber)
    carried, before, after = by_a_test_shot(hidden), list[float](), list[float]()
    for method in CARRIED:
        for x in (0.6, 1.0, 1.4, 1.8, 2.2, 2.6):
            for along in (4.8, 5.2, 5.6, 6.0):
                case = layout((x, 0.5), along)
                found = count(method, case, TRACK)
                if not isinstance(found, Count):
                    continue
                plain, shifted = tuned(case, found), tuned(case, found, carried)
                if plain is None or shifted is None:
                    continue
                was, is_ = lands(case, found, plain.at, hidden), lands(case, found, shifted.at, hidden)
                if was is not None and is_ is not None:
                    before.append(abs(was.off))
                    after.append(abs(is_.off))
    assert len(before) >= 10
    assert statistics.mean(after) < 0.8 * statistics.mean(before)


def test_a_short_line_is_aimed_longer_whichever_way_the_numbers_run() -> None:
    assert shift_of(-0.4, 2.0) == pytest.approx(0.2)
    assert shift_of(-0.4, -2.0) == pytest.approx(0.2)
    assert shift_of(0.4, 2.0) == pytest.approx(-0.2)
    case = layout((1.2, 0.5), 5.4)
    found = count("M14", case, TRACK)
    assert isinstance(found, Count)
    plain, longer = tuned(case, found), tuned(case, found, 0.3)
    assert plain is not None
    assert longer is not None
    assert longer.lands.off > plain.lands.off + 0.1
    assert abs(longer.at - plain.at) == pytest.approx(0.3)
    assert plain.own is not None
    assert longer.own is not None
    assert longer.own.number != plain.own.number
    assert (plain.carried, longer.carried) == (0.0, 0.3)


def test_what_is_no_tables_own_correction_is_refused() -> None:
    with pytest.raises(BadInputError, match="more than a table's own correction"):
        shift_of(-4.0, 2.0)
    with pytest.raises(BadInputError, match="choose another track"):
        shift_of(-0.4, 0.01)
    with pytest.raises(BadInputError, match="choose another track"):
        shift_of(-0.4, math.nan)
    assert shift_of(2 * MOST, 2.0) == -MOST


def test_it_is_carried_to_corner_numbers_point_beyond_and_reference_lines_alone() -> None:
    assert [sets_it(method, TRACK) for method in ("M14", "M15", "M16", "M3", "M18")] == [True] * 3 + [False] * 2
    assert not sets_it("M14", (Rail.FAR,))
    carom = standard_table("carom-10ft")
    balls = (Ball("cue", 1.2, 0.3), Ball("red", 0.2, 1.6), Ball("white", 6.0, 3.4))
    case = Layout(carom, "three-cushion", balls, "red")
    found = count("M18", case, (Rail.FOOT, Rail.FAR, Rail.HEAD))
    assert isinstance(found, Count)
    assert tuned(case, found) == tuned(case, found, 0.3)
    assert carried_words(0.3) == "0.3 diamond longer by your test shot"
    assert carried_words(-0.25) == "0.25 diamond shorter by your test shot"
    assert carried_words(0.0) == ""


def test_the_grid_of_own_numbers_is_shifted_the_same_way() -> None:
    found = own_marks(POOL, "M14", HOUSE)
    assert found is not None
    case = layout((1.2, 0.5), 5.4)
    counted = count("M14", case, TRACK, cue=HOUSE)
    assert isinstance(counted, Count)
    plain, longer = tuned(case, counted), tuned(case, counted, 0.3)
    assert plain is not None
    assert longer is not None
    by = carrying(found, POOL, HOUSE, 0.3).shift - found.shift
    assert by[~np.isnan(by)] == pytest.approx(longer.at - plain.at)
    assert carrying(found, POOL, HOUSE, 0.0) is found
    far = carrying(found, POOL, HOUSE, 1.0)
    marks = (far.counted + far.shift)[~np.isnan(far.shift)]
    assert len(marks) < np.isfinite(found.shift).sum()  # some would lie past the rail's end: no number for those
    assert marks.min() >= 0.0
    assert marks.max() <= 8.0
