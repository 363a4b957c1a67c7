"""A whole shot: every ball, from the stroke until all rest or are down."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import EngineError
from fandle.core.layout.model import Layout
from fandle.core.physics import engine as e
from fandle.core.physics import moving, rack
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.single import strike_into
from fandle.core.physics.slots import STEPS
from fandle.core.physics.state import EVENT, PIECE
from fandle.core.shot.approach import BROKEN, Approach, finite_direction
from fandle.core.shot.path import Event, Piece, event_of, pieces_of
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.words.balls import CUE


@dataclass(frozen=True)
class Shot:
    """Everything that happened: events in order of time, each moved ball's path, where all rest.

    A potted ball rests at None. Paths are only of balls that moved.
    """

    events: tuple[Event, ...]
    rest: dict[str, Point | None]
    paths: dict[str, tuple[Piece, ...]]

    @property
    def first_ball(self) -> str | None:
        """The first object ball the cue ball meets, if any."""
        for event in self.events:
            if event.kind == "ball" and CUE in (event.ball, event.other):
                return event.other if event.ball == CUE else event.ball
        return None

    @property
    def potted(self) -> tuple[tuple[str, str], ...]:
        """(ball, pocket) in the order in which they fell."""
        return tuple((ev.ball, ev.pocket) for ev in self.events if ev.kind == "pocket" and ev.pocket is not None)

    @property
    def lasts(self) -> float:
        """Seconds until the last ball rests."""
        return max((piece.t + piece.lasts for way in self.paths.values() for piece in way), default=0.0)


def play(layout: Layout, stroke: Stroke, direction: float, impulse_steps: int | None = None) -> Shot:
    """Play one stroke along `direction` (rad, the cue's line) on a layout, all balls.

    The same whatever the order of the balls in the layout. Raises EngineError at the event cap.
    """
    p = layout.table.params()
    if impulse_steps is not None:
        p = p.copy()
        p[STEPS] = impulse_steps
    # one order for the engine, whatever the file's: sums of rounded numbers depend on it
    balls = (layout.cue, *sorted(layout.object_balls(), key=lambda ball: ball.id))
    state = np.zeros((len(balls), moving.BALL_WIDTH))
    state[:, :2] = [layout.metres(ball) for ball in balls]
    state[:, moving.ON] = 1.0
    strike_into(state[0], finite_direction(direction), stroke.array())
    tape = blank_tape(rack.MOST_EVENTS, rack.MOST_PIECES)
    code, n_ev, n_pc = rack.play_all(state, p, tape.events, tape.pieces)
    if code == e.TOO_MANY:
        raise EngineError(f"the shot makes more than {rack.MOST_EVENTS} contacts: play it slower")
    if code == e.BROKEN:
        raise EngineError(BROKEN)
    return _told(layout.table, tuple(ball.id for ball in balls), state, tape.events[:n_ev], tape.pieces[:n_pc])


def _told(
    table: Table,
    names: tuple[str, ...],
    state: NDArray[np.float64],
    events: NDArray[np.float64],
    pieces: NDArray[np.float64],
) -> Shot:
    paths: dict[str, list[Piece]] = {}
    for ball, piece in zip(pieces[:, PIECE.ball].astype(int).tolist(), pieces_of(table, pieces), strict=True):
        paths.setdefault(names[ball], []).append(piece)
    rest: dict[str, Point | None] = {}
    for name, row in zip(names, state, strict=True):
        on = row[moving.ON] > 0.0
        rest[name] = (float(row[0]) / table.diamond_x, float(row[1]) / table.diamond_y) if on else None
    return Shot(
        tuple(event_of(table, row, names[int(row[EVENT.ball])], names) for row in events),
        rest,
        {name: tuple(way) for name, way in paths.items()},
    )


def object_run(shot: Shot, ball: str, most_rails: int) -> Approach:
    """The object ball's own way to a jaw, a pocket, rest, or its rail number `most_rails`."""
    mine: list[Event] = []
    for ev in shot.events:
        if ev.ball == ball and ev.kind != "ball":
            mine.append(ev)
            if ev.kind != "rail" or len(mine) == most_rails:
                break
    end = mine[-1].t if mine else 0.0
    return Approach(tuple(mine), tuple(q for q in shot.paths.get(ball, ()) if q.t < end))
