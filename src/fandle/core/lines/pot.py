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
from fandle.core.physics.scene import scene_of
from fandle.core.physics.search import FOUND
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import POCKET_NAMES, mouths
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken

LOOKS = 96  # directions played across a window of hits; where they find nothing:
CLOSE_RAD, MOST_LOOKS = math.radians(0.012), 1600  # steps so small that nothing wider than 0.02° is overlooked
EDGE_RAD = 1e-7  # how sharply a window of pots is cut
HALVINGS = 40


@dataclass(frozen=True)
class _Run:
    """Directions side by side that pot into one pocket: from, to, and the one to aim along (rad)."""

    pocket: str
    low: float
    high: float
    aim: float


def solve_pot(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    target: str | None = None,
    pocket: str = ANY,
    with_chain: bool = True,
) -> Aim | Refusal:
    """The aims over `rails` (none: straight) that pot the target into `pocket` (or any), the safest first.

    First those without an in-off, then by the width of the window of the pot; the hit is part of the answer.
    """
    names = [mouth.name for mouth in wanted_mouths(layout, pocket)]
    question = ask(layout, rails, target, 0.0)
    first, last = question.span(stroke)
    scene = question.scene(layout.table, stroke)
    rows, count, best = search.solve(first, last, 0.0, scene, search.GRIDS[len(question.rails)])
    mirror, natural = question.geometric(0.0), question.geometric(layout.table.ball_radius)
    if not count or mirror is None or natural is None:
        return refuse(question, stroke, (natural or 0.0) if math.isnan(best) else float(best))
    found: list[Solution] = []
    for row in rows[:count]:
        for run in _runs(question, stroke, float(row[FOUND.lowest]), float(row[FOUND.highest]), names):
            solution = _solution(question, stroke, row, run)
            if solution is not None:
                found.append(solution)
    if not found:
        into = "any pocket" if len(names) > 1 else names[0]
        reason = f"{spoken(question.target)} is hit {over(question.rails)}, but no thickness sends it into {into}"
        return Refusal(question.rails, question.target, "no_pot", reason)
    aim = Aim(tuple(sorted(found, key=_safest)), ())
    return add_chain(layout, stroke, aim, aim.best.hit) if with_chain else aim


def _safest(solution: Solution) -> tuple[bool, float]:
    pot = solution.pot
    return (True, 0.0) if pot is None else (pot.in_off, -pot.window_deg)


def _runs(question: Question, stroke: Stroke, low: float, high: float, names: list[str]) -> list[_Run]:
    """All runs of directions between two ends of a window of hits that pot the ball into one of the pockets."""
    ideal = _ideal(question, stroke, low, high, names)
    steps = min(MOST_LOOKS, math.ceil((high - low) / CLOSE_RAD))
    for looks in (LOOKS, steps):
        at = np.sort(np.concatenate([np.linspace(low, high, looks + 2)[1:-1], ideal]))
        played = _played(question, stroke, at)
        found = [run for name in names for run in _of_pocket(question, stroke, at, played, name)]
        if found or steps <= LOOKS:
            return found
    return []


def _of_pocket(question: Question, stroke: Stroke, at: NDArray[np.float64], played: Outcomes, name: str) -> list[_Run]:
    """The runs of one pocket, their edges cut sharply; those in which the ball is met as asked somewhere."""
    good, down = _potted(question, played, name), np.any(played.down == 0, axis=1)
    scene, runs = question.scene(question.layout.table, stroke), []
    for members in _stretches(range(len(at)), lambda k: bool(good[k])):
        a, b = members[0], members[-1]
        direct = [k for k in members if met_off(at[k], scene) == DIRECT]
        dry = [k for k in direct if not down[k]]
        safe = _stretches(members, dry.__contains__) or _stretches(members, direct.__contains__)
        if not safe:
            continue
        low = _edge(question, stroke, name, at[a], at[a - 1] if a else math.nan)
        high = _edge(question, stroke, name, at[b], at[b + 1] if b + 1 < len(at) else math.nan)
        best = max(safe, key=len)
        aim = 0.5 * (low + high) if len(best) == len(members) else float(at[best[len(best) // 2]])
        runs.append(_Run(name, low, high, aim))
    return runs


def _stretches(members: Iterable[int], wanted: Callable[[int], bool]) -> list[list[int]]:
    """The members side by side that are wanted, stretch by stretch."""
    return [list(part) for yes, part in groupby(members, key=wanted) if yes]


def _edge(question: Question, stroke: Stroke, name: str, good: float, bad: float) -> float:
    """Last direction that pots between one that does and one that does not (NaN: there is none)."""
    for _ in range(HALVINGS):
        if math.isnan(bad) or abs(good - bad) < EDGE_RAD:
            break
        mid = 0.5 * (good + bad)
        if _potted(question, _played(question, stroke, np.array([mid])), name)[0]:
            good = mid
        else:
            bad = mid
    return float(good)


def _played(question: Question, stroke: Stroke, at: NDArray[np.float64]) -> Outcomes:
    """Every direction played to the end, every ball on."""
    layout, n = question.layout, len(at)
    rows = Strokes(
        at, np.tile(stroke.array(), (n, 1)), np.tile(question.start, (n, 1)), np.zeros(n, dtype=np.int64)
    )  # fmt: skip
    return play_now(rows, layout.table.params(), layout.obstacles())


def _potted(question: Question, played: Outcomes, name: str) -> NDArray[np.bool_]:
    """In which of the strokes the ball is met first, and drops into a pocket."""
    ball = question.layout.index(question.target) + 1
    drops = (played.down == ball) & (played.pockets == POCKET_NAMES.index(name))
    found: NDArray[np.bool_] = (played.first == ball) & np.any(drops, axis=1)
    return found


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


def _solution(question: Question, stroke: Stroke, row: NDArray[np.float64], run: _Run) -> Solution | None:
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
    line = np.array([run.aim, offset, row[FOUND.lowest], row[FOUND.highest]])
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
