"""M10, midpoint and corner: from the middle of the two balls to the corner, moved parallel to the cue ball.

Two mirrors at right angles are a half turn about the corner that lies one ball radius inside both
noses, so the line from the midpoint to that corner has exactly the direction to shoot. Common
practice, no published source; usual advice, a touch of running side. How much is our own figure: one touch
for all lines leaves them up to two diamonds off, so it follows the angle at the first rail
(docs/decisions/midpoint.md).
"""

import math
from dataclasses import replace

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import marks
from fandle.core.shot.approach import approach
from fandle.core.systems.base import Count, Draft, RailNumber, View, figure, paced
from fandle.core.systems.hands import HandStep, finger, remember, shaft, span
from fandle.core.systems.played import landing
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M10"
TITLE = "Midpoint and corner"
ORDERS = ((Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR))
LENGTHS = 3.5  # firm: rolling, the ball comes long off both rails
TOUCH_PER_DEGREE = 0.012  # radii of running side for each degree by which the first rail is met flatter than NONE_AT
NONE_AT = {True: 67.0, False: 74.0}  # degrees from the rail at which none is needed: long rail first, short rail first
LEAST, MOST = 0.06, 0.42  # radii
HALF_TIP = 0.175  # radii: what the variant is played with


def touch(angle: float, long_first: bool) -> float:
    """Running side in radii for a line that meets the first rail at `angle` degrees from it."""
    return min(max(TOUCH_PER_DEGREE * (NONE_AT[long_first] - angle), LEAST), MOST)


def count(view: View) -> Draft | str:
    """The parallel through the cue ball."""
    cue, target, table = view.cue, view.target, view.layout.table
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
    first, second = view.name(view.rails[0]), view.name(view.rails[1])
    if at > reach:
        return f"the parallel through the cue ball meets the {second} rail first"
    mark = figure(view.shown(view.rail, at))
    there = view.turn.point(*middle)
    numbers = (RailNumber(view.rail, at, mark, "aim"),)
    steps = (
        f"middle of the two: {figure(there[0])}, {figure(there[1])}",
        f"parallel through the cue ball = {mark}",
    )
    say = (
        f"Hold the cue from half way between the cue ball and {spoken(target.id)} to the corner where the {first} and "
        f"{second} rails meet; move it parallel to the cue ball: it points at the mark on the {first} rail."
    )
    adjust = (
        "Soft or plain it comes long. The flatter the line meets the first rail, the more running side keeps the "
        "corner square: about a tip at 40°, hardly any where it goes nearly straight in."
    )
    long_first = view.rail is Rail.FAR
    way = dx * table.diamond_x, dy * table.diamond_y
    angle = math.degrees(math.atan2(way[1], way[0]))  # from the long rail
    side = touch(angle if long_first else 90.0 - angle, long_first)
    stroke = paced(table, LENGTHS, side if long_first else -side)
    return Draft(at, "centre", stroke, numbers, steps, say, adjust)


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """The middle of the two balls, the shaft to the corner, and its parallel through the cue ball."""
    cue, target, rail = view.cue, view.target, view.rail
    radius_x, radius_y = view.ball_across(Rail.FOOT), view.ball_across(Rail.FAR)
    corner, middle = (8.0 - radius_x, 4.0 - radius_y), ((cue.x + target.x) / 2, (cue.y + target.y) / 2)
    turn = -view.radius
    mark = rail.point(draft.at, (corner[1] if rail.is_long else corner[0]))
    first, second = view.name(view.rails[0]), view.name(view.rails[1])
    return (
        HandStep(
            f"Hold the shaft from the cue ball to {spoken(target.id)} and put a finger at its middle.",
            "the finger",
            (span((cue.x, cue.y), (target.x, target.y)), finger(middle)),
        ),
        HandStep(
            f"Lay the shaft from there to the corner where a ball would touch the {first} and {second} rails at once.",
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
