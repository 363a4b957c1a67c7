"""One ball of many: its columns, its path until its own next event, when it touches another, what it meets."""

import math

from fandle.core.physics.bed import (
    ENTERS,
    FIRST_FALL,
    FIRST_JAW,
    NOTHING,
    first_fixed,
    into,
    placed,
    press,
    rebound,
    sinks_in,
)
from fandle.core.physics.cloth import RESTING, SUNK, advance, phase
from fandle.core.physics.collision import VX, VY, WX, WY, WZ, X, Y
from fandle.core.physics.engine import leaves
from fandle.core.physics.give import dwell, glide
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.slots import DECAY, GIVE, MU_R, MU_S, RADIUS
from fandle.core.physics.state import (
    EV_JAW,
    EV_POCKET,
    EV_RAIL,
    Arc,
    Event,
    Motion,
    Phase,
    write_event,
    write_piece,
)
from fandle.core.physics.touch import first_touch

# columns of a ball: x, y, vx, vy, wx, wy, wz, then since when, its acceleration, its phase, how
# long its path holds, what ends it, what it is pressed on, rails met, on the bed or not; in rubber
# that gives or not, and with what velocity it will leave that
T0, AX, AY, KIND, OWN, WHAT, HELD, LEG, ON, IN, OUT_X, OUT_Y = range(7, 19)
BALL_WIDTH = 19
STILL = 1e-11  # m/s: touching balls that near each other no faster stay as they are
STEADY = 1e-10  # m/s²: the same of their accelerations


@kernel
def motion_of(row: Floats) -> Motion:
    """A ball's motion from its row."""
    return Motion(row[X], row[Y], row[VX], row[VY], row[WX], row[WY], row[WZ])


@kernel
def blank_row(row: Floats) -> None:
    """Nought in every column of a ball's row."""
    for k in range(row.shape[0]):
        row[k] = 0.0


@kernel
def put(row: Floats, ball: Motion) -> None:
    """Write a motion into a ball's row."""
    row[X], row[Y], row[VX], row[VY], row[WX], row[WY], row[WZ] = ball


@kernel
def carry(row: Floats, ball: int, lasts: float, whole: bool, p: Floats, pieces: Floats, n_pc: int) -> int:
    """Take one ball `lasts` seconds along its path and note the stretch; returns the pieces."""
    kind = int(row[KIND])
    if kind == RESTING:
        row[WZ] = math.copysign(max(abs(row[WZ]) - p[DECAY] * lasts, 0.0), row[WZ])
        return n_pc
    now = Phase(kind, lasts, row[AX], row[AY])
    if lasts > 0.0:
        write_piece(pieces, n_pc, row[T0], motion_of(row), now, int(row[LEG]), ball)
        n_pc += 1
    if kind == SUNK:
        row[X] += lasts * row[VX]
        row[Y] += lasts * row[VY]
        return n_pc
    put(row, advance(motion_of(row), now, whole, p[DECAY]))
    return n_pc


@kernel
def release(row: Floats, p: Floats) -> None:
    """Out of the rubber, at the end of its time there or because something else is met."""
    if row[IN] == 0.0:
        return
    row[IN] = 0.0
    row[VX], row[VY] = row[OUT_X], row[OUT_Y]
    leave(row, int(row[HELD]), p)


@kernel
def leave(row: Floats, what: int, p: Floats) -> None:
    """Away from what was met, or pressed on it from now on."""
    nx, ny = into(what, row[X], row[Y], p)
    row[HELD] = NOTHING
    ball = motion_of(row)
    if not leaves(nx, ny, ball, p):
        put(row, press(nx, ny, ball))
        row[HELD] = what


@kernel
def plan(row: Floats, t: float, p: Floats) -> bool:
    """A ball's path from now on; did it just come to rest?"""
    was = row[KIND]
    if row[IN] != 0.0:
        row[T0], row[AX], row[AY], row[KIND] = t, 0.0, 0.0, SUNK
        way = Arc(row[X], row[Y], row[VX], row[VY], 0.0, 0.0)
        row[OWN], row[WHAT] = first_fixed(way, dwell(p[GIVE]), int(row[HELD]), True, p)
        return False
    now = phase(row[VX], row[VY], row[WX], row[WY], p[MU_S], p[MU_R])
    row[T0], row[AX], row[AY], row[KIND] = t, now.ax, now.ay, now.kind
    if now.kind == RESTING:
        row[VX], row[VY], row[WX], row[WY] = 0.0, 0.0, 0.0, 0.0
        row[OWN], row[WHAT] = math.inf, NOTHING
        return was != RESTING
    way = Arc(row[X], row[Y], row[VX], row[VY], now.ax, now.ay)
    row[OWN], row[WHAT] = first_fixed(way, now.lasts, int(row[HELD]), True, p)
    return False


@kernel
def touch(a: Floats, b: Floats, t: float, p: Floats) -> float:
    """When two balls touch, inf if not before the path of either ends."""
    if (a[KIND] == RESTING and b[KIND] == RESTING) or a[ON] == 0.0 or b[ON] == 0.0:
        return math.inf
    sa, sb = t - a[T0], t - b[T0]
    longest = min(a[OWN] - sa, b[OWN] - sb)
    if longest < 0.0:
        return math.inf
    if a[KIND] == RESTING:
        sa = 0.0
    if b[KIND] == RESTING:
        sb = 0.0
    dx = a[X] + sa * (a[VX] + 0.5 * a[AX] * sa) - (b[X] + sb * (b[VX] + 0.5 * b[AX] * sb))
    dy = a[Y] + sa * (a[VY] + 0.5 * a[AY] * sa) - (b[Y] + sb * (b[VY] + 0.5 * b[AY] * sb))
    vx, vy = a[VX] + a[AX] * sa - (b[VX] + b[AX] * sb), a[VY] + a[AY] * sa - (b[VY] + b[AY] * sb)
    ax, ay = a[AX] - b[AX], a[AY] - b[AY]
    hit = first_touch(Arc(dx, dy, vx, vy, ax, ay), 2.0 * p[RADIUS], longest)
    if hit == 0.0:
        size = math.sqrt(dx * dx + dy * dy)
        if -(vx * dx + vy * dy) < STILL * size and -(ax * dx + ay * dy) < STEADY * size:
            return math.inf
    return t + hit


@kernel
def rail(row: Floats, ball: int, t: float, p: Floats, events: Floats, n_ev: int) -> int:
    """Whatever does not move and was met; returns the events, or −1 where the impact broke."""
    what = int(row[WHAT])
    row[X], row[Y] = placed(what, row[X], row[Y], p)
    if what >= ENTERS:
        return n_ev
    x, y = row[X], row[Y]
    speed = math.sqrt(row[VX] ** 2 + row[VY] ** 2)
    if what >= FIRST_FALL:
        write_event(events, n_ev, Event(EV_POCKET, t, what - FIRST_FALL, x, y, speed, math.nan, 0.0, 0.0, ball))
        row[ON], row[KIND], row[OWN] = 0.0, RESTING, math.inf
        return n_ev + 1
    nx, ny = into(what, x, y, p)
    after, angle_in, angle_out = rebound(nx, ny, motion_of(row), p)
    if math.isnan(after.vx):
        return -1
    speed_after = math.sqrt(after.vx * after.vx + after.vy * after.vy)
    if what >= FIRST_JAW:
        kind, index = EV_JAW, (what - FIRST_JAW) // 4
    else:
        kind, index = EV_RAIL, what
        row[LEG] += 1
    write_event(events, n_ev, Event(kind, t, index, x, y, speed, speed_after, angle_in, angle_out, ball))
    if what < FIRST_JAW and sinks_in(row[VX] * nx + row[VY] * ny, p):
        row[IN], row[OUT_X], row[OUT_Y], row[HELD] = 1.0, after.vx, after.vy, what
        row[VX], row[VY] = glide(nx, ny, row[VX], row[VY], after.vx, after.vy)
        row[WX], row[WY], row[WZ] = after.wx, after.wy, after.wz
        return n_ev + 1
    put(row, after)
    leave(row, what, p)
    return n_ev + 1
