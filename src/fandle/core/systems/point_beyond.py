"""M15, the point beyond the table: aim at one point of the room from anywhere along the rail.

By the corner numbers all lines from starts on near to a third number T, carried on past far, meet at
(6 + T/5, 8): four diamonds beyond the far nose, along the line some 7 to 10 ft. Played like the corner
numbers. Common practice, no published source.
"""

import math

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing, inches
from fandle.core.shot.stroke import Stroke
from fandle.core.systems import corner_numbers
from fandle.core.systems.base import Count, Draft, RailNumber, View, figure
from fandle.core.systems.spread import spread
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M15"
TITLE = "Point beyond the table"
ORDERS = corner_numbers.ORDERS
BEYOND = 4.0  # diamonds from the far nose to the point
FOOT_M = 0.3048
CLOSE = 1.0  # diamonds: starts further off the near rail spread


def spot(third: float) -> tuple[float, float]:
    """Where the lines to a third number meet, diamonds."""
    return 6.0 + third / 5, 4.0 + BEYOND


def count(view: View) -> Draft | str:
    """Where the line to the spot crosses the far nose."""
    cue, ball = view.cue, spoken(view.target.id)
    third = corner_numbers.third_number(view)
    if isinstance(third, str):
        return third
    if view.off(cue, Rail.NEAR) > CLOSE:
        return f"the cue ball lies {figure(cue.y)} off the {view.name(Rail.NEAR)} rail: from there the lines spread"
    x, y = spot(third)
    at = cue.x + (x - cue.x) * (4.0 - cue.y) / (y - cue.y)
    if at > 8.0:
        return f"the line to the spot meets the {view.name(Rail.FOOT)} rail first"
    table = view.layout.table
    away = BEYOND * table.diamond_y
    along = view.shown(Rail.FAR, x)
    numbers = (
        *corner_numbers.third_marks(view, third),
        RailNumber(Rail.FAR, at, figure(view.shown(Rail.FAR, at)), "aim"),
    )
    reach = math.hypot((x - at) * table.diamond_x, away)
    steps = (
        f"6 + {figure(third, 1)} ÷ 5 = {figure(6.0 + round(third, 1) / 5)}",
        f"point {figure(along)} along, mark = {figure(view.shown(Rail.FAR, at))}",
    )
    say = (
        f"The point for {ball} lies {away:.2f} m straight beyond the {view.name(Rail.FAR)} rail, at {figure(along)} "
        f"along it; along the line {reach:.2f} m ({reach / FOOT_M:.1f} ft) past the rail: look what stands there, a "
        f"door frame or a pillar. From anywhere on the {view.name(Rail.NEAR)} rail aim at it with the same stroke."
    )
    adjust = "Find the point with a line that works on this table: it holds for starts along the same rail."
    return Draft(
        at,
        "nose",
        Stroke(corner_numbers.SPEED, corner_numbers.RUNNING, corner_numbers.FOLLOW),
        numbers,
        steps,
        say,
        adjust,
    )


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust, with how well the lines of the cue ball's neighbourhood really meet at the point."""
    table, rail = layout.table, found.rails[0]
    along = crossing(table, rail, layout.metres(layout.cue), found.direction, -BEYOND * table.diamond_y)
    there = 4.0 + BEYOND if rail.at_end else -BEYOND
    holds = spread(layout, found.rails, target, found.stroke, (along, there))
    if holds is None:
        return found.adjust
    low, high = (f"{figure(abs(v))} {'short' if v < 0 else 'long'}" for v in (holds.low, holds.high))
    return (
        f"{found.adjust} Aimed at it, {holds.starts} starts within a diamond of the cue ball land {low} to {high}. "
        f"The lines that hit pass there at {figure(holds.middle)}, within {holds.spread_m * 100:.0f} cm "
        f"({inches(holds.spread_m)}) of one another."
    )
