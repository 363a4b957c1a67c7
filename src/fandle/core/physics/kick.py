"""One direction of the cue as a kick: does the cue ball meet the target over the rails, how thickly."""

import math

from fandle.core.physics.collision import X, Y
from fandle.core.physics.engine import HIT_BALL, NO_JAWS, OFF_JAWS, POTTED, STOPPED, Until, run
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.outcomes import BACKSTOP, BLOCKED, HIT, JAW, OFF_RAIL, PAST, SHORT, Outcome
from fandle.core.physics.scene import Scene
from fandle.core.physics.state import EV_JAW, EV_RAIL, EVENT, PIECE, Arc, Motion, Tape, arc_of, place_on
from fandle.core.physics.strike import strike_by
from fandle.core.physics.touch import nearest_time


@kernel
def _play(theta: float, scene: Scene, balls: Floats, until: Until) -> tuple[int, int, int]:
    off = strike_by(theta, scene.stroke)
    start = Motion(scene.origin[X], scene.origin[Y], off.vx, off.vy, off.wx, off.wy, off.wz)
    return run(start, scene.p, balls, until, Tape(scene.events, scene.pieces))


@kernel
def rails_met(order: Ints, events: Floats, n_events: int) -> int:
    """Rails met so far, or −1 where they leave the order asked for."""
    met = 0
    for i in range(n_events):
        if events[i, EVENT.kind] == EV_RAIL:
            if met < order.shape[0] and events[i, EVENT.which] != order[met]:
                return -1
            met += 1
    return met


@kernel
def _offset(piece: Floats, t: float, target: Floats) -> float:
    """Signed distance of the target from the line of travel, + = the target lies to the left."""
    way = arc_of(piece)
    x, y = place_on(way, t)
    vx, vy = way.vx + way.ax * t, way.vy + way.ay * t
    speed = math.sqrt(vx * vx + vy * vy)
    if speed < 1e-7:
        vx, vy = way.vx, way.vy
        speed = math.sqrt(vx * vx + vy * vy)
    return (vx * (target[1] - y) - vy * (target[0] - x)) / speed


@kernel
def _from(piece: Floats, target: Floats) -> Arc:
    """The stretch as seen from a point."""
    way = arc_of(piece)
    return Arc(way.x - target[0], way.y - target[1], way.vx, way.vy, way.ax, way.ay)


@kernel
def nearest_offset(pieces: Floats, n_pieces: int, leg: int, target: Floats) -> float:
    """Offset of a point from the line of travel where one leg comes nearest to it; NaN without that leg."""
    best, least = math.nan, math.inf
    for i in range(n_pieces):
        q = pieces[i]
        if q[PIECE.leg] != leg:
            continue
        apart = _from(q, target)
        t = nearest_time(apart, q[PIECE.lasts])
        dx, dy = place_on(apart, t)
        away = math.hypot(dx, dy)
        if away < least:
            least = away
            best = _offset(q, t, target)
    return best


@kernel
def kick_offset(theta: float, scene: Scene) -> float:
    """Offset of the target from the line of travel at contact, or where the ball is nearest.

    Metres; NaN where the rails are not met in this order. Nothing else is on the bed, and the
    target is solid only on the last leg: the offset is continuous in the direction.
    """
    n, pieces = scene.order.shape[0], scene.pieces
    target = scene.balls[scene.target : scene.target + 1]
    code, n_ev, n_pc = _play(theta, scene, target, Until(n, NO_JAWS, n + 1))
    if n_pc == 0 or rails_met(scene.order, scene.events, n_ev) < n or pieces[n_pc - 1, PIECE.leg] != n:
        return math.nan
    if code == HIT_BALL:
        return _offset(pieces[n_pc - 1], pieces[n_pc - 1, PIECE.lasts], target[0])
    return nearest_offset(pieces, n_pc, n, target[0])


@kernel
def kick_outcome(theta: float, spare: int, scene: Scene) -> Outcome:
    """What really happens, every ball on, until the first contact with one.

    spare: further rails that the ball may meet after those asked for (1 to see a BACKSTOP). A target met off a jaw
    behind the last rail is met as off a backstop; a jaw before it ends the line.
    """
    n, met, jaw = scene.order.shape[0], 0, False
    events = scene.events
    code, n_ev, _ = _play(theta, scene, scene.balls, Until(0, OFF_JAWS, n + 1 + spare))
    for i in range(n_ev):
        kind = int(events[i, EVENT.kind])
        if kind == EV_RAIL:
            if met < n and events[i, EVENT.which] != scene.order[met]:
                return Outcome(OFF_RAIL, 0, 0)
            met += 1
        elif kind == EV_JAW:
            if met < n:
                return Outcome(JAW, 0, met)
            jaw = True
    if code == HIT_BALL:
        ball = int(events[n_ev - 1, EVENT.which])
        if ball == scene.target and met >= n:
            return Outcome(HIT if met == n and not jaw else BACKSTOP, 0, 0)
        if met <= n and not jaw:
            return Outcome(BLOCKED, ball, met)
        return Outcome(PAST, 0, 0)
    if code == POTTED and met < n:
        return Outcome(JAW, 0, met)
    if code == STOPPED and met <= n and not jaw:
        return Outcome(SHORT, 0, 0)
    return Outcome(PAST, 0, 0)


# what the target is met off behind the last rail asked for: nothing, a jaw (beside the rails' own numbers), not at all
DIRECT, OFF_JAW, NOT_MET = -1, 4, -2


@kernel
def met_off(theta: float, scene: Scene) -> int:
    """What the target is met off in one direction: DIRECT, the rail behind those asked for, OFF_JAW, or NOT_MET."""
    found = kick_outcome(theta, 1, scene)
    if found.what not in (HIT, BACKSTOP):
        return NOT_MET
    for i in range(scene.order.shape[0] + 1):
        kind = int(scene.events[i, EVENT.kind])
        if kind == EV_JAW:
            return OFF_JAW
        if kind != EV_RAIL:
            return DIRECT
    return int(scene.events[scene.order.shape[0], EVENT.which])
