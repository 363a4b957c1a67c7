"""M13, the natural two-cushion escape: no side at all, two cushions that bring the ball there by themselves.

Show it with every other ball hidden, then with the others back. The natural line of the ball's
centre over two rails. Common practice among snooker players, no published source.
"""

from fandle.core.systems.angles_backwards import matched
from fandle.core.systems.base import Draft, View
from fandle.core.systems.taught import by_eye
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M13"
TITLE = "Natural escape"
ORDERS = ((Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR), (Rail.FAR, Rail.NEAR))


def count(view: View) -> Draft | str:
    """The first cushion's mark, plain ball."""
    found = matched(view)
    if isinstance(found, str):
        return found
    first, second = (view.name(rail) for rail in view.rails)
    say = (
        f"No side at all. Take every other ball away in your mind: from the cue ball to the {first} rail, off it to "
        f"the {second} one, on to {spoken(view.target.id)}: two plain rebounds. Now put the others back."
    )
    adjust = "Keep the pace so that the ball still rolls when it arrives, and think of where both will lie."
    return Draft(found.at, "centre", by_eye(view), found.numbers(), found.steps(view), say, adjust)
