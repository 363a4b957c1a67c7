"""The aim of a kick over any rails: natural, then corrected, verified by playing it."""

import math

import numpy as np
from numpy.typing import NDArray

from fandle.core.layout.model import Layout
from fandle.core.layout.place import hangs
from fandle.core.lines.chain import add_chain
from fandle.core.lines.marks import marks, over
from fandle.core.lines.question import Question, ask
from fandle.core.lines.refusal import refuse
from fandle.core.lines.remembered import remember
from fandle.core.lines.solution import Aim, Cushion, Refusal, Solution
from fandle.core.lines.window import parts, window
from fandle.core.physics import search
from fandle.core.physics.search import FOUND
from fandle.core.shot.approach import Approach, approach, final_approach, pushes
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail

NO_MARK = "the ball would run along the rail: there is no mark to aim at"


def solve_kick(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    target: str | None = None,
    hit: float = 0.0,
    *,
    with_chain: bool = True,
) -> Aim | Refusal:
    """The aims over `rails` that meet the target, or the reason why there is none.

    rails: none is the straight shot; its mark is read at the rail behind the target.
    hit: by how many ball diameters the line of travel passes right of the target's centre,
    −1…1. Every direction between the ends of the first rail (or on to the target) is considered:
    a coarse grid on the signed offset, refined near the target, bracketed, then played for real
    with every ball on.
    """
    question = ask(layout, rails, target, hit)
    first, last = question.span(stroke)
    scene = question.scene(layout.table, stroke)
    rows, count, best = search.solve(first, last, question.offset, scene, search.GRIDS[len(rails)])
    answer = _answer(question, stroke, rows[:count], float(best))
    return add_chain(layout, stroke, answer, hit) if with_chain and isinstance(answer, Aim) else answer


def _answer(question: Question, stroke: Stroke, rows: NDArray[np.float64], best: float) -> Aim | Refusal:
    """What the search found, widest window first; else why it found nothing."""
    natural = question.geometric(question.layout.table.ball_radius)
    mirror = question.geometric(0.0)
    if natural is None or mirror is None:
        return Refusal(question.rails, question.target, "no_such_line", f"no line {over(question.rails)} is that thin")
    if not len(rows):
        return refuse(question, stroke, natural if math.isnan(best) else best)
    readable = [
        (row, read) for row in rows if (read := question.read_along(float(row[FOUND.direction]), natural)) is not None
    ]
    if not readable:
        return Refusal(question.rails, question.target, "no_such_line", NO_MARK)
    tried = [proved(read, stroke, row, mirror, natural) for row, read in readable]
    solutions = [solution for solution in tried if solution is not None]
    if not solutions:
        return refuse(question, stroke, natural if math.isnan(best) else best)
    return Aim(tuple(sorted(solutions, key=lambda s: -s.window_mm)), ())


def proved(
    question: Question, stroke: Stroke, row: NDArray[np.float64], mirror: float, natural: float
) -> Solution | None:
    """A proved aim from the search's row; None where, played, it does not meet the target over the rails."""
    layout, rail = question.layout, question.rail
    table, start = layout.table, question.start
    direction = float(row[FOUND.direction])
    shot = approach(layout, stroke, direction)
    if shot.rails != question.rails or shot.first_ball != question.target:
        return None
    (px, py), (ux, uy) = final_approach(shot, layout)
    gx, gy = question.goal
    offset = ux * (gy - py) - uy * (gx - px)
    asked = question.offset
    low, high = float(row[FOUND.lowest]), float(row[FOUND.highest])
    less, more = window(question, direction, low, high)
    return Solution(
        rails=question.rails,
        mark_rail=rail,
        target=question.target,
        mirror=marks(table, rail, start, mirror),
        natural=marks(table, rail, start, natural),
        corrected=marks(table, rail, start, direction),
        direction=direction,
        miss_mm=abs(offset - asked) * 1000,
        fullness=1.0 - abs(offset) / (2 * table.ball_radius),
        window_less_mm=less,
        window_more_mm=more,
        window_deg=math.degrees(high - low),
        cushions=_cushions(shot),
        shot=shot,
        hit=question.hit,
        mark=remember(table, rail, question.nose(direction)),
        push=pushes(layout, shot),
        parts=parts(question, stroke, direction, low, high) if hangs(table, question.goal) else (),
        edges=(low, high),
    )


def _cushions(shot: Approach) -> tuple[Cushion, ...]:
    return tuple(
        Cushion(ev.rail, ev.rail.along(ev.x, ev.y), ev.in_deg, ev.out_deg)
        for ev in shot.events
        if ev.rail is not None and ev.in_deg is not None and ev.out_deg is not None
    )
