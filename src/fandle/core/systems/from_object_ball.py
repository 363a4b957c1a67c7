"""M9, seen from the object ball: the same mark, read from the other end of the line.

For a cue ball close to the cushion, where its own end of the line is hard to see. The mirror lies in
the nose. Common practice, no published source.
"""

from fandle.core.systems.base import Draft, RailNumber, View, added, figure
from fandle.core.systems.hands import HandStep, finger, ghost, on, remember, shaft, sight
from fandle.core.systems.taught import by_eye
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M9"
TITLE = "From the object ball"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))


def count(view: View) -> Draft | str:
    """The mark as it is counted from the target."""
    target, rail, ball = view.target, view.rail, spoken(view.target.id)
    at = view.mirror_mark()
    back = view.along(target) - at
    marks = view.layout.table.marks
    angle = view.angle(at)
    numbers = (RailNumber(rail, at, f"{angle:.0f}°", "aim"),)
    place = view.shown(rail, view.along(target))
    steps = (f"seen from {ball}: in {angle:.0f}° = out {angle:.0f}°", added(place, view.shown(rail, at) - place))
    say = (
        f"Stand behind {ball} and look at the cue ball in the {view.name(rail)} rail as in a mirror: it shows "
        f"{figure(back)} {marks} from opposite {ball}. Remember that mark, go round, and shoot at it."
    )
    adjust = "Best when the cue ball is close to a cushion: the longer half of the line is easier to see."
    return Draft(at, "nose", by_eye(view), numbers, steps, say, adjust)


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """The line looked at from the target's end, and the mark carried round the table."""
    cue, target, rail = view.cue, view.target, view.rail
    ball, first = spoken(target.id), view.name(rail)
    image = on(view, view.along(cue), view.off(cue))
    mark = on(view, draft.at)
    return (
        HandStep(
            f"Go behind {ball} and look over it at the {first} rail.",
            f"your eye above {ball}",
            (sight((target.x, target.y), mark),),
        ),
        HandStep(
            "Think of the rail as a mirror: the cue ball shows as far behind it as it lies before it.",
            "",
            (ghost(image), sight((cue.x, cue.y), on(view, view.along(cue)), image)),
        ),
        HandStep(
            f"Lay the shaft over {ball} towards that image: it crosses the {first} rail "
            f"{figure(abs(view.along(target) - draft.at))} from opposite {ball}.",
            "the place where it crosses",
            (shaft((target.x, target.y), image), finger(mark)),
        ),
        remember(view, draft.at),
    )
