"""M14, corner numbers: the cue ball's number less the third rail's is the first rail's.

Cue number 50 in the head-near corner, 5 less a diamond along near, 10 more a diamond along head;
first (far) and third (near) rails 10 a diamond from the foot end. Sighted; about one tip of
running side and a little follow, firm. A ball may also lie where a track ends after the third rail: on the far or
the head rail near their corner, or in it. Common practice, no published source; where which track ends is our own
figure, played on the default table with a house cue from starts of 35 to 60.
"""

import numpy as np

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Count, Draft, Own, RailNumber, View, figure
from fandle.core.systems.tracks import track_through
from fandle.core.systems.weather import weather
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M14"
TITLE = "Corner numbers"
ORDERS = ((Rail.FAR, Rail.FOOT, Rail.NEAR),)
SPEED, RUNNING, FOLLOW = 4.0, 0.40, 0.20
LOW, CORNER, HIGH = 15.0, 50.0, 90.0
# where the tracks end after the third rail, diamonds from the corner of head and far: + along far, − along head
ENDS = (-1.63, -1.43, -1.2, -0.97, -0.7, -0.42, 0.0, 0.66, 1.45, 2.3)
THIRDS = (50.0, 45.0, 40.0, 35.0, 30.0, 25.0, 20.0, 15.0, 10.0, 5.0)


def third_number(view: View) -> float | str:
    """The target's number on the third rail, its own or that of the track which ends at it; why not, if it has none."""
    target = view.target
    if view.off(target, Rail.NEAR) <= ON_RAIL:
        return 10 * (8.0 - target.x)
    far, head = view.off(target, Rail.FAR), view.off(target, Rail.HEAD)
    end = target.x - view.ball_across(Rail.HEAD) if far <= head else view.ball_across(Rail.FAR) - (4.0 - target.y)
    if min(far, head) <= ON_RAIL and ENDS[0] <= end <= ENDS[-1]:
        return float(np.interp(end, ENDS, THIRDS))
    near, corner = view.name(Rail.NEAR), f"{view.name(Rail.HEAD)}-{view.name(Rail.FAR)}"
    return (
        f"{spoken(target.id)} must lie on the {near} rail, to have a third number, or where a track ends: in the "
        f"{corner} corner or on a rail near it"
    )


def lies(view: View, third: float) -> str:
    """Where the target lies, in words, by its third number."""
    ball = spoken(view.target.id)
    if view.off(view.target, Rail.NEAR) <= ON_RAIL:
        return f"{ball} lies at {figure(third, 1)} on the third rail"
    return f"{ball} lies where the track with the third number {figure(third, 1)} ends"


def third_marks(view: View, third: float) -> list[RailNumber]:
    """The third number at its place, and the end of the track where the target does not lie at it."""
    marks = [RailNumber(Rail.NEAR, 8.0 - third / 10, figure(third, 1), "zero")]
    if view.off(view.target, Rail.NEAR) > ON_RAIL:
        rail = Rail.FAR if view.off(view.target, Rail.FAR) <= view.off(view.target, Rail.HEAD) else Rail.HEAD
        marks.append(RailNumber(rail, rail.along(view.target.x, view.target.y), "end"))
    return marks


def count(view: View) -> Draft | str:
    """Cue number less third number."""
    if not view.layout.table.has_diamonds:
        return "the table has no sights to read the numbers at"
    third = third_number(view)
    if isinstance(third, str):
        return third
    _, back_y = view.sight

    def start(n: float) -> tuple[float, float]:
        return ((CORNER - n) / 5, 0.0) if n <= CORNER else (0.0, (n - CORNER) / 10)

    def aim(n: float) -> tuple[float, float]:
        return 8.0 - (n - third) / 10, 4.0 + back_y

    n = track_through(view.cue, start, aim, LOW, HIGH)
    if n is None:
        return f"no line to a third number of {figure(third, 1)} passes through the cue ball"
    first = n - third
    if first < 0.0:
        return f"{figure(n, 1)} − {figure(third, 1)} is less than nothing: the cue ball lies too far up the table"
    numbers = [*third_marks(view, third), RailNumber(Rail.FAR, 8.0 - first / 10, figure(first, 1), "aim")]
    where, at = (Rail.HEAD, start(n)[1]) if n > CORNER else (Rail.NEAR, start(n)[0])
    numbers.append(RailNumber(where, at, figure(n, 1), "cue"))
    numbers += [RailNumber(Rail.FAR, 8.0 - k, str(10 * k)) for k in range(1, 8) if abs(10 * k - first) > 3]
    numbers += [RailNumber(Rail.NEAR, float(k), str(50 - 5 * k)) for k in range(0, 4) if abs(50 - 5 * k - n) > 2]
    steps = (f"{figure(n, 1)} − {figure(third, 1)} = {figure(round(n, 1) - round(third, 1), 1)}",)
    say = (
        f"The cue ball's number is {figure(n, 1)}, {lies(view, third)}: sight "
        f"{figure(first, 1)} on the {view.name(Rail.FAR)} rail, ten a diamond from the {view.name(Rail.FOOT)} end."
    )
    adjust = (
        "About one tip of running side, a little follow, firm. What a table does by itself, often about half a "
        "diamond, one test shot shows: carry it to the other tracks."
    )
    stroke, own = Stroke(SPEED, RUNNING, FOLLOW), Own(first, -0.1)
    return Draft(8.0 - first / 10, "sight", stroke, tuple(numbers), steps, say, adjust, own)


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust, with what the weather does to this very line, played."""
    told = weather(layout, found, (target.x, target.y))
    return f"{found.adjust} {told}" if told else found.adjust
