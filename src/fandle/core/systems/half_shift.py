"""M7, reference track and half shift: a track one knows, moved by half of what its ends are moved.

The reference: corner → side pocket → corner, across the width. It is only halved from, never played, so the pocket
does not spoil it; head-near corner → far 3 → near 6 is one to shoot. Move the start by s and the mark moves s/2; move
the target by t and it moves t/2. Exact for mirrors in the nose where start and target are equally far from the aim
rail. Common practice, no published source.
"""

from fandle.core.systems.base import Draft, Own, RailNumber, View, figure
from fandle.core.systems.hands import HandStep, on, remember, shaft, span
from fandle.core.systems.taught import by_eye
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M7"
TITLE = "Half shift"
ORDERS = ((Rail.FAR,),)
START, MARK, END = 0.0, 4.0, 8.0  # only halved from
PLAYED = (3.0, 6.0)  # the mark and end of the track from the same corner that is shot
LEVEL = 0.75  # diamonds: how unequal the two distances from the aim rail may be


def count(view: View) -> Draft | str:
    """The reference mark, moved by half of both shifts."""
    cue, target, ball = view.cue, view.target, spoken(view.target.id)
    gap = abs(view.off(cue) - view.off(target))
    if gap > LEVEL:
        return (
            f"the cue ball and {ball} are {figure(gap)} {view.layout.table.marks} apart in their distance from the "
            f"{view.name(Rail.FAR)} rail; the shift needs them within {figure(LEVEL)}"
        )
    if target.x - cue.x < 0.25:
        return f"{ball} lies straight opposite the cue ball: nothing to shift"
    start, end = cue.x - START, target.x - END
    at = MARK + (start + end) / 2
    numbers = (
        RailNumber(Rail.NEAR, START, "start"),
        RailNumber(Rail.NEAR, END, "end"),
        RailNumber(Rail.FAR, MARK, figure(MARK), "zero"),
        RailNumber(Rail.NEAR, cue.x, f"{start:+.2f}".replace("-", "−"), "cue"),
        RailNumber(Rail.FAR, at, figure(at), "aim"),
    )

    def signed(value: float) -> str:
        return f"{'+' if value >= 0 else '−'} {figure(abs(value), 3)}"

    half, other = round(start, 2) / 2, round(end, 2) / 2  # of the numbers as they are written
    steps = (
        f"start {signed(round(start, 2)).replace(' ', '')} ÷ 2 = {figure(half, 3)}",
        f"target {signed(round(end, 2)).replace(' ', '')} ÷ 2 = {figure(other, 3)}",
        f"{figure(MARK)} {signed(half)} {signed(other)} = {figure(MARK + half + other, 3)}",
    )
    head, near, far = (view.name(rail) for rail in (Rail.HEAD, Rail.NEAR, Rail.FAR))
    say = (
        f"The track you know runs from the {head}-{near} corner to {figure(MARK)} on the {far} rail and back to the "
        f"other corner, counted from the {head} end. Your start is {figure(start)} further, {ball} "
        f"{figure(abs(end))} nearer: half of both moves the mark to {figure(at)}."
    )
    mark, back = PLAYED
    adjust = (
        f"That track is only halved from, its mark is a pocket. On a strange table shoot the one from the same corner "
        f"over {figure(mark)} to {figure(back)} once, and carry its error along."
    )
    return Draft(at, "nose", by_eye(view), numbers, steps, say, adjust, Own(at, 1.0))


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """The known track laid down, butt and tip moved one after the other."""
    cue, target, ball = view.cue, view.target, spoken(view.target.id)
    head, near, far = (view.name(rail) for rail in (Rail.HEAD, Rail.NEAR, Rail.FAR))
    start, end = cue.x - START, target.x - END
    first = MARK + start / 2

    def moved(by: float) -> str:
        return f"{figure(abs(by))} {'on' if by >= 0 else 'back'}"

    return (
        HandStep(
            f"Lay the shaft along the track you know: from the {head}-{near} corner to {figure(MARK)} on the {far} "
            "rail, half-way. It comes back to the other corner.",
            "",
            (shaft((START, 0.0), (MARK, 4.0)), shaft((MARK, 4.0), (END, 0.0))),
        ),
        HandStep(
            f"The cue ball lies {figure(start)} on from the corner: move the mark half of that, {moved(start / 2)}.",
            "half of the start's shift",
            (span((START, 0.0), (cue.x, 0.0)), span((MARK, 4.0), (first, 4.0))),
        ),
        HandStep(
            f"{ball[0].upper()}{ball[1:]} lies {moved(end)} from the other corner: move the mark half of that too, "
            f"{moved(end / 2)}.",
            "half of the target's shift",
            (span((END, 0.0), (target.x, 0.0)), span((first, 4.0), (draft.at, 4.0))),
        ),
        HandStep(
            "Lay the shaft from the cue ball to the moved mark and look once along it.",
            "",
            (shaft((cue.x, cue.y), on(view, draft.at)),),
        ),
        remember(view, draft.at),
    )
