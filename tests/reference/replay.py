"""A second, slow simulator: time goes by in small steps, and no code of the engine is used.

Written from the models alone: Coulomb sliding and rolling, spin that decays by itself (Coriolis 1835; Marlow 1995);
the cushion as an impulse with friction at the nose and at the cloth, energetic restitution (Mathavan, Jackson &
Parkin 2010); balls with restitution and a friction that falls with the slip (Alciatore's fit to Marlow's data, from
memory); jaws as facings with rounded points, a ball down past its fall line. What it leaves out: rubber that gives,
balls frozen to one another. Balls are arrays of x, y, vx, vy, wx, wy, wz with w = R·ω; SI throughout.
"""

import math
from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

Floats = NDArray[np.float64]
G = 9.81
STRIDE, SHORTEST, LONGEST = 1e-3, 2e-5, 4e-3  # m a step at most; s
MOST_STEPS, MOST_EVENTS = 200_000, 400
HALVINGS = 40  # of a step, to the moment of a contact
CUSHION_STEPS, BALL_STEPS = 1500, 120
TOUCH, STILL = 1e-9, 1e-4  # m of overlap that is a contact; m/s that is rest
SOFT = 2e-3  # m/s: a contact slower than that no longer bounces
BALL, RAIL, JAW, DOWN = range(4)
NEAR, FAR, HEAD, FOOT = range(4)


class Numbers(NamedTuple):
    """What a table is made of."""

    radius: float
    mu_s: float
    mu_r: float
    decay: float  # R·spin decay, m/s²
    e: float
    mu_w: float
    sin_theta: float
    e_ball: float
    floor: float
    rise: float
    fall: float


class Rubber(NamedTuple):
    """Where rubber and pockets are: noses (x1, y1, x2, y2, normal into them, rail), points (x, y, radius), facings
    (start, along, normal), falls (point, axis); the bed, nose to nose."""

    noses: Floats
    points: Floats
    facings: Floats
    falls: Floats
    bed: Floats


def numbers_of(table: dict[str, float]) -> Numbers:
    """From a table file's numbers."""
    radius = table["ball_radius"]
    return Numbers(
        radius, table["cloth_sliding"], table["cloth_rolling"], table["spin_decay"] * radius,
        table["cushion_restitution"], table["cushion_friction"], table["nose_height"] / radius - 1.0,
        table["ball_restitution"], table["ball_friction_floor"], table["ball_friction_rise"],
        table["ball_friction_fall"],
    )  # fmt: skip


def rubber_of(length: float, width: float, pockets: dict[str, float] | None) -> Rubber:
    """The cushions of a bed, its corner at the origin. A mouth is measured where nose and facing would meet."""
    if pockets is None:
        noses = [(0, 0, length, 0, 0, -1, NEAR), (0, width, length, width, 0, 1, FAR),
                 (0, 0, 0, width, -1, 0, HEAD), (length, 0, length, width, 1, 0, FOOT)]  # fmt: skip
        return Rubber(
            np.array(noses, float), np.zeros((0, 3)), np.zeros((0, 6)), np.zeros((0, 4)), np.array([length, width])
        )
    gap, half = pockets["corner_mouth"] / math.sqrt(2), pockets["side_mouth"] / 2
    noses, points, facings, falls = [], [], [], []
    ends = [  # of every cushion: point, direction away from the pocket, off the bed, which mouth
        (x, y, ax, ay, ox, oy, side)
        for flip in (0, 1)
        for x, y, ax, ay, ox, oy, side in (
            (gap, flip * width, 1, 0, 0, 2 * flip - 1, 0), (length - gap, flip * width, -1, 0, 0, 2 * flip - 1, 0),
            (length / 2 - half, flip * width, -1, 0, 0, 2 * flip - 1, 1),
            (length / 2 + half, flip * width, 1, 0, 0, 2 * flip - 1, 1),
            (flip * length, gap, 0, 1, 2 * flip - 1, 0, 0), (flip * length, width - gap, 0, -1, 2 * flip - 1, 0, 0),
        )
    ]  # fmt: skip
    back = {}
    for x, y, ax, ay, ox, oy, side in ends:
        name = ("corner", "side")[side]
        turn, rho = math.radians(180.0 - pockets[f"{name}_cut_deg"]), pockets[f"{name}_point_radius"]
        back[side] = rho * math.tan(turn / 2)
        fx, fy = -ax * math.cos(turn) + ox * math.sin(turn), -ay * math.cos(turn) + oy * math.sin(turn)
        nx, ny = ax * math.sin(turn) + ox * math.cos(turn), ay * math.sin(turn) + oy * math.cos(turn)
        points.append((x + ax * back[side] + ox * rho, y + ay * back[side] + oy * rho, rho))
        facings.append((x + fx * back[side], y + fy * back[side], fx, fy, nx, ny))
    c, s = gap + back[0], half + back[1]
    for flip, rail in ((0, NEAR), (1, FAR)):
        for x1, x2 in ((c, length / 2 - s), (length / 2 + s, length - c)):
            noses.append((x1, flip * width, x2, flip * width, 0, 2 * flip - 1, rail))
    noses += [(0, c, 0, width - c, -1, 0, HEAD), (length, c, length, width - c, 1, 0, FOOT)]
    diagonal, d = math.sqrt(0.5), pockets["corner_shelf"] * math.sqrt(0.5)
    for sx in (-1, 1):
        for sy in (-1, 1):
            mx, my = (gap / 2 if sx < 0 else length - gap / 2), (gap / 2 if sy < 0 else width - gap / 2)
            falls.append((mx + sx * d, my + sy * d, sx * diagonal, sy * diagonal))
    falls += [(length / 2, sy * pockets["side_shelf"] + (width if sy > 0 else 0.0), 0, sy) for sy in (-1, 1)]
    return Rubber(np.array(noses, float), np.array(points), np.array(facings), np.array(falls, float),
                  np.array([length, width]))  # fmt: skip


@njit(cache=True)
def advance(ball, h, n):
    """A ball alone on the cloth for h seconds: slides until it rolls, rolls until it stops."""
    left = h
    for _ in range(3):
        ux, uy = ball[2] - ball[5], ball[3] + ball[4]
        slip, speed = math.hypot(ux, uy), math.hypot(ball[2], ball[3])
        if slip > 1e-9:
            a = n.mu_s * G
            t = min(left, slip / (3.5 * a))
            ax, ay = -a * ux / slip, -a * uy / slip
        elif speed > 1e-9:
            a = n.mu_r * G
            t = min(left, speed / a)
            ax, ay = -a * ball[2] / speed, -a * ball[3] / speed
        else:
            break
        ball[0] += t * (ball[2] + 0.5 * ax * t)
        ball[1] += t * (ball[3] + 0.5 * ay * t)
        ball[2] += ax * t
        ball[3] += ay * t
        if slip > 1e-9 and t < slip / (3.5 * a):
            ball[4] += 2.5 * ay * t
            ball[5] -= 2.5 * ax * t
        else:
            ball[4], ball[5] = -ball[3], ball[2]
        left -= t
        if left <= 0.0:
            break
    ball[6] = math.copysign(max(abs(ball[6]) - n.decay * h, 0.0), ball[6])


@njit(cache=True)
def gap_of(x, y, what, k, r, rubber):
    """(gap, normal into it) of a centre to one piece of rubber; inf where it does not lie beside it."""
    if what == 0:
        s = rubber.noses[k]
        along = (x - s[0]) * (s[2] - s[0]) + (y - s[1]) * (s[3] - s[1])
        if along < 0.0 or along > (s[2] - s[0]) ** 2 + (s[3] - s[1]) ** 2:
            return math.inf, 0.0, 0.0
        return (s[0] - x) * s[4] + (s[1] - y) * s[5] - r, s[4], s[5]
    if what == 1:
        p = rubber.points[k]
        dx, dy = p[0] - x, p[1] - y
        size = math.hypot(dx, dy)
        return size - p[2] - r, dx / size, dy / size
    f = rubber.facings[k]
    hx, hy = x - f[0], y - f[1]
    if hx * f[2] + hy * f[3] < 0.0:
        return math.inf, 0.0, 0.0
    return -(hx * f[4] + hy * f[5]) - r, f[4], f[5]


@njit(cache=True)
def cushion(ball, nx, ny, n):
    """The impulse at a nose, in plain steps: t along it, n into it."""
    tx, ty = ny, -nx
    vt, vn = ball[2] * tx + ball[3] * ty, ball[2] * nx + ball[3] * ny
    wt, wn, wz = ball[4] * tx + ball[5] * ty, ball[4] * nx + ball[5] * ny, ball[6]
    if vn < SOFT:
        ball[2] -= vn * nx
        ball[3] -= vn * ny
        return
    s = n.sin_theta
    c = math.sqrt(1.0 - s * s)
    step, work, goal, released = vn / (c * CUSHION_STEPS), 0.0, math.inf, False
    for _ in range(20 * CUSHION_STEPS):
        a1, a2 = vt + wn * s - wz * c, wt - s * vn  # slip at the nose: along, up its face
        size = math.hypot(a1, a2)
        q = n.mu_w * min(1.0, size / (3.5 * n.mu_w * step)) / size if size > 1e-15 else 0.0
        ft, fz = -q * a1, -q * a2
        b1, b2 = vt - wn, vn + wt  # over the cloth
        press = max(s - c * fz, 0.0)
        size = math.hypot(b1, b2)
        limit = n.mu_s * press
        q = limit * min(1.0, size / (3.5 * limit * step)) / size if size > 1e-15 and limit > 0.0 else 0.0
        gt, gn = -q * b1, -q * b2
        before = vn
        vt += step * (ft + gt)
        vn += step * (-c - s * fz + gn)
        wt += step * 2.5 * (fz + gn)
        wn += step * 2.5 * (s * ft - gt)
        wz -= step * 2.5 * c * ft
        work += step * c * 0.5 * (before + vn)
        if not released and vn <= 0.0:
            released, goal = True, work * (1.0 - n.e * n.e)
        if released and work <= goal:
            break
    ball[2], ball[3] = vt * tx + vn * nx, vt * ty + vn * ny
    ball[4], ball[5], ball[6] = wt * tx + wn * nx, wt * ty + wn * ny, wz


@njit(cache=True)
def collide(a, b, n):
    """Two alike balls that touch and close: the impulse in plain steps, friction against the slip as it is then."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    size = math.hypot(dx, dy)
    nx, ny = dx / size, dy / size
    tx, ty = -ny, nx
    closing = (a[2] - b[2]) * nx + (a[3] - b[3]) * ny
    whole = 0.5 * (1.0 + (n.e_ball if closing > SOFT else 0.0)) * closing
    p = whole / BALL_STEPS
    for _ in range(BALL_STEPS):
        along = (a[2] - b[2]) * tx + (a[3] - b[3]) * ty + a[6] + b[6]
        up = (a[4] + b[4]) * ny - (a[5] + b[5]) * nx
        slip = math.hypot(along, up)
        f = min((n.floor + n.rise * math.exp(-n.fall * slip)) * p, slip / 7.0)
        fl, fu = (-f * along / slip, -f * up / slip) if slip > 1e-15 else (0.0, 0.0)
        a[2] += -p * nx + fl * tx
        a[3] += -p * ny + fl * ty
        b[2] -= -p * nx + fl * tx
        b[3] -= -p * ny + fl * ty
        for ball in (a, b):
            ball[6] += 2.5 * fl
            ball[4] += 2.5 * fu * ny
            ball[5] -= 2.5 * fu * nx


@njit(cache=True)
def first_contact(balls, there, moving, n, rubber):
    """(kind, ball, other) of the deepest contact that closes; kind −1 where there is none."""
    r, deepest, kind, one, other = n.radius, -TOUCH, -1, -1, -1
    for i in range(len(balls)):
        if not moving[i]:
            continue
        x, y, vx, vy = balls[i, 0], balls[i, 1], balls[i, 2], balls[i, 3]
        for j in range(len(balls)):
            if j == i or not there[j] or (moving[j] and j < i):
                continue
            dx, dy = balls[j, 0] - x, balls[j, 1] - y
            if abs(dx) > 2.0 * r or abs(dy) > 2.0 * r:
                continue
            gap = math.hypot(dx, dy) - 2.0 * r
            if gap < deepest and (vx - balls[j, 2]) * dx + (vy - balls[j, 3]) * dy > 0.0:
                deepest, kind, one, other = gap, BALL, i, j
        if r < x < rubber.bed[0] - r and r < y < rubber.bed[1] - r:
            continue
        for what in range(3):
            for k in range((len(rubber.noses), len(rubber.points), len(rubber.facings))[what]):
                gap, nx, ny = gap_of(x, y, what, k, r, rubber)
                if gap < deepest and vx * nx + vy * ny > 0.0:
                    deepest, kind, one, other = gap, RAIL if what == 0 else JAW, i, 100 * what + k
    return kind, one, other


@njit(cache=True)
def sunk(ball, rubber):
    """Has a centre passed a fall line, in its pocket?"""
    for k in range(len(rubber.falls)):
        f = rubber.falls[k]
        dx, dy = ball[0] - f[0], ball[1] - f[1]
        if dx * f[2] + dy * f[3] >= 0.0 and abs(-dx * f[3] + dy * f[2]) < 0.12:
            return k
    return -1


@njit(cache=True)
def all_advance(balls, before, moving, h, n):
    """Every moving ball h seconds after where it was."""
    balls[:] = before
    for i in range(len(balls)):
        if moving[i]:
            advance(balls[i], h, n)


@njit(cache=True)
def to_contact(balls, before, there, moving, h, n, rubber):
    """Put the balls where the first contact within h seconds is made: (kind, ball, other)."""
    low, high = 0.0, h
    all_advance(balls, before, moving, h, n)
    found = first_contact(balls, there, moving, n, rubber)
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        all_advance(balls, before, moving, middle, n)
        now = first_contact(balls, there, moving, n, rubber)
        if now[0] >= 0:
            high, found = middle, now
        else:
            low = middle
    all_advance(balls, before, moving, high, n)
    return found


@njit(cache=True)
def note(event, kind, one, other, balls):
    """Write an event down: what, which ball, what it met, where."""
    event[0], event[1], event[2], event[3], event[4] = kind, one, other, balls[one, 0], balls[one, 1]


@njit(cache=True, nogil=True)
def replay(start, n, rubber, short=False):
    """Play balls until all lie still: (balls, still there, events). An event: kind, ball, other ball, rail or pocket, where.

    short: only until the first two balls meet.
    """
    balls, before = start.copy(), start.copy()
    m = len(balls)
    there, moving = np.ones(m, np.bool_), np.zeros(m, np.bool_)
    events, count = np.full((MOST_EVENTS, 5), -1.0), 0
    for _ in range(MOST_STEPS):
        fastest = 0.0
        for i in range(m):
            size = math.hypot(balls[i, 2], balls[i, 3]) + math.hypot(balls[i, 4], balls[i, 5])
            moving[i] = there[i] and size > STILL
            fastest = max(fastest, size if moving[i] else 0.0)
        if fastest == 0.0 or count >= MOST_EVENTS - 4:
            break
        h = min(max(STRIDE / fastest, SHORTEST), LONGEST)
        before[:] = balls
        all_advance(balls, before, moving, h, n)
        kind, one, other = first_contact(balls, there, moving, n, rubber)
        if kind >= 0:
            kind, one, other = to_contact(balls, before, there, moving, h, n, rubber)
            if kind == BALL:
                note(events[count], BALL, one, other, balls)
                collide(balls[one], balls[other], n)
                if short:
                    count += 1
                    break
            else:
                what, k = other // 100, other % 100
                _, nx, ny = gap_of(balls[one, 0], balls[one, 1], what, k, n.radius, rubber)
                name = rubber.noses[k, 6] if what == 0 else k
                note(events[count], kind, one, name, balls)
                cushion(balls[one], nx, ny, n)
            count += 1
        for i in range(m):
            if moving[i]:
                pocket = sunk(balls[i], rubber)
                if pocket >= 0:
                    there[i] = False
                    balls[i, 2:] = 0.0
                    note(events[count], DOWN, i, pocket, balls)
                    count += 1
    return balls, there, events[:count]


def struck(x: float, y: float, direction: float, speed: float, side: float, up: float) -> Floats:
    """A ball off an ideal cue, held level: the impulse through a tip so far right of and above the middle (radii)."""
    fx, fy = math.cos(direction), math.sin(direction)
    roll = 2.5 * speed * up
    return np.array([x, y, speed * fx, speed * fy, -roll * fy, roll * fx, 2.5 * speed * side])
