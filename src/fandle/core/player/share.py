"""How sure a share is."""

import math

import numpy as np
from numpy.typing import NDArray

MOST_GAIN = 6.0  # times as sure as independent draws a share may be called
RARE = 10.0  # draws that came to the rarer end, with which the gain counts half
LEAST_LEFT = 1e-12  # of a share's spread: less is nothing
Z95 = 1.959963984540054  # the normal quantile of 97.5 %


def wilson(hits: float, attempts: float) -> tuple[float, float]:
    """The 95 % score interval of hits in attempts, 1 or more (Wilson 1927, from memory).

    (p + z²/2n ± z·√(p(1−p)/n + z²/4n²)) / (1 + z²/n); it holds the share itself, whatever the rounding.
    """
    n, z2 = attempts, Z95 * Z95
    p = hits / n
    middle = p + z2 / (2 * n)
    half = Z95 * math.sqrt(p * (1 - p) / n + z2 / (4 * n * n))
    low, high = (middle - half) / (1 + z2 / n), (middle + half) / (1 + z2 / n)
    return max(min(low, p), 0.0), min(max(high, p), 1.0)


def sure_as(values: NDArray[np.float64], basis: NDArray[np.float64]) -> float:
    """How many independent draws a mean over standardised ones is as sure as.

    What the standardised columns explain of the values does not vary from sample to sample: the variance of the mean is
    that of the residuals of a regression on them (control variates). n · s² / s²_residual, no fewer than n.
    """
    n, m = basis.shape
    own = values - values.mean()
    left = values - basis @ (basis.T @ values)
    spread, rest = float(own @ own), float(left @ left)
    if n <= m or rest <= LEAST_LEFT * n or spread <= LEAST_LEFT * n:
        return float(n)
    gain = min(max((spread / (n - 1)) / (rest / (n - m)), 1.0), MOST_GAIN)
    rarer = float(min(values.sum(), n - values.sum()))
    return float(n * (1.0 + (gain - 1.0) * rarer / (rarer + RARE)))


def spread_range(hits: float, n: int, sure: float) -> tuple[float, float]:
    """The 95 % range of a share of n standardised draws that is as sure as so many independent ones: Wilson's for that
    many, never narrower than one draw either way."""
    p = hits / n
    low, high = wilson(p * sure, sure)
    return max(min(low, p - 1 / n), 0.0), min(max(high, p + 1 / n), 1.0)
