"""The chain of corrections: how far each thing moves the mark, from the mirror to the aim."""

import math
from dataclasses import replace

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.question import Question, clear_of_edge
from fandle.core.lines.solution import LINKS, THICKNESS, Aim, Link, Solution
from fandle.core.physics.roots import root_near
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.standards import standard_twin

FULL_MM = 0.01  # an aim that misses the thickness asked for by more is a thinner hit
SAME_RAD = 1e-10  # two solutions nearer than this are one, found twice


def add_chain(layout: Layout, stroke: Stroke, aim: Aim, hit: float = 0.0) -> Aim:
    """The same aim with the chain of its best solution, asked with the same stroke and `hit`."""
    best = aim.best
    question = Question(layout, best.target, best.rails, clear_of_edge(hit), best.mark_rail)
    mirror, natural = question.geometric(0.0), question.geometric(layout.table.ball_radius)
    if mirror is None or natural is None:
        raise BadInputError(f"hit {hit} has no natural line: ask for a fuller one", "hit")
    return replace(aim, chain=_links(question, stroke, best, mirror, natural))


def _links(question: Question, stroke: Stroke, solution: Solution, mirror: float, natural: float) -> tuple[Link, ...]:
    """Links from the mirror's mark to the corrected one, each the difference of two solved aims.

    Where one of the aims between does not exist, its link is 0 and the next one carries both.
    Where only a thinner hit than asked is open, a last link "thickness" says what that costs.
    """
    full = solution.miss_mm < FULL_MM
    directions: list[float] = [mirror, natural]
    asked: tuple[Table, Stroke] | None = None
    for step in steps(question.layout.table, stroke):
        direction = None if step == asked else _partial(question, *step, directions[-1])
        directions.append(directions[-1] if direction is None else direction)
        asked = step
    if full and abs(directions[-1] - solution.direction) > SAME_RAD:  # the aim is another branch's
        directions[-1] = solution.direction
    points: list[float] = []
    for at in (question.nose(direction) for direction in directions):
        # balls frozen to the rail they are kicked over: the natural line runs along it and marks it nowhere
        points.append(at if math.isfinite(at) or not points else points[-1])
    links = [Link(name, b - a) for name, a, b in zip(LINKS, points, points[1:], strict=False)]
    if not full:
        links.append(Link(THICKNESS, solution.corrected.nose - points[-1]))
    return tuple(links)


def steps(table: Table, stroke: Stroke) -> tuple[tuple[Table, Stroke], ...]:
    """The aims between, each with one thing more: on which table and with which stroke."""
    standard = standard_twin(table)
    plain = stroke.plain()
    level = Stroke(stroke.speed, stroke.side, stroke.up)
    return (
        (replace(standard, cushion_compression=0.0), plain),
        (standard, plain),
        (standard, Stroke(stroke.speed, side=stroke.side)),
        (standard, level),
        (table, level),
        (table, stroke),
    )


def _partial(question: Question, table: Table, stroke: Stroke, near: float) -> float | None:
    """The full aim on another table or with another stroke, other balls aside; None if none."""
    found = root_near(near - stroke.squirt, question.offset, question.scene(table, stroke))
    return None if math.isnan(found) else float(found)
