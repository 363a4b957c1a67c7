"""A player's scatter: asked, typed, drawn, and found from a log whose truth is known."""

import math

import numpy as np
import pytest
from scipy.stats import binomtest, norm

from fandle.core.errors import BadInputError
from fandle.core.player.draws import draws
from fandle.core.player.fit import Landed, fit
from fandle.core.player.scatter import CLUB, NEW, STRONG, MarkScatter, Player, player_asked, player_named
from fandle.core.player.share import wilson


def test_wilson_is_scipys() -> None:
    """Reference: scipy.stats.binomtest(...).proportion_ci(method="wilson")."""
    for hits, n in ((0, 1), (1, 1), (3, 10), (300, 300), (0, 300), (151, 300), (4999, 5000)):
        ci = binomtest(hits, n).proportion_ci(method="wilson")
        assert wilson(hits, n) == pytest.approx((ci.low, ci.high), abs=1e-9)


def test_named_players() -> None:
    """Estimates of the contract: club 0.10°, 0.10, 0.5 mm, 0.05 / 0.08 / 0.11 / 0.14; new double, strong half."""
    assert (CLUB.direction_deg, CLUB.speed_part, CLUB.tip_mm) == pytest.approx((0.10, 0.10, 0.5))
    assert CLUB.mark == MarkScatter(0.05, 0.08, 0.11, 0.14)
    assert NEW.mark.between == pytest.approx(0.28)
    assert STRONG.direction_deg == pytest.approx(0.05)
    assert player_named("new") == NEW
    with pytest.raises(BadInputError, match="use new, club, strong"):
        player_named("champion")
    with pytest.raises(BadInputError, match="is not believed"):
        Player(math.nan, 0.1, 0.5, CLUB.mark)


def test_three_plain_questions() -> None:
    """Ten straight-ins forgive ±0.097°: two in three in are one standard deviation, so about a club player's."""
    club = player_asked(6.68, 0.27, 0.094)
    assert club.direction_deg == pytest.approx(0.10, abs=0.002)
    assert club.speed_part == pytest.approx(0.10, abs=0.002)
    assert club.mark.between == pytest.approx(0.14, abs=0.002)
    assert club.origin == "typed"
    steadier = player_asked(9.0, 0.1, 0.05)
    assert steadier.direction_deg < club.direction_deg
    assert steadier.mark.diamond < club.mark.diamond
    assert 0.0 < player_asked(10.0, 0.0, 0.0).direction_deg < 0.05
    with pytest.raises(BadInputError, match="give a number from 0 on"):
        player_asked(-1.0, 0.1, 0.1)


def test_draws_are_independent_normal_and_by_seed() -> None:
    one, again, other = draws(5000, 3), draws(5000, 3), draws(5000, 4)
    assert np.array_equal(one.mark, again.mark)
    assert not np.array_equal(one.mark, other.mark)
    assert np.array_equal(draws(48, 3).speed, one.speed[:48])
    table = np.array([one.direction, one.speed, one.across, one.up, one.mark])
    assert np.abs(np.corrcoef(table) - np.eye(5)).max() < 0.05
    assert np.abs(table.std(axis=1) - 1.0).max() < 0.03
    for n, seed in ((0, 0), (5001, 0), (10, -1)):
        with pytest.raises(BadInputError, match="give"):
            draws(n, seed)


def log_of(factor: float, bias: float, n: int, seed: int, marked: float) -> list[Landed]:
    """A log drawn from a known player: a window of ±0.3 diamonds, some landings marked, else only hit, short or long."""
    rng, rows = np.random.default_rng(seed), []
    for _ in range(n):
        sd = rng.uniform(0.15, 0.5)
        off = bias + factor * sd * rng.standard_normal()
        if rng.random() < marked or abs(off) > 0.3:  # misses are marked more readily than hits
            rows.append(Landed(off, off, sd))
        else:
            rows.append(Landed(-0.3, 0.3, sd))
    return rows


@pytest.mark.parametrize(("factor", "bias"), [(1.0, 0.0), (0.6, 0.1), (1.8, -0.2)])
def test_the_log_gives_back_the_player_that_made_it(factor: float, bias: float) -> None:
    """Hits without a mark enter as intervals: the truth is within three standard errors of what is found."""
    found = [fit(log_of(factor, bias, 200, seed, 0.3)) for seed in range(12)]
    for one in found:
        assert abs(one.factor - factor) < 3.5 * one.factor_sd
        assert abs(one.bias - bias) < 3.5 * one.bias_sd
    assert np.mean([one.factor for one in found]) == pytest.approx(factor, rel=0.06)
    assert np.mean([one.bias for one in found]) == pytest.approx(bias, abs=0.03)
    assert found[0].player.origin == "log"
    assert found[0].player.mark.between == pytest.approx(0.14 * found[0].factor)


def test_dropping_the_unmarked_hits_would_let_the_misses_set_the_scatter() -> None:
    """The reason for the intervals: without them the same log looks half as wide again."""
    whole = log_of(0.6, 0.0, 400, 5, 0.1)
    misses = [row for row in whole if row.marked]
    assert fit(misses).factor > 1.4 * fit(whole).factor


def test_marked_landings_alone_are_a_plain_normal_fit() -> None:
    """Closed form: with every landing marked and one spread, bias is the mean and the factor the standard deviation."""
    offs = norm.ppf((np.arange(60) + 0.5) / 60, 0.05, 0.3)
    found = fit([Landed(off, off, 0.25) for off in offs.tolist()])
    assert found.bias == pytest.approx(offs.mean(), abs=1e-4)
    assert found.factor == pytest.approx(offs.std() / 0.25, rel=1e-3)


def test_too_few_marked_landings_are_not_believed() -> None:
    with pytest.raises(BadInputError, match="it takes 30"):
        fit(log_of(1.0, 0.0, 29, 1, 1.0))
