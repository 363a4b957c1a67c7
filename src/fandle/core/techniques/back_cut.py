"""M21, the back cut off the rail: the ball is frozen to it and has to be cut by about a right angle or more.

Just miss the ball, rail first, with the most side that squirt allows, reverse to the way the ball travels along that
rail: the spin pulls the cue ball back on to it. Common practice, no published source; a shot of last resort.
"""

import math
from dataclasses import replace

from fandle.core import constants as k
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import figure
from fandle.core.systems.taught import paced
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import (
    NoTechnique,
    Technique,
    Told,
    Way,
    fan,
    nearest_rail,
    number_of,
    over_rail_first,
    potted_into,
    seen,
    technique,
    ways_of,
)
from fandle.core.words.balls import spoken

METHOD, TITLE = "M21", "Back cut off the rail"
NEARLY_FROZEN_M = 0.003  # off the rail: farther off there is room to be met from behind
LEAST_CUT, MOST_CUT = 84.0, 104.0  # degrees: less is an ordinary cut, more is out of reach
LENGTHS = 3.0  # firm: at a soft stroke there is no window at all
FULL_SIDE = 0.96 * k.MISCUE_LIMIT
RAISED_DEG = 4.0
INSIDE_DEG, OUTSIDE_DEG, LOOKS = 0.3, 0.9, 220  # directions looked at about the grazing one


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """The back cut into the pocket named, or into the corner of that rail that wants a cut nearest to a right angle."""
    rail, gap = nearest_rail(layout)
    if (rails and rails[0] is not rail) or gap > NEARLY_FROZEN_M:
        return NoTechnique(METHOD, TITLE, "the ball is not frozen to that rail: an ordinary thin cut has room")
    cuts = {name: cut for name, cut in _cuts(layout, rail).items() if pocket in (None, name)}
    if not cuts:
        return NoTechnique(METHOD, TITLE, "there is no corner pocket along that rail to cut it into")
    into = min(cuts, key=lambda name: abs(cuts[name] - 93.0))
    cut = cuts[into]
    if cut < LEAST_CUT:
        return NoTechnique(METHOD, TITLE, f"the cut is {cut:.0f}°: less than a right angle, cut it the ordinary way")
    if cut > MOST_CUT:
        return NoTechnique(METHOD, TITLE, f"the cut would be {cut:.0f}°: more than any side can pull back")
    ball, away = number_of(layout, layout.require_target().id), _away(layout, rail, into)
    middle, half, _ = seen(layout)
    graze = middle + away * half
    low, high = sorted((graze - away * math.radians(INSIDE_DEG), graze + away * math.radians(OUTSIDE_DEG)))
    ways = ways_of(
        layout, _strokes(layout, away, cue), fan(low, high, LOOKS),
        lambda out: over_rail_first(out, ball, rail) & potted_into(out, ball, into),
    )  # fmt: skip
    if ways[0].window_deg == 0.0:
        return NoTechnique(
            METHOD, TITLE, "no side pulls the cue ball back far enough from here: bank it, or kick softly"
        )
    return technique(
        layout, (METHOD, TITLE), (rail,), ways, lambda shot, moment: _told(layout, rail, ways, cut, into), into
    )


def _strokes(layout: Layout, away: float, cue: Cue) -> list[tuple[str, Stroke]]:
    """away: +1 where the cue ball passes the ball on the left; the spin that pulls it back is then to the left."""
    base = paced(layout.table, LENGTHS)
    return [
        (name, replace(base, side=away * part * FULL_SIDE, elevation=RAISED_DEG, cue=cue))
        for name, part in (
            ("full reverse side", 1.0), ("half as much reverse", 0.5), ("no side", 0.0), ("full running side", -1.0),
        )
    ]  # fmt: skip


def _cuts(layout: Layout, rail: Rail) -> dict[str, float]:
    """The cut into each corner pocket of a rail, degrees, were the ball driven straight along it."""
    x, y = layout.metres(layout.require_target())
    heading, found = seen(layout)[0], {}
    for mouth in mouths(layout.table):
        if "side" in mouth.name or rail.value not in mouth.name:
            continue
        mx, my = mouth.middle
        along = math.atan2(0.0, mx - x) if rail.is_long else math.atan2(my - y, 0.0)
        found[mouth.name] = abs(math.degrees(math.remainder(along - heading, 2 * math.pi)))
    return found


def _away(layout: Layout, rail: Rail, into: str) -> float:
    """+1 where the cue ball passes the ball on the left as the shooter sees it, −1 on the right: not the pocket's."""
    x, y = layout.metres(layout.require_target())
    mx, my = next(mouth.middle for mouth in mouths(layout.table) if mouth.name == into)
    heading = seen(layout)[0]
    along = (mx - x, 0.0) if rail.is_long else (0.0, my - y)
    return -math.copysign(1.0, math.cos(heading) * along[1] - math.sin(heading) * along[0])


def _told(layout: Layout, rail: Rail, ways: tuple[Way, ...], cut: float, into: str) -> Told:
    best, ball = ways[0], spoken(layout.require_target().id)
    steps = tuple(
        f"{way.name}: {figure(way.window_deg, 3)}° wide" if way.window_deg else f"{way.name}: no window" for way in ways
    )
    say = (
        f"Firm, {best.name}, the cue a little raised: just miss {ball}, the {rail} rail first. The spin pulls the "
        "cue ball "
        f"back on to it and sends it to the {into} pocket, a cut of {cut:.0f}°."
    )
    adjust = (
        "Squirt matters more than anything here: with an ordinary cue the aim moves by about half a ball. A last "
        "resort: "
        "look at the bank first, and at whether the balls meet twice."
    )
    return Told(steps, say, adjust)
