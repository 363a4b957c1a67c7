"""M1, equal angles worked backwards: the target's image in the rail, aimed at straight.

The mirror lies in the nose, as the eye takes it: with y_c, y_t the distances from the nose,
mark = x_c + (x_t − x_c)·y_c/(y_c + y_t). Common practice, no published source.
"""

from fandle.core.systems.base import Draft, RailNumber, View
from fandle.core.systems.taught import by_eye
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M1"
TITLE = "Equal angles"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))


def count(view: View) -> Draft | str:
    """The mark at which both angles are alike."""
    at, rail = view.mirror_mark(), view.rail
    angle, name, ball = view.angle(at), view.name(rail), spoken(view.target.id)
    numbers = (RailNumber(rail, at, f"{angle:.0f}°", "aim"),)
    steps = (f"in {angle:.0f}° = out {angle:.0f}°",)
    say = (
        f"Look from {ball} to the {name} rail and match its angle from the cue ball: both are {angle:.0f}° from the "
        f"rail at one mark only. Seen the other way, {ball} stands as far behind the rail as it lies before it."
    )
    adjust = "Soft and rolling it comes long, firm and sliding short: at medium pace the angles are nearly alike."
    return Draft(at, "nose", by_eye(view), numbers, steps, say, adjust)
