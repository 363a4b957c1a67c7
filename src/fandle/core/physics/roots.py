"""The direction at which the target is met as asked: bracketed, or near to one that is known."""

import math

from fandle.core.physics.jit import kernel
from fandle.core.physics.judge import measure
from fandle.core.physics.scene import Scene

MISS_END = 1e-11  # m: an offset this near to the one asked for is it
ANGLE_END = 1e-13  # rad, width at which a bracket is closed


@kernel
def find_root(
    lo: float,
    f_lo: float,
    hi: float,
    f_hi: float,
    goal: float,
    scene: Scene,
) -> float:
    """Direction at which `measure` equals `goal`, bracketed by lo and hi (Illinois)."""
    f_lo -= goal
    f_hi -= goal
    mid = lo
    for _ in range(100):
        if hi - lo <= ANGLE_END or f_lo == f_hi:
            break
        mid = (lo * f_hi - hi * f_lo) / (f_hi - f_lo)
        if not (lo < mid < hi):
            mid = 0.5 * (lo + hi)
        f = measure(mid, scene) - goal
        if abs(f) < MISS_END:
            return mid
        if math.isnan(f):
            return math.nan
        if (f < 0.0) == (f_hi < 0.0):
            hi, f_hi = mid, f
            f_lo *= 0.5
        else:
            lo, f_lo = mid, f
            f_hi *= 0.5
    return mid


@kernel
def root_near(start: float, goal: float, scene: Scene) -> float:
    """Direction near `start` at which the target's offset is `goal`; NaN if none is found."""
    f0 = measure(start, scene)
    span = 2e-3
    lo, f_lo, hi, f_hi = start, f0, start, f0
    for _ in range(12):
        new_lo, new_hi = start - span, start + span
        f = measure(new_hi, scene)
        if (f_hi - goal) * (f - goal) <= 0.0 and abs(f - f_hi) < 1.0:
            r = find_root(hi, f_hi, new_hi, f, goal, scene)
            if abs(measure(r, scene) - goal) < 1e-6:
                return r
        hi, f_hi = new_hi, f
        f = measure(new_lo, scene)
        if (f_lo - goal) * (f - goal) <= 0.0 and abs(f - f_lo) < 1.0:
            r = find_root(new_lo, f, lo, f_lo, goal, scene)
            if abs(measure(r, scene) - goal) < 1e-6:
                return r
        lo, f_lo = new_lo, f
        span *= 1.7
    return math.nan
