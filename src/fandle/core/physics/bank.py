"""One direction of the cue as a bank: does the object ball go over the rails into the pocket."""

import math

from fandle.core.physics.cloth import advance
from fandle.core.physics.collision import collide
from fandle.core.physics.engine import EV_BALL, EV_JAW, EV_POCKET, EV_RAIL, EV_STOP, HIT_BALL, STOPPED, run
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.kick import nearest_offset, rails_met
from fandle.core.physics.moving import ON
from fandle.core.physics.outcomes import BLOCKED, HIT, JAW, KISS, OFF_RAIL, PAST, SHORT
from fandle.core.physics.rack import play_until
from fandle.core.physics.scene import Scene
from fandle.core.physics.slots import BALL_REST, LIGHT
from fandle.core.physics.strike import strike


@kernel
def contact(theta: float, scene: Scene, a: Floats, b: Floats) -> bool:
    """Cue ball a and object ball b just after they meet, nothing else on the bed; False if they do not.

    a, b: seven columns each, as `collision` has them.
    """
    s, p, target = scene.stroke, scene.p, scene.balls[scene.target]
    vx, vy, wx, wy, wz = strike(theta, s[0], s[1], s[2], s[3], s[4])
    code, _, n = run(
        scene.origin[0], scene.origin[1], vx, vy, wx, wy, wz, p, scene.balls[scene.target : scene.target + 1],
        0, False, 1, scene.events, scene.pieces,
    )  # fmt: skip
    if code != HIT_BALL:
        return False
    q = scene.pieces[n - 1]
    a[0], a[1], a[2], a[3], a[4], a[5], a[6] = advance(
        int(q[8]), q[1], False, q[2], q[3], q[4], q[5], q[11], q[12], q[13], q[6], q[7], p[5]
    )
    b[:] = 0.0
    b[0], b[1] = target[0], target[1]
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
        b[0], b[1], b[2], b[3], b[4], b[5], b[6], scene.p, scene.balls[:0], 0, False, n + 1, scene.events, scene.pieces
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
def bank_outcome(theta: float, scene: Scene) -> int:
    """What really happens, every ball played: an outcome, times 1000, plus 10 × ball + leg of the object ball."""
    s, state = scene.stroke, scene.crowd
    mine = scene.target + 1
    n = scene.order.shape[0]
    state[:, 2:7] = 0.0
    state[0, 0], state[0, 1] = scene.origin[0], scene.origin[1]
    for i in range(scene.balls.shape[0]):
        state[i + 1, 0], state[i + 1, 1] = scene.balls[i, 0], scene.balls[i, 1]
    state[:, ON] = 1.0
    state[0, 2], state[0, 3], state[0, 4], state[0, 5], state[0, 6] = strike(theta, s[0], s[1], s[2], s[3], s[4])
    events = scene.crowd_events
    code, n_ev, _ = play_until(state, scene.p, events, scene.crowd_pieces, mine, n)
    met = 0
    touched = False
    for i in range(n_ev):
        kind, index, ball = int(events[i, 0]), int(events[i, 2]), int(events[i, 9])
        if not touched:
            if ball != 0 and not (kind == EV_BALL and index == 0):
                continue
            if kind != EV_BALL:
                return (SHORT if kind == EV_STOP else OFF_RAIL) * 1000
            other = index if ball == 0 else ball
            if other != mine:
                return BLOCKED * 1000 + 10 * (other - 1)
            touched = True
            continue
        if kind == EV_BALL and mine in (ball, index):
            other = index if ball == mine else ball
            return KISS * 1000 if other == 0 else BLOCKED * 1000 + 10 * (other - 1) + met
        if ball != mine:
            continue
        if kind == EV_RAIL:
            if met >= n or index != scene.order[met]:
                return OFF_RAIL * 1000 if met < n else PAST * 1000
            met += 1
        elif kind == EV_JAW:
            if met < n:
                return JAW * 1000 + met
        elif kind == EV_POCKET:
            if index == scene.pocket and met == n:
                return HIT * 1000
            return JAW * 1000 + met if met < n else PAST * 1000
        else:
            return SHORT * 1000
    return PAST * 1000 if touched or code != STOPPED else SHORT * 1000
