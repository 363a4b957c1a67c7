"""Kicks and straight shots that pot: the thickness is solved, every ball played.

From the window of a hit to the window of a pot: all directions that hit are played to the end, closely enough to see
every pot that a player could find; where the object ball's own way runs over the middle of a pocket is looked for
beside that, since a straight pot may be narrower than a step. Runs of directions that pot are then cut sharply.
"""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from itertools import groupby

import numpy as np
from numpy.typing import NDArray

from fandle.core.layout.model import Layout
from fandle.core.lines.chain import add_chain
from fandle.core.lines.kick import proved
from fandle.core.lines.marks import over
from fandle.core.lines.question import ANY, Question, ask, wanted_mouths
from fandle.core.lines.refusal import refuse
from fandle.core.lines.solution import Aim, Pot, Refusal, Solution
from fandle.core.lines.window import window
from fandle.core.physics import search
from fandle.core.physics.bank import bank_sweep
from fandle.core.physics.batch import Outcomes, Strokes, play_now
from fandle.core.physics.collision import WIDTH
from fandle.core.physics.judge import measure
from fandle.core.physics.kick import DIRECT, met_off
from fandle.core.physics.roots import find_root
from fandle.core.physics.scene import Scene, scene_of
from fandle.core.physics.search import FOUND
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import POCKET_NAMES, mouths
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken

LOOKS = 72  # directions played across a window of hits; where they find nothing:
CLOSE_RAD, MOST_LOOKS = math.radians(0.018), 1600  # steps so small that nothing wider than 0.02° is overlooked
EDGE_RAD = 2e-6  # how sharply a window of pots is cut: five thousandths of a millimetre at the far end of a table


@dataclass(frozen=True)
class _Run:
    """Directions side by side that pot into one pocket: from, to, and the one to aim along (rad).

    in_off: along every one of them that meets the ball as asked, the cue ball drops as well.
    """

    pocket: str
    low: float
    high: float
    aim: float
    in_off: bool


@dataclass(frozen=True)
class _Field:
    """What a direction is played on: the question with its numbers looked up once."""

    question: Question
    stroke: Stroke
    numbers: NDArray[np.float64]
    balls: NDArray[np.float64]
    struck: NDArray[np.float64]
    ball: int
    scene: Scene

    @classmethod
    def of(cls, question: Question, stroke: Stroke) -> "_Field":
        """From a question and the stroke it is asked with."""
        layout = question.layout
        return cls(
            question, stroke, layout.table.params(), layout.obstacles(), stroke.array(),
            layout.index(question.target) + 1, question.scene(layout.table, stroke),
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
        """In which of the strokes the ball is met first, and drops into a pocket."""
        drops = (out.down == self.ball) & (out.pockets == POCKET_NAMES.index(name))
        found: NDArray[np.bool_] = (out.first == self.ball) & drops.any(axis=1)
        return found


def solve_pot(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    target: str | None = None,
    pocket: str = ANY,
    with_chain: bool = True,
    every: bool = True,
    hits: Aim | None = None,
) -> Aim | Refusal:
    """The aims over `rails` (none: straight) that pot the target into `pocket` (or any), the safest first.

    First those without an in-off, then by the width of the window of the pot; the hit is part of the answer.
    every: all of them are told, else only the safest. hits: the full hits over these rails, where they are known.
    """
    names = [mouth.name for mouth in wanted_mouths(layout, pocket)]
    question = ask(layout, rails, target, 0.0)
    windows = _searched(question, stroke) if hits is None else [hit.edges for hit in hits.solutions]
    if isinstance(windows, Refusal):
        return windows
    field = _Field.of(question, stroke)
    runs = [(ends, run) for ends in windows for run in _runs(field, *ends, names)]
    found: list[Solution] = []
    for ends, run in sorted(runs, key=lambda each: (each[1].in_off, each[1].low - each[1].high)):
        solution = _solution(question, stroke, ends, run)
        if solution is not None:
            found.append(solution)
            if not every:
                break
    if not found:
        into = "any pocket" if len(names) > 1 else names[0]
        reason = f"{spoken(question.target)} is hit {over(question.rails)}, but no thickness sends it into {into}"
        return Refusal(question.rails, question.target, "no_pot", reason)
    aim = Aim(tuple(sorted(found, key=_safest)), ())
    return add_chain(layout, stroke, aim, aim.best.hit) if with_chain else aim


def _searched(question: Question, stroke: Stroke) -> list[tuple[float, float]] | Refusal:
    """The windows of full hits, as directions; why there are none."""
    first, last = question.span(stroke)
    scene = question.scene(question.layout.table, stroke)
    rows, count, best = search.solve(first, last, 0.0, scene, search.GRIDS[len(question.rails)])
    natural = question.geometric(question.layout.table.ball_radius)
    if not count or question.geometric(0.0) is None or natural is None:
        return refuse(question, stroke, (natural or 0.0) if math.isnan(best) else float(best))
    return [(float(row[FOUND.lowest]), float(row[FOUND.highest])) for row in rows[:count]]


def _safest(solution: Solution) -> tuple[bool, float]:
    pot = solution.pot
    return (True, 0.0) if pot is None else (pot.in_off, -pot.window_deg)


def _runs(field: _Field, low: float, high: float, names: list[str]) -> list[_Run]:
    """All runs of directions between two ends of a window of hits that pot the ball into one of the pockets."""
    steps = min(MOST_LOOKS, math.ceil((high - low) / CLOSE_RAD))
    ideal = _ideal(field.question, field.stroke, low, high, names) if steps > LOOKS else np.empty(0)
    for looks in sorted({min(LOOKS, steps), steps}):
        at = np.sort(np.concatenate([np.linspace(low, high, looks + 2)[1:-1], ideal]))
        played = field.played(at)
        found = [part for name in names for part in _of_pocket(field, at, played, name)]
        if found:
            return _sharp(field, at, found)
    return []


@dataclass(frozen=True)
class _Members:
    """The directions looked at that pot into one pocket, side by side, and those of them that meet the ball best."""

    pocket: str
    all: list[int]
    best: list[int]
    in_off: bool


def _of_pocket(field: _Field, at: NDArray[np.float64], played: Outcomes, name: str) -> list[_Members]:
    """The runs of one pocket in which the ball is met as asked somewhere."""
    good, down, runs = field.potted(played, name), (played.down == 0).any(axis=1), []
    for members in _stretches(range(len(at)), lambda k: bool(good[k])):
        direct = [k for k in members if met_off(at[k], field.scene) == DIRECT]
        dry = _stretches(members, {k for k in direct if not down[k]}.__contains__)
        safe = dry or _stretches(members, set(direct).__contains__)
        if safe:
            runs.append(_Members(name, members, max(safe, key=len), not dry))
    return runs


def _stretches(members: Iterable[int], wanted: Callable[[int], bool]) -> list[list[int]]:
    """The members side by side that are wanted, stretch by stretch."""
    return [list(part) for yes, part in groupby(members, key=wanted) if yes]


def _sharp(field: _Field, at: NDArray[np.float64], found: list[_Members]) -> list[_Run]:
    """The runs with their edges cut sharply, all of them together: one play a halving."""
    names = [part.pocket for part in found for _ in (0, 1)]
    good = np.array([at[k] for part in found for k in (part.all[0], part.all[-1])])
    beyond = [k for part in found for k in (part.all[0] - 1, part.all[-1] + 1)]
    bad = np.array([at[k] if 0 <= k < len(at) else own for k, own in zip(beyond, good, strict=True)])
    while (wide := np.flatnonzero(np.abs(good - bad) > EDGE_RAD)).size:
        middle = 0.5 * (good[wide] + bad[wide])
        out = field.played(middle)
        pots = {name: field.potted(out, name) for name in set(names)}
        inside = np.array([pots[names[k]][place] for place, k in enumerate(wide)])
        good[wide[inside]], bad[wide[~inside]] = middle[inside], middle[~inside]
    runs = []
    for k, part in enumerate(found):
        low, high = float(good[2 * k]), float(good[2 * k + 1])
        whole = len(part.best) == len(part.all)
        aim = 0.5 * (low + high) if whole else float(at[part.best[len(part.best) // 2]])
        runs.append(_Run(part.pocket, low, high, aim, part.in_off))
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


def _solution(question: Question, stroke: Stroke, ends: tuple[float, float], run: _Run) -> Solution | None:
    """A proved pot: the aim as a kick of the thickness that pots, with what the pot forgives."""
    layout = question.layout
    offset = float(measure(run.aim, question.scene(layout.table, stroke)))
    if math.isnan(offset):
        return None
    meant = replace(question, hit=offset / (2 * layout.table.ball_radius))
    mirror, natural = meant.geometric(0.0), meant.geometric(layout.table.ball_radius)
    if mirror is None or natural is None:
        return None
    read = meant.read_along(run.aim, natural)
    line = np.array([run.aim, offset, *ends])
    kick = None if read is None else proved(read, stroke, line, mirror, natural)
    shot = play(layout, stroke, run.aim)
    if read is None or kick is None or (question.target, run.pocket) not in shot.potted:
        return None
    less, more = window(read, run.aim, run.low, run.high)
    in_off = any(name == CUE for name, _ in shot.potted)
    pot = Pot(run.pocket, less, more, math.degrees(run.high - run.low), in_off, _through(shot, question.target))
    return replace(kick, pot=pot, hit=meant.hit)


def _through(shot: Shot, target: str) -> tuple[str, ...]:
    """The balls met from the first on until the target drops, in the order in which the stroke is passed on."""
    met: list[str] = []
    for event in shot.events:
        if event.kind == "pocket" and event.ball == target:
            break
        if event.kind == "ball" and event.other is not None:
            met += [name for name in (event.ball, event.other) if name != CUE and name not in met]
    return tuple(met)
