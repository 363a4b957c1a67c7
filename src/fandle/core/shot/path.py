"""What a played ball does: its events, and its path in stretches, in diamonds."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from fandle.core.physics import state
from fandle.core.physics.cloth import REST_LIMIT, SLIDING
from fandle.core.physics.state import EVENT, PIECE
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES, Point
from fandle.core.table.rails import Rail

RAILS = tuple(Rail)
# neighbouring columns of a piece: since when and for how long, where, velocity and acceleration, phase and leg
WHEN, PLACE = slice(PIECE.t, PIECE.lasts + 1), slice(PIECE.x, PIECE.y + 1)
MOTION, KIND = slice(PIECE.vx, PIECE.ay + 1), slice(PIECE.kind, PIECE.leg + 1)
EventKind = Literal["rail", "ball", "jaw", "stop", "pocket"]
KINDS: tuple[EventKind, ...] = ("rail", "ball", "jaw", "stop", "pocket")  # in the order of the engine's EV_ codes


@dataclass(frozen=True)
class Event:
    """One contact or the end. Times in s, places in diamonds, speeds in m/s, angles in degrees.

    speed_after is None where the ball's run ends at the event. Angles are measured from the rail.
    """

    t: float
    kind: EventKind
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


def into_pocket(event: Event) -> str:
    """What a ball does at a pocket: "meet the side-far jaw", "drop into the side-far pocket"."""
    return f"meet the {event.pocket} jaw" if event.kind == "jaw" else f"drop into the {event.pocket} pocket"


@dataclass(frozen=True)
class Piece:
    """A stretch of path: from `start` to `end` with the parabola's control point, in diamonds.

    motion: its velocity at the start and its acceleration (vx, vy, ax, ay), m/s and m/s². So the direction of
    travel is known even of a stretch without length, as before a contact at once with a frozen ball.
    """

    t: float
    lasts: float
    start: Point
    control: Point
    end: Point
    sliding: bool
    leg: int
    motion: tuple[float, ...]

    @property
    def heading(self) -> float:
        """Direction of travel at its end, rad; of a ball that comes to rest there, the one it came in."""
        vx, vy, ax, ay = self.motion
        ux, uy = vx + ax * self.lasts, vy + ay * self.lasts
        return math.atan2(uy, ux) if abs(ux) + abs(uy) > REST_LIMIT else math.atan2(vy, vx)


def event_of(table: Table, row: NDArray[np.float64], ball: str, others: tuple[str, ...]) -> Event:
    """An event from the engine's row; `others` names the balls its index counts."""
    kind, index = int(row[EVENT.kind]), int(row[EVENT.which])
    after = float(row[EVENT.after])
    return Event(
        t=float(row[EVENT.t]),
        kind=KINDS[kind],
        ball=ball,
        x=float(row[EVENT.x]) / table.diamond_x,
        y=float(row[EVENT.y]) / table.diamond_y,
        speed=float(row[EVENT.before]),
        speed_after=None if math.isnan(after) else after,
        rail=RAILS[index] if kind == state.EV_RAIL else None,
        other=others[index] if kind == state.EV_BALL else None,
        pocket=POCKET_NAMES[index] if kind in (state.EV_JAW, state.EV_POCKET) else None,
        in_deg=math.degrees(row[EVENT.angle_in]) if kind == state.EV_RAIL else None,
        out_deg=math.degrees(row[EVENT.angle_out]) if kind == state.EV_RAIL else None,
    )


def pieces_of(table: Table, rows: NDArray[np.float64]) -> list[Piece]:
    """Stretches of path from the engine's rows, (n, PIECE_WIDTH)."""
    scale = (table.diamond_x, table.diamond_y)
    whens, kinds = rows[:, WHEN].tolist(), rows[:, KIND].tolist()
    motions = rows[:, MOTION]
    t, start, v, a = rows[:, WHEN][:, 1:], rows[:, PLACE], motions[:, :2], motions[:, 2:]
    control, end = start + v * t / 2, start + t * (v + a * t / 2)
    places = zip((start / scale).tolist(), (control / scale).tolist(), (end / scale).tolist(), strict=True)
    return [
        Piece(t0, lasts, (p[0], p[1]), (c[0], c[1]), (q[0], q[1]), kind == SLIDING, int(leg), tuple(m))
        for (t0, lasts), (kind, leg), (p, c, q), m in zip(whens, kinds, places, motions.tolist(), strict=True)
    ]
