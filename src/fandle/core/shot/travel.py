"""Reading a played path: where it crosses a line, how near it comes to a ball."""

import math
from collections.abc import Callable, Iterable

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics.state import Arc
from fandle.core.physics.touch import nearest_time
from fandle.core.shot.approach import Approach
from fandle.core.shot.path import Piece
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

STILL = 1e-9  # diamonds: the last half of a stretch that is no longer ends at rest


def nearest(table: Table, pieces: Iterable[Piece], x: float, y: float) -> float:
    """Least distance in metres between a path and the point (x, y) in metres; inf without path."""
    return abs(passing(table, pieces, x, y))


def passing(table: Table, pieces: Iterable[Piece], x: float, y: float) -> float:
    """Least distance in metres of a path from (x, y), positive where it passes on that point's right.

    Right as seen along the path's travel; inf without path.
    """
    sx, sy = table.diamond_x, table.diamond_y
    least = math.inf
    for q in pieces:
        if q.lasts <= 0.0:
            continue
        dx, dy = q.start[0] * sx - x, q.start[1] * sy - y
        vx, vy, ax, ay = q.motion
        t = nearest_time(Arc(dx, dy, vx, vy, ax, ay), q.lasts)
        px, py = dx + t * (vx + ax * t / 2), dy + t * (vy + ay * t / 2)
        away = math.hypot(px, py)
        if away < abs(least):
            turn = (vx + ax * t) * py - (vy + ay * t) * px  # positive: the path lies left of the point
            least = math.copysign(away, -turn)
    return least


def clearance(layout: Layout, shot: Approach, target: str) -> tuple[Ball, float] | None:
    """The ball that the path passes most closely, and the gap between the two in metres."""
    table = layout.table
    gaps = [
        (nearest(table, shot.pieces, *layout.metres(ball)) - 2 * table.ball_radius, ball)
        for ball in layout.object_balls()
        if ball.id != target
    ]
    if not gaps:
        return None
    gap, ball = min(gaps, key=lambda pair: pair[0])
    return ball, gap


def crosses(shot: Approach, rail: Rail, leg: int, across: float, *, carry: bool = True) -> tuple[float, float] | None:
    """(along, direction of travel ±1) where a leg crosses the line `across`, parallel to `rail`.

    Diamonds. Where the leg ends before the line, it is carried on straight if `carry`; None where it
    never leaves the rail.
    """
    pieces = [q for q in shot.pieces if q.leg == leg and q.lasts > 0.0]
    for q in pieces:
        s = _bezier_root(_track(rail.across, q), across)
        if s is not None:
            return _bezier(_track(rail.along, q), s), _travel(pieces, rail)
    for q in reversed(pieces if carry else []):
        back = q.control if math.dist(q.control, q.end) > STILL else q.start  # it rests there: the way it came
        tail_along = rail.along(*q.end) - rail.along(*back)
        tail_across = rail.across(*q.end) - rail.across(*back)
        if tail_across * (across - rail.across(*q.end)) > 0.0:
            run = (across - rail.across(*q.end)) / tail_across
            return rail.along(*q.end) + run * tail_along, _travel(pieces, rail)
    return None


def _travel(pieces: list[Piece], rail: Rail) -> float:
    way = rail.along(*pieces[-1].end) - rail.along(*pieces[0].start)
    return math.copysign(1.0, way)


Track = tuple[float, float, float]


def _track(coordinate: Callable[[float, float], float], q: Piece) -> Track:
    """One coordinate of a piece: at its start, its control point, its end."""
    return coordinate(*q.start), coordinate(*q.control), coordinate(*q.end)


def _bezier(track: Track, s: float) -> float:
    p0, p1, p2 = track
    return (1 - s) ** 2 * p0 + 2 * s * (1 - s) * p1 + s * s * p2


def _bezier_root(track: Track, goal: float) -> float | None:
    """First parameter in [0, 1] at which a quadratic Bézier coordinate reaches `goal`."""
    p0, p1, p2 = track
    a, b, c = p0 - 2 * p1 + p2, 2 * (p1 - p0), p0 - goal
    if abs(a) < 1e-14:
        roots = [-c / b] if b else []
    else:
        disc = b * b - 4 * a * c
        if disc < 0:
            return None
        q = -0.5 * (b + math.copysign(math.sqrt(disc), b))
        roots = sorted([q / a, *([c / q] if q else [])])
    return next((s for s in roots if -1e-12 <= s <= 1 + 1e-12), None)
