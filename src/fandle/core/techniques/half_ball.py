"""M23, half-ball, tips by diamond (the short angle of carom).

Always a half-ball hit, on the side of the nearer long rail: the cue ball goes to that rail, the short one, the other
long one. A ball at the first diamond from the short rail wants one tip, at the second two, at the third three, at two
o'clock on the clock face: a little above centre, not pure side. A tip is a third of the miscue limit here.
Common practice, no published source.
"""

import math
from dataclasses import replace

import numpy as np

from fandle.core import constants as k
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.physics.batch import Outcomes
from fandle.core.shot.cue import Cue
from fandle.core.shot.play import Shot
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import RailNumber, figure
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import Flags, NoTechnique, Technique, Told, fan, number_of, seen, technique, ways_of
from fandle.core.words.balls import CUE, spoken
from fandle.core.words.spoken import mixed

METHOD, TITLE = "M23", "Half-ball, tips by diamond"
TIP = 0.98 * k.MISCUE_LIMIT / 3
FIRST, LAST = 0.5, 3.0  # diamonds from the short rail that have a number
BEHIND = 1.0  # diamonds: nearer behind the ball there is no half-ball to see
CLOCK_DEG = 60.0  # two o'clock, from twelve
LENGTHS = 3.0
AROUND, LOOKS = 0.35, 120  # part of the ball looked at either side of the half


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """The half-ball hit with the tips that the ball's diamond asks for. Rails and pocket have no part in the count."""
    short, beside, across = _way(layout)
    ball = layout.require_target()
    count = short.diamonds_across - ball.x if short.at_end else ball.x
    if not FIRST <= count <= LAST + 0.25:
        return NoTechnique(
            METHOD, TITLE, f"the ball lies {figure(count)} diamonds from the short rail: it counts to three"
        )
    if abs(ball.x - layout.cue.x) < BEHIND:
        return NoTechnique(METHOD, TITLE, "the cue ball is too near behind the ball to see half of it")
    tips, hit = round(4 * min(count, LAST)) / 4, 0.5 if beside is Rail.NEAR else -0.5
    hit = hit if short is Rail.FOOT else -hit
    strokes = [(f"{mixed(tips)} {'tip' if tips <= 1 else 'tips'} of running side", _stroke(layout, hit, tips, cue))]
    strokes.append(("no side, a little follow", _stroke(layout, hit, 0.0, cue)))
    answer = solve_kick(layout, (), strokes[0][1], hit=hit, with_chain=False)
    if not isinstance(answer, Aim) or abs(answer.best.fullness - 0.5) > 0.02:
        return NoTechnique(METHOD, TITLE, "half of the ball cannot be met straight from here")
    middle, half, _ = seen(layout)
    near, far = sorted((middle, middle - math.copysign(half, hit)))
    width = far - near
    at = fan(near + (0.5 - AROUND) * width, near + (0.5 + AROUND) * width, LOOKS)
    number, order = number_of(layout, ball.id), (beside.number, short.number, across.number)
    ways = {way.name: way for way in ways_of(layout, strokes, at, lambda out: _goes(out, number, order))}
    first = ways[strokes[0][0]]
    if not first.low < answer.best.direction < first.high:
        return NoTechnique(
            METHOD, TITLE, f"played, the cue ball does not go by the {beside}, {short} and {across} rails from here"
        )
    every = (first, *(way for way in ways.values() if way is not first))
    return technique(
        layout, (METHOD, TITLE), (), every, lambda shot, _: _told(layout, (short, across), count, tips, shot),
        direction=answer.best.direction,
    )  # fmt: skip


def _way(layout: Layout) -> tuple[Rail, Rail, Rail]:
    """The short rail ahead, the long rail nearer to the ball, the other long rail."""
    ball = layout.require_target()
    short = Rail.FOOT if ball.x >= layout.cue.x else Rail.HEAD
    return (short, Rail.NEAR, Rail.FAR) if ball.y <= 2.0 else (short, Rail.FAR, Rail.NEAR)


def _stroke(layout: Layout, hit: float, tips: float, cue: Cue) -> Stroke:
    """Running at the rails to come: left of full wants right, right of full left. tips: 0 keeps one tip's follow."""
    turn = math.radians(CLOCK_DEG)
    side = -math.copysign(tips * TIP * math.sin(turn), hit)
    return replace(paced(layout.table, LENGTHS), side=side, up=max(tips, 1.0) * TIP * math.cos(turn), cue=cue)


def _goes(out: Outcomes, ball: int, order: tuple[int, int, int]) -> Flags:
    met = (out.first == ball) & (out.before_first == 0)
    return np.asarray(met & (out.cue_rails[:, : len(order)] == np.array(order)).all(axis=1))


def third_contact(shot: Shot, across: Rail) -> float | None:
    """Where the cue ball meets the other long rail, diamonds; None where it does not."""
    met = next((ev for ev in shot.events if ev.ball == CUE and ev.rail is across), None)
    return None if met is None else across.along(met.x, met.y)


def _told(layout: Layout, rails: tuple[Rail, Rail], count: float, tips: float, shot: Shot) -> Told:
    (short, across), ball = rails, layout.require_target()
    there = third_contact(shot, across)
    long = Rail.NEAR if across is Rail.FAR else Rail.FAR
    numbers = [RailNumber(long, 8.0 - n if short is Rail.FOOT else float(n), str(n)) for n in (1, 2, 3)]
    numbers.append(RailNumber(long, ball.x, mixed(tips), "aim"))
    steps = (f"diamond {figure(count)} from the {short} rail → {mixed(tips)} {'tip' if tips <= 1 else 'tips'}",)
    arrives = "" if there is None else f", and comes to the {across} rail at {figure(there)}"
    say = (
        f"Half of {spoken(ball.id)}, {mixed(tips)} {'tip' if tips <= 1 else 'tips'} at two o'clock or ten: the cue "
        "ball goes "
        f"to the {long} rail, the {short} rail{arrives}. The same for one, two and three diamonds: the side makes up "
        "for them."
    )
    return Told(
        steps, say, "A fuller hit arrives short of that, a thinner one long: the half has to be a half.", tuple(numbers)
    )
