"""One direction of the cue as a bank or a pot: does the object ball go, over the rails, into the pocket."""

import math

from fandle.core.physics.cloth import advance
from fandle.core.physics.collision import VX, WZ, X, Y, collide
from fandle.core.physics.engine import HIT_BALL, NO_JAWS, STOPPED, Until, run
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.kick import nearest_offset, rails_met
from fandle.core.physics.moving import ON, blank_row, motion_of, put
from fandle.core.physics.outcomes import BLOCKED, HIT, JAW, KISS, OFF_RAIL, PAST, SHORT, Outcome
from fandle.core.physics.rack import play_until
from fandle.core.physics.scene import Scene
from fandle.core.physics.slots import BALL_REST, DECAY, LIGHT
from fandle.core.physics.state import (
    EV_BALL,
    EV_JAW,
    EV_POCKET,
    EV_RAIL,
    EV_STOP,
    EVENT,
    PIECE,
    Motion,
    Phase,
    Tape,
)
from fandle.core.physics.strike import strike_by


@kernel
def struck(theta: float, scene: Scene) -> Motion:
    """The cue ball just after the tip."""
    off = strike_by(theta, scene.stroke)
    return Motion(scene.origin[X], scene.origin[Y], off.vx, off.vy, off.wx, off.wy, off.wz)


@kernel
def contact(theta: float, scene: Scene, a: Floats, b: Floats) -> bool:
    """Cue ball a and object ball b just after they meet, nothing else on the bed; False if they do not.

    The cue ball goes over its own rails first, where the scene has any. a, b: seven columns each, as `collision`
    has them.
    """
    p, target = scene.p, scene.balls[scene.target]
    alone = scene.balls[scene.target : scene.target + 1]
    own = scene.before.shape[0]
    until = Until(own, NO_JAWS, own + 1)
    code, n_ev, n = run(struck(theta, scene), p, alone, until, Tape(scene.events, scene.pieces))
    if code != HIT_BALL or rails_met(scene.before, scene.events, n_ev) != own:
        return False
    q = scene.pieces[n - 1]
    before = Motion(q[PIECE.x], q[PIECE.y], q[PIECE.vx], q[PIECE.vy], q[PIECE.wx], q[PIECE.wy], q[PIECE.wz])
    now = Phase(int(q[PIECE.kind]), q[PIECE.lasts], q[PIECE.ax], q[PIECE.ay])
    put(a, advance(before, now, False, p[DECAY]))
    blank_row(b)
    b[X], b[Y] = target[X], target[Y]
    collide(a, b, p[BALL_REST], p[LIGHT], p)
    return True


@kernel
def object_run(theta: float, scene: Scene, a: Floats, b: Floats) -> int:
    """Play the object ball over the rails after the contact, alone and without pockets.

    Returns how many pieces its path has, −1 where it leaves the order of rails.
    """
    if not contact(theta, scene, a, b):
        return -1
    n = scene.order.shape[0]
    _, n_ev, n_pc = run(
        motion_of(b), scene.p, scene.balls[:0], Until(0, NO_JAWS, n + 1), Tape(scene.events, scene.pieces)
    )
    if n_pc == 0 or rails_met(scene.order, scene.events, n_ev) < n:
        return -1
    return n_pc


@kernel
def bank_offset(theta: float, scene: Scene, a: Floats, b: Floats) -> float:
    """Offset of the pocket's middle from the object ball's line of travel on its last leg, m; NaN off the order."""
    n_pc = object_run(theta, scene, a, b)
    if n_pc < 0:
        return math.nan
    return nearest_offset(scene.pieces, n_pc, scene.order.shape[0], scene.goal)


@kernel
def bank_sweep(at: Floats, scene: Scene, goals: Floats, offsets: Floats, a: Floats, b: Floats) -> None:
    """Every direction played once for all pockets. goals: (k, 2) middles; offsets: (k, n), NaN off the order."""
    n = scene.order.shape[0]
    for i in range(at.shape[0]):
        n_pc = object_run(at[i], scene, a, b)
        for k in range(goals.shape[0]):
            offsets[k, i] = math.nan if n_pc < 0 else nearest_offset(scene.pieces, n_pc, n, goals[k])


@kernel
def lay_out(state: Floats, scene: Scene, theta: float) -> None:
    """All balls of the scene in rows, the cue ball first and struck."""
    for i in range(state.shape[0]):
        for k in range(VX, WZ + 1):
            state[i, k] = 0.0
        state[i, ON] = 1.0
    for i in range(scene.balls.shape[0]):
        state[i + 1, X], state[i + 1, Y] = scene.balls[i, 0], scene.balls[i, 1]
    put(state[0], struck(theta, scene))


@kernel
def _what_comes(kind: int, index: int, met: int, scene: Scene) -> Outcome:
    """What an event of the object ball alone means, `met` rails being behind it; leg −1: nothing yet."""
    n = scene.order.shape[0]
    if kind == EV_RAIL:
        if met >= n:
            return Outcome(PAST, 0, 0)
        return Outcome(OFF_RAIL, 0, 0 if index != scene.order[met] else -1)
    if kind == EV_JAW:
        return Outcome(JAW, 0, met if met < n else -1)
    if kind == EV_POCKET:
        if met < n:
            return Outcome(JAW, 0, met)
        return Outcome(HIT if index == scene.pocket else PAST, 0, 0)
    return Outcome(SHORT, 0, 0)


@kernel
def bank_outcome(theta: float, scene: Scene) -> Outcome:
    """What really happens, every ball played."""
    mine = scene.target + 1
    lay_out(scene.crowd, scene, theta)
    events = scene.crowd_events
    code, n_ev, _ = play_until(scene.crowd, scene.p, Tape(events, scene.crowd_pieces), mine, scene.order.shape[0])
    met = 0
    touched = False
    for i in range(n_ev):
        row = events[i]
        kind, index, ball = int(row[EVENT.kind]), int(row[EVENT.which]), int(row[EVENT.ball])
        if not touched:
            if ball != 0 and not (kind == EV_BALL and index == 0):
                continue
            if kind != EV_BALL:
                return Outcome(SHORT if kind == EV_STOP else OFF_RAIL, 0, 0)
            other = index if ball == 0 else ball
            if other != mine:
                return Outcome(BLOCKED, other - 1, 0)
            touched = True
            continue
        if kind == EV_BALL and mine in (ball, index):
            other = index if ball == mine else ball
            return Outcome(KISS, 0, 0) if other == 0 else Outcome(BLOCKED, other - 1, met)
        if ball != mine:
            continue
        comes = _what_comes(kind, index, met, scene)
        if comes.leg >= 0:
            return comes
        met += kind == EV_RAIL
    return Outcome(PAST if touched or code != STOPPED else SHORT, 0, 0)
