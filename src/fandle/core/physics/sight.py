"""What is seen from where the cue ball lies: kernels. A ball is the disc of two radii that a centre runs into."""

import math

from fandle.core.physics.jit import Bools, Floats, Ints, kernel

EDGE_RAD = 1e-7  # so far beside a tangent one looks


@kernel
def first_met(balls: Floats, x: float, y: float, direction: float, wide: float) -> int:
    """Which of balls, (m, 2) m, NaN where gone, a centre at x, y going straight meets first; −1 for none.

    wide: two radii, m.
    """
    ux, uy = math.cos(direction), math.sin(direction)
    found, nearest = -1, math.inf
    for k in range(len(balls)):
        dx, dy = balls[k, 0] - x, balls[k, 1] - y
        along, aside = dx * ux + dy * uy, dx * uy - dy * ux
        if along > 0.0 and abs(aside) < wide:  # NaN is neither
            met = along - math.sqrt(wide * wide - aside * aside)
            if met < nearest:
                found, nearest = k, met
    return found


@kernel
def clear(balls: Floats, own: int, x: float, y: float, to_x: float, to_y: float, wide: float) -> bool:
    """Does a ball rolled straight from x, y to to_x, to_y pass every one of balls but its own?"""
    wx, wy = to_x - x, to_y - y
    square = max(wx * wx + wy * wy, 1e-18)
    for k in range(len(balls)):
        if k == own:
            continue
        dx, dy = balls[k, 0] - x, balls[k, 1] - y
        along = min(max((dx * wx + dy * wy) / square, 0.0), 1.0)
        ax, ay = dx - along * wx, dy - along * wy
        if ax * ax + ay * ay < wide * wide:
            return False
    return True


@kernel
def is_seen(balls: Floats, ball: int, x: float, y: float, wide: float) -> bool:
    """Is there a straight way from x, y to any part of a ball?

    What is met first changes only at tangents of the discs and where two of them cross: looked at beside each of these.
    """
    dx, dy = balls[ball, 0] - x, balls[ball, 1] - y
    away = math.hypot(dx, dy)
    middle, half = math.atan2(dy, dx), math.asin(min(wide / max(away, wide), 1.0))
    if first_met(balls, x, y, middle, wide) == ball:
        return True
    for end in (-half + EDGE_RAD, half - EDGE_RAD):
        if first_met(balls, x, y, middle + end, wide) == ball:
            return True
    for k in range(len(balls)):
        ox, oy = balls[k, 0] - x, balls[k, 1] - y
        off = math.hypot(ox, oy)
        if k == ball or not off < away + 2.0 * wide:
            continue
        towards, cover = math.atan2(oy, ox), math.asin(min(wide / max(off, wide), 1.0))
        for end in (towards - cover - EDGE_RAD, towards + cover + EDGE_RAD):
            if first_met(balls, x, y, end, wide) == ball:
                return True
        apart = math.hypot(ox - dx, oy - dy)
        if apart < 2.0 * wide:  # their discs cross at two points
            rise = math.sqrt(wide * wide - 0.25 * apart * apart) / apart
            for turn in (-rise, rise):
                px, py = 0.5 * (ox + dx) - turn * (oy - dy), 0.5 * (oy + dy) + turn * (ox - dx)
                at = math.atan2(py, px)
                for end in (at - EDGE_RAD, at + EDGE_RAD):
                    if first_met(balls, x, y, end, wide) == ball:
                        return True
    return False


@kernel
def sights(rests: Floats, on: Bools, wide: float, seen: Bools, hider: Ints, near: Floats) -> None:
    """Of n draws: is a ball on seen; the nearest one on, how far it is (m) and which ball lies before its middle.

    rests: (n, m + 1, 2) m, the cue ball first, NaN where down; on: (n, m + 1). seen, hider (by number, 0 for none) and
    near (inf where no ball on is left) are written.
    """
    for i in range(len(rests)):
        x, y, balls = rests[i, 0, 0], rests[i, 0, 1], rests[i, 1:]
        seen[i], hider[i], near[i], nearest = False, 0, math.inf, -1
        for k in range(len(balls)):
            away = math.hypot(balls[k, 0] - x, balls[k, 1] - y)
            if not on[i, k + 1] or not away < math.inf:
                continue
            seen[i] = seen[i] or is_seen(balls, k, x, y, wide)
            if away < near[i]:
                near[i], nearest = away, k
        if nearest >= 0:
            before = first_met(balls, x, y, math.atan2(balls[nearest, 1] - y, balls[nearest, 0] - x), wide)
            hider[i] = before + 1 if before != nearest else 0
