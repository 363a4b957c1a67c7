"""Did anything change? A difference is called one only where the ranges say so.

Shares: Newcombe's interval for the difference of two shares, from Wilson's (Newcombe, Statistics in Medicine 17 (1998)
873-890, method 10; from memory). Averages: Welch's interval (Welch 1947, from memory). Both at 95 %.
"""

import math
from dataclasses import dataclass
from typing import Literal

from fandle.core.player import share
from fandle.core.practice.drill import Drill
from fandle.core.systems.base import figure

MOST_MORE = 400  # attempts: a difference that would take more to see is none to speak of
FEW = 5  # marked landings below which a goal is not judged
LIKELY = 0.975  # of either side


@dataclass(frozen=True)
class Made:
    """Attempts and how many of them counted."""

    attempts: int
    hits: int

    @property
    def share(self) -> float:
        """Hits of attempts; 0 of none."""
        return self.hits / self.attempts if self.attempts else 0.0


@dataclass(frozen=True)
class Change:
    """What changed between two periods: low to high is the 95 % range of the difference.

    more: attempts in each period until a difference as large as this would be clear; None where that is far off.
    """

    verdict: Literal["better", "worse", "not yet clear", "no data"]
    by: float
    low: float
    high: float
    more: int | None
    say: str


def change_of(before: Made, after: Made) -> Change:
    """Whether more, or fewer, attempts count than before."""
    if not before.attempts or not after.attempts:
        return Change("no data", 0.0, -1.0, 1.0, None, "nothing to compare with yet")
    low, high = difference(before, after)
    by = after.share - before.share
    if low > 0.0:
        return Change("better", by, low, high, 0, f"better by {by:.0%} ({low:.0%} to {high:.0%})")
    if high < 0.0:
        return Change("worse", by, low, high, 0, f"worse by {-by:.0%} ({-high:.0%} to {-low:.0%})")
    more = _until_clear(before, after)
    say = f"not yet clear: {more} more" if more is not None else "no change that a few more would show"
    return Change("not yet clear", by, low, high, more, say)


def difference(before: Made, after: Made) -> tuple[float, float]:
    """95 % range of after.share − before.share."""
    (l1, u1), (l2, u2) = (share.wilson(each.hits, each.attempts) for each in (before, after))
    p1, p2 = before.share, after.share
    low = p2 - p1 - math.hypot(p2 - l2, u1 - p1)
    high = p2 - p1 + math.hypot(u2 - p2, p1 - l1)
    return low, high


def _until_clear(before: Made, after: Made) -> int | None:
    """How many more attempts, made as those after were, would make the difference clear; None for too many."""
    for more in range(1, MOST_MORE + 1):
        then = Made(after.attempts + more, round(after.share * (after.attempts + more)))
        low, high = difference(before, then)
        if low > 0.0 or high < 0.0:
            return more
    return None


@dataclass(frozen=True)
class Average:
    """Marked landings: how many, their mean (diamonds, + long), their standard deviation."""

    count: int
    mean: float
    sd: float

    @property
    def range(self) -> tuple[float, float]:
        """95 % range of the mean (Student's t)."""
        if self.count < 2:
            return -math.inf, math.inf
        half = _t(self.count - 1) * self.sd / math.sqrt(self.count)
        return self.mean - half, self.mean + half

    @property
    def clearly_off(self) -> float:
        """How far from nought the mean lies at least, by its range; 0 where nought lies inside."""
        low, high = self.range
        return max(low, -high, 0.0)

    @property
    def sd_range(self) -> tuple[float, float]:
        """95 % range of the standard deviation (chi squared)."""
        from scipy.special import chdtri

        if self.count < 2:
            return 0.0, math.inf
        squares, free = (self.count - 1) * self.sd**2, self.count - 1
        return (
            math.sqrt(squares / float(chdtri(free, 1 - LIKELY))),
            math.sqrt(squares / float(chdtri(free, LIKELY))),
        )

    @property
    def typical(self) -> float:
        """The typical miss, bias and scatter together: root of the mean square."""
        return math.sqrt(self.mean**2 + self.sd**2 * (self.count - 1) / self.count) if self.count else 0.0

    @property
    def typical_most(self) -> float:
        """Upper end of its 95 % range (chi squared, as for a scatter about nought)."""
        from scipy.special import chdtri

        return self.typical * math.sqrt(self.count / float(chdtri(self.count, LIKELY))) if self.count else math.inf


def within(landed: Average, goal: float) -> str:
    """Is a goal such as "within 0.2 diamond" reached, in words: surely only where the range says so."""
    wanted = f"Goal ± {figure(goal)}"
    if landed.count < FEW:
        return f"{wanted}: {FEW - landed.count} more marked landings to tell"
    if landed.typical_most <= goal:
        return f"{wanted}: reached ({figure(landed.typical)} typical, surely under {figure(landed.typical_most)})"
    if landed.typical <= goal:
        return f"{wanted}: nearly ({figure(landed.typical)} typical, but it may be {figure(landed.typical_most)})"
    return f"{wanted}: not yet ({figure(landed.typical)} typical)"


def average(offs: list[float]) -> Average:
    """Mean and standard deviation of landings."""
    n = len(offs)
    mean = sum(offs) / n if n else 0.0
    return Average(n, mean, math.sqrt(sum((off - mean) ** 2 for off in offs) / (n - 1)) if n > 1 else 0.0)


def bias_change(before: Average, after: Average) -> str:
    """Whether the average miss changed, in words: claimed only where Welch's range excludes nought."""
    if before.count < 2 or after.count < 2:
        return "too few marked landings to compare"
    a, b = before.sd**2 / before.count, after.sd**2 / after.count
    if a + b == 0.0:
        return "not yet clear"
    free = (a + b) ** 2 / (a**2 / (before.count - 1) + b**2 / (after.count - 1))
    by, half = after.mean - before.mean, _t(free) * math.sqrt(a + b)
    if abs(by) <= half:
        return f"not yet clear: {figure(abs(by))} {'longer' if by > 0 else 'shorter'}, ± {figure(half)}"
    return f"{figure(abs(by))} {'longer' if by > 0 else 'shorter'} than before, ± {figure(half)}"


def _t(free: float) -> float:
    """Student's t at 97.5 %."""
    from scipy.special import stdtrit

    return float(stdtrit(free, LIKELY))


def streaks(made: list[bool]) -> tuple[int, int]:
    """(the run of hits that stands now, the longest one), of attempts in order of time."""
    now = best = 0
    for hit in made:
        now = now + 1 if hit else 0
        best = max(best, now)
    return now, best


def rounds(made: list[bool], size: int) -> list[int]:
    """Hits of each round of so many attempts in order of time; the last may still be under way."""
    return [sum(made[k : k + size]) for k in range(0, len(made), size)]


def reached(made: list[bool], drill: Drill) -> bool:
    """Is a drill's goal reached? In a row: ever; of a round: in any; of the last so many: now."""
    wanted, out_of = drill.wanted_hits, drill.out_of
    if drill.play == "round":
        return max(rounds(made, out_of), default=0) >= wanted
    if drill.in_a_row:
        return streaks(made)[1] >= wanted
    return len(made) >= out_of and sum(made[-out_of:]) >= wanted
