"""M3, halving and the natural line: a long count n pairs with n/2 on the aim rail.

Level with the target the sum is n ÷ 2. Off the level, take the pair of whole or half numbers
nearest to the ball and shift it parallel through the ball. Common practice, no published source.
Read at the nose, played plain; the longer the count the firmer the stroke.
"""

import math

from fandle.core.systems.base import Draft, Own, RailNumber, View, added, figure, halved
from fandle.core.systems.hands import HandStep, finger, on, remember, shaft, span
from fandle.core.systems.taught import paced
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M3"
TITLE = "Halving count"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LEVEL = 0.1  # diamonds, one segment: nearer than this the balls count as level
LEAST = 0.25  # diamonds: less than this is no count
PAIR = 0.5  # pairs are whole and half numbers
APART = 0.35  # diamonds: a number of the scale nearer to the sum's own is left out
NO_PAIR = 1.5  # diamonds: farther away the pair has nothing to do with the ball
NO_SHIFT = 0.005  # diamonds: a shift that would be written 0
FAR_SHIFT = 0.5  # diamonds: shifting a pair farther than this misses badly
FRAME = "nose"
SHORT_LENGTHS, LONG_LENGTHS = 2.5, 2.75  # medium, firmer: lands within 0.1 for n 2-5
SHORT_COUNT, LONG_COUNT = 3.0, 5.0


def lengths_for(n: float) -> float:
    """Table lengths to strike with: firmer for a longer count."""
    part = min(max((n - SHORT_COUNT) / (LONG_COUNT - SHORT_COUNT), 0.0), 1.0)
    return SHORT_LENGTHS + part * (LONG_LENGTHS - SHORT_LENGTHS)


def count(view: View) -> Draft | str:
    """The halving count over the view's rail."""
    cue, target, rail = view.layout.cue, view.target, view.rail
    ball = spoken(target.id)
    zero, off_t, off_c = view.along(target), view.off(target), view.off(cue)
    aside = view.along(cue) - zero
    if abs(aside) < LEAST:
        return f"{ball} lies straight opposite the cue ball: nothing to count"
    if view.at_edge(target):
        return f"{ball} hangs over the edge of the {view.name(rail)} rail: no pair comes off that rail to it"
    way = math.copysign(1.0, aside)
    if abs(off_c - off_t) <= LEVEL:
        n = abs(aside)
        at = zero + way * n / 2
        shift = 0.0
        steps: tuple[str, ...] = (halved(n),)
        say = (
            f"{figure(n)} {view.layout.table.marks} from {ball} back to the cue ball; "
            f"shoot {figure(n / 2)} from {ball} on the {view.name(rail)} rail."
        )
    else:
        n, shift = _shifted_pair(view, aside)
        at = zero + way * (n / 2 + shift)
        steps = (
            halved(n),
            added(n / 2, shift),
        )
        if abs(shift) < NO_SHIFT:
            steps = steps[:1]
        say = _say_pair(view, n, shift)
        if n == 0.0 or n / 2 + shift <= 0.0 or abs(shift) > NO_PAIR:
            return f"no whole or half pair passes near the cue ball: {ball} is too far off the level"
    adjust = "A little long at a soft stroke, most on a long count: play it firmer the longer it is."
    numbers = numbers_of(view, zero, way, n, shift, at)
    stroke, own = paced(view.layout.table, lengths_for(n)), Own(n / 2 + shift, way)
    return Draft(at, FRAME, stroke, numbers, steps, say, adjust, own)


def _say_pair(view: View, n: float, shift: float) -> str:
    """The pair nearest to the cue ball and its parallel shift, in words."""
    ball, rail = spoken(view.target.id), view.name(view.rail)
    if abs(shift) < NO_SHIFT:
        return (
            f"The line {figure(n)} to {figure(n / 2)} passes through the cue ball: shoot {figure(n / 2)} from {ball} "
            f"on the {rail} rail."
        )
    where = "away from" if shift >= 0 else "towards"
    say = (
        f"The line {figure(n)} to {figure(n / 2)} passes nearest; shifted {figure(abs(shift))} "
        f"{where} {ball}, through the cue ball, it shoots {figure(n / 2 + shift)} from {ball} "
        f"on the {rail} rail."
    )
    return say + " That is a long shift: expect to miss." if abs(shift) > FAR_SHIFT else say


def level_at(n: float, share: float) -> float:
    """Where the line n -> n/2 passes the ball's level, diamonds from zero.

    share: the ball's distance from the aim rail over zero's.
    """
    return n / 2 * (1 + share)


def _shifted_pair(view: View, aside: float) -> tuple[float, float]:
    """(number, shift) of the pair nearest to the cue ball. aside: signed diamonds from zero to it along the rail."""
    zero, share = view.along(view.target), view.off(view.cue) / view.off(view.target)
    n = nearest_pair(abs(aside), share, zero if aside < 0 else view.whole - zero)  # the numbers end with the rail
    return n, abs(aside) - level_at(n, share)


def nearest_pair(aside: float, share: float, most: float) -> float:
    """The whole or half number up to `most` whose line passes nearest to the ball; 0 where there is none."""
    exact = 2 * aside / (1 + share)
    low = math.floor(exact / PAIR) * PAIR
    inside = [n for n in (low, low + PAIR) if n <= most] or [math.floor(most / PAIR) * PAIR]
    return min(inside, key=lambda n: abs(aside - level_at(n, share)))


def numbers_of(view: View, zero: float, way: float, n: float, shift: float, at: float) -> tuple[RailNumber, ...]:
    """Zero, the pair's two numbers, and the scale on both rails."""
    start = zero + way * (n + shift)
    both = [
        RailNumber(view.opposite, zero, "0", "zero"),
        RailNumber(view.opposite, min(max(start, 0.0), view.whole), figure(n), "cue"),
        RailNumber(view.rail, at, figure(n / 2 + shift), "aim"),
    ]
    for k in range(1, math.ceil(n) + 1):
        place = zero + way * k
        if 0 <= place <= view.whole:
            if abs(place - start) > APART:
                both.append(RailNumber(view.opposite, place, figure(k)))
            if abs(place - at) > APART and k <= n / 2 + 2:
                both.append(RailNumber(view.rail, place, figure(k)))
    return tuple(both)


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """Fingers for the count, the shaft for the pair and its parallel shift."""
    zero, behind = view.along(view.target), view.opposite
    first = HandStep(
        f"Put a finger on the {view.name(behind)} rail opposite {spoken(view.target.id)}: that is zero.",
        "",
        (finger(on(view, zero, 0, behind)),),
    )
    level = abs(view.off(view.cue) - view.off(view.target)) <= LEVEL
    return (first, *(_walk if level else _lay)(view, draft), remember(view, draft.at))


def _walk(view: View, draft: Draft) -> list[HandStep]:
    """Level with the target: counted along the rail, and half of it."""
    zero, behind = view.along(view.target), view.opposite
    n = abs(draft.at - zero) * 2
    back, half = on(view, view.along(view.cue), 0, behind), on(view, draft.at)
    return [
        HandStep(
            f"Walk along the rail to the cue ball, counting: {figure(n)}.",
            f"the count, {figure(n)}",
            (span(on(view, zero, 0, behind), back),),
        ),
        HandStep(
            f"From opposite {spoken(view.target.id)} on the {view.name(view.rail)} rail walk half of it: "
            f"{figure(n / 2)}.",
            f"the half, {figure(n / 2)}",
            (span(on(view, zero), half),),
        ),
    ]


def _lay(view: View, draft: Draft) -> list[HandStep]:
    """Off the level: the shaft along the nearest pair, then moved parallel through the cue ball."""
    target, rail, ball = view.target, view.rail, spoken(view.target.id)
    zero, aside = view.along(target), view.along(view.cue) - view.along(target)
    way = math.copysign(1.0, aside)
    pair, shift = _shifted_pair(view, aside)
    start, mark = rail.point(zero + way * pair, rail.across(target.x, target.y)), on(view, zero + way * pair / 2)
    steps = [
        HandStep(
            f"Lay the shaft from {figure(pair)}, level with {ball}, to {figure(pair / 2)} on the {view.name(rail)} "
            "rail: the natural pair nearest to the cue ball.",
            "the direction of the shaft",
            (shaft(start, mark),),
        )
    ]
    if abs(shift) >= NO_SHIFT:
        where = "away from" if shift > 0 else "towards"
        moved = start[0] + way * shift * rail.is_long, start[1] + way * shift * (not rail.is_long)
        steps.append(
            HandStep(
                f"Move it parallel, {figure(abs(shift))} {where} {ball}, until it lies through the cue ball's middle."
                + (" More than half is far: expect to miss." if abs(shift) > FAR_SHIFT else ""),
                "the direction of the shaft",
                (span(mark, on(view, draft.at)), shaft(moved, on(view, draft.at))),
            )
        )
    return steps
