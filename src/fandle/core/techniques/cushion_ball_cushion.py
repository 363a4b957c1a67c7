"""M24, cushion, ball, cushion: the cushion first, then the back of a ball near it, back to the same cushion, on to the
next. A delicate speed. Common practice, no published source.
"""

from dataclasses import replace

import numpy as np

from fandle.core.layout.model import Layout
from fandle.core.physics.batch import Outcomes
from fandle.core.shot.cue import Cue
from fandle.core.shot.moment import Moment
from fandle.core.shot.tips import offset_of
from fandle.core.systems.base import figure
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.techniques.base import (
    Flags,
    NoTechnique,
    Technique,
    Told,
    Way,
    beside_rail,
    nearest_rail,
    number_of,
    over_rail_first,
    running_side,
    technique,
    ways_of,
)
from fandle.core.words.balls import spoken

METHOD, TITLE = "M24", "Cushion, ball, cushion"
NEAR = 0.6  # diamonds across that the ball may lie off the rail
SOFT, MEDIUM = 1.75, 2.5  # lengths
LOOKS = 140


def solve(layout: Layout, rails: tuple[Rail, ...], pocket: str | None, cue: Cue) -> Technique | NoTechnique:
    """The stroke and the line that forgive most; on to the rail ahead."""
    rail, gap = nearest_rail(layout)
    table = layout.table
    if (rails and rails[0] is not rail) or gap > NEAR * (table.diamond_y if rail.is_long else table.diamond_x):
        return NoTechnique(METHOD, TITLE, "the ball is not near enough to that rail to come back to it")
    ahead, ball = _ahead(layout, rail), number_of(layout, layout.require_target().id)
    tip = offset_of(1.0, table)
    strokes = [
        (name, replace(paced(table, lengths, running_side(layout, rail, part * tip)), cue=cue))
        for name, lengths, part in (
            ("softly, one tip of running side", SOFT, 1.0), ("softly, no side", SOFT, 0.0),
            ("medium, one tip of running side", MEDIUM, 1.0), ("medium, one tip of reverse", MEDIUM, -1.0),
        )
    ]  # fmt: skip
    ways = ways_of(layout, strokes, beside_rail(layout, rail, LOOKS), lambda out: _goes(out, ball, rail, ahead))
    if ways[0].window_deg == 0.0:
        return NoTechnique(
            METHOD, TITLE, "no stroke comes back to that cushion from here: the cue ball has to lie flatter to it"
        )
    return technique(
        layout, (METHOD, TITLE), (rail,), ways, lambda shot, moment: _told(layout, (rail, ahead), ways, moment)
    )


def _ahead(layout: Layout, rail: Rail) -> Rail:
    """The rail towards which the target lies from the cue ball, along the one met first."""
    cue, ball = layout.cue, layout.require_target()
    onward = rail.along(ball.x, ball.y) >= rail.along(cue.x, cue.y)
    return (Rail.FOOT if onward else Rail.HEAD) if rail.is_long else (Rail.FAR if onward else Rail.NEAR)


def _goes(out: Outcomes, ball: int, rail: Rail, ahead: Rail) -> Flags:
    on = (out.cue_rails[:, 1] == rail.number) & (out.cue_rails[:, 2] == ahead.number)
    return np.asarray(over_rail_first(out, ball, rail) & on)


def _told(layout: Layout, rails: tuple[Rail, Rail], ways: tuple[Way, ...], moment: Moment) -> Told:
    (rail, ahead), best, ball = rails, ways[0], spoken(layout.require_target().id)
    steps = tuple(
        f"{way.name}: {figure(way.window_deg)}° wide" if way.window_deg else f"{way.name}: no" for way in ways
    )
    say = (
        f"{best.name.capitalize()}: the {rail} rail, the back of {ball} ({moment.fullness:.0%} of it), the {rail} "
        "rail again, on "
        f"to the {ahead} rail."
    )
    return Told(steps, say, "Pace decides: too hard, and the ball takes the cue ball away from the cushion.")
