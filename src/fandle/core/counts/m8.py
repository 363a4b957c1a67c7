"""M8, ghost ball and span: the mirror image found by hand, with fingers or cue.

Span the distance from the ghost ball's centre to the rail's edge, square to it; carry the same span beyond
the edge; sight from there to the cue ball and remember the mark the line crosses. The mirror lies in
the nose, so the hit is a little short. Common practice, no published source.
"""

from fandle.core.counts.base import Draft, RailNumber, View, figure
from fandle.core.layout import spoken
from fandle.core.rails import Rail
from fandle.core.readout import inches
from fandle.core.stroke import Stroke
from fandle.core.units import speed_of

METHOD = "M8"
TITLE = "Ghost ball and span"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LENGTHS = 2.75
HAND_M = 0.2  # between finger and thumb
ARM_M = 0.6  # a longer span is taken with the cue


def count(view: View) -> Draft | str:
    """The span to carry over the rail, and the mark to remember."""
    target, rail, ball = view.target, view.rail, spoken(view.target.id)
    table = view.layout.table
    across = table.diamond_y if rail.is_long else table.diamond_x
    at = view.mirror_mark()
    # the ghost ball lies two radii short of the target on the last leg
    along_m = table.diamond_x if rail.is_long else table.diamond_y
    run_x, run_y = (view.along(target) - at) * along_m, view.off(target) * across
    size = (run_x**2 + run_y**2) ** 0.5
    span = run_y - 2 * table.ball_radius * run_y / size
    hand = "the cue shaft, square to the rail,"
    if span < ARM_M:
        hand = "finger and thumb" if span < HAND_M else "both hands"
    mark = figure(view.shown(rail, at))
    numbers = (
        RailNumber(rail, view.along(target), inches(span), "zero"),
        RailNumber(rail, at, mark, "aim"),
    )
    steps = (f"span {span * 1000:.0f} mm ({inches(span)})", f"mark = {mark}")
    say = (
        f"Set {hand} to {span * 1000:.0f} mm ({inches(span)}): from the ghost ball's centre before {ball} square to "
        f"the edge of the {view.name(rail)} rail. Carry that span beyond the edge, sight back to the cue ball, "
        f"and remember the mark {mark} the line crosses."
    )
    adjust = "The image in the edge is a ball too far away, so the hit comes a little short: thicker than it looks."
    return Draft(at, "nose", Stroke(speed_of(table, LENGTHS)), numbers, steps, say, adjust)
