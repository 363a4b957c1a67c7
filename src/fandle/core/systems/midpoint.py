"""M10, midpoint and corner: from the middle of the two balls to the corner, moved parallel to the cue ball.

Two mirrors at right angles are a half turn about the corner that lies one ball radius inside both
noses, so the line from the midpoint to that corner has exactly the direction to shoot. Common
practice, no published source; usual advice, medium to soft with a touch of running side. How much is our own
figure, half a tip at most; it follows the angle at the first rail (docs/decisions/midpoint.md). Over one rail it
finds a ball that lies where the second rail would be met.
"""

import math
from dataclasses import replace

import numpy as np

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import marks
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Count, Draft, RailNumber, View, figure
from fandle.core.systems.hands import HandStep, finger, remember, shaft, span
from fandle.core.systems.played import Aiming, landing
from fandle.core.systems.taught import HALF_TIP, MEDIUM_SOFT, paced
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import mixed

METHOD = "M10"
TITLE = "Midpoint and corner"
ORDERS = ((Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR), (Rail.FAR,), (Rail.FOOT,))
# radii of running side by degrees at the first rail, long rail first or short rail first: a touch, half a tip at most
TOUCH = {True: ((35.0, 47.0), (0.0, 0.11)), False: ((52.0, 66.0), (HALF_TIP, 0.08))}
PACES = tuple(k / 4 for k in range(6, 17))  # table lengths, soft to hard
ADJUST = {
    1: "Plain and medium soft: the corner is only thought of, one rail is met.",
    2: "Medium soft with a touch of running side, half a tip at most. Firmer it comes long off both rails.",
}


def touch(angle: float, *, long_first: bool) -> float:
    """Running side in radii for a line that meets the first rail at `angle` degrees from it."""
    return float(np.interp(angle, *TOUCH[long_first]))


def second(view: View) -> Rail:
    """The rail that makes the corner: over one rail it is the one the ball lies on."""
    return Rail.FOOT if view.rail is Rail.FAR else Rail.FAR


def count(view: View) -> Draft | str:
    """The parallel through the cue ball."""
    cue, target, table = view.cue, view.target, view.layout.table
    if len(view.rails) == 1 and view.off(target, second(view)) > ON_RAIL:
        other = view.name(second(view))
        return f"over one rail {spoken(target.id)} must lie on the {other} rail or just off it, where that would be met"
    inset_x, inset_y = table.ball_radius / table.diamond_x, table.ball_radius / table.diamond_y
    corner = 8.0 - inset_x, 4.0 - inset_y
    middle = (cue.x + target.x) / 2, (cue.y + target.y) / 2
    dx, dy = corner[0] - middle[0], corner[1] - middle[1]
    if view.rail is Rail.FAR:
        if dy < 1e-9:
            return f"both balls lie on the {view.name(Rail.FAR)} rail"
        at = cue.x + (corner[1] - cue.y) * dx / dy
        reach = corner[0]
    else:
        if dx < 1e-9:
            return f"both balls lie on the {view.name(Rail.FOOT)} rail"
        at = cue.y + (corner[0] - cue.x) * dy / dx
        reach = corner[1]
    first, other = view.name(view.rail), view.name(second(view))
    if at > reach:
        return f"the parallel through the cue ball meets the {other} rail first"
    mark = figure(view.shown(view.rail, at))
    there = view.turn.point(*middle)
    numbers = (RailNumber(view.rail, at, mark, "aim"),)
    steps = (
        f"middle of the two: {figure(there[0])}, {figure(there[1])}",
        f"parallel through the cue ball = {mark}",
    )
    say = (
        f"Hold the cue from half way between the cue ball and {spoken(target.id)} to the corner where the {first} and "
        f"{other} rails meet; move it parallel to the cue ball: it points at the mark on the {first} rail."
    )
    stroke = _stroke(view, math.atan2(dy * table.diamond_y, dx * table.diamond_x))
    return Draft(at, "centre", stroke, numbers, steps, say, ADJUST[len(view.rails)])


def _stroke(view: View, way: float) -> Stroke:
    """Medium soft; over two rails with a touch of running side. way: rad from the long rail."""
    table, long_first = view.layout.table, view.rail is Rail.FAR
    if len(view.rails) == 1:
        return paced(table, MEDIUM_SOFT)
    side = touch(math.degrees(way) if long_first else 90.0 - math.degrees(way), long_first=long_first)
    return paced(table, MEDIUM_SOFT, side if long_first else -side)


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """The middle of the two balls, the shaft to the corner, and its parallel through the cue ball."""
    cue, target, rail = view.cue, view.target, view.rail
    radius_x, radius_y = view.ball_across(Rail.FOOT), view.ball_across(Rail.FAR)
    corner, middle = (8.0 - radius_x, 4.0 - radius_y), ((cue.x + target.x) / 2, (cue.y + target.y) / 2)
    turn = -view.radius
    mark = rail.point(draft.at, (corner[1] if rail.is_long else corner[0]))
    first, other = view.name(view.rail), view.name(second(view))
    return (
        HandStep(
            f"Hold the shaft from the cue ball to {spoken(target.id)} and put a finger at its middle.",
            "the finger",
            (span((cue.x, cue.y), (target.x, target.y)), finger(middle)),
        ),
        HandStep(
            f"Lay the shaft from there to the corner where a ball would touch the {first} and {other} rails at once.",
            "the direction of the shaft",
            (shaft(middle, corner),),
        ),
        HandStep(
            f"Move it parallel, all the way, until it lies through the cue ball: it points at the {first} rail.",
            "the direction of the shaft",
            (shaft((cue.x, cue.y), mark),),
        ),
        remember(view, draft.at, turn),
    )


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust, with the variant beside it: the line sighted to the pocket's own corner, half a tip running."""
    table, rails = layout.table, found.rails
    if len(rails) == 1:
        return found.adjust + _other_pace(layout, found, target)
    corner = rails[0].point(
        float(rails[1].diamonds_across) if rails[1].at_end else 0.0,
        float(rails[0].diamonds_across) if rails[0].at_end else 0.0,
    )
    dx, dy = corner[0] - (layout.cue.x + target.x) / 2, corner[1] - (layout.cue.y + target.y) / 2
    direction = math.atan2(dy * table.diamond_y, dx * table.diamond_x)
    stroke = replace(found.stroke, side=math.copysign(HALF_TIP, found.stroke.side))
    shot = approach(layout, stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
    lands = landing(layout, rails, (target.x, target.y), shot)
    if lands is None:
        return f"{found.adjust} The variant that sights the corner pocket itself does not arrive from here."
    mark = getattr(marks(table, rails[0], layout.metres(layout.cue), direction), found.frame)
    return (
        f"{found.adjust} The variant that sights the corner pocket itself, with half a tip of running side, shoots "
        f"{figure(mark)} and lands {lands.where}."
    )


def _other_pace(layout: Layout, found: Count, target: Ball) -> str:
    """The pace at which the same mark lands best on this table, where its own goes by."""
    if found.lands.hits:
        return ""
    tried = []
    for lengths in PACES:
        stroke = replace(found.stroke, speed=paced(layout.table, lengths).speed)
        aiming = Aiming(layout, found.rails, found.frame, stroke, (target.x, target.y))
        lands = aiming.play(found.aim.centre)[2]
        if lands is not None:
            tried.append((lands.off_balls, lengths, lands.where))
    if not tried or min(tried)[0] >= 1.0:
        return " On this table no pace from soft to firm brings this mark there."
    _, lengths, where = min(tried)
    return f" On this table it takes {mixed(lengths)} lengths: then this mark lands {where}."
