"""M10, midpoint and corner: from the middle of the two balls to the corner, moved parallel to the cue ball.

Two mirrors at right angles are a half turn about the corner that lies one ball radius inside both
noses, so the line from the midpoint to that corner has exactly the direction to shoot. Common
practice, no published source; usual advice, a touch of running side.
"""

from fandle.core.counts.base import Draft, RailNumber, View, figure
from fandle.core.layout import spoken
from fandle.core.rails import Rail
from fandle.core.stroke import Stroke
from fandle.core.units import speed_of

METHOD = "M10"
TITLE = "Midpoint and corner"
ORDERS = ((Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR))
LENGTHS = 3.25  # firm: rolling, the ball comes long off both rails
TOUCH = 0.2  # radii of running side


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
    adjust = "Soft or plain it comes long; firm, with a touch of running side, the corner stays nearly square."
    return Draft(
        at,
        "centre",
        Stroke(speed_of(table, LENGTHS), TOUCH if view.rail is Rail.FAR else -TOUCH),
        numbers,
        steps,
        say,
        adjust,
    )
