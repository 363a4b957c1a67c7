"""The best straight pot from where balls lie, in closed form: kernels.

The cue ball goes to the ghost ball, the object ball to the pocket, both corridors clear. What is uncertain is the
direction of the cue.
"""

import math
from typing import NamedTuple

from fandle.core.physics.jit import Bools, Floats, Ints, kernel
from fandle.core.physics.sight import clear

HEAVIEST_CUT = math.radians(80.0)  # a thinner cut is nobody's
# a cut that turns by φ is thrown back by a seventh of it where the balls grip one another, and by less the thinner it
# is (impulse of two rolling spheres); the width is fitted to played draws, see tests/core/choice/test_leave.py
THROWN, THROWN_RAD = 1.0 / 7.0, 0.3
# slope to a rail that a ball runs along; how near; radii of such a way, of the slope what is left, at least
STEEP, BESIDE_M, RUN, LEAST_LEFT = 0.2, 0.004, 12.0, 0.1
TURNS = 2  # times that the way to a pocket is turned towards the middle of what drops from there


class Room(NamedTuple):
    """A table's pockets for these kernels: middles and axes (k, 2) of their mouths, and what drops from where.

    low, high: (speeds, k, turns) lines that drop, m left of the middle, by the ball's speed there (rising) and its
    direction off the axis from −steepest to steepest (rad). length, width, r: of the bed and a ball, m. pace: of the
    stroke, m/s; slows, rolls: what cloth takes from a sliding, a rolling ball, m/s²; passed: the share of its speed
    that a ball passes on to one that it hits full; springs: the rubber's restitution.
    """

    middle: Floats
    axis: Floats
    speeds: Floats
    low: Floats
    high: Floats
    steepest: float
    length: float
    width: float
    r: float
    pace: float
    slows: float
    rolls: float
    passed: float
    springs: float


@kernel
def speed_after(speed: float, way: float, slows: float, rolls: float) -> float:
    """A ball's speed after a way on cloth that it began without spin: it slides, then rolls at 5/7 of what it had."""
    slides = 12.0 * speed * speed / (49.0 * slows)
    if way < slides:
        return math.sqrt(speed * speed - 2.0 * slows * way)
    left = 25.0 / 49.0 * speed * speed - 2.0 * rolls * (way - slides)
    return math.sqrt(max(left, 0.0))


@kernel
def drops(room: Room, pocket: int, turn: float, speed: float) -> tuple[float, float]:
    """What drops from a direction off the axis at a speed: the lowest and the highest line, both 0 where nothing does.

    A ball that would not arrive is taken as played firmer.
    """
    steps, most = room.low.shape[2] - 1, len(room.speeds) - 1
    place = (turn + room.steepest) / (2.0 * room.steepest) * steps
    if not 0.0 <= place <= steps:
        return 0.0, 0.0
    k = min(int(place), steps - 1)
    part, n = place - k, 0
    speed = min(max(speed, room.speeds[0]), room.speeds[most])
    while n < most - 1 and room.speeds[n + 1] < speed:
        n += 1
    share = (speed - room.speeds[n]) / (room.speeds[n + 1] - room.speeds[n])
    low = high = 0.0
    for m, of_speed in ((n, 1.0 - share), (n + 1, share)):
        for step, of_turn in ((k, 1.0 - part), (k + 1, part)):
            low += of_speed * of_turn * room.low[m, pocket, step]
            high += of_speed * of_turn * room.high[m, pocket, step]
    return low, high


@kernel
def aimed_at(room: Room, pocket: int, cue_x: float, cue_y: float, x: float, y: float) -> tuple[float, float, float]:
    """Where a ball at x, y is sent for a pocket, and half the room it has there: (x, y, half), m."""
    mx, my = room.middle[pocket, 0], room.middle[pocket, 1]
    ax, ay = room.axis[pocket, 0], room.axis[pocket, 1]
    gx, gy, half = mx, my, 0.0
    line = max(math.hypot(x - cue_x, y - cue_y), 1e-9)
    meets = speed_after(room.pace, max(line - 2.0 * room.r, 0.0), room.slows, room.rolls)
    for _ in range(TURNS):
        away = max(math.hypot(gx - x, gy - y), 1e-9)
        ux, uy = (gx - x) / away, (gy - y) / away
        cut = max((ux * (x - cue_x) + uy * (y - cue_y)) / line, 0.0)  # all but the cut; the ghost ball hardly turns it
        speed = speed_after(meets * cut * room.passed, away, room.slows, room.rolls)
        low, high = drops(room, pocket, math.atan2(ax * uy - ay * ux, ax * ux + ay * uy), speed)
        half, middle = 0.5 * (high - low), 0.5 * (low + high)
        gx, gy = mx - middle * uy, my + middle * ux
    left, right = half, half
    sliding = 12.0 * (meets * cut * room.passed) ** 2 / (49.0 * room.slows)
    for rail in range(4):
        along, side = _along(room, pocket, rail, (x, y, gx, gy), half, sliding)
        if side > 0:
            left = max(left, along)
        elif side < 0:
            right = max(right, along)
    shift = 0.5 * (left - right)  # to the left
    ux, uy = (gx - x) / max(math.hypot(gx - x, gy - y), 1e-9), (gy - y) / max(math.hypot(gx - x, gy - y), 1e-9)
    return gx - shift * uy, gy + shift * ux, 0.5 * (left + right)


@kernel
def _along(
    room: Room, pocket: int, rail: int, way: tuple[float, float, float, float], half: float, sliding: float
) -> tuple[float, int]:
    """(the room towards a rail that a ball runs along, m; 1 where it lies to the left, −1 to the right, 0 elsewhere).

    Sent further to the rail at the slope s it meets it, and leaves it at the slope h·s: it comes to the pocket at the
    height h·(s·D − gap), D being the way, and may be as high as the room is wide. h is the rubber's restitution e for
    a ball that slides (its first `sliding` m; it is met half-way), and (5e − 2)/7 for one that rolls and goes on so.
    """
    x, y, gx, gy = way
    above, away = _gap(rail, gx, gy, room), max(math.hypot(gx - x, gy - y), 1e-9)
    sloping = abs(above - _gap(rail, x, y, room)) > STEEP * away
    elsewhere = _gap(rail, room.middle[pocket, 0], room.middle[pocket, 1], room) > room.r
    if half <= 0.0 or sloping or elsewhere or above > half + BESIDE_M or away < RUN * room.r:
        return 0.0, 0
    above = max(above, 0.0)
    rolls = (5.0 * room.springs - 2.0) / 7.0
    leaves = rolls + (room.springs - rolls) * min(2.0 * sliding / away, 1.0)
    ux, uy = (gx - x) / away, (gy - y) / away
    nx, ny = (0.0, -1.0) if rail == 0 else (0.0, 1.0) if rail == 1 else (-1.0, 0.0) if rail == 2 else (1.0, 0.0)
    return above + (above + half) / max(leaves, LEAST_LEFT), 1 if ux * ny - uy * nx > 0.0 else -1


@kernel
def _gap(rail: int, x: float, y: float, room: Room) -> float:
    """Between a ball at x, y and a rail, m: near, far, head, foot."""
    along = y if rail == 0 else room.width - y if rail == 1 else x if rail == 2 else room.length - x
    return along - room.r


@kernel
def pot_chance(
    x: float, y: float, gx: float, gy: float, ux: float, uy: float, free: float, sigma: float, r: float
) -> float:
    """The chance of a straight pot over the ghost ball at gx, gy. The object ball may be off by `free` (rad).

    With the cut φ, thrown back as it is, the cue ball may pass 2R·sin(φ ± free) off the object ball's centre, at the
    distance D = L + 2R·cos φ, L being its way to the ghost ball: the normal chance of −2R(sin φ − sin(φ − free))/D …
    2R(sin(φ + free) − sin φ)/D.
    """
    reach = max(math.hypot(gx - x, gy - y), 1e-9)
    cut = ((gx - x) * ux + (gy - y) * uy) / reach
    if free <= 0.0 or cut <= math.cos(HEAVIEST_CUT):
        return 0.0
    angle = math.acos(min(cut, 1.0))
    turned = min(free / (1.0 - THROWN / math.cosh(angle / THROWN_RAD) ** 2), 0.5 * math.pi)
    most = math.sin(min(angle + turned, 0.5 * math.pi)) - math.sin(angle)
    least = math.sin(angle) - math.sin(angle - turned)
    scale = 2.0 * r / ((reach + 2.0 * r * cut) * sigma * math.sqrt(2.0))
    return 0.5 * (math.erf(scale * most) + math.erf(scale * least))


@kernel
def best_pots(
    rests: Floats, on: Bools, room: Room, sigma: float, only: int, p: Floats, ball: Ints, pocket: Ints
) -> None:
    """Of n draws the best pot: its chance, of which ball (by number, 0 for none) into which pocket (−1 for none).

    rests: (n, m + 1, 2) m, the cue ball first, NaN where down; on: (n, m + 1) which may be played. sigma: standard
    deviation of the cue's line, rad. only: the pocket wanted, −1 for any. p, ball, pocket are written.
    """
    r, wide = room.r, 2.0 * room.r
    for i in range(len(rests)):
        p[i], ball[i], pocket[i] = 0.0, 0, -1
        x, y, balls = rests[i, 0, 0], rests[i, 0, 1], rests[i, 1:]
        for k in range(len(balls)):
            bx, by = balls[k, 0], balls[k, 1]
            if not on[i, k + 1] or math.isnan(bx):
                continue
            for hole in range(len(room.middle)):
                if only >= 0 and hole != only:
                    continue
                gx, gy, half = aimed_at(room, hole, x, y, bx, by)
                away = max(math.hypot(gx - bx, gy - by), 1e-9)
                ux, uy = (gx - bx) / away, (gy - by) / away
                hx, hy = bx - wide * ux, by - wide * uy
                if not (r <= hx <= room.length - r and r <= hy <= room.width - r):
                    continue
                chance = pot_chance(x, y, hx, hy, ux, uy, half / away, sigma, r)
                if not chance > p[i] or not clear(balls, k, bx, by, gx, gy, wide):
                    continue
                if clear(balls, k, x, y, hx, hy, wide):
                    p[i], ball[i], pocket[i] = chance, k + 1, hole
