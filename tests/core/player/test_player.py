"""A player's scatter: asked, typed, drawn, and found from a log whose truth is known."""

import math

import numpy as np
import pytest
from scipy.stats import binomtest, kstest, norm

from fandle.core.errors import BadInputError
from fandle.core.player.draws import FEW, draws
from fandle.core.player.fit import Landed, fit
from fandle.core.player.scatter import CLUB, NEW, STRONG, MarkScatter, Player, player_asked, player_named
from fandle.core.player.share import spread_range, sure_as, wilson


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


@pytest.mark.parametrize("n", [20, 48, 60, 300, 5000])
def test_draws_are_standardised_normal_and_by_seed(n: int) -> None:
    """Every column has mean 0 and standard deviation 1, for those that strokes are screened on as for all."""
    one, again, other = draws(n, 3, 2), draws(n, 3, 2), draws(n, 4, 2)
    assert np.array_equal(one.mark, again.mark)
    assert not np.array_equal(one.mark, other.mark)
    for some in (one, one.few) if n >= 2 * FEW else (one,):
        own = np.column_stack([some.direction, some.speed, some.across, some.up, some.mark])
        for columns in (own, some.table):
            assert np.abs(columns.mean(axis=0)).max() < 1e-9
            assert np.abs(columns.std(axis=0) - 1.0).max() < 1e-9
        if n > 20:
            assert np.abs(np.corrcoef(own.T) - np.eye(5)).max() < 1e-9
    if n == 5000:
        assert kstest(one.direction, "norm").pvalue > 0.05


def test_draws_are_asked_for_within_bounds() -> None:
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


def test_a_share_of_standardised_draws_is_as_sure_as_its_own_variance_says() -> None:
    """Two hundred samples of 300: |z| < 1.2 of one column, with some of another; the range holds the truth in 92 to
    98 %, and is narrower than that of independent draws (reference: the normal distribution, scipy)."""
    truth = float(norm.cdf(1.2) - norm.cdf(-1.2))
    inside, gains, told = 0, [], []
    for seed in range(400):
        drawn = draws(300, seed)
        came = np.abs(0.98 * drawn.direction + 0.2 * drawn.speed) < 1.2 * math.hypot(0.98, 0.2)
        values = came.astype(float)
        sure = sure_as(values, drawn.basis)
        low, high = spread_range(float(values.sum()), 300, sure)
        inside += low <= truth <= high
        gains.append(sure / 300)
        told.append(values.mean())
    assert 0.92 <= inside / 400 <= 0.98
    assert 1.5 < np.mean(gains) < 4.0
    assert np.std(told) < 0.8 * math.sqrt(truth * (1 - truth) / 300)
    assert abs(np.mean(told) - truth) < 0.003


def test_what_always_and_what_never_happens_has_a_range() -> None:
    drawn = draws(300, 0)
    for value in (0.0, 1.0):
        values = np.full(300, value)
        low, high = spread_range(float(values.sum()), 300, sure_as(values, drawn.basis))
        assert low <= value <= high
        assert 1 / 300 <= high - low < 0.02
