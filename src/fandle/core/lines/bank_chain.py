"""The chain of a bank, in marks of the object ball."""

import math
from dataclasses import replace

from fandle.core.layout.model import Layout
from fandle.core.lines.bank_question import BankQuestion, object_direction
from fandle.core.lines.chain import steps
from fandle.core.lines.solution import LINKS, Aim, Link
from fandle.core.physics.roots import root_near
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import mouths


def add_bank_chain(layout: Layout, stroke: Stroke, aim: Aim) -> Aim:
    """The same aim with the chain of its best solution, in marks of the object ball."""
    best = aim.best
    mouth = next(m for m in mouths(layout.table) if m.name == best.pocket)
    question = BankQuestion(layout, best.target, best.rails, mouth)
    points = [best.mirror.nose, best.natural.nose]
    theta = question.cue_for(question.geometric(layout.table.ball_radius))
    asked: tuple[Table, Stroke] | None = None
    for step in steps(layout.table, stroke):
        point = points[-1]
        if step != asked:
            scene = question.scene(*step)
            root = float(root_near(theta - step[1].squirt, 0.0, scene))
            if not math.isnan(root):
                theta, point = root, question.nose(object_direction(root, scene))
        points.append(point)
        asked = step
    points[-1] = best.corrected.nose
    links = tuple(Link(name, b - a) for name, a, b in zip(LINKS, points, points[1:], strict=False))
    return replace(aim, chain=links)
