"""M17, equal count, one rail further: back to the cue ball's own long rail and on to the other short one.

Each return point on near connects to a point on head: x = 1, 2, 3, 3.5 to y ≈ 0.55, 1.1, 1.9, 2.5 on the
default table. Choose the return point for the target, count n from it to the cue ball, play n → n as the
equal count. Right with about 0.3 R of side; with full side it comes back short, so the aim goes half to one
number away from the 1-corner. Common practice, no published source. A low-percentage shot.
"""

import math
from dataclasses import replace

import numpy as np

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems import equal_count
from fandle.core.systems.base import ON_RAIL, Count, Draft, Own, RailNumber, View, added, figure
from fandle.core.systems.counts_by_cue import by_cue
from fandle.core.systems.played import landing
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M17"
TITLE = "Equal count, one further"
ORDERS = ((Rail.FOOT, Rail.FAR, Rail.NEAR),)
FULL = 0.45  # radii: as much side as is safe
SPEED, RUNNING = 3.5, -0.3  # a rail further than the equal count: firmer
RETURNS = (1.0, 2.0, 3.0, 3.5)
LANDINGS = (0.55, 1.1, 1.9, 2.5)


def count(view: View) -> Draft | str:
    """The return point for the target, then the equal count to it."""
    cue, target, ball = view.cue, view.target, spoken(view.target.id)
    if not view.layout.table.has_diamonds:
        return "the table has no sights to read the number at"
    if view.off(target, Rail.HEAD) > ON_RAIL:
        return f"{ball} must lie on the {view.name(Rail.HEAD)} rail or close to it"
    if not LANDINGS[0] - 0.3 <= target.y <= LANDINGS[-1] + 0.3:
        return f"{ball} lies outside the part of the {view.name(Rail.HEAD)} rail that the returns lead to"
    back = float(np.interp(target.y, LANDINGS, RETURNS))
    n = cue.x - back
    if not equal_count.LEAST <= n <= equal_count.MOST:
        return f"the count from the return point to the cue ball is {figure(n)}: it works from 1 to 9"
    mark = 4.0 - (n - 1) / 2
    lift = view.lift(Rail.NEAR)
    at = mark + lift
    shot_number = n - 2 * lift
    near, foot, head = (view.name(rail) for rail in (Rail.NEAR, Rail.FOOT, Rail.HEAD))
    numbers = [
        RailNumber(Rail.HEAD, target.y, "end", "zero"),
        RailNumber(Rail.NEAR, back, "0", "zero"),
        RailNumber(Rail.NEAR, cue.x, figure(n), "cue"),
        RailNumber(Rail.FOOT, at, figure(shot_number), "aim"),
    ]
    returns = zip(RETURNS, LANDINGS, strict=True)
    numbers += [RailNumber(Rail.HEAD, y, figure(x)) for x, y in returns if abs(y - target.y) > 0.2]
    numbers += equal_count.scale(at)
    turn = figure(view.shown(Rail.NEAR, back))
    steps = [
        f"{figure(view.shown(Rail.HEAD, target.y))} on the {head} rail returns from {turn}",
        f"{figure(n)} from there to the cue ball = {figure(n)}",
    ]
    if lift > 0.005:
        steps.append(f"moved {figure(lift)} parallel: {added(n, -2 * lift)}")
    say = (
        f"To end at {ball} the ball must come back to {turn} on the {near} rail. Count from there to the cue ball, "
        f"{figure(n)}, and sight that number on the {foot} rail, as in the equal count. A last resort."
    )
    adjust = "A correction of half to one number goes with full side."
    own = Own(shot_number, -0.5)
    return Draft(at, "sight", Stroke(SPEED, RUNNING), tuple(numbers), tuple(steps), say, adjust, own)


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust with full side: practice disagrees about its direction, so it is played on this table."""
    return f"{_full_side(layout, found, target)}{_figures(layout, found, target)}"


def _figures(layout: Layout, found: Count, target: Ball) -> str:
    """How small and large counts land with full side, with and without squirt."""
    back = next((n.at for n in found.numbers if n.role == "zero" and n.label == "0"), None)
    if back is None:
        return ""
    full = replace(found.stroke, side=math.copysign(FULL, found.stroke.side))
    played = by_cue(layout, found, back, (target.x, target.y), full)
    return f" Full side, from the same return point: {played}." if played else ""


def _full_side(layout: Layout, found: Count, target: Ball) -> str:
    """Where the same aim lands with full side, and which way to correct."""
    full = replace(found.stroke, side=math.copysign(FULL, found.stroke.side))
    shot = approach(layout, full, found.direction, most_rails=len(found.rails) + 1, ignore_balls=True)
    lands = landing(layout, found.rails, (target.x, target.y), shot)
    if lands is None:
        return "With full side this aim does not come there at all on this table: keep to two thirds of it."
    if lands.side == "on":
        return "With full side it lands on here, too."
    way = "away from" if lands.side == "short" else "towards"
    return (
        f"With full side the same aim lands {lands.where} on this table: then aim half to "
        f"one number {way} the 1-corner."
    )
