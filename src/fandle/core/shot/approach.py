"""The cue ball's way to its first contact with a ball, a jaw or a pocket. What an aim is made of."""

import math
from dataclasses import dataclass

import numpy as np

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics import engine as e
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.single import roll, strike_into
from fandle.core.shot.path import Event, Piece, event_of, pieces_of
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

NO_LIMIT = 1 << 30  # rails: the event cap comes first
BROKEN = "a cushion impact never ended: check the table's cushion and cloth numbers"


@dataclass(frozen=True)
class Approach:
    """The cue ball's events and path until it stops or meets what ends the approach."""

    events: tuple[Event, ...]
    pieces: tuple[Piece, ...]

    @property
    def rails(self) -> tuple[Rail, ...]:
        """Rails met, in order."""
        return tuple(ev.rail for ev in self.events if ev.kind == "rail" and ev.rail is not None)

    @property
    def first_ball(self) -> str | None:
        """The object ball met, if any."""
        return next((ev.other for ev in self.events if ev.kind == "ball"), None)


def finite_direction(direction: float) -> float:
    """`direction`, refused where it is not a number."""
    if not math.isfinite(direction):
        raise BadInputError(
            f"direction is {direction}: give it in degrees as a number", "direction", code="not_a_number"
        )
    return direction


def approach(
    layout: Layout,
    stroke: Stroke,
    direction: float,
    most_rails: int = NO_LIMIT,
    *,
    ignore_balls: bool = False,
    past_jaws: bool = False,
) -> Approach:
    """Play the cue ball along `direction` (rad, the cue's line) until it meets a ball, jaw or pocket.

    It also ends where the cue ball rests, or comes to its rail number `most_rails`. ignore_balls
    takes all object balls off the bed; past_jaws: a jaw does not end it. Raises EngineError at the event cap.
    """
    table = layout.table
    tape = blank_tape(e.MOST_EVENTS, e.MOST_PIECES)
    balls = np.empty((0, 2)) if ignore_balls else layout.obstacles()
    start = np.array(layout.metres(layout.cue) + (0.0,) * 5)
    strike_into(start, finite_direction(direction), stroke.array())
    code, n_ev, n_pc = roll(
        start, table.params(), balls, 0, e.OFF_JAWS if past_jaws else e.AT_JAWS, most_rails, tape.events, tape.pieces
    )
    if code == e.TOO_MANY:
        raise EngineError(f"the shot makes more than {e.MOST_EVENTS} contacts: play it slower")
    if code == e.BROKEN:
        raise EngineError(BROKEN)
    names = tuple(ball.id for ball in layout.object_balls())
    return Approach(
        tuple(event_of(table, row, CUE, names) for row in tape.events[:n_ev]),
        tuple(pieces_of(table, tape.pieces[:n_pc])),
    )


def final_approach(way: Approach, layout: Layout) -> tuple[Point, Point]:
    """(position, unit direction of travel) of the cue ball at the last event, in metres."""
    table = layout.table
    piece = way.pieces[-1]
    here = piece.end[0] * table.diamond_x, piece.end[1] * table.diamond_y
    return here, (math.cos(piece.heading), math.sin(piece.heading))


def offset_at(way: Approach, layout: Layout, ball: Ball) -> float:
    """How far right of a ball's centre the way passes, as it comes to its last event, ball diameters."""
    (px, py), (ux, uy) = final_approach(way, layout)
    gx, gy = layout.metres(ball)
    return (ux * (gy - py) - uy * (gx - px)) / (2 * layout.table.ball_radius)


def pushes(layout: Layout, way: Approach) -> bool:
    """Is the first thing met a ball that is frozen to the cue ball?"""
    first = way.events[0]
    return first.other is not None and layout.touch(CUE, first.other)
