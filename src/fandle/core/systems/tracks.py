"""The track that passes through a ball, of the many that a system numbers."""

from collections.abc import Callable

from fandle.core.layout.ball import Ball

SCAN = 60  # steps in which the track through the cue ball is looked for


def root(function: Callable[[float], float], a: float, b: float) -> float:
    """Where a function that changes its sign between a and b is nought, to 1e-14 (Brent's method)."""
    from scipy.optimize import brentq  # a fifth of a second: only who counts waits for it

    return float(brentq(function, a, b, xtol=1e-14, rtol=1e-14))


def track_through(
    ball: Ball,
    start: Callable[[float], tuple[float, float]],
    aim: Callable[[float], tuple[float, float]],
    low: float,
    high: float,
) -> float | None:
    """The number n in [low, high] whose line, from start(n) to aim(n), passes through the ball; None if none does."""

    def beside(n: float) -> float:
        (ax, ay), (bx, by) = start(n), aim(n)
        return (bx - ax) * (ball.y - ay) - (by - ay) * (ball.x - ax)

    step = (high - low) / SCAN
    before = beside(low)
    for i in range(SCAN):
        a, b = low + i * step, low + (i + 1) * step
        after = beside(b)
        if before == 0.0:
            return a
        if before * after <= 0.0:
            return root(beside, a, b)
        before = after
    return None
