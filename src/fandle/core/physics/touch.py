"""When and how near a ball on a parabola comes to a point. Exact, by monotone pieces."""

import math

from fandle.core.physics.jit import kernel
from fandle.core.physics.state import Arc


@kernel
def _poly(c0: float, c1: float, c2: float, c3: float, c4: float, t: float) -> float:
    return c0 + t * (c1 + t * (c2 + t * (c3 + t * c4)))


@kernel
def _zero(c0: float, c1: float, c2: float, c3: float, c4: float, lo: float, hi: float, f_lo: float) -> float:
    """Root of a quartic that changes sign once in [lo, hi]; Newton kept inside the bracket."""
    t = 0.5 * (lo + hi)
    for _ in range(80):
        f = _poly(c0, c1, c2, c3, c4, t)
        if f == 0.0:
            return t
        if (f < 0.0) == (f_lo < 0.0):
            lo = t
        else:
            hi = t
        slope = _poly(c1, 2.0 * c2, 3.0 * c3, 4.0 * c4, 0.0, t)
        new = t - f / slope if slope != 0.0 else lo
        if not (lo < new < hi):
            new = 0.5 * (lo + hi)
        if abs(new - t) <= 1e-15 * (1.0 + abs(t)):
            return new
        t = new
    return t


@kernel
def _bends(c1: float, c2: float, c3: float, c4: float, longest: float) -> tuple[int, float, float, float]:
    """Sorted times in (0, longest) at which the quartic turns: (count, t1, t2, t3)."""
    # roots of the second derivative cut the first derivative into monotone pieces
    cuts = [0.0, longest, longest, longest]
    n = 1
    a, b, c = 12.0 * c4, 6.0 * c3, 2.0 * c2
    if a != 0.0:
        disc = b * b - 4.0 * a * c
        if disc > 0.0:
            q = -0.5 * (b + math.copysign(math.sqrt(disc), b))
            r1 = q / a
            r2 = c / q if q != 0.0 else r1
            for r in (min(r1, r2), max(r1, r2)):
                if 0.0 < r < longest and r > cuts[n - 1]:
                    cuts[n] = r
                    n += 1
    elif b != 0.0 and 0.0 < -c / b < longest:
        cuts[n] = -c / b
        n += 1
    cuts[n] = longest
    found = 0
    t1 = t2 = t3 = longest
    for i in range(n):
        lo, hi = cuts[i], cuts[i + 1]
        f_lo = _poly(c1, 2.0 * c2, 3.0 * c3, 4.0 * c4, 0.0, lo)
        f_hi = _poly(c1, 2.0 * c2, 3.0 * c3, 4.0 * c4, 0.0, hi)
        if (f_lo < 0.0) != (f_hi < 0.0):
            t = _zero(c1, 2.0 * c2, 3.0 * c3, 4.0 * c4, 0.0, lo, hi, f_lo)
            found += 1
            if found == 1:
                t1 = t
            elif found == 2:
                t2 = t
            else:
                t3 = t
    return found, t1, t2, t3


@kernel
def _quartic(way: Arc, reach: float) -> tuple[float, float, float, float, float]:
    """Coefficients of |p(t)|² − reach² for p = d + v t + a t²/2."""
    dx, dy, vx, vy, ax, ay = way
    return (
        dx * dx + dy * dy - reach * reach,
        2.0 * (dx * vx + dy * vy),
        vx * vx + vy * vy + dx * ax + dy * ay,
        vx * ax + vy * ay,
        0.25 * (ax * ax + ay * ay),
    )


@kernel
def first_touch(way: Arc, reach: float, longest: float) -> float:
    """First time in [0, longest] at which |d + v t + a t²/2| falls to `reach`; inf if never.

    way: from the other ball to this one. Touching and parting does not count.
    """
    dx, dy, vx, vy, ax, ay = way
    if abs(dx) - reach > longest * (abs(vx) + 0.5 * abs(ax) * longest):
        return math.inf  # most balls of a crowd are out of reach one way or the other: no root is taken for them
    if abs(dy) - reach > longest * (abs(vy) + 0.5 * abs(ay) * longest):
        return math.inf
    c0, c1, c2, c3, c4 = _quartic(way, reach)
    far = math.sqrt(dx * dx + dy * dy) - reach
    run = longest * (math.sqrt(vx * vx + vy * vy) + 0.5 * math.sqrt(ax * ax + ay * ay) * longest)
    if far > run:
        return math.inf
    if c0 <= 0.0 and (c1 < 0.0 or (c1 == 0.0 and c2 < 0.0)):
        return 0.0
    n, t1, t2, t3 = _bends(c1, c2, c3, c4, longest)
    ends = (t1, t2, t3, longest)
    lo, f_lo = 0.0, c0
    for i in range(n + 1):
        hi = ends[i] if i < n else longest
        f_hi = _poly(c0, c1, c2, c3, c4, hi)
        if f_lo > 0.0 and f_hi <= 0.0:
            return _zero(c0, c1, c2, c3, c4, lo, hi, f_lo)
        if f_lo <= 0.0 and f_hi < f_lo and lo > 0.0:  # parted by less than rounding, now back
            return lo
        lo, f_lo = hi, f_hi
    return math.inf


@kernel
def nearest_time(way: Arc, longest: float) -> float:
    """Time in [0, longest] at which |d + v t + a t²/2| is least."""
    c0, c1, c2, c3, c4 = _quartic(way, 0.0)
    n, t1, t2, t3 = _bends(c1, c2, c3, c4, longest)
    ends = (t1, t2, t3)
    best, least = 0.0, c0
    for i in range(n + 1):
        t = ends[i] if i < n else longest
        f = _poly(c0, c1, c2, c3, c4, t)
        if f < least:
            best, least = t, f
    return best
