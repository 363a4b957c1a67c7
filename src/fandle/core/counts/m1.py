"""M1, equal angles worked backwards: the target's image in the rail, aimed at straight.

The mirror lies in the nose, as the eye takes it: with y_c, y_t the distances from the nose,
mark = x_c + (x_t − x_c)·y_c/(y_c + y_t). Common practice, no published source.
"""

import math

from fandle.core.counts.base import Draft, View
from fandle.core.layout import spoken
from fandle.core.rails import Rail
from fandle.core.stroke import Stroke
from fandle.core.units import speed_of

METHOD = "M1"
TITLE = "Equal angles"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LENGTHS = 2.75  # plain and medium firm: softer comes long, harder short


def count(view: View) -> Draft | str:
    """The mark at which both angles are alike."""
    cue, target, rail = view.cue, view.target, view.rail
    at = view.mirror_mark()
    table = view.layout.table
    along, across = (table.diamond_x, table.diamond_y) if rail.is_long else (table.diamond_y, table.diamond_x)
    angle = math.degrees(math.atan2(view.off(cue) * across, abs(at - view.along(cue)) * along))
    name, ball = view.name(rail), spoken(target.id)
    steps = (f"in {angle:.0f}° = out {angle:.0f}°",)
    say = (
        f"Look from {ball} to the {name} rail and match its angle from the cue ball: both are {angle:.0f}° from the "
        f"rail at one mark only. Seen the other way, {ball} stands as far behind the rail as it lies before it."
    )
    adjust = "Soft and rolling it comes long, firm and sliding short: at medium firm the angles are nearly alike."
    return Draft(at, "nose", Stroke(speed_of(table, LENGTHS)), (), steps, say, adjust)
