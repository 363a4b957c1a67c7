"""M5, add and halve: numbers 0 to 40 along a short rail, aim at (from + to) ÷ 2 on the other one.

`from` and `to` are where the way out and the way back cross the shooter's short rail. Common
practice, no published source. Read at the nose from the shooter's end, sighted at the other.
"""

import math

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON, Count, Draft, Own, RailNumber, View, figure, halved
from fandle.core.systems.played import Aiming
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M5"
TITLE = "Add and halve"
ORDERS = ((Rail.FOOT,),)
SPEED = 3.5  # m/s: softer it does not come back the length of the table straight
LEAST = 0.2  # diamonds between the two: nearer there is nothing to halve
NUMBERS = 10.0  # a diamond
ADJUST = (
    "On a table that plays short aim one number, sometimes half, towards the target's: how much belongs to the "
    "table. Softly it does not arrive."
)


def count(view: View) -> Draft | str:
    """Where the way out begins and the way back ends, added and halved."""
    cue, target, ball = view.cue, view.target, spoken(view.target.id)
    whole = 8.0
    out, back = cue.x / whole, target.x / whole
    # start = (y_c − m·out)/(1 − out), end = (y_t − m·back)/(1 − back), m = (start + end)/2
    share = 1 + 0.5 * out / (1 - out) + 0.5 * back / (1 - back)
    at = 0.5 * (cue.y / (1 - out) + target.y / (1 - back)) / share
    start, end = (cue.y - at * out) / (1 - out), (target.y - at * back) / (1 - back)
    if abs(end - start) < LEAST:
        return f"{ball} lies straight behind the cue ball: nothing to add"
    if not (-0.05 <= start <= 4.05 and -0.05 <= end <= 4.05):
        worse = start if not 0 <= start <= 4 else end
        return (
            f"the way crosses the {view.name(Rail.HEAD)} rail at {figure(10 * worse, 0)}, outside its numbers 0 to 40"
        )
    start, end = min(max(start, 0.0), 4.0), min(max(end, 0.0), 4.0)
    at = (start + end) / 2
    other_corner = start + end > 4.0  # counted from it the numbers stay small
    a, b, mark = (NUMBERS * (4.0 - place if other_corner else place) for place in (start, end, at))
    numbers = (
        RailNumber(Rail.HEAD, start, figure(a, 1), "cue"),
        RailNumber(Rail.HEAD, end, figure(b, 1), "zero"),
        RailNumber(Rail.FOOT, at, figure(mark, 1), "aim"),
        *_scale(Rail.FOOT, other_corner=other_corner, taken=(at,)),
        *_scale(Rail.HEAD, other_corner=other_corner, taken=(start, end)),
    )
    both = round(a, 1) + round(b, 1)
    steps = (f"{figure(a, 1)} + {figure(b, 1)} = {figure(both, 1)}", halved(both, 1))
    corner = view.name(Rail.FAR if other_corner else Rail.NEAR)
    say = (
        f"Both short rails count from the {corner} rail. The cue ball lies on a line from {figure(a, 1)}, the way back "
        f"to {ball} ends at {figure(b, 1)}; half the sum, {figure(mark, 1)}, is the mark on the {view.name(Rail.FOOT)} "
        "rail."
    )
    frame = "sight" if view.layout.table.has_diamonds else "nose"
    own = Own(round(both, 1) / 2, (-1 if other_corner else 1) / NUMBERS)
    return Draft(at, frame, Stroke(SPEED), numbers, steps, say, ADJUST, own)


def _scale(rail: Rail, *, other_corner: bool, taken: tuple[float, ...]) -> list[RailNumber]:
    """A short rail's tens, but for those that would lie on a number written there."""
    tens = [(float(k), str(40 - 10 * k if other_corner else 10 * k)) for k in range(5)]
    return [RailNumber(rail, at, label) for at, label in tens if min(abs(at - other) for other in taken) > 0.3]


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust: on a table that plays short one number, or half of one, towards the target's is tried."""
    if found.lands.side != "short" or found.own is None:
        return ADJUST
    at = getattr(found.aim, found.frame)
    way = math.copysign(1.0, next(n.at for n in found.numbers if n.role == "zero") - at)
    aiming = Aiming(layout, found.rails, found.frame, found.stroke, (target.x, target.y))
    tried = [(word, aiming.play(at + way * part / NUMBERS)[2]) for word, part in (("half a number", 0.5), ("one", 1.0))]
    arrived = [(abs(lands.off), word, lands.where) for word, lands in tried if lands is not None]
    if not arrived or min(arrived)[0] > abs(found.lands.off) - ON / 2:
        return ADJUST
    _, word, where = min(arrived)
    return f"Here it comes {found.lands.where}: aimed {word} towards the target's number it lands {where}."
