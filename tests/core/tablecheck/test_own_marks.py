"""A table's own marks land where the sums do not, from starts between those fitted (issue: within 0.15 diamond)."""

import random
from dataclasses import replace

import numpy as np
import pytest
from tests.amount import amount

from fandle.app.check import check, shoot
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.player.scatter import CLUB
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count
from fandle.core.systems.played import Aiming
from fandle.core.systems.registry import count
from fandle.core.systems.symmetry import Turn
from fandle.core.table.condition import OWN, conditioned
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS
from fandle.core.tablecheck.own_marks import KINDS, case_of, own_marks, tuned
from fandle.core.tablecheck.shots import BY_ID

LANDS = 0.15  # diamonds


@pytest.mark.proof
@pytest.mark.parametrize("method", list(KINDS))
@pytest.mark.parametrize("name", ["pool-9ft", "carom-10ft"])
@pytest.mark.parametrize("cloth", ["new", "damp"])
def test_they_land_from_starts_between_those_fitted(method: str, name: str, cloth: str) -> None:
    """Starts and targets in between: every aim by the table's own marks lands within 0.15 diamond."""
    off: list[float]
    table, rng, off, sums = conditioned(STANDARDS[name], cloth, "soft"), random.Random(5), [], []
    kind = KINDS[method]
    while len(off) < amount(20, 60):
        start = rng.uniform(kind.starts[0], kind.starts[-1])
        goal = rng.uniform(min(kind.goals), max(kind.goals))
        case = case_of(table, method, start, goal)
        told = None if case is None else count(method, case[0].layout, case[0].rails)
        if not isinstance(told, Count) or case is None:
            continue
        own = tuned(case[0].layout, told)
        if own is None:
            continue
        off.append(abs(own.lands.off))
        sums.append(abs(told.lands.off))
    assert max(off) < LANDS
    assert np.median(off) < 0.5 * np.median(sums)


@pytest.mark.parametrize("flip", [(False, False), (True, False), (False, True), (True, True)])
def test_they_are_the_same_whichever_way_the_table_is_seen(flip: tuple[bool, bool]) -> None:
    table = STANDARDS["pool-9ft"]
    case = case_of(table, "M14", 1.2, 5.7)
    assert case is not None
    turn = Turn(*flip)
    layout = turn.layout(case[0].layout)
    told = count("M14", layout, tuple(turn.rail(rail) for rail in case[0].rails))
    here = count("M14", case[0].layout, case[0].rails)
    assert isinstance(told, Count)
    assert isinstance(here, Count)
    own, same = tuned(layout, told), tuned(case[0].layout, here)
    assert own is not None
    assert same is not None
    assert own.own is not None
    assert same.own is not None
    assert own.own.number == pytest.approx(same.own.number, abs=1e-6)
    assert turn.at(case[0].rails[0], own.at) == pytest.approx(same.at, abs=1e-6)


def test_other_systems_and_places_outside_have_none() -> None:
    table = STANDARDS["pool-9ft"]
    assert own_marks(table, "M3") is None
    assert own_marks(STANDARDS["snooker-12ft"], "M14") is None  # it has no sights to read the numbers at
    found = own_marks(table, "M14")
    assert found is not None
    assert found.shift_at(20.0, 5.0) is None
    assert found.shift_at(1.0, 0.5) is None


def test_a_damp_table_asks_for_more_than_a_new_one() -> None:
    """Damp plays short over three rails with running side (trade.md §4): further along, a smaller first number."""
    new, damp = (own_marks(conditioned(STANDARDS["pool-9ft"], cloth, OWN), "M14") for cloth in ("new", "damp"))
    assert new is not None
    assert damp is not None
    long_tracks = new.shift[:, 4:6], damp.shift[:, 4:6]  # to 30 and 34
    both = ~np.isnan(long_tracks[0]) & ~np.isnan(long_tracks[1])
    assert both.sum() > 10
    assert (long_tracks[1][both] > long_tracks[0][both] + 0.1).mean() > 0.9


@pytest.mark.proof
def test_after_a_check_the_next_kick_and_three_systems_own_numbers_land_on_the_real_table() -> None:
    """The demo's damp table, its numbers hidden: checked by the practice shooter, three rounds of a club player.

    Aims by the fitted table, played on the hidden one: a kick hits, M14, M16 and M17 land within 0.2 at the median and
    nearer than their sums.
    """
    hidden = conditioned(STANDARDS["pool-9ft"], "damp", "dead")
    asked = [shoot(hidden, STANDARDS["pool-9ft"], name, CLUB, turn) for turn in range(3) for name in BY_ID]
    fitted = check(STANDARDS["pool-9ft"], asked, CLUB).table
    layout = Layout(fitted, "nine-ball", (Ball("cue", 1.1, 0.6), Ball("1", 5.4, 1.1)), "1")
    aim = solve_kick(layout, (Rail.FAR,), Stroke(3.0))
    assert isinstance(aim, Aim)
    real = replace(layout, table=hidden)
    shot = approach(real, Stroke(3.0), aim.best.direction)
    assert (shot.rails, shot.first_ball) == ((Rail.FAR,), "1")
    rng = random.Random(2)
    for method in ("M14", "M16", "M17"):
        own_off: list[float]
        kind, own_off, sum_off = KINDS[method], [], []
        while len(own_off) < amount(11, 25):
            start = rng.uniform(kind.starts[0], kind.starts[-1])
            case = case_of(fitted, method, start, rng.uniform(min(kind.goals), max(kind.goals)))
            told = None if case is None else count(method, case[0].layout, case[0].rails)
            own = tuned(case[0].layout, told) if case is not None and isinstance(told, Count) else None
            if own is None or case is None or not isinstance(told, Count):
                continue
            there = replace(case[0].layout, table=hidden)
            target = there.require_target()
            aiming = Aiming(there, told.rails, told.frame, told.stroke, (target.x, target.y))
            lands = aiming.play(own.at)[2]
            counted = count(method, there, told.rails)
            if lands is None or not isinstance(counted, Count):
                continue
            own_off.append(abs(lands.off))
            sum_off.append(abs(counted.lands.off))
        assert np.median(own_off) < 0.2, method
        assert np.median(own_off) < np.median(sum_off), method
