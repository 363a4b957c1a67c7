"""M4, track numbers in tens: find the n whose track n → n/2 passes through the cue ball.

Zero at the target on the shooter's long rail, 10 a diamond towards the cue ball, on round the corner
along the end rail; the opposite rail mirrors the numbers. Start number and aim number are both read at the
sights. Found, not shifted: shifting the neighbour 20 → 10 is a number out for a ball on 24. Common practice, no
published source.
"""

from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Draft, Own, RailNumber, View, figure, halved
from fandle.core.systems.tracks import track_through
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M4"
TITLE = "Tracks in tens"
ORDERS = ((Rail.FAR,),)
SPEED = 2.5  # m/s: the tracks of 15 to 40 land up to 0.15 short
CORNER = 40.0  # tracks from beyond the corner of the usual zero, a side pocket, come short
QUARTER_TIP = 0.0875  # radii of running side that help them, at FAR_OUT and beyond; less nearer to the corner
FAR_OUT = 54.0
LEAST, MOST = 2.0, 80.0  # the numbers of the rails


def count(view: View) -> Draft | str:
    """The track through the cue ball, and half its number."""
    target, ball = view.target, spoken(view.target.id)
    if view.off(target, Rail.NEAR) > ON_RAIL:
        return f"{ball} must lie on the {view.name(Rail.NEAR)} rail or close to it, to be the zero"
    zero = target.x
    back_x, back_y = view.sight
    if view.layout.table.sight_setback is None:
        return "the table has no sights to read the number at"

    def start(n: float) -> tuple[float, float]:
        along = n / 10
        return (zero - along, -back_y) if along <= zero else (-back_x, along - zero)

    def aim(n: float) -> tuple[float, float]:
        return zero - n / 20, 4.0 + back_y

    n = track_through(view.cue, start, aim, LEAST, min(10 * (zero + 4.0), MOST))
    if n is None:
        return f"no track of {figure(LEAST, 0)} to {figure(MOST, 0)} passes through the cue ball"
    half = figure(round(n, 1) / 2)  # of the number as it is written
    numbers = _numbers(zero, n, half)
    steps = (halved(n, 1),)
    say = (
        f"Zero is {ball}; sighted from diamond to diamond, the track of {figure(n, 1)} passes through the cue ball. "
        f"Sight {half} on the {view.name(Rail.FAR)} rail, {figure(n / 20)} diamonds from opposite {ball}."
    )
    side = QUARTER_TIP * min(max(n - CORNER, 0.0) / (FAR_OUT - CORNER), 1.0)
    adjust = (
        "From beyond 40 the track comes short: up to a quarter tip of running side, and no more, helps."
        if side
        else "One number at the aim rail is two at the target: find the track, do not shift one."
    )
    own = Own(round(n, 1) / 2, -0.1)
    return Draft(zero - n / 20, "sight", Stroke(SPEED, side), tuple(numbers), steps, say, adjust, own)


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
