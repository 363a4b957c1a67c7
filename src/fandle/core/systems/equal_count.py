"""M11, equal count: n diamonds from the target to the cue ball, shoot n on the short rail.

Path: short rail → opposite long rail → target on the cue ball's own long rail. The short rail is
numbered in half diamonds from the corner away from the cue ball's rail: 1, 2, 3 … 9. Target (t, 0), cue
ball level with t + n: aim y = 4 − (n − 1)/2 at the sights; off the rail, the line is moved parallel to the
ball. Core range t 0-3, n 3-6; about one tip of running side. A target on the short rail behind is counted to round
the corner, t = −y, with a touch more. Common practice, no published source; how much more is our own figure.
"""

import math
from dataclasses import replace

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Count, Draft, Own, RailNumber, View, added, figure
from fandle.core.systems.counts_by_cue import by_cue
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M11"
TITLE = "Equal count"
ORDERS = ((Rail.FOOT, Rail.FAR),)
SPEED = 3.0  # m/s
RUNNING = -0.27  # radii: left off foot towards far
ROUND = -0.31  # the same, for a target round the corner
CLOSE, LESS = 1.0, 0.2  # diamonds from the short rail nearer than which it takes less side, radii a diamond
LEAST, MOST = 1.0, 9.0
USUAL = "Play about one tip of running side; without it the ball comes long."
AROUND = "Round the corner it takes a touch more than a tip; with a full one it comes short, past the side pocket."
CLOSE_BY = "So close to the short rail take less side than the usual tip, or it comes short."


def scale(at: float) -> list[RailNumber]:
    """The short rail's numbers in half diamonds, but for those that would lie on the mark at `at`."""
    places = [(4.0 - (k - 1) / 2, str(k)) for k in range(1, 10)]
    return [RailNumber(Rail.FOOT, place, label) for place, label in places if abs(place - at) > 0.3]


def count(view: View) -> Draft | str:
    """The number counted, shot on the short rail."""
    cue, ball = view.cue, spoken(view.target.id)
    table = view.layout.table
    if not table.has_diamonds:
        return "the table has no sights to read the number at"
    zero = zero_of(view)
    if zero is None:
        near, head = view.name(Rail.NEAR), view.name(Rail.HEAD)
        return f"{ball} must lie on the {near} rail or within an inch of it, to be the zero, or on the {head} rail"
    n = cue.x - zero
    if not LEAST <= n <= MOST:
        return f"the count from {ball} to the cue ball is {figure(n)}: it works from {figure(LEAST)} to {figure(MOST)}"
    mark = 4.0 - (n - 1) / 2
    lift = view.lift(Rail.NEAR)
    at = mark + lift
    shot_number = n - 2 * lift
    foot = view.name(Rail.FOOT)
    steps = [f"{figure(n)} from {ball} to the cue ball = {figure(n)}"]
    along = f"along the {view.name(Rail.NEAR)} rail"
    if zero < 0.0:
        along = f"along the {view.name(Rail.HEAD)} rail to the corner and on {along}"
    say = (
        f"Count from {ball} {along} to the cue ball: {figure(n)}. The {foot} rail "
        f"counts in half diamonds, 1 in the corner with the {view.name(Rail.FAR)} rail: sight its {figure(n)}."
    )
    if lift > 0.005:
        steps.append(f"moved {figure(lift)} parallel: {added(n, -2 * lift)}")
        say += f" The cue ball lies {figure(lift)} off the rail: move the line parallel to it."
    side = (RUNNING if zero >= 0.0 else ROUND) + LESS * max(CLOSE - (8.0 - cue.x), 0.0)
    adjust = USUAL if side == RUNNING else AROUND if side == ROUND else CLOSE_BY
    numbers = (*_numbers(view, zero), RailNumber(Rail.FOOT, at, figure(shot_number), "aim"), *scale(at))
    return Draft(at, "sight", Stroke(SPEED, side), numbers, tuple(steps), say, adjust, Own(shot_number, -0.5))


def zero_of(view: View) -> float | None:
    """Where the count begins, diamonds along near from the corner with head; negative round it, on the head rail."""
    target = view.target
    if view.off(target, Rail.NEAR) <= ON_RAIL:
        return target.x
    return -target.y if view.off(target, Rail.HEAD) <= ON_RAIL else None


def _numbers(view: View, zero: float) -> list[RailNumber]:
    """Zero, the cue ball's number, and the diamonds between them, round the corner where the count goes there."""
    n = view.cue.x - zero

    def at(number: float, label: str, role: str = "scale") -> RailNumber:
        along = zero + number
        return RailNumber(Rail.NEAR if along >= 0.0 else Rail.HEAD, abs(along), label, role)

    between = [at(float(k), str(k)) for k in range(1, 10) if zero + k < view.cue.x - 0.3]
    return [at(0.0, "0", "zero"), at(n, figure(n), "cue"), *between]


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust: players add side for small counts, the engine does not; both are told, with the figures."""
    begins = next(n for n in found.numbers if n.role == "zero")
    if not begins.rail.is_long:  # round the corner; the figures are of counts along one rail
        return found.adjust
    zero = found.rails[1].along(target.x, target.y)
    stroke = replace(found.stroke, side=math.copysign(RUNNING, found.stroke.side))
    played = by_cue(layout, found, zero, (target.x, target.y), stroke)
    if not played:
        return found.adjust
    return f"{found.adjust} Players add a little side for small counts. Played on this table with one tip, {played}."
