"""What a ball can run into that does not move: rails, jaws, fall lines. First contact, exact.

The table's numbers travel as one array, see `slots`.

Contacts are numbered: 0-3 the rails, then four a pocket (point, point, facing, facing), then
the fall lines; ENTERS is no contact but the moment a centre passes a nose line in a mouth.
Only then, and only there, can a jaw be met, which is what makes the search cheap.
"""

import math

from fandle.core.physics.cloth import reach_line
from fandle.core.physics.cushion import Impact, Rubber, bounce
from fandle.core.physics.give import Dent, give_way
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.slots import (
    ALONG_X,
    ALONG_Y,
    AXIS_X,
    AXIS_Y,
    CENTRE_X,
    CENTRE_Y,
    CORNER,
    FALL_X,
    FALL_Y,
    GIVE,
    GRIP,
    JAW_AT,
    LENGTH,
    LOSS,
    MU_S,
    MU_W,
    NORMAL_X,
    NORMAL_Y,
    POCKET,
    POCKETED,
    POINT_RADIUS,
    RADIUS,
    REST,
    SIDE,
    SIN_T,
    START_X,
    START_Y,
    STEPS,
    WIDTH,
)
from fandle.core.physics.state import Arc, Motion
from fandle.core.physics.touch import first_touch

NEAR, FAR, HEAD, FOOT = range(4)
NOTHING = -1
FIRST_JAW = 4
FIRST_FALL = FIRST_JAW + 24
ENTERS = FIRST_FALL + 6
PRESSED = 2e-3  # m/s: a bounce slower than this, driven back into what it left, stays on it
ON_LINE = 1e-12  # m: a centre this near to a nose line counts as on it


@kernel
def outward(rail: int) -> tuple[float, float]:
    """Unit normal of a rail, off the bed."""
    if rail == NEAR:
        return 0.0, -1.0
    if rail == FAR:
        return 0.0, 1.0
    if rail == HEAD:
        return -1.0, 0.0
    return 1.0, 0.0


@kernel
def gap_to(rail: int, x: float, y: float, p: Floats) -> float:
    """Metres that a centre has to go until its ball touches a rail's nose line."""
    r = p[RADIUS]
    if rail == NEAR:
        return y - r
    if rail == FAR:
        return p[WIDTH] - r - y
    if rail == HEAD:
        return x - r
    return p[LENGTH] - r - x


@kernel
def in_mouth(rail: int, x: float, y: float, p: Floats) -> bool:
    """Is there no straight nose beside this point of the rail, but a pocket?"""
    if p[POCKETED] == 0.0:
        return False
    if rail in (NEAR, FAR):
        along, whole = x, p[LENGTH]
        if abs(along - 0.5 * whole) < p[SIDE]:
            return True
    else:
        along, whole = y, p[WIDTH]
    return along < p[CORNER] or whole - along < p[CORNER]


@kernel
def pocket_near(x: float, y: float, p: Floats) -> int:
    """Number of the pocket nearest to a point outside the nose lines, or on them."""
    near = y < 0.5 * p[WIDTH]
    if abs(x - 0.5 * p[LENGTH]) < 0.25 * p[LENGTH]:
        return 1 if near else 4
    if x < 0.5 * p[LENGTH]:
        return 0 if near else 5
    return 2 if near else 3


@kernel
def _in_jaws(x: float, y: float, p: Floats) -> bool:
    """Has this centre passed a nose line (or lies on one) where a pocket is?"""
    found = False
    for k in range(4):
        found = found or (gap_to(k, x, y, p) <= ON_LINE and in_mouth(k, x, y, p))
    return found


@kernel
def _behind(gap: float, v: float, a: float, longest: float) -> float:
    """When a centre beyond a line, on its way back, comes out to it a second time."""
    if v >= 0.0 or a <= 0.0:
        return math.inf
    disc = v * v + 2.0 * a * gap
    if disc < 0.0:
        return math.inf
    t = (math.sqrt(disc) - v) / a
    return t if t <= longest else math.inf


@kernel
def _first_jaw(way: Arc, longest: float, held: int, p: Floats) -> tuple[float, int]:
    """First contact with the jaws and the fall line of the pocket the centre is in."""
    x, y, vx, vy, ax, ay = way
    pocket = pocket_near(x, y, p)
    at = POCKET * pocket
    ux, uy = p[at + AXIS_X], p[at + AXIS_Y]
    first, what = math.inf, NOTHING
    t = reach_line((p[at + FALL_X] - x) * ux + (p[at + FALL_Y] - y) * uy, vx * ux + vy * uy, ax * ux + ay * uy, longest)
    if t < math.inf:
        first, what = t, FIRST_FALL + pocket
        longest = t
    reach = p[RADIUS] + p[at + POINT_RADIUS]
    for side in range(2):
        j = at + JAW_AT[side]
        point = FIRST_JAW + 4 * pocket + side
        if held != point:
            t = first_touch(Arc(x - p[j + CENTRE_X], y - p[j + CENTRE_Y], vx, vy, ax, ay), reach, longest)
            if t < first:
                first, what, longest = t, point, t
        facing = point + 2
        if held != facing:
            nx, ny = p[j + NORMAL_X], p[j + NORMAL_Y]
            gap = (p[j + START_X] - x) * nx + (p[j + START_Y] - y) * ny - p[RADIUS]
            t = reach_line(gap, vx * nx + vy * ny, ax * nx + ay * ny, longest)
            if t < first:
                hx, hy = x + t * (vx + 0.5 * ax * t) - p[j + START_X], y + t * (vy + 0.5 * ay * t) - p[j + START_Y]
                if hx * p[j + ALONG_X] + hy * p[j + ALONG_Y] >= 0.0:
                    first, what, longest = t, facing, t
    return first, what


@kernel
def first_fixed(way: Arc, longest: float, held: int, jaws: bool, p: Floats) -> tuple[float, int]:
    """First contact within `longest` seconds of one phase: (when, its number); NOTHING if none.

    held: a contact the ball is pressed on and does not leave. jaws: without them the noses run
    on through the mouths.
    """
    x, y, vx, vy, ax, ay = way
    inside = jaws and p[POCKETED] != 0.0 and _in_jaws(x, y, p)
    first, what = longest, NOTHING
    for k in range(4):
        if k == held:
            continue
        nx, ny = outward(k)
        gap = gap_to(k, x, y, p)
        v, a = vx * nx + vy * ny, ax * nx + ay * ny
        if inside and gap <= ON_LINE and in_mouth(k, x, y, p):
            t = _behind(gap, v, a, first)
        else:
            t = reach_line(gap, v, a, first)
        if t < first:
            first, what = t, k
    if inside:
        t, jaw = _first_jaw(way, first, held, p)
        if t < first or (jaw != NOTHING and t <= first):
            return t, jaw
    if what != NOTHING and jaws:
        hx, hy = x + first * (vx + 0.5 * ax * first), y + first * (vy + 0.5 * ay * first)
        if in_mouth(what, hx, hy, p):
            return first, ENTERS + what
    return first, what


@kernel
def placed(what: int, x: float, y: float, p: Floats) -> tuple[float, float]:
    """The centre put exactly on the nose line it has come to."""
    rail = what - ENTERS if what >= ENTERS else what
    if rail == NEAR:
        return x, p[RADIUS]
    if rail == FAR:
        return x, p[WIDTH] - p[RADIUS]
    if rail == HEAD:
        return p[RADIUS], y
    if rail == FOOT:
        return p[LENGTH] - p[RADIUS], y
    return x, y


@kernel
def into(what: int, x: float, y: float, p: Floats) -> tuple[float, float]:
    """Unit normal into what was met, for a centre at (x, y)."""
    if what < FIRST_JAW:
        return outward(what)
    pocket, part = (what - FIRST_JAW) // 4, (what - FIRST_JAW) % 4
    j = POCKET * pocket + JAW_AT[part % 2]
    if part >= 2:
        return p[j + NORMAL_X], p[j + NORMAL_Y]
    dx, dy = p[j + CENTRE_X] - x, p[j + CENTRE_Y] - y
    size = math.sqrt(dx * dx + dy * dy)
    return dx / size, dy / size


@kernel
def sinks_in(into: float, p: Floats) -> bool:
    """Does a ball that nears rubber at this speed (m/s) sink into it? One too slow to come away again only touches it.

    Without that bound balls frozen to one another and to such a rail push each other in and out of it, thousands of
    times at one moment: at 2 mm/s the rubber gives 0.01 mm.
    """
    return p[GIVE] > 0.0 and into >= PRESSED


@kernel
def rebound(nx: float, ny: float, ball: Motion, p: Floats) -> tuple[Motion, float, float]:
    """Motion after rubber whose normal is (nx, ny), and the angles in and out, from its face (rad).

    A facing and its point are taken to be rubber of the same make and nose height as the rails.
    """
    tx, ty = ny, -nx
    into = Impact(
        ball.vx * tx + ball.vy * ty, ball.vx * nx + ball.vy * ny,
        ball.wx * tx + ball.wy * ty, ball.wx * nx + ball.wy * ny, ball.wz,
    )  # fmt: skip
    rubber = Rubber(p[SIN_T], p[REST], p[MU_W], p[MU_S], p[STEPS])
    if not sinks_in(into.vn, p):
        after = bounce(into, rubber)
    else:
        after = give_way(into, rubber, Dent(p[RADIUS], p[GIVE], p[GRIP], p[LOSS]))
    left = Motion(
        ball.x, ball.y,
        after.vt * tx + after.vn * nx, after.vt * ty + after.vn * ny,
        after.wt * tx + after.wn * nx, after.wt * ty + after.wn * ny, after.wz,
    )  # fmt: skip
    return left, math.atan2(into.vn, abs(into.vt)), math.atan2(-after.vn, abs(after.vt))


@kernel
def press(nx: float, ny: float, ball: Motion) -> Motion:
    """Hold a ball on what it no longer leaves: no speed and no slip across it."""
    across = ball.vx * nx + ball.vy * ny
    spin = ball.wx * ny - ball.wy * nx
    return Motion(
        ball.x, ball.y, ball.vx - across * nx, ball.vy - across * ny, ball.wx - spin * ny, ball.wy + spin * nx, ball.wz
    )
