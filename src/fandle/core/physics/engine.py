"""One moving ball among resting ones: event by event, exact times, no fixed step.

The search for an aim plays thousands of these; `rack` plays all balls with the same parts.
Events and path pieces are written into arrays of the caller's. Kernels never raise: the code
they return says how it ended.
"""

import math
from typing import NamedTuple

from fandle.core.physics.bed import (
    ENTERS,
    FIRST_FALL,
    FIRST_JAW,
    NOTHING,
    PRESSED,
    first_fixed,
    into,
    placed,
    press,
    rebound,
    sinks_in,
)
from fandle.core.physics.cloth import RESTING, SUNK, advance, phase
from fandle.core.physics.give import dwell, glide
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.slots import DECAY, GIVE, MU_R, MU_S, RADIUS
from fandle.core.physics.state import (
    EV_BALL,
    EV_JAW,
    EV_POCKET,
    EV_RAIL,
    EV_STOP,
    Arc,
    Event,
    Motion,
    Phase,
    Tape,
    write_event,
    write_piece,
)
from fandle.core.physics.touch import first_touch

# how a run ended
STOPPED, HIT_BALL, HIT_JAW, LAST_RAIL, TOO_MANY, BROKEN, POTTED = range(7)
MOST_EVENTS = 300
MOST_PIECES = 1000


# what the jaws are: not there, so that the noses run on through the mouths; the end of a run; rubber like any other
NO_JAWS, AT_JAWS, OFF_JAWS = range(3)


class Until(NamedTuple):
    """How far a ball is played: resting balls are solid from leg `solid_leg` on (leg 0 is before the first rail);
    `jaws` as above. It ends as it arrives at its rail number `most_rails`."""

    solid_leg: int
    jaws: int
    most_rails: int


@kernel
def leaves(nx: float, ny: float, ball: Motion, p: Floats) -> bool:
    """Does a ball that has just met (nx, ny) come away from it, or is it driven back at once?"""
    if -(ball.vx * nx + ball.vy * ny) >= PRESSED:
        return True
    now = phase(ball.vx, ball.vy, ball.wx, ball.wy, p[MU_S], p[MU_R])
    return now.ax * nx + now.ay * ny <= 0.0


@kernel
def _first_ball(balls: Floats, way: Arc, first: float, p: Floats) -> tuple[float, int]:
    """The first resting ball met before `first` seconds: (when, which), −1 for none."""
    ball = -1
    for j in range(balls.shape[0]):
        apart = Arc(way.x - balls[j, 0], way.y - balls[j, 1], way.vx, way.vy, way.ax, way.ay)
        hit = first_touch(apart, 2.0 * p[RADIUS], first)
        if hit < first:
            first, ball = hit, j
    return first, ball


@kernel
def _in_rubber(
    ball: Motion, nx: float, ny: float, before: tuple[float, float], p: Floats, what: int, jaws: bool, balls: Floats
) -> tuple[float, float, float]:
    """(seconds, velocity) of a ball along the rail while it is in the rubber, unless it meets something there.

    balls: those that are solid now.
    """
    ux, uy = glide(nx, ny, before[0], before[1], ball.vx, ball.vy)
    way = Arc(ball.x, ball.y, ux, uy, 0.0, 0.0)
    first, _ = first_fixed(way, dwell(p[GIVE]), what, jaws, p)
    first, _ = _first_ball(balls, way, first, p)
    return first, ux, uy


@kernel
def _ends_at(what: int, leg: int, until: Until) -> tuple[int, int, int]:
    """(code, kind of event, its index) of what is met; code −1 where that does not end the run."""
    if what >= FIRST_FALL:
        return POTTED, EV_POCKET, what - FIRST_FALL
    if what >= FIRST_JAW:
        return (HIT_JAW if until.jaws == AT_JAWS else -1), EV_JAW, (what - FIRST_JAW) // 4
    return (LAST_RAIL if leg + 1 >= until.most_rails else -1), EV_RAIL, what


@kernel
def run(ball: Motion, p: Floats, balls: Floats, until: Until, tape: Tape) -> tuple[int, int, int]:
    """Play one ball until it rests, meets a ball, a jaw or a pocket, or comes to its last rail.

    balls: (n, 2) centres of the resting balls. At the last rail the ball is left as it arrives.
    Returns (code, events, pieces): how it ended and how many rows of each were written.
    """
    events, pieces = tape.events, tape.pieces
    jaws = until.jaws != NO_JAWS
    t = 0.0
    leg = n_ev = n_pc = 0
    held = NOTHING
    while True:
        now = phase(ball.vx, ball.vy, ball.wx, ball.wy, p[MU_S], p[MU_R])
        if now.kind == RESTING:
            write_event(events, n_ev, Event(EV_STOP, t, -1, ball.x, ball.y, 0.0, 0.0, 0.0, 0.0, 0))
            return STOPPED, n_ev + 1, n_pc
        if n_ev >= events.shape[0] - 2 or n_pc >= pieces.shape[0] - 3:
            return TOO_MANY, n_ev, n_pc
        way = Arc(ball.x, ball.y, ball.vx, ball.vy, now.ax, now.ay)
        first, what = first_fixed(way, now.lasts, held, jaws, p)
        met = -1
        if leg >= until.solid_leg:
            first, met = _first_ball(balls, way, first, p)
        here = Phase(now.kind, first, now.ax, now.ay)
        write_piece(pieces, n_pc, t, ball, here, leg, 0)
        n_pc += 1
        whole = what == NOTHING and met < 0
        ball = advance(ball, here, whole, p[DECAY])
        t += first
        if whole:
            continue
        speed = math.sqrt(ball.vx * ball.vx + ball.vy * ball.vy)
        if met >= 0:
            write_event(events, n_ev, Event(EV_BALL, t, met, ball.x, ball.y, speed, math.nan, 0.0, 0.0, 0))
            return HIT_BALL, n_ev + 1, n_pc
        x, y = placed(what, ball.x, ball.y, p)
        ball = Motion(x, y, ball.vx, ball.vy, ball.wx, ball.wy, ball.wz)
        if what >= ENTERS:
            continue
        code, kind, index = _ends_at(what, leg, until)
        if code >= 0:
            write_event(events, n_ev, Event(kind, t, index, x, y, speed, math.nan, 0.0, 0.0, 0))
            return code, n_ev + 1, n_pc
        nx, ny = into(what, x, y, p)
        before = ball.vx, ball.vy
        ball, angle_in, angle_out = rebound(nx, ny, ball, p)
        if math.isnan(ball.vx):
            return BROKEN, n_ev, n_pc
        leg += 1 if kind == EV_RAIL else 0
        after = math.sqrt(ball.vx * ball.vx + ball.vy * ball.vy)
        write_event(events, n_ev, Event(kind, t, index, x, y, speed, after, angle_in, angle_out, 0))
        n_ev += 1
        if kind == EV_RAIL and sinks_in(before[0] * nx + before[1] * ny, p):
            solid = balls if leg >= until.solid_leg else balls[:0]
            first, ux, uy = _in_rubber(ball, nx, ny, before, p, what, jaws, solid)
            sunk = Motion(x, y, ux, uy, ball.wx, ball.wy, ball.wz)
            write_piece(pieces, n_pc, t, sunk, Phase(SUNK, first, 0.0, 0.0), leg, 0)
            n_pc += 1
            t += first
            ball = Motion(x + first * ux, y + first * uy, ball.vx, ball.vy, ball.wx, ball.wy, ball.wz)
        held = NOTHING
        if not leaves(nx, ny, ball, p):
            ball = press(nx, ny, ball)
            held = what
