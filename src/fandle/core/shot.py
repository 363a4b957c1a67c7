"""A shot as played: its events, where everything rests, and the path for drawing."""

import math
from dataclasses import dataclass

import numpy as np

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout import CUE, Layout
from fandle.core.physics import engine as e
from fandle.core.physics.cloth import SLIDING
from fandle.core.physics.strike import strike
from fandle.core.pocket import jaw_name
from fandle.core.rails import Rail
from fandle.core.stroke import Stroke
from fandle.core.table import Point

RAILS = tuple(Rail)
NO_LIMIT = 1 << 30  # rails: the event cap comes first


@dataclass(frozen=True)
class Event:
    """One contact or the end. Times in s, places in diamonds, speeds in m/s, angles in degrees.

    speed_after is None where the engine stops at the event. Angles are measured from the rail.
    """

    t: float
    kind: str
    ball: str
    x: float
    y: float
    speed: float
    speed_after: float | None
    rail: Rail | None = None
    other: str | None = None
    pocket: str | None = None
    in_deg: float | None = None
    out_deg: float | None = None


@dataclass(frozen=True)
class Piece:
    """A stretch of path: from `start` to `end` with the parabola's control point, in diamonds."""

    t: float
    lasts: float
    start: Point
    control: Point
    end: Point
    sliding: bool
    leg: int


@dataclass(frozen=True)
class Shot:
    """Everything that happened; stopped_by is "ball" or "jaw" where the run ended there."""

    events: tuple[Event, ...]
    rest: dict[str, Point | None]
    pieces: tuple[Piece, ...]
    stopped_by: str | None

    @property
    def rails(self) -> tuple[Rail, ...]:
        """Rails met, in order."""
        return tuple(ev.rail for ev in self.events if ev.kind == "rail" and ev.rail is not None)

    @property
    def first_ball(self) -> str | None:
        """The object ball met, if any."""
        return next((ev.other for ev in self.events if ev.kind == "ball"), None)


def play(
    layout: Layout,
    stroke: Stroke,
    direction: float,
    most_rails: int = NO_LIMIT,
    ignore_balls: bool = False,
    impulse_steps: int | None = None,
) -> Shot:
    """Play one stroke along `direction` (rad, the cue's line) on a layout.

    The run ends when the cue ball rests, meets another ball or a jaw, or comes to its rail number
    `most_rails`. ignore_balls takes all object balls off the bed. Raises EngineError at the event cap.
    """
    if not math.isfinite(direction):
        raise BadInputError(f"direction is {direction}: give it in degrees as a number", "direction")
    p = layout.table.params()
    if impulse_steps is not None:
        p = p.copy()
        p[e.STEPS] = impulse_steps
    events = np.empty((e.MOST_EVENTS, e.EVENT_WIDTH))
    pieces = np.empty((e.MOST_PIECES, e.PIECE_WIDTH))
    balls = np.empty((0, 2)) if ignore_balls else layout.obstacles()
    x, y = layout.metres(layout.cue)
    start = strike(direction, *stroke.array())
    code, n_ev, n_pc = e.run(x, y, *start, p, balls, 0, True, most_rails, events, pieces)
    if code == e.TOO_MANY:
        raise EngineError(f"the shot makes more than {e.MOST_EVENTS} contacts: play it slower")
    if code == e.BROKEN:
        raise EngineError("a cushion impact never ended: check the table's cushion and cloth numbers")
    rows = tuple(_event(layout, row) for row in events[:n_ev])
    path = tuple(_piece(layout, row) for row in pieces[:n_pc])
    rest: dict[str, Point | None] = {b.id: (b.x, b.y) for b in layout.balls}
    if rows:
        rest[CUE] = (rows[-1].x, rows[-1].y)
    stopped = {e.HIT_BALL: "ball", e.HIT_JAW: "jaw"}.get(code)
    return Shot(rows, rest, path, stopped)


def _event(layout: Layout, row: np.ndarray) -> Event:
    table = layout.table
    kind, index = int(row[0]), int(row[2])
    x, y = float(row[3]), float(row[4])
    after = float(row[6])
    rail = RAILS[index] if kind in (e.EV_RAIL, e.EV_JAW) else None
    return Event(
        t=float(row[1]),
        kind=("rail", "ball", "jaw", "stop")[kind],
        ball=CUE,
        x=x / table.diamond_x,
        y=y / table.diamond_y,
        speed=float(row[5]),
        speed_after=None if math.isnan(after) else after,
        rail=rail,
        other=layout.object_balls()[index].id if kind == e.EV_BALL else None,
        pocket=jaw_name(table, rail, rail.along(x, y)) if kind == e.EV_JAW and rail else None,
        in_deg=math.degrees(row[7]) if kind == e.EV_RAIL else None,
        out_deg=math.degrees(row[8]) if kind == e.EV_RAIL else None,
    )


def _piece(layout: Layout, row: np.ndarray) -> Piece:
    table = layout.table
    t0, t, x, y, vx, vy, ax, ay, kind, leg = (float(v) for v in row)

    def place(px: float, py: float) -> Point:
        return px / table.diamond_x, py / table.diamond_y

    return Piece(
        t=t0,
        lasts=t,
        start=place(x, y),
        control=place(x + vx * t / 2, y + vy * t / 2),
        end=place(x + t * (vx + ax * t / 2), y + t * (vy + ay * t / 2)),
        sliding=kind == SLIDING,
        leg=int(leg),
    )


def final_approach(shot: Shot, layout: Layout) -> tuple[Point, Point]:
    """(position, unit direction of travel) of the cue ball at the shot's last event, in metres."""
    table = layout.table
    piece = shot.pieces[-1]
    px, py = piece.end[0] * table.diamond_x, piece.end[1] * table.diamond_y
    # the end tangent of the parabola runs from its control point to its end
    dx = (piece.end[0] - piece.control[0]) * table.diamond_x
    dy = (piece.end[1] - piece.control[1]) * table.diamond_y
    size = math.hypot(dx, dy)
    return (px, py), (dx / size, dy / size)
