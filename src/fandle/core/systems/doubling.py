"""M2, the doubling count: numbers in twos on the aim rail, shoot the number counted.

Zero is where the incoming line, carried on through the target, meets the shooter's rail; the cue ball is counted
where its own line, carried back, meets it: n diamonds apart, so the two balls need not be level. On the aim rail
a diamond counts two from opposite zero. With the mark on the sight line, d the balls' distances from it:
mark = (x_c/d_c + x_t/d_t) ÷ (1/d_c + 1/d_t). Common practice, no published source. Read at the sights, as systems
read aims that say nothing else.
"""

import math

from fandle.core.systems.base import Draft, Own, RailNumber, View, figure
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M2"
TITLE = "Doubling count"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LEVEL = 0.5  # diamonds: balls so nearly level are counted at their own level where their lines leave the rail
LEAST = 0.25  # diamonds: less than this is no count
LENGTHS = 2.5  # medium; firmer comes shorter still: 0.6 short on a count of 6 at 2¾
FRAME = "sight"


def count(view: View) -> Draft | str:
    """The doubling count over the view's rail."""
    if view.layout.table.sight_setback is None:
        return "the table has no sights to read the number at"
    rail, ball = view.rail, spoken(view.target.id)
    found = _counted(view)
    if isinstance(found, str):
        return found
    zero, start, through = found
    n = abs(start - zero)
    if n < LEAST:
        return f"{ball} lies straight opposite the cue ball: nothing to count"
    way = math.copysign(1.0, start - zero)
    at = zero + way * n / 2
    steps = (f"{figure(round(n, 2) / 2, 3)} diamonds × 2 = {figure(n)}",)
    lines = (
        f"The line in, carried on through {ball}, meets the {view.name(view.opposite)} rail at zero; the cue ball's "
        f"line, carried back, meets it {figure(n)} diamonds away"
        if through
        else f"{figure(n)} diamonds from {ball} back to the cue ball"
    )
    say = (
        f"{lines}; on the {view.name(rail)} rail every diamond counts two: shoot the number {figure(n)}, "
        f"{figure(n / 2)} diamonds along from opposite zero."
    )
    adjust = "The longer the count, the firmer the stroke."
    stroke = paced(view.layout.table, LENGTHS)
    return Draft(at, FRAME, stroke, _numbers(view, zero, start, at), steps, say, adjust, Own(n, way / 2))


def _counted(view: View) -> tuple[float, float, bool] | str:
    """(zero, the cue ball's place, counted through the balls?) on the shooter's rail, diamonds."""
    back = view.sight[1] if view.rail.is_long else view.sight[0]
    deep = view.rail.diamonds_across + back  # from the shooter's rail to the sights
    here, there = view.off(view.cue) + back, view.off(view.target) + back
    cue, target = view.along(view.cue), view.along(view.target)
    mark = (cue * there + target * here) / (here + there)
    start, zero = mark + (cue - mark) * deep / here, mark + (target - mark) * deep / there
    if min(start, zero) >= 0.0 and max(start, zero) <= view.whole:
        return zero, start, True
    if abs(here - there) <= LEVEL:
        return target, cue, False
    name = view.name(view.opposite)
    return f"carried on to the {name} rail, the lines leave it: its diamonds end before zero or the cue ball's number"


def _numbers(view: View, zero: float, start: float, at: float) -> tuple[RailNumber, ...]:
    """Zero, both numbers, the diamonds of the shooter's rail and the twos of the one aimed at."""
    rail, n = view.rail, abs(start - zero)
    way = math.copysign(1.0, start - zero)
    numbers = [
        RailNumber(view.opposite, zero, "0", "zero"),
        RailNumber(view.opposite, start, figure(n), "cue"),
        RailNumber(rail, at, figure(n), "aim"),
    ]
    numbers += [RailNumber(view.opposite, zero + way * k, figure(k)) for k in range(1, math.ceil(n))]
    numbers += [
        RailNumber(rail, zero + way * k, figure(2 * k))
        for k in range(0, math.floor(n / 2) + 2)
        if 0 <= zero + way * k <= view.whole and abs(k - n / 2) > 0.2
    ]
    return tuple(numbers)
