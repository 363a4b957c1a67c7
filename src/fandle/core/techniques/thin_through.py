"""M22, the thin line through the cushion: rail-first on a ball near a long rail.

Aim as for the finest graze in the open; the cushion then makes the hit thicker. From the base position (target at
diamond 2, cue ball level with diamond 1, counted from the end behind the cue ball) no side; one tip of reverse for each
half diamond by which the cue ball lies farther back, half a tip for each diamond by which the target lies farther on,
each with a little more speed. A tip is a third of the miscue limit here. Common practice, no published source.
"""

import math
from dataclasses import replace

from fandle.core import constants as k
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import Cue
from fandle.core.shot.moment import Moment
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import RailNumber, figure
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import (
    NoTechnique,
    Technique,
    Told,
    fan,
    nearest_rail,
    number_of,
    over_rail_first,
    rail_side,
    running_side,
    seen,
    technique,
    ways_of,
)
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import mixed

METHOD, TITLE = "M22", "Thin line through the cushion"
TIP = 0.98 * k.MISCUE_LIMIT / 3  # radii: three of them are the most
BASE_CUE, BASE_BALL = 1.0, 2.0  # diamonds from the end behind the cue ball
A_TIP_CUE, A_TIP_BALL = 0.5, 2.0  # diamonds that are worth one tip
ON_RAIL_M = 0.03  # about an inch: "on the rail", as players say it
LENGTHS, MORE = 2.5, 0.25  # the stroke at the base, and more for each tip
AROUND_DEG, LOOKS = 3.0, 140


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """The grazing line with the tips that are counted. A pocket has no part in it."""
    rail, gap = nearest_rail(layout)
    if (rails and rails[0] is not rail) or not rail.is_long or gap > ON_RAIL_M:
        return NoTechnique(METHOD, TITLE, "the ball does not lie on a long rail, or within an inch of it")
    start, ball = _places(layout, rail)
    if ball - start < BASE_BALL - BASE_CUE - 0.5:
        return NoTechnique(METHOD, TITLE, "the cue ball is nearer than the base position, a diamond behind the ball")
    tips = _tips(start, ball)
    if sum(tips) > 3.0:
        return NoTechnique(METHOD, TITLE, f"{figure(sum(tips))} tips are more than there are: three is the limit")
    middle, half, _ = seen(layout)
    graze = middle + rail_side(layout, rail) * half
    named = [(_name(sum(tips)), _stroke(layout, rail, sum(tips), cue))]
    named += [("no side", _stroke(layout, rail, 0.0, cue))] if sum(tips) > 0.1 else []
    target, spread = number_of(layout, layout.require_target().id), math.radians(AROUND_DEG)
    at = fan(graze - spread, graze + spread, LOOKS)
    ways = {way.name: way for way in ways_of(layout, named, at, lambda out: over_rail_first(out, target, rail))}
    counted = ways[named[0][0]]
    aimed = graze - counted.stroke.squirt
    if not counted.low < aimed < counted.high:
        return NoTechnique(
            METHOD, TITLE, "played, the grazing line passes the ball: so near to the rail it comes off a hair steeper; "
            "take a hair more of the ball",
        )  # fmt: skip
    every = (counted, *(way for way in ways.values() if way is not counted))
    return technique(
        layout, (METHOD, TITLE), (rail,), every, lambda shot, moment: _told(layout, rail, (start, ball), tips, moment),
        direction=aimed,
    )  # fmt: skip


def _places(layout: Layout, rail: Rail) -> tuple[float, float]:
    """Cue ball and target along the rail, diamonds from the end behind the cue ball."""
    cue, ball = layout.cue, layout.require_target()
    start, there = rail.along(cue.x, cue.y), rail.along(ball.x, ball.y)
    return (start, there) if there >= start else (rail.diamonds - start, rail.diamonds - there)


def _tips(start: float, ball: float) -> tuple[float, float]:
    """Tips of reverse for where the cue ball lies, and for where the target does."""
    return max(BASE_CUE - start, 0.0) / A_TIP_CUE, max(ball - BASE_BALL, 0.0) / A_TIP_BALL


def _name(tips: float) -> str:
    return "no side" if tips <= 0.1 else f"{figure(tips, 1)} {'tip' if tips <= 1.0 else 'tips'} of reverse"


def _stroke(layout: Layout, rail: Rail, tips: float, cue: Cue) -> Stroke:
    base = paced(layout.table, LENGTHS + MORE * tips)
    return replace(base, side=running_side(layout, rail, -tips * TIP), cue=cue)


def _told(layout: Layout, rail: Rail, places: tuple[float, float], tips: tuple[float, float], moment: Moment) -> Told:
    ball, (start, there) = spoken(layout.require_target().id), places
    back, on = max(BASE_CUE - start, 0.0), max(there - BASE_BALL, 0.0)
    steps = (
        f"{figure(back)} back ÷ {figure(A_TIP_CUE)} = {figure(back / A_TIP_CUE)}",
        f"{figure(on)} on ÷ {figure(A_TIP_BALL)} = {figure(on / A_TIP_BALL)}",
        f"{figure(round(tips[0], 2))} + {figure(round(tips[1], 2))} = "
        f"{figure(round(tips[0], 2) + round(tips[1], 2))} tips of reverse",
    )
    whole = rail.diamonds
    turned = rail.along(layout.require_target().x, layout.require_target().y) < rail.along(layout.cue.x, layout.cue.y)
    at = [whole - each if turned else each for each in (start, there, BASE_CUE, BASE_BALL)]
    numbers = (
        RailNumber(rail, at[0], mixed(tips[0]), "cue"), RailNumber(rail, at[1], mixed(tips[1]), "aim"),
        RailNumber(rail, at[2], "base", "zero"),
    )  # fmt: skip
    say = (
        f"Aim as if to graze {ball} in the open, {_name(sum(tips))}: the {rail} rail makes the hit thicker, "
        f"{moment.fullness:.0%} of the ball here."
    )
    adjust = (
        "Too thick: more reverse, which comes off the rail steeper; past the ball: less, or a hair more of the ball."
    )
    return Told(steps, say, adjust, numbers)
