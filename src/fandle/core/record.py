"""Attempts on the real table: what is noted, and honest figures from them."""

import math
import statistics
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from fandle.core.approach import Approach
from fandle.core.errors import BadInputError
from fandle.core.layout import Layout, spoken
from fandle.core.rails import Rail, rails_name
from fandle.core.readout import over
from fandle.core.travel import crosses

Z95 = 1.959964  # standard normal quantile of a two-sided 95 % interval


class Result(StrEnum):
    """What happened. A ball that missed the rail never got to the question of short or long."""

    HIT = "hit"
    SHORT = "short"
    LONG = "long"
    RAIL = "missed the rail"


class Thickness(StrEnum):
    """Which side of the target was met, as the shooter saw it along the last leg."""

    LEFT = "left"
    FULL = "full"
    RIGHT = "right"


@dataclass(frozen=True)
class Tried:
    """One attempt, as far as figures need it. off: diamonds from the target, + long; None if not marked."""

    result: Result
    off: float | None = None


@dataclass(frozen=True)
class Figures:
    """Attempts and hits, the share with its 95 % interval, and bias apart from scatter (diamonds, + long)."""

    attempts: int
    hits: int
    share: float | None
    low: float | None
    high: float | None
    marked: int
    bias: float | None
    scatter: float | None


def figures(tried: Iterable[Tried]) -> Figures:
    """Honest figures: Wilson's score interval for the share (Wilson 1927, from memory);
    mean and sample standard deviation of the marked landings."""
    rows = list(tried)
    hits = sum(row.result == Result.HIT for row in rows)
    offs = [row.off for row in rows if row.off is not None]
    low, high = wilson(hits, len(rows))
    return Figures(
        attempts=len(rows),
        hits=hits,
        share=hits / len(rows) if rows else None,
        low=low,
        high=high,
        marked=len(offs),
        bias=statistics.fmean(offs) if offs else None,
        scatter=statistics.stdev(offs) if len(offs) > 1 else None,
    )


def wilson(hits: int, attempts: int) -> tuple[float | None, float | None]:
    """95 % score interval of a share; (None, None) without attempts."""
    if attempts == 0:
        return None, None
    p, n, z = hits / attempts, attempts, Z95
    middle = (p + z * z / (2 * n)) / (1 + z * z / n)
    half = z * math.sqrt(p * (1 - p) / n + z * z / (4 * n * n)) / (1 + z * z / n)
    # the interval holds the share itself; at 0 and 1 only rounding could say otherwise
    return max(min(middle - half, p), 0.0), min(max(middle + half, p), 1.0)


def off_by(layout: Layout, shot: Approach, rails: tuple[Rail, ...], at: float) -> float:
    """Signed diamonds by which a ball that crossed the target's line at `at` was long (+) or short (−).

    The line runs through the target, parallel to the last rail; long is further in the direction
    of travel of the shot as it was meant.
    """
    if not math.isfinite(at) or not -8.0 <= at <= 16.0:
        raise BadInputError(f"a crossing at {at} is not on this table: mark it along the target's line", "at")
    last, target = rails[-1], layout.require_target()
    met = crosses(shot, last, len(rails), last.across(target.x, target.y))
    travel = 1.0 if met is None else met[1]
    return (at - last.along(target.x, target.y)) * travel


def kick_title(target: str, rails: tuple[Rail, ...]) -> str:
    """What was shot, in words: "the 7 over the far rail"."""
    return f"{spoken(target)} {over(rails)}"


def set_up(layout: Layout, rails: tuple[Rail, ...]) -> str:
    """A name that two attempts share if balls, target, table and rails are the same (to a hundredth)."""
    balls = ";".join(f"{b.id}:{b.x:.2f},{b.y:.2f}" for b in sorted(layout.balls, key=lambda b: b.id))
    return f"{layout.table.name}|{layout.target}|{rails_name(rails)}|{balls}"
