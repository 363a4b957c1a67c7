"""M14, corner numbers: the cue ball's number less the third rail's is the first rail's.

Cue number 50 in the head-near corner, 5 less a diamond along near, 10 more a diamond along head;
first (far) and third (near) rails 10 a diamond from the foot end. Sighted; about one tip of
running side and a little follow, firm. Common practice, no published source.
"""

from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Draft, Own, RailNumber, View, figure, track_through
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M14"
TITLE = "Corner numbers"
ORDERS = ((Rail.FAR, Rail.FOOT, Rail.NEAR),)
SPEED, RUNNING, FOLLOW = 4.0, 0.40, 0.20
LOW, CORNER, HIGH = 15.0, 50.0, 90.0


def count(view: View) -> Draft | str:
    """Cue number less third number."""
    target, ball = view.target, spoken(view.target.id)
    if not view.layout.table.has_diamonds:
        return "the table has no sights to read the numbers at"
    if view.off(target, Rail.NEAR) > ON_RAIL:
        return f"{ball} must lie on the {view.name(Rail.NEAR)} rail or close to it, to have a third number"
    third = 10 * (8.0 - target.x)
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
    numbers = [
        RailNumber(Rail.NEAR, target.x, figure(third, 1), "zero"),
        RailNumber(Rail.FAR, 8.0 - first / 10, figure(first, 1), "aim"),
    ]
    where, at = (Rail.HEAD, start(n)[1]) if n > CORNER else (Rail.NEAR, start(n)[0])
    numbers.append(RailNumber(where, at, figure(n, 1), "cue"))
    numbers += [RailNumber(Rail.FAR, 8.0 - k, str(10 * k)) for k in range(1, 8) if abs(10 * k - first) > 3]
    numbers += [RailNumber(Rail.NEAR, float(k), str(50 - 5 * k)) for k in range(0, 4) if abs(50 - 5 * k - n) > 2]
    steps = (f"{figure(n, 1)} − {figure(third, 1)} = {figure(round(n, 1) - round(third, 1), 1)}",)
    say = (
        f"The cue ball's number is {figure(n, 1)}, {ball} lies at {figure(third, 1)} on the third rail: sight "
        f"{figure(first, 1)} on the {view.name(Rail.FAR)} rail, ten a diamond from the {view.name(Rail.FOOT)} end."
    )
    adjust = (
        "About one tip of running side, a little follow, firm. Damp cloth plays short: half a diamond is the usual "
        "first correction."
    )
    stroke, own = Stroke(SPEED, RUNNING, FOLLOW), Own(first, -0.1)
    return Draft(8.0 - first / 10, "sight", stroke, tuple(numbers), steps, say, adjust, own)
