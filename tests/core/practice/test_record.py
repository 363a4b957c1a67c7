"""Figures of attempts, and the sign of short and long."""

import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.conftest import make

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim, Solution
from fandle.core.practice.record import Meant, Result, Tried, figures, off_by, set_up, shot_title, wilson
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail


@pytest.mark.parametrize(
    ("hits", "attempts", "low", "high"),
    [(8, 10, 0.4902, 0.9433), (0, 10, 0.0, 0.2775), (10, 10, 0.7225, 1.0), (50, 100, 0.4038, 0.5962)],
)
def test_wilson_interval(hits: int, attempts: int, low: float, high: float) -> None:
    """Wilson 1927, score interval without continuity correction; textbook values, from memory."""
    got = wilson(hits, attempts)
    assert got == (pytest.approx(low, abs=2e-4), pytest.approx(high, abs=2e-4))


def test_all_hits_reach_up_to_one() -> None:
    """Found by chance: four of four gave an upper end of 0.9999999999999999."""
    for n in range(1, 60):
        assert wilson(n, n)[1] == 1.0
        assert wilson(0, n)[0] == 0.0


def test_nothing_tried_says_nothing() -> None:
    f = figures([])
    assert (f.attempts, f.share, f.low, f.bias, f.scatter) == (0, None, None, None, None)


@given(st.lists(st.tuples(st.sampled_from(list(Result)), st.none() | st.floats(-3, 3)), min_size=1, max_size=30))
def test_bias_and_scatter_are_the_plain_statistics(rows: list[tuple[Result, float | None]]) -> None:
    f = figures(Tried(result, off) for result, off in rows)
    offs = [off for _, off in rows if off is not None]
    assert (f.attempts, f.hits) == (len(rows), sum(r is Result.HIT for r, _ in rows))
    assert f.bias == (pytest.approx(statistics.fmean(offs)) if offs else None)
    assert f.scatter == (pytest.approx(statistics.stdev(offs), abs=1e-9) if len(offs) > 1 else None)
    assert f.low is not None
    assert f.high is not None
    assert 0 <= f.low <= f.hits / f.attempts <= f.high <= 1


def solved(layout: Layout, rail: Rail) -> Solution:
    answer = solve_kick(layout, (rail,), Stroke(3.2), with_chain=False)
    assert isinstance(answer, Aim)
    return answer.best


def test_long_is_further_in_the_direction_of_travel(pool: Table) -> None:
    """Towards the foot long is a larger x; shot from the other end it is a smaller one; across it is y."""
    there, back = make(pool, (1.2, 1.0), (5.2, 1.1)), make(pool, (5.2, 1.0), (1.2, 1.1))
    assert off_by(there, solved(there, Rail.FAR), 5.5) == pytest.approx(0.3)
    assert off_by(back, solved(back, Rail.FAR), 1.5) == pytest.approx(-0.3)
    across = make(pool, (1.2, 0.8), (1.1, 3.0))
    assert off_by(across, solved(across, Rail.FOOT), 3.2) == pytest.approx(0.2)
    with pytest.raises(BadInputError, match="not on this table"):
        off_by(there, solved(there, Rail.FAR), float("nan"))


def test_a_set_up_is_the_same_whatever_the_order_of_balls(pool: Table) -> None:
    a = make(pool, (1, 1), (5, 1), (3, 2))
    b = Layout(pool, a.game, tuple(reversed(a.balls)), a.target)
    far, pot = Meant((Rail.FAR,), "kick"), Meant((Rail.FAR,), "kick", "foot-near")
    bank = Meant((Rail.FAR,), "bank", "foot-near")
    assert set_up(a, far) == set_up(b, far)
    assert len({set_up(a, shot) for shot in (far, pot, bank, Meant((Rail.FOOT,), "kick"))}) == 4
    assert shot_title("7", far) == "the 7 over the far rail"
    assert shot_title("7", pot) == "pot the 7 over the far rail into foot-near"
    assert shot_title("7", bank) == "bank the 7 over the far rail into foot-near"
    assert shot_title("7", Meant((), "straight")) == "the 7 straight"
