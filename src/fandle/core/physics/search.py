"""Search over directions: which of them meet the target over given rails, and how thickly.

A direction is judged twice. `measure` plays it with nothing on the bed but the target, which is
solid only on the last leg, and gives the signed offset of the target from the line of travel:
continuous in the direction, so it can be bracketed. `outcome` plays it for real.
"""

import math

import numpy as np

from fandle.core.physics.engine import (
    EV_RAIL,
    EVENT_WIDTH,
    HIT_BALL,
    HIT_JAW,
    MOST_EVENTS,
    MOST_PIECES,
    PIECE_WIDTH,
    RADIUS,
    STOPPED,
    run,
)
from fandle.core.physics.jit import kernel
from fandle.core.physics.strike import strike
from fandle.core.physics.touch import nearest_time

# outcomes of a direction
HIT, BACKSTOP, BLOCKED, JAW, SHORT, OFF_RAIL, PAST = range(7)
# columns of a solution: direction, offset of the target (m), lowest and highest direction that hit
SOLUTION_WIDTH = 4
COARSE = 64  # directions over the whole first rail
FINE = 24  # directions within one coarse step near the target
MOST_SOLUTIONS = 8
ANGLE_END = 1e-13  # rad, width at which a bracket is closed
EDGE_END = 1e-8  # rad, the same for the edge of a window: 0.1 µm at 10 m


@kernel
def _play(theta, origin, stroke, p, balls, solid_leg, jaws, most_rails, events, pieces):
    vx, vy, wx, wy, wz = strike(theta, stroke[0], stroke[1], stroke[2], stroke[3], stroke[4])
    return run(
        origin[0], origin[1], vx, vy, wx, wy, wz, p, balls, solid_leg, jaws, most_rails, events, pieces
    )


@kernel
def _rails_met(order, events, n_events):
    """Rails met so far, or −1 where they leave the order asked for."""
    met = 0
    for i in range(n_events):
        if events[i, 0] == EV_RAIL:
            if met < order.shape[0] and events[i, 2] != order[met]:
                return -1
            met += 1
    return met


@kernel
def _offset(piece, t, target):
    """Signed distance of the target from the line of travel, + = the target lies to the left."""
    x = piece[2] + t * (piece[4] + 0.5 * piece[6] * t)
    y = piece[3] + t * (piece[5] + 0.5 * piece[7] * t)
    vx, vy = piece[4] + piece[6] * t, piece[5] + piece[7] * t
    speed = math.sqrt(vx * vx + vy * vy)
    if speed < 1e-7:
        vx, vy = piece[4], piece[5]
        speed = math.sqrt(vx * vx + vy * vy)
    return (vx * (target[1] - y) - vy * (target[0] - x)) / speed


@kernel
def measure(theta, origin, stroke, p, target, order, events, pieces):
    """Offset of the target from the line of travel at contact, or where the ball is nearest.

    Metres; NaN where the rails are not met in this order.
    """
    n = order.shape[0]
    code, n_ev, n_pc = _play(
        theta, origin, stroke, p, target, n, False, n + 1, events, pieces
    )
    if n_pc == 0 or _rails_met(order, events, n_ev) < n or pieces[n_pc - 1, 9] != n:
        return math.nan
    if code == HIT_BALL:
        return _offset(pieces[n_pc - 1], pieces[n_pc - 1, 1], target[0])
    best, least = math.nan, math.inf
    for i in range(n_pc):
        q = pieces[i]
        if q[9] != n:
            continue
        dx, dy = q[2] - target[0, 0], q[3] - target[0, 1]
        t = nearest_time(dx, dy, q[4], q[5], q[6], q[7], q[1])
        away = math.hypot(dx + t * (q[4] + 0.5 * q[6] * t), dy + t * (q[5] + 0.5 * q[7] * t))
        if away < least:
            least = away
            best = _offset(q, t, target[0])
    return best


@kernel
def outcome(theta, spare, origin, stroke, p, balls, target_index, order, events, pieces):
    """What really happens: one of the outcomes above, times 1000, plus 10 × ball + leg.

    spare: further rails that the ball may meet after those asked for (1 to see a BACKSTOP).
    """
    n = order.shape[0]
    code, n_ev, _ = _play(theta, origin, stroke, p, balls, 0, True, n + 1 + spare, events, pieces)
    met = _rails_met(order, events, n_ev)
    if met < 0:
        return OFF_RAIL * 1000
    if code == HIT_BALL:
        ball = int(events[n_ev - 1, 2])
        if ball == target_index and met == n:
            return HIT * 1000
        if ball == target_index and met > n:
            return BACKSTOP * 1000
        if met <= n:
            return BLOCKED * 1000 + 10 * ball + met
        return PAST * 1000
    if code == HIT_JAW and met < n:
        return JAW * 1000 + met
    if code == STOPPED and met <= n:
        return SHORT * 1000
    return PAST * 1000


@kernel
def find_root(lo, f_lo, hi, f_hi, goal, origin, stroke, p, target, order, events, pieces):
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
        f = measure(mid, origin, stroke, p, target, order, events, pieces) - goal
        if abs(f) < 1e-12:
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
def root_near(start, goal, origin, stroke, p, target, order):
    """Direction near `start` at which the target's offset is `goal`; NaN if none is found."""
    events = np.empty((MOST_EVENTS, EVENT_WIDTH))
    pieces = np.empty((MOST_PIECES, PIECE_WIDTH))
    f0 = measure(start, origin, stroke, p, target, order, events, pieces)
    span = 2e-3
    lo, f_lo, hi, f_hi = start, f0, start, f0
    for _ in range(12):
        new_lo, new_hi = start - span, start + span
        f = measure(new_hi, origin, stroke, p, target, order, events, pieces)
        if (f_hi - goal) * (f - goal) <= 0.0 and abs(f - f_hi) < 1.0:
            r = find_root(hi, f_hi, new_hi, f, goal, origin, stroke, p, target, order, events, pieces)
            if abs(measure(r, origin, stroke, p, target, order, events, pieces) - goal) < 1e-6:
                return r
        hi, f_hi = new_hi, f
        f = measure(new_lo, origin, stroke, p, target, order, events, pieces)
        if (f_lo - goal) * (f - goal) <= 0.0 and abs(f - f_lo) < 1.0:
            r = find_root(new_lo, f, lo, f_lo, goal, origin, stroke, p, target, order, events, pieces)
            if abs(measure(r, origin, stroke, p, target, order, events, pieces) - goal) < 1e-6:
                return r
        lo, f_lo = new_lo, f
        span *= 1.7
    return math.nan


@kernel
def _edge(good, bad, backstop, origin, stroke, p, balls, target_index, order, events, pieces):
    """Last direction that hits between one that does and one that does not.

    backstop: a target met off one more rail counts too.
    """
    for _ in range(40):
        mid = 0.5 * (good + bad)
        if abs(bad - good) < EDGE_END:
            break
        what = outcome(mid, 1 if backstop else 0, origin, stroke, p, balls, target_index, order, events, pieces) // 1000
        if what == HIT or (backstop and what == BACKSTOP):
            good = mid
        else:
            bad = mid
    return good


@kernel
def _widen(start, step, origin, stroke, p, balls, target_index, order, events, pieces):
    """Last direction from `start` by `step` up to which every one still hits the target."""
    at = start
    for _ in range(4000):
        new = at + step
        what = outcome(new, 1, origin, stroke, p, balls, target_index, order, events, pieces) // 1000
        if what not in (HIT, BACKSTOP):
            return _edge(at, new, True, origin, stroke, p, balls, target_index, order, events, pieces)
        at = new
    return at


@kernel
def _hunt(lo, code_lo, hi, origin, stroke, p, balls, target_index, order, events, pieces):
    """A direction that hits between two that fail in different ways; NaN if none is found."""
    for _ in range(24):
        mid = 0.5 * (lo + hi)
        code = outcome(mid, 0, origin, stroke, p, balls, target_index, order, events, pieces)
        if code < 1000:
            return mid
        if code == code_lo:
            lo = mid
        else:
            hi = mid
    return math.nan


@kernel
def _sample(first, last, goal, origin, stroke, p, target, order, events, pieces, thetas):
    """Directions worth playing for real, in rising order. Returns how many, and the best of them.

    Those near the target, from a coarse grid over the rail refined where the target may lie,
    and every direction that meets it as thickly as asked.
    """
    reach = 2.0 * p[RADIUS]
    n = 0
    best, best_miss = math.nan, math.inf
    step = (last - first) / COARSE
    f_a = measure(first, origin, stroke, p, target, order, events, pieces)
    for i in range(COARSE):
        a = first + i * step
        b = a + step
        f_b = measure(b, origin, stroke, p, target, order, events, pieces)
        swing = abs(f_b - f_a)
        near = min(abs(f_a), abs(f_b)) < reach + 2.0 * swing
        if near or math.isnan(f_a) != math.isnan(f_b):
            lo, f_lo = a, f_a
            for k in range(1, FINE + 1):
                hi = a + step * k / FINE
                f_hi = f_b if k == FINE else measure(hi, origin, stroke, p, target, order, events, pieces)
                crosses = (f_lo - goal) * (f_hi - goal) <= 0.0 and abs(f_hi - f_lo) < 0.5
                if crosses or abs(f_lo) < 1.2 * reach or abs(f_hi) < 1.2 * reach:
                    if n == 0 or thetas[n - 1] < lo:
                        thetas[n] = lo
                        n += 1
                    if crosses:
                        root = find_root(
                            lo, f_lo, hi, f_hi, goal, origin, stroke, p, target, order, events, pieces
                        )
                        if lo < root < hi:
                            thetas[n] = root
                            n += 1
                            if best_miss > 0.0:
                                best, best_miss = root, 0.0
                    thetas[n] = hi
                    n += 1
                if abs(f_hi - goal) < best_miss:
                    best, best_miss = hi, abs(f_hi - goal)
                lo, f_lo = hi, f_hi
        f_a = f_b
    return n, best


@kernel
def _within(lo, hi, goal, origin, stroke, p, target, order, events, pieces):
    """Direction in a run of hits that meets the target as asked, else the thickest one."""
    inside = 0.01 * (hi - lo)
    a, b = lo + inside, hi - inside
    f_a = measure(a, origin, stroke, p, target, order, events, pieces)
    f_b = measure(b, origin, stroke, p, target, order, events, pieces)
    if (f_a - goal) * (f_b - goal) <= 0.0:
        return find_root(a, f_a, b, f_b, goal, origin, stroke, p, target, order, events, pieces)
    return a if abs(f_a - goal) < abs(f_b - goal) else b


@kernel
def solve(first, last, goal, origin, stroke, p, balls, target_index, order):
    """All ways to meet the target over the rails `order`, directions between first and last.

    goal: wanted offset of the target from the line of travel (m, + = passing right of it).
    Returns (solutions, count, best): rows as SOLUTION_WIDTH says, and the direction nearest to
    what was asked even where it fails, NaN if no direction comes near.
    """
    events = np.empty((MOST_EVENTS, EVENT_WIDTH))
    pieces = np.empty((MOST_PIECES, PIECE_WIDTH))
    thetas = np.empty(3 * COARSE * FINE)
    solutions = np.empty((MOST_SOLUTIONS, SOLUTION_WIDTH))
    target = balls[target_index : target_index + 1]
    n, best = _sample(first, last, goal, origin, stroke, p, target, order, events, pieces, thetas)
    pace = (last - first) / (COARSE * FINE)
    found = 0
    run_lo = math.nan  # lower edge of the run of hits we are in
    code_a = PAST * 1000
    for i in range(n):
        theta = thetas[i]
        code = outcome(theta, 0, origin, stroke, p, balls, target_index, order, events, pieces)
        joined = i > 0 and theta - thetas[i - 1] < 1.5 * pace
        seed = theta if code < 1000 else math.nan
        if joined and code >= 1000 and code_a >= 1000 and code != code_a:
            seed = _hunt(
                thetas[i - 1], code_a, theta, origin, stroke, p, balls, target_index, order, events, pieces
            )
        if not math.isnan(seed) and math.isnan(run_lo):
            below = thetas[i - 1] if joined else seed - pace
            run_lo = _edge(
                seed, below, False, origin, stroke, p, balls, target_index, order, events, pieces
            )
        ends = code >= 1000 or i == n - 1 or thetas[i + 1] - theta >= 1.5 * pace
        if not math.isnan(run_lo) and ends:
            good = seed
            if math.isnan(good):
                good = thetas[i - 1]
            above = theta if code >= 1000 else theta + pace
            run_hi = _edge(
                good, above, False, origin, stroke, p, balls, target_index, order, events, pieces
            )
            if found < MOST_SOLUTIONS:
                aim = _within(run_lo, run_hi, goal, origin, stroke, p, target, order, events, pieces)
                row = solutions[found]
                row[0] = aim
                row[1] = measure(aim, origin, stroke, p, target, order, events, pieces)
                row[2] = _widen(
                    aim, -pace, origin, stroke, p, balls, target_index, order, events, pieces
                )
                row[3] = _widen(
                    aim, pace, origin, stroke, p, balls, target_index, order, events, pieces
                )
                found += 1
            run_lo = math.nan
        code_a = code
    return solutions, found, best
