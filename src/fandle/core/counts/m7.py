"""M7, reference track and half shift: a track one knows, moved by half of what its ends are moved.

The reference: head-near corner → far 3 → near 6, at the nose. Move the start by s and the mark moves
s/2; move the target by t and it moves t/2. Exact for mirrors in the nose where start and target are
equally far from the aim rail. Common practice, no published source.
"""

from fandle.core.counts.base import Draft, RailNumber, View, figure
from fandle.core.layout import spoken
from fandle.core.rails import Rail
from fandle.core.stroke import Stroke
from fandle.core.units import speed_of

METHOD = "M7"
TITLE = "Half shift"
ORDERS = ((Rail.FAR,),)
START, MARK, END = 0.0, 3.0, 6.0
LEVEL = 0.75  # diamonds: how unequal the two distances from the aim rail may be
LENGTHS = 2.75


def count(view: View) -> Draft | str:
    """The reference mark, moved by half of both shifts."""
    cue, target, ball = view.cue, view.target, spoken(view.target.id)
    gap = abs(view.off(cue) - view.off(target))
    if gap > LEVEL:
        return (
            f"the cue ball and {ball} are {figure(gap)} {view.layout.table.marks} apart in their distance from the "
            f"{view.name(Rail.FAR)} rail; the shift needs them within {figure(LEVEL)}"
        )
    if target.x - cue.x < 0.25:
        return f"{ball} lies straight opposite the cue ball: nothing to shift"
    start, end = cue.x - START, target.x - END
    at = MARK + (start + end) / 2
    numbers = (
        RailNumber(Rail.NEAR, START, "start"),
        RailNumber(Rail.NEAR, END, "end"),
        RailNumber(Rail.FAR, MARK, figure(MARK), "zero"),
        RailNumber(Rail.NEAR, cue.x, f"{start:+.2f}".replace("-", "−"), "cue"),
        RailNumber(Rail.FAR, at, figure(at), "aim"),
    )

    def signed(value: float) -> str:
        return f"{'+' if value >= 0 else '−'} {figure(abs(value))}"

    steps = (
        f"start {signed(start)} ÷ 2 = {figure(start / 2)}",
        f"target {signed(end)} ÷ 2 = {figure(end / 2)}",
        f"{figure(MARK)} {signed(start / 2)} {signed(end / 2)} = {figure(at)}",
    )
    head, near, far = (view.name(rail) for rail in (Rail.HEAD, Rail.NEAR, Rail.FAR))
    say = (
        f"You know the track from the {head}-{near} corner over {far} 3 to {near} 6, counted from the {head} end. Your "
        f"start is {figure(start)} further, {ball} {figure(abs(end))} {'further' if end >= 0 else 'nearer'}: half of "
        f"both moves the mark to {figure(at)}."
    )
    adjust = "Keep the reference track fresh: shoot it once on a strange table and carry its error along."
    return Draft(at, "nose", Stroke(speed_of(view.layout.table, LENGTHS)), numbers, steps, say, adjust)
