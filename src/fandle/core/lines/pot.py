"""Kicks and straight shots that pot: the thickness is solved, every ball played.

From the window of a hit to the windows of a pot. Where the target itself cannot be met so that it drops, the balls near
it are: a combination.
"""

import math
from dataclasses import replace

import numpy as np

from fandle.core.layout.model import Layout
from fandle.core.lines.chain import add_chain
from fandle.core.lines.kick import proved
from fandle.core.lines.marks import over
from fandle.core.lines.pot_runs import Field, Run, runs_of
from fandle.core.lines.question import ANY, Question, ask, wanted_mouths
from fandle.core.lines.refusal import refuse
from fandle.core.lines.solution import Aim, Pot, Refusal, Solution
from fandle.core.lines.window import window
from fandle.core.physics import search
from fandle.core.physics.judge import measure
from fandle.core.physics.search import FOUND
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken

Window = tuple[float, float]  # a window's ends as directions of the cue, rad
COMBINED_RAILS = 1  # rails over which combinations are looked for
NARROW_DEG = 0.02  # a pot that forgives less is nobody's: a combination is looked for beside it
NEAREST = 6  # balls nearest to the target that are tried as the first of a combination


def solve_pot(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    target: str | None = None,
    pocket: str = ANY,
    *,
    with_chain: bool = True,
    every: bool = True,
) -> Aim | Refusal:
    """The aims over `rails` (none: straight) that pot the target into `pocket` (or any), the safest first.

    First those without an in-off, then by the width of the window of the pot; the hit is part of the answer. Straight
    and over one rail, where there are none, by a combination: then each aim's own target is the ball that is met.
    every: all of them are told, else only the safest.
    """
    names = [mouth.name for mouth in wanted_mouths(layout, pocket)]
    question = ask(layout, rails, target, 0.0)
    windows = _searched(question, stroke)
    found = (
        [] if isinstance(windows, Refusal) else _pots(question, stroke, windows, names, question.target, every=every)
    )
    plain = any(one.pot is not None and one.pot.window_deg > NARROW_DEG for one in found)
    if not plain and len(rails) <= COMBINED_RAILS:
        found += _combinations(question, stroke, names, every=every)
    if not found and isinstance(windows, Refusal):
        return windows
    if not found:
        into = "any pocket" if len(names) > 1 else names[0]
        reason = f"{spoken(question.target)} is hit {over(question.rails)}, but no thickness sends it into {into}"
        return Refusal(question.rails, question.target, "no_pot", reason)
    aim = Aim(tuple(sorted(found, key=_safest)), ())
    return add_chain(layout, stroke, aim, aim.best.hit) if with_chain else aim


def _pots(
    question: Question, stroke: Stroke, windows: list[Window], names: list[str], ball: str, *, every: bool
) -> list[Solution]:
    """The pots of a ball out of windows of hits on the question's own target; only the safest unless all are wanted."""
    field = Field.of(question, stroke, ball)
    runs = [(ends, run) for ends in windows for run in runs_of(field, *ends, names)]
    found: list[Solution] = []
    for ends, run in sorted(runs, key=lambda each: (each[1].in_off, each[1].low - each[1].high)):
        solution = _solution(question, stroke, ends, run, ball)
        if solution is not None:
            found.append(solution)
            if not every:
                break
    return found


def _combinations(question: Question, stroke: Stroke, names: list[str], *, every: bool) -> list[Solution]:
    """The pots of the target by way of a ball near it that is met first."""
    layout, (gx, gy) = question.layout, question.goal
    others = [ball for ball in layout.object_balls() if ball.id != question.target]
    others.sort(key=lambda ball: math.dist(layout.metres(ball), (gx, gy)))
    found: list[Solution] = []
    for ball in others[:NEAREST]:
        first = ask(layout, question.rails, ball.id, 0.0)
        windows = _searched(first, stroke)
        if not isinstance(windows, Refusal):
            found += _pots(first, stroke, windows, names, question.target, every=every)
    return found


def _searched(question: Question, stroke: Stroke) -> list[Window] | Refusal:
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


def _solution(question: Question, stroke: Stroke, ends: Window, run: Run, ball: str) -> Solution | None:
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
    if read is None or kick is None or (ball, run.pocket) not in shot.potted:
        return None
    less, more = window(read, run.aim, run.low, run.high)
    in_off = any(name == CUE for name, _ in shot.potted)
    pot = Pot(run.pocket, less, more, math.degrees(run.high - run.low), in_off, passed_on(shot, ball), ball)
    return replace(kick, pot=pot, hit=meant.hit)


def passed_on(shot: Shot, target: str) -> tuple[str, ...]:
    """The balls met from the first on until the target drops, in the order in which the stroke is passed on."""
    met: list[str] = []
    for event in shot.events:
        if event.kind == "pocket" and event.ball == target:
            break
        if event.kind == "ball" and event.other is not None:
            met += [name for name in (event.ball, event.other) if name != CUE and name not in met]
    return tuple(met)
