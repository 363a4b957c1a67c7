"""M25, the punch bank: a compact stroke near the centre, the ball slides into the rail and comes off it shorter than
one that rolls; so the same bank wants another thickness. Common practice, no published source.
"""

import itertools
import math
from dataclasses import dataclass, replace

from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.solution import Aim, Solution
from fandle.core.shot.cue import Cue
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import object_run, play
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import figure
from fandle.core.systems.taught import paced
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import NoTechnique, Technique, Way
from fandle.core.words.balls import spoken

METHOD, TITLE = "M25", "Punch bank"
PUNCH = (4.0, 3.0)  # lengths, the first that can be banked so
ROLLED = (1.75, 2.5)  # the softest that gets there
FOLLOW = 0.2  # radii, of the rolled one
BACK = 0.35  # diamonds from the pocket's own rail: a ball that comes so near has come back


@dataclass(frozen=True)
class _Banked:
    name: str
    stroke: Stroke
    best: Solution


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """The same bank punched and rolled, over one rail."""
    if layout.table.pockets is None:
        return NoTechnique(METHOD, TITLE, "there are no pockets to bank into on this table")
    wanted = rails[:1] or (Rail.FAR, Rail.NEAR, Rail.FOOT, Rail.HEAD)
    for lengths, rail in itertools.product(PUNCH, wanted):
        punched = _first(layout, rail, pocket, [("punched", replace(paced(layout.table, lengths), cue=cue))])
        if punched is not None:
            rolling = [("rolled", replace(paced(layout.table, n), up=FOLLOW, cue=cue)) for n in ROLLED]
            return _technique(layout, rail, punched, _first(layout, rail, punched.best.pocket, rolling))
    return NoTechnique(METHOD, TITLE, "no bank over one rail goes from here, however hard it is struck")


def _first(layout: Layout, rail: Rail, pocket: str | None, strokes: list[tuple[str, Stroke]]) -> _Banked | None:
    for name, stroke in strokes:
        answer = solve_bank(layout, (rail,), stroke, pocket=pocket, with_chain=False)
        if isinstance(answer, Aim):
            return _Banked(name, stroke, answer.best)
    return None


def shorter_by(layout: Layout, rail: Rail, solution: Solution, stroke: Stroke) -> float | None:
    """Diamonds by which the ball comes back shorter, at the pocket's own rail, when an aim is played with another
    stroke: along the rail it was banked off, against its way; None where it never comes back so far."""
    run = object_run(play(layout, stroke, solution.direction), solution.target, 2)
    leg = [q for q in run.pieces if q.leg == 1]
    if not leg:
        return None
    table = layout.table
    x, y = next(each.middle for each in mouths(table) if each.name == solution.pocket)
    mouth = (x / table.diamond_x, y / table.diamond_y)
    if abs(rail.across(*leg[-1].end) - rail.across(*mouth)) > BACK:
        return None
    way = math.copysign(1.0, rail.along(*mouth) - solution.cushions[0].at)
    return way * (rail.along(*mouth) - rail.along(*leg[-1].end))


def _technique(layout: Layout, rail: Rail, punched: _Banked, rolled: _Banked | None) -> Technique | NoTechnique:
    best, target = punched.best, layout.require_target().id
    ways = tuple(_way(each) for each in (punched, rolled) if each is not None)
    shot = play(layout, punched.stroke, best.direction)
    moment = moment_of(layout, shot)
    if moment is None:
        return NoTechnique(METHOD, TITLE, "the cue ball meets no ball")
    steps = [f"{way.name}: {way.says}" for way in ways]
    apart = None if rolled is None else shorter_by(layout, rail, rolled.best, punched.stroke)
    if apart is not None:
        steps.append(f"the rolled aim, punched: {figure(abs(apart))} {'short' if apart > 0 else 'long'} of the pocket")
    other = "rolled it does not get there" if rolled is None else f"rolled to {figure(rolled.best.cushions[0].at)}"
    say = (
        f"A compact stroke near the centre: {spoken(target)} slides into the {rail} rail and comes off it shorter; "
        "it is "
        f"sent to {figure(best.cushions[0].at)} on that rail, {other}."
    )
    return Technique(
        METHOD,
        TITLE,
        target,
        (),
        best.pocket,
        ways[0],
        ways,
        best.direction,
        shot,
        moment,
        best.mark_rail,
        best.corrected,
        best.mark,
        (best.window_less_mm, best.window_more_mm),
        (),
        tuple(steps),
        say,
        "Struck above centre, or softly, the ball rolls before it comes to the rail and runs long.",
        banked=True,
    )


def _way(each: _Banked) -> Way:
    half = math.radians(each.best.window_deg) / 2
    cut = 0.0 if each.best.contact is None else each.best.contact.cut_deg
    says = f"mark {figure(each.best.cushions[0].at)}, cut {cut:.0f}°"
    return Way(each.name, each.stroke, each.best.direction - half, each.best.direction + half, says)
