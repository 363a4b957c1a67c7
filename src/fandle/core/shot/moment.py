"""The moment of contact: where the balls stand when the cue ball meets the first one, and where each of them goes."""

import math
from dataclasses import dataclass

from fandle.core.layout.model import Layout
from fandle.core.shot.path import Event, Piece
from fandle.core.shot.play import Shot
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

AT_ONCE_S = 1e-9


@dataclass(frozen=True)
class Moment:
    """The first contact with a ball. Places in metres, headings in radians from +x towards +y.

    cue, ball: centres; comes: heading of the cue ball before, goes: after, None where it stops; driven: heading of the
    ball met, None where it does not move. hit: how far right of the ball's centre the cue ball came, ball diameters.
    rail: the last one the cue ball met before, with its centre then; None where it met none.
    """

    ball_id: str
    cue: Point
    ball: Point
    comes: float
    goes: float | None
    driven: float | None
    hit: float
    rail: tuple[Rail, Point] | None

    @property
    def fullness(self) -> float:
        """The share of the ball that is covered, 1 full, 0 a graze."""
        return 1.0 - abs(self.hit)

    @property
    def cut_deg(self) -> float:
        """Angle between the cue ball's way in and the line of centres, degrees."""
        return math.degrees(math.asin(min(abs(self.hit), 1.0)))


def moment_of(layout: Layout, shot: Shot) -> Moment | None:
    """The first contact of a played shot; None where the cue ball meets no ball."""
    met = next((ev for ev in shot.events if ev.kind == "ball" and CUE in (ev.ball, ev.other)), None)
    if met is None:
        return None
    name = shot.first_ball or ""
    table, ball = layout.table, layout.metres(layout.ball(name))
    before, after = _pieces(shot, CUE, met.t)
    last = before[-1] if before else None
    cue = _end(layout, last) if last is not None else layout.metres(layout.cue)
    comes = _heading(_speed_at_end(last)) if last is not None else math.atan2(ball[1] - cue[1], ball[0] - cue[0])
    comes = 0.0 if comes is None else comes
    offset = math.cos(comes) * (ball[1] - cue[1]) - math.sin(comes) * (ball[0] - cue[0])
    _, driven = _pieces(shot, name, met.t)
    goes, runs = (_heading(way[0].motion[:2]) if way else None for way in (after, driven))
    return Moment(name, cue, ball, comes, goes, runs, offset / (2 * table.ball_radius), _rail_before(layout, shot, met))


def _pieces(shot: Shot, ball: str, t: float) -> tuple[list[Piece], list[Piece]]:
    """A ball's stretches of path before and from a time on."""
    way = shot.paths.get(ball, ())
    return [q for q in way if q.t + q.lasts <= t + AT_ONCE_S and q.t < t], [q for q in way if q.t >= t - AT_ONCE_S]


def _speed_at_end(piece: Piece) -> tuple[float, float]:
    vx, vy, ax, ay = piece.motion
    return vx + ax * piece.lasts, vy + ay * piece.lasts


def _heading(velocity: tuple[float, ...]) -> float | None:
    return math.atan2(velocity[1], velocity[0]) if math.hypot(velocity[0], velocity[1]) > 1e-9 else None


def _end(layout: Layout, piece: Piece) -> Point:
    return piece.end[0] * layout.table.diamond_x, piece.end[1] * layout.table.diamond_y


def _rail_before(layout: Layout, shot: Shot, met: Event) -> tuple[Rail, Point] | None:
    table = layout.table
    rails = [ev for ev in shot.events if ev.ball == CUE and ev.rail is not None and ev.kind == "rail" and ev.t <= met.t]
    if not rails or rails[-1].rail is None:
        return None
    return rails[-1].rail, (rails[-1].x * table.diamond_x, rails[-1].y * table.diamond_y)
