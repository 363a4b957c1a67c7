"""How far a mark may be wrong and still hit, at the rail; of a hanging ball also what it is met off, part by part."""

import math

import numpy as np

from fandle.core.lines.marks import diamond_along, edge_mark
from fandle.core.lines.question import Question
from fandle.core.lines.solution import Part
from fandle.core.physics.kick import DIRECT, NOT_MET, OFF_JAW, met_off
from fandle.core.physics.scene import Scene
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail

LOOKS = 96  # directions across a window: a part narrower than one of these steps may be overlooked
EDGE_RAD = 1e-7  # how sharply two parts are told apart
NAMES = {DIRECT: "direct", OFF_JAW: "jaw", **{rail.number: rail.value for rail in Rail}}


def window(question: Question, direction: float, low: float, high: float) -> tuple[float, float]:
    """How far the mark may be off either way, mm: at the first rail's nose, straight at the target.

    low, high: the window's ends as directions of the cue, rad.
    """
    less, more = sorted(_off(question, direction, edge) for edge in (low, high))
    return -less, more


def _off(question: Question, direction: float, edge: float) -> float:
    """By how much another direction moves the mark of this one, mm, no further than to the rail's own end."""
    if question.rails:
        table, rail, at = question.layout.table, question.rail, question.nose(direction)
        return (edge_mark(table, rail, question.start, edge, at) - at) * diamond_along(table, rail) * 1000
    return math.dist(question.start, question.goal) * 1000 * math.sin(edge - direction)


def parts(question: Question, stroke: Stroke, direction: float, low: float, high: float) -> tuple[Part, ...]:
    """The window cut where the ball met changes from direct to off a rail or a jaw, in rising directions."""
    scene = question.scene(question.layout.table, stroke)
    inside = EDGE_RAD + 1e-3 * (high - low) / LOOKS
    at = np.linspace(low + inside, high - inside, LOOKS)
    met = [int(met_off(theta, scene)) for theta in at]
    found: list[Part] = []
    start = low
    for k in range(1, LOOKS + 1):
        if k < LOOKS and met[k] == met[k - 1]:
            continue
        end = high if k == LOOKS else _between(scene, float(at[k - 1]), float(at[k]), met[k - 1])
        if met[k - 1] != NOT_MET:
            wide = abs(_off(question, direction, end) - _off(question, direction, start))
            found.append(Part(NAMES[met[k - 1]], start, end, wide))
        start = end
    return tuple(found)


def _between(scene: Scene, lo: float, hi: float, low_met: int) -> float:
    """Where what is met off changes between two directions."""
    while hi - lo > EDGE_RAD:
        mid = 0.5 * (lo + hi)
        if met_off(mid, scene) == low_met:
            lo = mid
        else:
            hi = mid
    return 0.5 * (lo + hi)
