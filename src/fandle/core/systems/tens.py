"""M4, track numbers in tens: find the n whose track n → n/2 passes through the cue ball.

Zero at the target on the shooter's long rail, 10 a diamond towards the cue ball, on round the corner
along the end rail; the opposite rail mirrors the numbers. From the nose at the start, sighted at the aim. Found,
not shifted: shifting 20 → 10 to a ball on 24 gives 13 where its own track gives 12. Common practice,
no published source.
"""

from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Draft, RailNumber, View, figure, halved, track_through
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M4"
TITLE = "Tracks in tens"
ORDERS = ((Rail.FAR,),)
SPEED = 3.0  # m/s: the tracks of 15 to 40 land within a tenth
CORNER = 40.0  # tracks from beyond the corner of the usual zero, a side pocket, come short
QUARTER_TIP = 0.0875  # radii of running side that help them
LEAST, MOST = 2.0, 80.0  # the numbers of the rails


def count(view: View) -> Draft | str:
    """The track through the cue ball, and half its number."""
    target, ball = view.target, spoken(view.target.id)
    if view.off(target, Rail.NEAR) > ON_RAIL:
        return f"{ball} must lie on the {view.name(Rail.NEAR)} rail or close to it, to be the zero"
    zero = target.x
    _, back_y = view.sight
    if view.layout.table.sight_setback is None:
        return "the table has no sights to read the number at"

    def start(n: float) -> tuple[float, float]:
        along = n / 10
        return (zero - along, 0.0) if along <= zero else (0.0, along - zero)

    def aim(n: float) -> tuple[float, float]:
        return zero - n / 20, 4.0 + back_y

    n = track_through(view.cue, start, aim, LEAST, min(10 * (zero + 4.0), MOST))
    if n is None:
        return f"no track of {figure(LEAST, 0)} to {figure(MOST, 0)} passes through the cue ball"
    half = figure(round(n, 1) / 2)  # of the number as it is written
    numbers = _numbers(zero, n, half)
    steps = (halved(n, 1),)
    say = (
        f"Zero is {ball}; the track of {figure(n, 1)} passes through the cue ball. Sight {half} on the "
        f"{view.name(Rail.FAR)} rail, {figure(n / 20)} diamonds from opposite {ball}."
    )
    far_out = n > CORNER
    adjust = (
        "From beyond 40 the track comes short: a quarter tip of running side, and no more, helps."
        if far_out
        else "Half a number at the aim rail is a whole one at the target: find the track, do not shift one."
    )
    return Draft(
        zero - n / 20, "sight", Stroke(SPEED, QUARTER_TIP if far_out else 0.0), tuple(numbers), steps, say, adjust
    )


def _numbers(zero: float, n: float, half: str) -> list[RailNumber]:
    """Zero, the track's two numbers, and the tens of both rails."""
    numbers = [RailNumber(Rail.NEAR, zero, "0", "zero"), RailNumber(Rail.FAR, zero - n / 20, half, "aim")]
    where, at = (Rail.HEAD, n / 10 - zero) if n > 10 * zero else (Rail.NEAR, zero - n / 10)
    numbers.append(RailNumber(where, at, figure(n, 1), "cue"))
    for k in range(1, 8):
        if k <= zero:
            numbers.append(RailNumber(Rail.NEAR, zero - k, str(10 * k)))
        if k <= min(4, zero):
            numbers.append(RailNumber(Rail.FAR, zero - k, str(10 * k)))
    return numbers
