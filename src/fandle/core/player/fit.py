"""A player's scatter from the log: how much wider or narrower than a club player's, bias apart."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fandle.core.errors import BadInputError
from fandle.core.player.scatter import CLUB, LEAST, MOST, Player

ENOUGH = 30  # marked attempts
TINY = 1e-12


@dataclass(frozen=True)
class Landed:
    """An attempt: its landing lay between low and high, diamonds from the target, + long; alike where it was marked.

    sd: the standard deviation of that landing that a club player's scatter gives this very shot.
    """

    low: float
    high: float
    sd: float

    @property
    def marked(self) -> bool:
        """Is the landing known, not only that it was a hit, short or long?"""
        return self.low == self.high


@dataclass(frozen=True)
class Fit:
    """The player, how far the landings are off on average (diamonds, + long), and from how many attempts.

    factor: times a club player's scatter; factor_sd, bias_sd: how sure both are.
    """

    player: Player
    factor: float
    factor_sd: float
    bias: float
    bias_sd: float
    attempts: int
    marked: int


def fit(tried: Sequence[Landed]) -> Fit:
    """The likeliest scatter and bias: landing i is normal about the bias with k·sd_i.

    A marked landing counts by its density, one that is only known to lie between two bounds by the chance of that, so
    that hits without a mark are not left out: else only misses would set the scatter. Raises BadInputError where fewer
    than 30 are marked.
    """
    from scipy.optimize import minimize
    from scipy.special import log_ndtr

    marked = sum(one.marked for one in tried)
    if marked < ENOUGH:
        raise BadInputError(
            f"{marked} landings are marked in the log: it takes {ENOUGH} to tell your scatter; mark where they crossed",
            "player",
            code="too_few",
        )
    low, high, sd = (np.array([getattr(one, name) for one in tried]) for name in ("low", "high", "sd"))
    exact = low == high

    def against(x: np.ndarray) -> float:
        wide = math.exp(x[0]) * sd
        known = (low[exact] - x[1]) / wide[exact]
        total = float(np.sum(0.5 * known**2 + np.log(wide[exact])))
        a, b = (low[~exact] - x[1]) / wide[~exact], (high[~exact] - x[1]) / wide[~exact]
        flip = a > 0.0  # the same chance seen from the other side, where it is computed sharply
        a, b = np.where(flip, -b, a), np.where(flip, -a, b)
        upper, lower = log_ndtr(b), log_ndtr(a)
        share = upper + np.log1p(-np.exp(np.minimum(lower - upper, -TINY)))
        return total - float(np.sum(share))

    found = minimize(against, np.array([0.0, 0.0]), method="BFGS")
    factor = min(max(math.exp(found.x[0]), 10 * LEAST), MOST / 2)
    inverse: np.ndarray = np.asarray(found.hess_inv)
    errors = np.sqrt(np.clip(inverse.diagonal(), 0.0, None))
    player = CLUB.times(factor, "log")
    return Fit(player, factor, factor * float(errors[0]), float(found.x[1]), float(errors[1]), len(tried), marked)
