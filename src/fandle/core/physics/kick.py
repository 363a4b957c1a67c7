"""One direction of the cue as a kick: does the cue ball meet the target over the rails, how thickly."""

import math

from fandle.core.physics.engine import EV_RAIL, HIT_BALL, HIT_JAW, POTTED, STOPPED, run
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.outcomes import BACKSTOP, BLOCKED, HIT, JAW, OFF_RAIL, PAST, SHORT
from fandle.core.physics.scene import Scene
from fandle.core.physics.slots import RADIUS
from fandle.core.physics.strike import strike
from fandle.core.physics.touch import first_touch, nearest_time


@kernel
def _play(
    theta: float, scene: Scene, balls: Floats, solid_leg: int, jaws: bool, most_rails: int
) -> tuple[int, int, int]:
    s = scene.stroke
    vx, vy, wx, wy, wz = strike(theta, s[0], s[1], s[2], s[3], s[4])
    return run(
        scene.origin[0], scene.origin[1], vx, vy, wx, wy, wz, scene.p, balls, solid_leg, jaws,
        most_rails, scene.events, scene.pieces,
    )  # fmt: skip


@kernel
def rails_met(order: Ints, events: Floats, n_events: int) -> int:
    """Rails met so far, or −1 where they leave the order asked for."""
    met = 0
    for i in range(n_events):
        if events[i, 0] == EV_RAIL:
            if met < order.shape[0] and events[i, 2] != order[met]:
                return -1
            met += 1
    return met


@kernel
def _offset(piece: Floats, t: float, target: Floats) -> float:
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
def nearest_offset(pieces: Floats, n_pieces: int, leg: int, target: Floats) -> float:
    """Offset of a point from the line of travel where one leg comes nearest to it; NaN without that leg."""
    best, least = math.nan, math.inf
    for i in range(n_pieces):
        q = pieces[i]
        if q[9] != leg:
            continue
        dx, dy = q[2] - target[0], q[3] - target[1]
        t = nearest_time(dx, dy, q[4], q[5], q[6], q[7], q[1])
        away = math.hypot(dx + t * (q[4] + 0.5 * q[6] * t), dy + t * (q[5] + 0.5 * q[7] * t))
        if away < least:
            least = away
            best = _offset(q, t, target)
    return best


@kernel
def _leg_offset(pieces: Floats, n_pieces: int, leg: int, target: Floats, reach: float) -> float:
    """The same where a ball is met on that leg: at the contact."""
    for i in range(n_pieces):
        q = pieces[i]
        if q[9] == leg:
            t = first_touch(q[2] - target[0], q[3] - target[1], q[4], q[5], q[6], q[7], reach, q[1])
            if t < math.inf:
                return _offset(q, t, target)
    return nearest_offset(pieces, n_pieces, leg, target)


@kernel
def kick_offset(theta: float, scene: Scene) -> float:
    """Offset of the target from the line of travel at contact, or where the ball is nearest.

    Metres; NaN where the rails are not met in this order. Nothing else is on the bed, and the
    target is solid only on the last leg: the offset is continuous in the direction.
    """
    n, pieces = scene.order.shape[0], scene.pieces
    target = scene.balls[scene.target : scene.target + 1]
    code, n_ev, n_pc = _play(theta, scene, target, n, False, n + 1)
    if n_pc == 0 or rails_met(scene.order, scene.events, n_ev) < n or pieces[n_pc - 1, 9] != n:
        return math.nan
    if code == HIT_BALL:
        return _offset(pieces[n_pc - 1], pieces[n_pc - 1, 1], target[0])
    return nearest_offset(pieces, n_pc, n, target[0])


@kernel
def sweep(thetas: Floats, scene: Scene, rails: Ints, offsets: Floats) -> None:
    """Every direction played once, for all orders of rails: which are met, and the offset on every leg.

    rails: (n, most) numbers of the rails met in order, −1 beyond; offsets: (n, most + 1), leg by leg,
    as `measure` gives them. The scene's own order does not matter.
    """
    most = rails.shape[1]
    target, reach = scene.balls[scene.target], 2.0 * scene.p[RADIUS]
    for i in range(thetas.shape[0]):
        _, n_ev, n_pc = _play(thetas[i], scene, scene.balls[:0], 0, False, most + 1)
        rails[i, :] = -1
        met = 0
        for k in range(n_ev):
            if scene.events[k, 0] == EV_RAIL and met < most:
                rails[i, met] = int(scene.events[k, 2])
                met += 1
        for leg in range(most + 1):
            offsets[i, leg] = math.nan
            if leg <= met:
                offsets[i, leg] = _leg_offset(scene.pieces, n_pc, leg, target, reach)


@kernel
def kick_outcome(theta: float, spare: int, scene: Scene) -> int:
    """What really happens: one of the outcomes above, times 1000, plus 10 × ball + leg.

    spare: further rails that the ball may meet after those asked for (1 to see a BACKSTOP).
    """
    n = scene.order.shape[0]
    events, target_index = scene.events, scene.target
    code, n_ev, _ = _play(theta, scene, scene.balls, 0, True, n + 1 + spare)
    met = rails_met(scene.order, scene.events, n_ev)
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
    if code in (HIT_JAW, POTTED) and met < n:
        return JAW * 1000 + met
    if code == STOPPED and met <= n:
        return SHORT * 1000
    return PAST * 1000
