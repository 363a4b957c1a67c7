"""How sure a share is."""

import math

Z95 = 1.959963984540054  # the normal quantile of 97.5 %


def wilson(hits: float, attempts: int) -> tuple[float, float]:
    """The 95 % score interval of hits in attempts, 1 or more (Wilson 1927, from memory).

    (p + z²/2n ± z·√(p(1−p)/n + z²/4n²)) / (1 + z²/n); it holds the share itself, whatever the rounding.
    """
    n, z2 = attempts, Z95 * Z95
    p = hits / n
    middle = p + z2 / (2 * n)
    half = Z95 * math.sqrt(p * (1 - p) / n + z2 / (4 * n * n))
    low, high = (middle - half) / (1 + z2 / n), (middle + half) / (1 + z2 / n)
    return max(min(low, p), 0.0), min(max(high, p), 1.0)
