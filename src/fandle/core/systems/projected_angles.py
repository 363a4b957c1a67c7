"""M6, projected equal angles: cue ball and target at different distances, by similar triangles.

mark = x_c + (x_t − x_c)·d_c/(d_c + d_t), distances to where the ball's centre turns, read there.
Exact for mirrors. By hand: hold the equal angles at the target's level and move the mark until the cue ball lies under
the line in; "project, then halve" is a rougher way. Common practice, no published source.
"""

from fandle.core.systems.base import Draft, RailNumber, View, figure
from fandle.core.systems.hands import HandStep, finger, ghost, on, remember, shaft, sight, span
from fandle.core.systems.taught import by_eye
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M6"
TITLE = "Projected angles"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LEAST = 0.25  # diamonds: less than this is no count


def count(view: View) -> Draft | str:
    """The share of the way that falls to the cue ball."""
    cue, target, rail, ball = view.cue, view.target, view.rail, spoken(view.target.id)
    table = view.layout.table
    here, there = view.off(cue) - view.radius, view.off(target) - view.radius
    aside = view.along(target) - view.along(cue)
    if aside < LEAST:
        return f"{ball} lies straight opposite the cue ball: nothing to project"
    if here + there < 2 * view.radius:
        return f"both balls lie on the {view.name(rail)} rail: there is no angle to project"
    share, fine = here / (here + there), 2 if here + there >= 1.0 else 3  # digits, so that it adds up on the page
    at = view.mirror_mark(view.radius)
    numbers = (
        RailNumber(rail, view.along(cue), "0", "zero"),
        RailNumber(rail, view.along(target), figure(aside), "cue"),
        RailNumber(rail, at, figure(aside * share), "aim"),
    )
    steps = (
        f"{figure(here, fine)} ÷ ({figure(here, fine)} + {figure(there, fine)}) = {figure(share, 3)}",
        f"{figure(aside)} × {figure(share, 3)} = {figure(round(aside, 2) * round(share, 3))}",
    )
    say = (
        f"The cue ball is {figure(here)}, {ball} {figure(there)} {table.marks} from where a ball turns at the "
        f"{view.name(rail)} rail; they lie {figure(aside)} apart along it. The mark is {figure(aside * share)} on from "
        "the cue ball, where the ball's centre turns."
    )
    adjust = (
        f"By eye: hold the equal angles at {ball}'s level and move the mark until the cue ball lies under the line in. "
        "Projecting one ball to the other's level and halving is a rougher way."
    )
    return Draft(at, "centre", by_eye(view), numbers, steps, say, adjust)


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """The equal angles held at the target's level, and the mark moved until the cue ball lies under the line in."""
    cue, target, rail = view.cue, view.target, view.rail
    ball, first = spoken(target.id), view.name(rail)
    x_c, x_t = view.along(cue), view.along(target)
    turn = -view.radius  # a ball turns that much before the nose
    tried = (x_c + x_t) / 2

    def held(mark: float) -> Point:
        return rail.point(2 * mark - x_t, rail.across(target.x, target.y))

    return (
        HandStep(
            f"Stand behind {ball} and choose a mark on the {first} rail, say half-way. At {ball}'s level find the "
            f"place as far on the other side: from there the line in has the same angle as the line out to {ball}.",
            f"the level of {ball}",
            (span((target.x, target.y), on(view, tried, turn)), finger(held(tried))),
        ),
        HandStep(
            "Look from that place to the mark: does the cue ball lie under the line?",
            "",
            (sight(held(tried), on(view, tried, turn)), ghost((cue.x, cue.y))),
        ),
        HandStep(
            "Move the mark, and the place twice as far with it, until the cue ball lies under the line. It is exact, "
            "and nothing is carried over.",
            "both angles alike",
            (finger(held(draft.at)), shaft(held(draft.at), on(view, draft.at, turn), (target.x, target.y))),
        ),
        remember(view, draft.at, turn),
    )
