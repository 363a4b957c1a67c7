"""One system from many starts at once: its own count at each, all aims played together.

Every start is counted by the system's own `count`, so that a map can never say otherwise than `fandle count`; what
costs, playing, is one call of a kernel.
"""

import math
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.physics.arrive import Goal, arrive
from fandle.core.physics.batch import Strokes, play_steps
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.systems import round_the_table
from fandle.core.systems.base import Draft, View
from fandle.core.systems.catalogue import METHODS, facing, known
from fandle.core.systems.played import FROZEN, arriving
from fandle.core.systems.verdict import MORE
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

Floats = NDArray[np.float64]
SOLVERS = 2
JUST_HIT = 0.99  # ball diameters: a hit that the way before the last rail does not show


class Aimed(NamedTuple):
    """A start with the aim counted from it: which of the starts, the cue's direction (rad), the stroke."""

    number: int
    direction: float
    stroke: Stroke


class Landings(NamedTuple):
    """Of n starts: diamonds off (long +) and ball diameters beside the target; NaN where the system does not count.

    Under one ball diameter is a hit, as played with all balls; how far beside it goes by is told other balls aside.
    """

    off: Floats
    off_balls: Floats

    @property
    def counted(self) -> NDArray[np.bool_]:
        """Where it counts."""
        return ~np.isnan(self.off)

    @property
    def hits(self) -> NDArray[np.bool_]:
        """Where its own aim hits."""
        with np.errstate(invalid="ignore"):
            return self.off_balls < 1.0


def landings(
    method: str, layout: Layout, rails: tuple[Rail, ...], starts: Sequence[Point], cue: Cue = IDEAL
) -> Landings:
    """Where one system's own aims over these rails land on the layout's target, the cue ball at each of `starts`.

    Diamonds; every start must be a place where the cue ball can lie. Other balls are left aside, as `count` does.
    """
    name, settled = known(method), layout.settled()
    target = settled.require_target()
    found = Landings(np.full(len(starts), math.nan), np.full(len(starts), math.nan))
    aimed = [each for each in _all_aimed(name, settled, rails, target, starts, cue) if each is not None]
    if not aimed:
        return found
    goal = Goal(*settled.metres(settled.ball(target.id)), 0 if rails[-1].is_long else 1)
    table = settled.table
    scale = np.array([table.diamond_x, table.diamond_y])
    numbers = np.array([each.number for each in aimed])
    rows = Strokes(
        np.array([each.direction for each in aimed]), np.array([each.stroke.array() for each in aimed]),
        np.array(starts)[numbers] * scale, np.zeros(len(aimed), np.int64),
    )  # fmt: skip
    arrived = arrive(rows, table.params(), np.array([rail.number for rail in rails]), goal)
    if np.isnan(arrived.off).any():
        rows = _harder(settled, rails, target, aimed, rows, starts, np.isnan(arrived.off))
        arrived = arrive(rows, table.params(), np.array([rail.number for rail in rails]), goal)
    found.off[numbers] = arrived.off / (table.diamond_x if rails[-1].is_long else table.diamond_y)
    beside, hit = np.abs(arrived.past) / (2 * table.ball_radius), _hit(settled, rails, target, rows)
    found.off_balls[numbers] = np.where(hit, np.minimum(beside, JUST_HIT), np.maximum(beside, 1.0))
    return found


def _harder(
    layout: Layout,
    rails: tuple[Rail, ...],
    target: Ball,
    aimed: Sequence[Aimed],
    rows: Strokes,
    starts: Sequence[Point],
    lost: NDArray[np.bool_],
) -> Strokes:
    """The rows, with the stroke that does get there in those of the `lost` ones that come to rest on the way."""
    strokes = rows.stroke.copy()
    for k in np.flatnonzero(lost).tolist():
        each = aimed[k]
        there = layout.moved(tuple(Ball(CUE, *starts[each.number]) if b.id == CUE else b for b in layout.balls))
        strokes[k] = arriving(there, rails, (target.x, target.y), each.stroke, each.direction)[0].array()
    return rows._replace(stroke=strokes)


def _hit(layout: Layout, rails: tuple[Rail, ...], target: Ball, rows: Strokes) -> NDArray[np.bool_]:
    """Is the target the first ball met, as `verdict.proved` tells it, row by row?"""
    others = layout.object_balls()
    number = next(k for k, ball in enumerate(others, 1) if ball.id == target.id)
    out = finish(play_steps(rows, layout.table.params()[None], layout.obstacles(), short=True))
    counted, wanted = len(rails), np.array([rail.number for rail in rails])
    met = out.cue_rails[:, :counted]
    along: NDArray[np.bool_] = ((met == wanted) | (met < 0)).all(axis=1)
    return np.asarray((out.first == number) & along & (out.before_first <= counted + MORE), np.bool_)


def _all_aimed(
    name: str, layout: Layout, rails: tuple[Rail, ...], target: Ball, starts: Sequence[Point], cue: Cue
) -> list[Aimed | None]:
    """The aim from every start. One that is solved and not counted keeps a processor busy: two of them share those."""

    def one(numbered: tuple[int, Point]) -> Aimed | None:
        return _aimed(name, layout, rails, target, cue, *numbered)

    if name != round_the_table.METHOD:
        return list(map(one, enumerate(starts)))
    with ThreadPoolExecutor(SOLVERS) as pool:
        return list(pool.map(one, enumerate(starts)))


def _aimed(
    name: str, layout: Layout, rails: tuple[Rail, ...], target: Ball, cue: Cue, number: int, start: Point
) -> Aimed | None:
    """The aim from one start, turned back to the real table; None where the system does not count."""
    view = _view(name, layout, rails, target, start, cue)
    draft = None if view is None else METHODS[name].count(view)
    if view is None or not isinstance(draft, Draft):
        return None
    at = view.turn.at(view.rail, draft.at)
    if not 0.0 <= at <= rails[0].diamonds or view.off(view.cue) <= view.radius + FROZEN:
        return None
    table = layout.table
    place = start[0] * table.diamond_x, start[1] * table.diamond_y
    try:
        direction = direction_to(table, rails[0], place, at, draft.frame)
    except BadInputError:
        return None
    return Aimed(number, direction, replace(draft.stroke, side=view.turn.hand * draft.stroke.side, cue=cue))


def _view(name: str, layout: Layout, rails: tuple[Rail, ...], target: Ball, start: Point, stick: Cue) -> View | None:
    """The layout with its cue ball at a start, turned to the system; None where it does not count over these rails."""
    there = layout.moved(tuple(Ball(CUE, *start) if ball.id == CUE else ball for ball in layout.balls))
    found = facing(name, there, rails, target)
    if found is None:
        return None
    wanted, turn = found
    turned = turn.layout(layout)  # kept from start to start
    cue = Ball(CUE, *turn.point(*start))
    seen = turned.moved(tuple(cue if ball.id == CUE else ball for ball in turned.balls))
    return View(seen, wanted, seen.ball(target.id), turn, stick)
