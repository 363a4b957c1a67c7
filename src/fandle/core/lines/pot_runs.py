"""Directions that pot: a window of hits played closely enough to see every pot a player could find.

Where the object ball's own way runs over the middle of a pocket is looked for beside that, since a straight pot may be
narrower than a step. Runs of directions that pot are then cut sharply.
"""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import groupby

import numpy as np
from numpy.typing import NDArray

from fandle.core.lines.question import Question
from fandle.core.physics.bank import bank_sweep
from fandle.core.physics.batch import Outcomes, Strokes, play_now
from fandle.core.physics.collision import WIDTH
from fandle.core.physics.kick import DIRECT, met_off
from fandle.core.physics.roots import find_root
from fandle.core.physics.scene import Scene, scene_of
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import POCKET_NAMES, mouths

LOOKS = 72  # directions played across a window of hits; where they find nothing:
CLOSE_RAD, MOST_LOOKS = math.radians(0.018), 1600  # steps so small that nothing wider than 0.02° is overlooked
CUT_RAD = 2e-6  # how sharply a window of pots is cut: five thousandths of a millimetre at the far end of a table


@dataclass(frozen=True)
class Run:
    """Directions side by side that pot into one pocket: from, to, and the one to aim along (rad).

    in_off: along every one of them that meets the ball as asked, the cue ball drops as well.
    """

    pocket: str
    low: float
    high: float
    aim: float
    in_off: bool


@dataclass(frozen=True)
class Field:
    """What a direction is played on: the question with its numbers looked up once."""

    question: Question
    stroke: Stroke
    numbers: NDArray[np.float64]
    balls: NDArray[np.float64]
    struck: NDArray[np.float64]
    first: int
    drops: int
    scene: Scene

    @classmethod
    def of(cls, question: Question, stroke: Stroke, ball: str) -> "Field":
        """From a question, the stroke it is asked with, and the ball that is to drop."""
        layout = question.layout
        return cls(
            question, stroke, layout.table.params(), layout.obstacles(), stroke.array(),
            layout.index(question.target) + 1, layout.index(ball) + 1, question.scene(layout.table, stroke),
        )  # fmt: skip

    def played(self, at: NDArray[np.float64]) -> Outcomes:
        """Every direction played to the end, every ball on."""
        n = len(at)
        start = np.array(self.question.start)
        rows = Strokes(
            at, np.repeat(self.struck[None], n, axis=0), np.repeat(start[None], n, axis=0), np.zeros(n, np.int64)
        )
        return play_now(rows, self.numbers, self.balls)

    def potted(self, out: Outcomes, name: str) -> NDArray[np.bool_]:
        """In which of the strokes the ball asked for is met first, and the one to be potted drops into a pocket."""
        drops = (out.down == self.drops) & (out.pockets == POCKET_NAMES.index(name))
        found: NDArray[np.bool_] = (out.first == self.first) & drops.any(axis=1)
        return found


def runs_of(field: Field, low: float, high: float, names: list[str]) -> list[Run]:
    """All runs of directions between two ends of a window of hits that pot the ball into one of the pockets."""
    steps = min(MOST_LOOKS, math.ceil((high - low) / CLOSE_RAD))
    alone = steps > LOOKS and field.first == field.drops
    ideal = _ideal(field.question, field.stroke, low, high, names) if alone else np.empty(0)
    for looks in sorted({min(LOOKS, steps), steps}):
        at = np.sort(np.concatenate([np.linspace(low, high, looks + 2)[1:-1], ideal]))
        played = field.played(at)
        found = [part for name in names for part in _of_pocket(field, at, played, name)]
        if found:
            return _sharp(field, at, found)
    return []


@dataclass(frozen=True)
class Members:
    """The directions looked at that pot into one pocket, side by side, and those of them that meet the ball best."""

    pocket: str
    all: list[int]
    best: list[int]
    in_off: bool


def _of_pocket(field: Field, at: NDArray[np.float64], played: Outcomes, name: str) -> list[Members]:
    """The runs of one pocket in which the ball is met as asked somewhere."""
    good, down, runs = field.potted(played, name), (played.down == 0).any(axis=1), []
    for members in _stretches(range(len(at)), lambda k: bool(good[k])):
        direct = [k for k in members if met_off(at[k], field.scene) == DIRECT]
        dry = _stretches(members, {k for k in direct if not down[k]}.__contains__)
        safe = dry or _stretches(members, set(direct).__contains__)
        if safe:
            runs.append(Members(name, members, max(safe, key=len), not dry))
    return runs


def _stretches(members: Iterable[int], wanted: Callable[[int], bool]) -> list[list[int]]:
    """The members side by side that are wanted, stretch by stretch."""
    return [list(part) for yes, part in groupby(members, key=wanted) if yes]


def _sharp(field: Field, at: NDArray[np.float64], found: list[Members]) -> list[Run]:
    """The runs with their edges cut sharply, all of them together: one play a halving."""
    names = [part.pocket for part in found for _ in (0, 1)]
    good = np.array([at[k] for part in found for k in (part.all[0], part.all[-1])])
    beyond = [k for part in found for k in (part.all[0] - 1, part.all[-1] + 1)]
    bad = np.array([at[k] if 0 <= k < len(at) else own for k, own in zip(beyond, good, strict=True)])
    while (wide := np.flatnonzero(np.abs(good - bad) > CUT_RAD)).size:
        middle = 0.5 * (good[wide] + bad[wide])
        out = field.played(middle)
        pots = {name: field.potted(out, name) for name in set(names)}
        inside = np.array([pots[names[k]][place] for place, k in enumerate(wide)])
        good[wide[inside]], bad[wide[~inside]] = middle[inside], middle[~inside]
    middles = 0.5 * (good[::2] + good[1::2])
    out, runs = field.played(middles), []
    for k, (part, middle) in enumerate(zip(found, middles, strict=True)):
        # a run may have a hole narrower than a step: where its middle does not pot, what was looked at does
        sound = field.potted(out, part.pocket)[k] and met_off(middle, field.scene) == DIRECT
        whole = sound and len(part.best) == len(part.all)
        aim = middle if whole else at[part.best[len(part.best) // 2]]
        runs.append(Run(part.pocket, float(good[2 * k]), float(good[2 * k + 1]), float(aim), part.in_off))
    return runs


def _ideal(question: Question, stroke: Stroke, low: float, high: float, names: list[str]) -> NDArray[np.float64]:
    """Directions in which the object ball, alone, runs straight over the middle of one of the pockets."""
    layout = question.layout
    goals = {mouth.name: mouth.middle for mouth in mouths(layout.table) if mouth.name in names}
    scene = scene_of(
        np.array(question.start), stroke.array(), layout.table.params(), layout.obstacles(),
        layout.index(question.target), np.empty(0, dtype=np.int64), 0, (0.0, 0.0), question.order,
    )  # fmt: skip
    at, found = np.linspace(low, high, LOOKS), []
    offsets = np.empty((len(goals), LOOKS))
    bank_sweep(at, scene, np.array(list(goals.values())), offsets, np.empty(WIDTH), np.empty(WIDTH))
    for goal, values in zip(goals.values(), offsets, strict=True):
        mine = scene._replace(goal=np.array(goal))
        for k in np.flatnonzero(values[:-1] * values[1:] <= 0.0):
            found.append(find_root(at[k], values[k], at[k + 1], values[k + 1], 0.0, mine))
    return np.array(found)
