"""M26, two-rail position with inside side: thin the ball; inside side is reverse at the first cushion and carries the
cue ball along the line of the next shot instead of across it.

It turns running at the second cushion where the rebound turns the cue ball back along the first rail, past its
perpendicular, or where the second rail lies opposite; round the table it stays reverse. That is geometry: side keeps
its hand, and a rail is met from the one way or the other. Common practice, no published source.
"""

import math
from dataclasses import replace

from fandle.core.layout.model import Layout
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.question import ANY
from fandle.core.lines.solution import Aim, Solution
from fandle.core.shot.cue import Cue
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import Shot, play
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.systems.base import figure
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import NoTechnique, Technique, Way
from fandle.core.words.balls import CUE, spoken

METHOD, TITLE = "M26", "Two-rail position with inside side"
THIN = 0.2  # ball diameters off full: a fuller hit has no inside worth the name
LENGTHS = 2.5
FOLLOW = 0.1  # radii


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """The pot with a tip of inside side, beside the same without side and with outside side."""
    if layout.table.pockets is None:
        return NoTechnique(METHOD, TITLE, "there is nothing to pot on this table: it is a position shot")
    base = replace(paced(layout.table, LENGTHS), up=FOLLOW, cue=cue)
    plain = _pot(layout, base, pocket)
    if plain is None:
        return NoTechnique(METHOD, TITLE, f"{spoken(layout.require_target().id)} cannot be potted straight from here")
    hit, into = plain.best.hit, plain.best.pot.pocket if plain.best.pot else None
    if abs(hit) < THIN:
        return NoTechnique(METHOD, TITLE, "the ball is met nearly full: there is no inside to speak of")
    tip = offset_of(1.0, layout.table)
    ways = []
    for name, part in (("inside side", 1.0), ("no side", 0.0), ("outside side", -1.0)):
        stroke = replace(base, side=-part * tip * math.copysign(1.0, hit))
        found = plain if part == 0.0 else _pot(layout, stroke, into)
        if found is not None:
            ways.append((_way(layout, name, stroke, found), found.best))
    if not ways or ways[0][0].name != "inside side":
        return NoTechnique(METHOD, TITLE, "with inside side the pot does not go from here")
    return _technique(layout, tuple(way for way, _ in ways), ways[0][1], into)


def _pot(layout: Layout, stroke: Stroke, pocket: str | None) -> Aim | None:
    answer = solve_pot(layout, (), stroke, pocket=pocket or ANY, with_chain=False, every=False)
    return answer if isinstance(answer, Aim) and answer.best.target == layout.require_target().id else None


def contacts(shot: Shot, side: float) -> list[tuple[Rail, float, float, float, str]]:
    """The cue ball's rails after the hit: (rail, where in diamonds, angle in, angle out, what the side is there)."""
    met = next((ev.t for ev in shot.events if ev.kind == "ball"), math.inf)
    found = []
    for ev in shot.events:
        if ev.t <= met or ev.ball != CUE or ev.rail is None or ev.in_deg is None or ev.out_deg is None:
            continue
        before = [q for q in shot.paths[CUE] if q.t + q.lasts <= ev.t + 1e-9]
        what = running(side, ev.rail, before[-1].heading) if side and before else ""
        found.append((ev.rail, ev.rail.along(ev.x, ev.y), ev.in_deg, ev.out_deg, what))
    return found


def _way(layout: Layout, name: str, stroke: Stroke, found: Aim) -> Way:
    best = found.best
    shot = play(layout, stroke, best.direction)
    rails = [
        f"{rail} rail {figure(at)} ({into:.0f}° in, {out:.0f}° out{', ' + what if what else ''})"
        for rail, at, into, out, what in contacts(shot, stroke.side)[:3]
    ]
    half = math.radians(best.pot.window_deg if best.pot else 0.0) / 2
    rest = shot.rest[CUE]
    stops = "it goes in" if rest is None else f"stops at {figure(rest[0], 1)}, {figure(rest[1], 1)}"
    says = f"{', '.join(rails) or 'no rail'}; {stops}"
    return Way(name, stroke, best.direction - half, best.direction + half, says)


def _turns(met: list[tuple[Rail, float, float, float, str]]) -> str:
    """What becomes of the side at the first two rails, in words."""
    if not met:
        return ""
    (first, *_, what), beside = met[0], "the first rail lies beside the way, not ahead of it"
    if what == "running":
        return f" It is running at the {first} rail already: {beside}."
    if len(met) < 2:
        return f" It is reverse at the {first} rail."
    (second, *_, then) = met[1]
    why = "since it goes on round the table" if then == what else "since the rebound turned it back"
    return f" It is reverse at the {first} rail and {then} at the {second} rail, {why}."


def _technique(layout: Layout, ways: tuple[Way, ...], best: Solution, into: str | None) -> Technique | NoTechnique:
    way, target = ways[0], layout.require_target().id
    shot = play(layout, way.stroke, way.middle)
    moment = moment_of(layout, shot)
    if moment is None:
        return NoTechnique(METHOD, TITLE, "with inside side the pot does not go from here")
    met = contacts(shot, way.stroke.side)
    turns = _turns(met)
    steps = tuple(f"{each.name}: {each.says}" for each in ways)
    say = f"Thin {spoken(target)} into the {into} pocket with a tip of inside side, medium.{turns}"
    room = (best.pot.less_mm, best.pot.more_mm) if best.pot else (best.window_less_mm, best.window_more_mm)
    return Technique(
        METHOD,
        TITLE,
        target,
        (),
        into,
        way,
        ways,
        way.middle,
        shot,
        moment,
        best.mark_rail,
        best.corrected,
        best.mark,
        room,
        (),
        steps,
        say,
        "More follow, or a fuller hit, changes the first rebound and with it the whole line.",
    )
