"""M6, projected equal angles: cue ball and target at different distances, by similar triangles.

mark = x_c + (x_t − x_c)·d_c/(d_c + d_t), distances to where the ball's centre turns, read there.
Exact for mirrors. "Project, then halve" is its hand approximation. Common practice, no published source.
"""

from fandle.core.systems.base import Draft, RailNumber, View, figure, paced
from fandle.core.systems.hands import HandStep, ghost, on, remember, sight, span
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M6"
TITLE = "Projected angles"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LENGTHS = 2.75
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
    share = here / (here + there)
    at = view.mirror_mark(view.radius)
    numbers = (
        RailNumber(rail, view.along(cue), "0", "zero"),
        RailNumber(rail, view.along(target), figure(aside), "cue"),
        RailNumber(rail, at, figure(aside * share), "aim"),
    )
    steps = (
        f"{figure(here)} ÷ ({figure(here)} + {figure(there)}) = {figure(share, 3)}",
        f"{figure(aside)} × {figure(share, 3)} = {figure(round(aside, 2) * round(share, 3))}",
    )
    say = (
        f"The cue ball is {figure(here)}, {ball} {figure(there)} {table.marks} from where a ball turns at the "
        f"{view.name(rail)} rail; they lie {figure(aside)} apart along it. The mark is {figure(aside * share)} on from "
        "the cue ball, where the ball's centre turns."
    )
    adjust = "By eye: carry one ball along its own line to the level of the other, then halve."
    return Draft(at, "centre", paced(table, LENGTHS), numbers, steps, say, adjust)


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """Two distances from the rail, one ball carried to the other's level, the half, and the share."""
    cue, target, rail = view.cue, view.target, view.rail
    ball, first = spoken(target.id), view.name(rail)
    here, there = view.off(cue) - view.radius, view.off(target) - view.radius
    x_c, x_t = view.along(cue), view.along(target)
    deeper, other = (target, cue) if there > here else (cue, target)
    carried = rail.point(view.along(deeper), rail.across(other.x, other.y))
    middle = (x_c + x_t) / 2
    share = abs(draft.at - x_c)
    turn = -view.radius  # a ball turns that much before the nose
    return (
        HandStep(
            f"Look how far both balls lie from the {first} rail, to where a ball turns: the cue ball {figure(here)}, "
            f"{ball} {figure(there)}.",
            "the two distances",
            (span((cue.x, cue.y), on(view, x_c, turn)), span((target.x, target.y), on(view, x_t, turn))),
        ),
        HandStep(
            f"Carry {spoken(deeper.id)} along its own line to the level of {spoken(other.id)}.",
            "its place along the rail",
            (ghost(carried), sight((deeper.x, deeper.y), carried)),
        ),
        HandStep(
            f"Halve the way between the two: {figure(view.shown(rail, middle))}. That is the mark by eye.",
            "",
            (span(on(view, x_c, turn), on(view, x_t, turn)), ghost(on(view, middle, turn))),
        ),
        HandStep(
            f"The exact mark lies nearer to the ball that is nearer to the rail: {figure(share)} of the "
            f"{figure(abs(x_t - x_c))} on from the cue ball.",
            "",
            (span(on(view, x_c, turn), on(view, draft.at, turn)),),
        ),
        remember(view, draft.at, turn),
    )
