"""M18, the product: short, long, short. Cue number times scoring number is tenths of a diamond.

Cue number 5 − x/2 on the cue ball's long rail (near); scoring number on the third rail (head) 0 in the corner
with the opposite long rail, 2 a diamond; the product in tenths along the first short rail (foot) from
its corner with the cue ball's long rail. Ordinary running side. Common practice, no published source.
"""

from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import ON_RAIL, Draft, Own, RailNumber, View, figure
from fandle.core.systems.tracks import track_through
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M18"
TITLE = "Product"
ORDERS = ((Rail.FOOT, Rail.FAR, Rail.HEAD),)
SPEED, RUNNING = 3.45, -0.307  # left off foot towards far
LOW, HIGH = 2.0, 5.0  # the numbers of the rail
HANG = 0.15  # a ball in the corner lies a little beyond its number and is counted as standing on it


def count(view: View) -> Draft | str:
    """Cue number times scoring number."""
    target, ball = view.target, spoken(view.target.id)
    if not view.layout.table.has_diamonds:
        return "the table has no sights to read the numbers at"
    if view.off(target, Rail.HEAD) > ON_RAIL:
        return f"{ball} must lie on the {view.name(Rail.HEAD)} rail or close to it, to have a scoring number"
    score = 2 * (4.0 - target.y)
    back_x, _ = view.sight

    def start(n: float) -> tuple[float, float]:
        return 2 * (5.0 - n), 0.0

    def aim(n: float) -> tuple[float, float]:
        return 8.0 + back_x, n * score / 10

    n = track_through(view.cue, start, aim, LOW - HANG, HIGH + HANG)
    if n is None:
        return f"no line to a scoring number of {figure(score, 1)} passes through the cue ball"
    n = min(max(n, LOW), HIGH)
    product = n * score
    at = product / 10
    numbers = [
        RailNumber(Rail.HEAD, target.y, figure(score, 1), "zero"),
        RailNumber(Rail.NEAR, start(n)[0], figure(n, 1), "cue"),
        RailNumber(Rail.FOOT, at, figure(product, 0), "aim"),
    ]
    numbers += [RailNumber(Rail.NEAR, float(x), figure(5 - x / 2)) for x in range(0, 7) if abs(x - start(n)[0]) > 0.4]
    numbers += [RailNumber(Rail.FOOT, float(k), str(10 * k)) for k in range(1, 4) if abs(k - at) > 0.3]
    written = round(round(n, 2) * round(score, 2), 2)  # of the numbers as they are written
    steps = (
        f"{figure(n, 2)} × {figure(score, 2)} = {figure(written)}",
        f"{figure(written)} tenths = {figure(written / 10)}",
    )
    say = (
        f"The cue ball's number is {figure(n, 1)}, {ball} scores at {figure(score, 1)}: the product, "
        f"{figure(product, 0)} tenths of a diamond, is counted on the {view.name(Rail.FOOT)} rail from the "
        f"{view.name(Rail.NEAR)} side."
    )
    adjust = "Ordinary running side, not the most: more brings it back to the third rail too soon."
    return Draft(at, "sight", Stroke(SPEED, RUNNING), tuple(numbers), steps, say, adjust, Own(product, 0.1))
