"""M20, rail first, close: the ball lies near a rail, the line to it is shut or dead straight.

Side that keeps the rebound flat along the rail drives the ball along it; which side that is, and how much, the engine
says: it is the one with the widest window for the pot, or, where nothing can be potted, the one that drives the ball
flattest. Common practice, no published source.
"""

from dataclasses import replace

import numpy as np

from fandle.core.layout.model import Layout
from fandle.core.shot.cue import Cue
from fandle.core.shot.moment import Moment, moment_of
from fandle.core.shot.play import play
from fandle.core.shot.tips import offset_of
from fandle.core.systems.base import figure
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import (
    NoTechnique,
    Technique,
    Told,
    Way,
    angle_to,
    beside_rail,
    corner_ahead,
    nearest_rail,
    number_of,
    over_rail_first,
    potted_into,
    running_side,
    seen,
    technique,
    ways_of,
)
from fandle.core.words.balls import spoken

METHOD, TITLE = "M20", "Rail first, close"
NEAR = 0.75  # diamonds across: a ball whose surface lies farther off the rail is kicked, not played rail-first
CLOSE = 4.0  # diamonds along: from farther off it is a kick, and measured
LENGTHS = 1.75  # its stroke
LOOKS = 140
TIPS = (
    ("one tip of running side", 1.0),
    ("half a tip of running side", 0.5),
    ("no side", 0.0),
    ("one tip of reverse", -1.0),
)


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """Rail-first over the rail nearest to the ball. pocket: None for the corner it is driven to."""
    nearest, gap = nearest_rail(layout)
    rail, table = rails[0] if rails else nearest, layout.table
    if rail is not nearest or gap > NEAR * table.diamond_y:
        return NoTechnique(METHOD, TITLE, "the ball is not near that rail: this is a kick, to be measured")
    if seen(layout)[2] > CLOSE * table.diamond_x:
        return NoTechnique(METHOD, TITLE, "the cue ball is too far off: from there it is a kick, to be measured")
    into = pocket or corner_ahead(layout, rail)
    ball, at = number_of(layout, layout.require_target().id), beside_rail(layout, rail, LOOKS)
    strokes = [
        (name, replace(paced(table, LENGTHS, running_side(layout, rail, offset_of(tips, table))), cue=cue))
        for name, tips in TIPS
    ]
    pots = () if into is None else ways_of(
        layout, strokes, at, lambda out: over_rail_first(out, ball, rail) & potted_into(out, ball, into)
    )  # fmt: skip
    if pots and pots[0].window_deg > 0.0:
        ways = tuple(_said(layout, way, rail) for way in pots)
        return technique(
            layout, (METHOD, TITLE), (rail,), ways, lambda shot, moment: _told(layout, rail, ways, into), into
        )
    hits = ways_of(layout, strokes, at, lambda out: over_rail_first(out, ball, rail))
    if hits[0].window_deg == 0.0:
        return NoTechnique(
            METHOD, TITLE, "no stroke comes to the ball over that rail from here: another ball or a jaw is in the way"
        )
    flat = sorted((_said(layout, way, rail) for way in hits), key=lambda way: _flatness(layout, way, rail))
    return technique(
        layout, (METHOD, TITLE), (rail,), tuple(flat), lambda shot, moment: _told(layout, rail, flat, None)
    )


def _driven(layout: Layout, way: Way) -> Moment | None:
    return moment_of(layout, play(layout, way.stroke, way.middle)) if way.window_deg else None


def _flatness(layout: Layout, way: Way, rail: Rail) -> float:
    """The angle to the rail at which the ball is driven, degrees; last where it is not."""
    moment = _driven(layout, way)
    return np.inf if moment is None or moment.driven is None else angle_to(rail, moment.driven)


def _said(layout: Layout, way: Way, rail: Rail) -> Way:
    moment = _driven(layout, way)
    if moment is None or moment.driven is None:
        return way._replace(says="it does not come there")
    off, driven = angle_to(rail, moment.comes), angle_to(rail, moment.driven)
    return way._replace(says=f"the cue ball comes off at {off:.0f}° to the rail, the ball leaves at {driven:.0f}°")


def _told(layout: Layout, rail: Rail, ways: tuple[Way, ...] | list[Way], into: str | None) -> Told:
    best, ball = ways[0], spoken(layout.require_target().id)
    rest = [way for way in ways[1:] if way.name in ("no side", "one tip of reverse", "one tip of running side")]
    steps = tuple(f"{way.name}: {way.says}, {figure(way.window_deg)}° wide" for way in (best, *rest[:2]))
    goal = f"into the {into} pocket" if into else "along the rail"
    say = (
        f"Softly, {best.name}: the {rail} rail first, close to {ball}, which is driven {goal}. Very close there is "
        "no time "
        "to measure: see the two angles, then choose the side."
    )
    adjust = (
        "Too much of the ball pushes it away from the rail: take less of it, or more side that runs along the rail."
    )
    return Told(steps, say, adjust)
