"""A miss: a shot as it was meant, what was seen of it, and what any making of it would show."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import diamond_along
from fandle.core.physics.batch import TO_FIRST_BALL, WHOLE, Outcomes, play_batch
from fandle.core.physics.bed import NOTHING
from fandle.core.physics.trace import Line, trace
from fandle.core.player.scatter import Player
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Contact, Rail
from fandle.core.tablecheck.evidence import Seen, made, predicted
from fandle.core.tablecheck.fit import moved
from fandle.core.tablecheck.shots import Setup

Floats = NDArray[np.float64]
SOME = 0.4  # diamonds: "short" or "long" without a figure


@dataclass(frozen=True)
class Miss:
    """A shot as it was meant, and what was seen of it.

    off: diamonds along the line through the target, long positive; touched: contacts with the rails in order; stopped:
    diamonds. direction: of the cue, rad.
    """

    layout: Layout
    rails: tuple[Rail, ...]
    stroke: Stroke
    direction: float
    off: float
    touched: tuple[Contact, ...] = ()
    stopped: tuple[float, float] | None = None


def seen_of(miss: Miss) -> Seen:
    """The shot as meant, with what was told of it."""
    layout = miss.layout
    setup = Setup("shot", "shot", layout, miss.stroke, miss.direction, miss.rails)
    touched = miss.touched or (Contact(miss.rails[0], 0.0),)
    return Seen(setup, touched, miss.stopped)


def _line(miss: Miss) -> tuple[Line, float, float]:
    """(the line along which short and long are read, where the target lies on it in m, one diamond in m)."""
    table, last = miss.layout.table, miss.rails[-1]
    x, y = miss.layout.metres(miss.layout.require_target())
    axis = 0 if last.is_long else 1
    return Line(axis, y if axis == 0 else x, len(miss.rails)), x if axis == 0 else y, diamond_along(table, last)


def figures_of(miss: Miss, seen: Seen, player: Player, off: Floats, z: Floats) -> Floats:
    """What each making (n, 4) on each table (n, numbers moved) would show among the balls: (n, figures)."""
    table, n = miss.layout.table, len(off)
    line, goal, unit = _line(miss)
    moves, which = np.unique(z, axis=0, return_inverse=True)
    tables = [table if not row.any() else moved(table, row) for row in moves]
    every = [seen] * n
    rows = made([seen], player, off, which.reshape(-1).astype(np.int64))
    found = trace(rows, np.array([each.params() for each in tables]), line)
    legs = found.at[:, len(miss.rails) - 1, line.axis]
    travel = np.where(found.crossed >= legs, 1.0, -1.0)
    same = np.array([_same_rails(miss, row) for row in found.rails])
    landed = np.where(same, travel * (found.crossed - goal) / unit, np.nan)
    alone = np.array(predicted(every, found, table))
    contacts, stop = alone[:, : len(miss.touched)], np.empty((n, 0))
    numbers = np.array([each.params() for each in tables])
    balls = miss.layout.obstacles()
    others = np.delete(balls, miss.layout.index(miss.layout.require_target().id), axis=0)
    if len(others):
        landed, contacts = _up_to(miss, play_batch(rows, numbers, others, TO_FIRST_BALL), landed, contacts)
    if miss.stopped is not None:
        rests = play_batch(rows, numbers, balls, WHOLE).rests[:, 0]
        stop = rests / (table.diamond_x, table.diamond_y)
    return np.concatenate([landed[:, None], contacts, stop], axis=1)


def _up_to(miss: Miss, out: Outcomes, landed: Floats, contacts: Floats) -> tuple[Floats, Floats]:
    """(the landing, the contacts) as far as other balls let the cue ball come: one that is met ends what is seen."""
    rails = np.where(out.first == NOTHING, len(miss.rails) + len(miss.touched), out.before_first)
    return (
        np.where(rails >= len(miss.rails), landed, np.nan),
        np.where(np.arange(contacts.shape[1]) < rails[:, None], contacts, np.nan),
    )


def _same_rails(miss: Miss, rails: NDArray[np.int64]) -> bool:
    order = tuple(Rail)
    return tuple(order[number] for number in rails[: len(miss.rails)] if number >= 0) == miss.rails


def off_when_met(layout: Layout, rails: tuple[Rail, ...], stroke: Stroke, direction: float, side: str) -> float:
    """How far a hit on the "left" or "right" half of the ball passed its middle, along the target's line, diamonds.

    A half-ball hit is meant: the way passes R beside the centre, so −R/u_y along x, R/u_x along y, u the unit of the
    last leg, R positive to its left. Raises BadInputError where the shot never comes off its last rail.
    """
    way = approach(layout, stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
    legs = [piece for piece in way.pieces if piece.leg == len(rails)]
    if not legs:
        raise BadInputError("this aim never comes off its last rail: check rails and stroke", "aim", code="no_line")
    ux, uy = math.cos(legs[-1].heading), math.sin(legs[-1].heading)
    beside = {"left": 1.0, "right": -1.0}.get(side, 0.0) * layout.table.ball_radius
    along, travel = (-beside / uy, ux) if rails[-1].is_long else (beside / ux, uy)
    return math.copysign(1.0, travel) * along / diamond_along(layout.table, rails[-1])
