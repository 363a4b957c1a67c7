"""Search over directions: all those that meet the target over given rails, found and bracketed."""

import math
from typing import Any, NamedTuple

import numpy as np

from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.judge import measure, outcome
from fandle.core.physics.outcomes import BACKSTOP, HIT, PAST, Outcome
from fandle.core.physics.roots import find_root
from fandle.core.physics.scene import Scene
from fandle.core.physics.slots import RADIUS


class Found(NamedTuple):
    """A solution: direction, offset of the target (m), lowest and highest direction that hit. Also its columns."""

    direction: float
    offset: float
    lowest: float
    highest: float


FOUND: Any = Found(*range(4))
# directions over the whole first rail (or the target itself), and within one such step near the
# target, by the number of rails
GRIDS = ((24, 4), (64, 16), (256, 8), (384, 8), (512, 8))
SWING = 1.2  # a coarse step is refined if its ends come this many of its own swings near
MOST_SOLUTIONS = 8
EDGE_END = 1e-8  # rad, the same for the edge of a window: 0.1 µm at 10 m


@kernel
def _edge(
    good: float,
    bad: float,
    backstop: bool,
    scene: Scene,
) -> float:
    """Last direction that hits between one that does and one that does not.

    backstop: a target met off one more rail counts too. Most edges are the thinnest hit, an
    offset of two radii: that one is found as a root, and believed once both its sides are played.
    """
    f_good, f_bad = measure(good, scene), measure(bad, scene)
    reach = math.copysign(2.0 * scene.p[RADIUS], f_bad)
    if abs(f_bad) > abs(reach) and abs(f_good - reach) < 2.0 * abs(reach):
        if good < bad:
            root = find_root(good, f_good, bad, f_bad, reach, scene)
            in_, out = root - 0.5 * EDGE_END, root + 0.5 * EDGE_END
        else:
            root = find_root(bad, f_bad, good, f_good, reach, scene)
            in_, out = root + 0.5 * EDGE_END, root - 0.5 * EDGE_END
        if outcome(in_, 0, scene).what == HIT:
            what = outcome(out, 1 if backstop else 0, scene).what
            if what != HIT and not (backstop and what == BACKSTOP):
                return in_
    for _ in range(40):
        mid = 0.5 * (good + bad)
        if abs(bad - good) < EDGE_END:
            break
        what = outcome(mid, 1 if backstop else 0, scene).what
        if what == HIT or (backstop and what == BACKSTOP):
            good = mid
        else:
            bad = mid
    return good


@kernel
def _widen(good: float, beyond: float, step: float, scene: Scene) -> float:
    """Last direction up to which every one still hits the target, a backstop included.

    good hits; `beyond` is the next direction looked at, then on by `step`.
    """
    for _ in range(4000):
        what = outcome(beyond, 1, scene).what
        if what not in (HIT, BACKSTOP):
            return _edge(good, beyond, True, scene)
        good = beyond
        beyond += step
    return good


@kernel
def _hunt(
    lo: float,
    at_lo: Outcome,
    hi: float,
    scene: Scene,
) -> float:
    """A direction that hits between two that fail in different ways; NaN if none is found."""
    for _ in range(24):
        mid = 0.5 * (lo + hi)
        here = outcome(mid, 0, scene)
        if here.what == HIT:
            return mid
        if here == at_lo:
            lo = mid
        else:
            hi = mid
    return math.nan


@kernel
def _sample(
    at: Floats,
    values: Floats,
    goal: float,
    scene: Scene,
    fine: int,
    thetas: Floats,
    exact: Floats,
) -> tuple[int, float]:
    """Directions worth playing for real, in rising order. Returns how many, and the best of them.

    Those near the target, from a coarse grid of directions and offsets refined where the target
    may lie, and every direction that meets it as thickly as asked, marked in `exact`.
    """
    reach = 2.0 * scene.p[RADIUS]
    n = 0
    best, best_miss = math.nan, math.inf
    step = at[1] - at[0]
    for i in range(at.shape[0] - 1):
        a, f_a, f_b = at[i], values[i], values[i + 1]
        swing = abs(f_b - f_a)
        near = min(abs(f_a), abs(f_b)) < reach + SWING * swing
        if near or math.isnan(f_a) != math.isnan(f_b):
            lo, f_lo = a, f_a
            for k in range(1, fine + 1):
                hi = a + step * k / fine
                f_hi = f_b if k == fine else measure(hi, scene)
                crosses = (f_lo - goal) * (f_hi - goal) <= 0.0 and abs(f_hi - f_lo) < 0.5
                if crosses or abs(f_lo) < 1.02 * reach or abs(f_hi) < 1.02 * reach:
                    if n == 0 or thetas[n - 1] < lo:
                        thetas[n] = lo
                        n += 1
                    if crosses:
                        root = find_root(lo, f_lo, hi, f_hi, goal, scene)
                        if lo < root < hi:
                            thetas[n] = root
                            exact[n] = 1.0
                            n += 1
                            if best_miss > 0.0:
                                best, best_miss = root, 0.0
                    thetas[n] = hi
                    n += 1
                if abs(f_hi - goal) < best_miss:
                    best, best_miss = hi, abs(f_hi - goal)
                lo, f_lo = hi, f_hi
    return n, best


@kernel
def _room(values: Floats, scene: Scene) -> int:
    """How many coarse steps _sample may refine."""
    reach = 2.0 * scene.p[RADIUS]
    count = 0
    for i in range(values.shape[0] - 1):
        f_a, f_b = values[i], values[i + 1]
        near = min(abs(f_a), abs(f_b)) < reach + SWING * abs(f_b - f_a)
        if near or math.isnan(f_a) != math.isnan(f_b):
            count += 1
    return count


@kernel
def _within(
    lo: float,
    hi: float,
    goal: float,
    scene: Scene,
) -> float:
    """Direction in a run of hits that meets the target as asked, else the thickest one."""
    inside = 0.01 * (hi - lo)
    a, b = lo + inside, hi - inside
    f_a = measure(a, scene)
    f_b = measure(b, scene)
    if (f_a - goal) * (f_b - goal) <= 0.0:
        return find_root(a, f_a, b, f_b, goal, scene)
    return a if abs(f_a - goal) < abs(f_b - goal) else b


@kernel
def solve_from(at: Floats, values: Floats, goal: float, scene: Scene, fine: int) -> tuple[Floats, int, float]:
    """The same from directions in equal steps and the target's offset at each, NaN off the order.

    Returns (solutions, count, best): rows as FOUND says, and the direction nearest to
    what was asked even where it fails, NaN if no direction comes near.
    """
    room = 3 * fine * _room(values, scene)
    thetas = np.empty(room)
    exact = np.zeros(room)
    solutions = np.empty((MOST_SOLUTIONS, 4))
    n, best = _sample(at, values, goal, scene, fine, thetas, exact)
    pace = (at[1] - at[0]) / fine
    found = 0
    # the run of hits we are in: its first and last direction, what lies below, the exact one
    lowest, highest, below, aim = math.nan, math.nan, math.nan, math.nan
    before = Outcome(PAST, 0, 0)
    for i in range(n):
        theta = thetas[i]
        here = outcome(theta, 0, scene)
        hits = here.what == HIT
        joined = i > 0 and theta - thetas[i - 1] < 1.5 * pace
        hit = theta if hits else math.nan
        if joined and not hits and before.what != HIT and here != before:
            hit = _hunt(thetas[i - 1], before, theta, scene)
        if not math.isnan(hit):
            if math.isnan(lowest):
                lowest, below, aim = hit, thetas[i - 1] if joined else hit - pace, math.nan
            highest = hit
            if exact[i] > 0.0 and hits:
                aim = theta
        ends = not hits or i == n - 1 or thetas[i + 1] - theta >= 1.5 * pace
        if not math.isnan(lowest) and ends and found < MOST_SOLUTIONS:
            above = theta + pace if hits else theta
            if math.isnan(aim):
                lo = _edge(lowest, below, False, scene)
                aim = _within(lo, _edge(highest, above, False, scene), goal, scene)
            row = solutions[found]
            row[FOUND.direction], row[FOUND.offset] = aim, measure(aim, scene)
            row[FOUND.lowest] = _widen(lowest, below, -pace, scene)
            row[FOUND.highest] = _widen(highest, above, pace, scene)
            found += 1
            lowest = math.nan
        before = here
    return solutions, found, best


@kernel
def _measured(at: Floats, scene: Scene) -> Floats:
    """The target's offset at each direction."""
    values = np.empty(at.shape[0])
    for i in range(at.shape[0]):
        values[i] = measure(at[i], scene)
    return values


def solve(first: float, last: float, goal: float, scene: Scene, grid: tuple[int, int]) -> tuple[Floats, int, float]:
    """All ways to meet the target over the rails of the scene, directions between first and last.

    goal: wanted offset of the target from the line of travel (m, + = passing right of it);
    grid: how many directions are looked at, one of GRIDS. Returns as `solve_from`.
    """
    at = first + np.arange(grid[0] + 1) * (last - first) / grid[0]
    return solve_from(at, _measured(at, scene), goal, scene, grid[1])
