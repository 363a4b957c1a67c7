"""M2, the doubling count: numbers in twos on the aim rail, shoot the number counted.

For cue ball and target about equally far from the aim rail. Zero lies opposite the target;
n diamonds from zero to the cue ball; on the aim rail a diamond counts two. Common practice,
no published source. Read at the sights, as systems read aims that say nothing else.
"""

import math

from fandle.core.systems.base import Draft, RailNumber, View, figure, paced
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M2"
TITLE = "Doubling count"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LEVEL = 0.5  # diamonds: how unequal the two distances from the aim rail may be
LEAST = 0.25  # diamonds: less than this is no count
LENGTHS = 2.5  # medium; firmer comes shorter still: 0.6 short on a count of 6 at 2¾
FRAME = "sight"


def count(view: View) -> Draft | str:
    """The doubling count over the view's rail."""
    cue, target, rail = view.layout.cue, view.target, view.rail
    ball = spoken(target.id)
    gap = abs(view.off(cue) - view.off(target))
    if gap > LEVEL:
        return (
            f"the cue ball and {ball} are {figure(gap)} {view.layout.table.marks} apart in their distance from the "
            f"{view.name(rail)} rail; the count needs them within {figure(LEVEL)}"
        )
    zero = view.along(target)
    n = abs(view.along(cue) - zero)
    if n < LEAST:
        return f"{ball} lies straight opposite the cue ball: nothing to count"
    if view.layout.table.sight_setback is None:
        return "the table has no sights to read the number at"
    way = math.copysign(1.0, view.along(cue) - zero)
    at = zero + way * n / 2
    numbers = [
        RailNumber(view.opposite, zero, "0", "zero"),
        RailNumber(view.opposite, view.along(cue), figure(n), "cue"),
        RailNumber(rail, at, figure(n), "aim"),
    ]
    numbers += [RailNumber(view.opposite, zero + way * k, figure(k)) for k in range(1, math.ceil(n))]
    numbers += [
        RailNumber(rail, zero + way * k, figure(2 * k))
        for k in range(0, math.floor(n / 2) + 2)
        if 0 <= zero + way * k <= view.whole and abs(k - n / 2) > 0.2
    ]
    steps = (f"{figure(round(n, 2) / 2, 3)} diamonds × 2 = {figure(n)}",)
    say = (
        f"{figure(n)} diamonds from {ball} back to the cue ball; on the {view.name(rail)} rail every diamond counts "
        f"two: shoot the number {figure(n)}, {figure(n / 2)} diamonds along."
    )
    adjust = "Half a diamond off the level is the limit; the longer the count, the firmer the stroke."
    stroke = paced(view.layout.table, LENGTHS)
    return Draft(at, FRAME, stroke, tuple(numbers), steps, say, adjust)
