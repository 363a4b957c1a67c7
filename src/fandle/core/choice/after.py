"""What comes after the hit, over the player's own errors: where balls stop, what is left to whom; in words, too."""

from dataclasses import dataclass

from fandle.core.choice.field import Field
from fandle.core.choice.opponent import Leave, leave_of
from fandle.core.choice.position import Following, following
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.reasons import OFTEN, tenths
from fandle.core.choice.rests import Rest, moved, rest_of
from fandle.core.shot.play import Shot
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.words.balls import spoken

HOOKED = 0.15  # of the draws: told
ALONG_DEG, ACROSS_DEG = 30.0, 60.0  # between the cue ball's way and the next line: up to, from


@dataclass(frozen=True)
class After:
    """Where cue ball, target and the other balls that are moved stop; what the opponent gets, what comes next.

    leave: None where there is nothing to pot; ahead: None where nothing is potted, or nothing can follow.
    """

    rest: Rest
    target_rest: Rest
    others: dict[str, Rest]
    leave: Leave | None
    ahead: Following | None


def after_of(field: Field, line: Ranked, shot: Shot) -> After:
    """What comes after a line; shot: it played without error."""
    chance, target, pockets = line.chance, field.number(line.key.target), field.layout.table.pockets
    return After(
        rest_of(field, chance, 0),
        rest_of(field, chance, target),
        {field.name(k): rest_of(field, chance, k) for k in moved(field, chance, target)},
        None if pockets is None else leave_of(field, chance.verdicts.legal, chance.rests, chance.theirs),
        following(field, chance.ahead, chance.verdicts.pot, shot),
    )


def stops(after: After) -> str:
    """Where the cue ball stops, how surely: a sentence."""
    rest = after.rest
    if not rest.near:
        return ""
    gone = f", goes in {tenths(rest.gone)}" if rest.gone >= OFTEN else ""
    return f"The cue ball stops within a hand (20 cm) of the middle of its shape {tenths(rest.near)}{gone}."


def left(after: After) -> str:
    """What the opponent gets, what hides it, how far away they are: sentences."""
    leave = after.leave
    if leave is None:
        return ""
    if leave.target is None:
        said = "They have no straight pot."
    else:
        said = f"They have {spoken(leave.target)} straight into {POCKET_NAMES[leave.pocket]}, {tenths(leave.p)}."
    if leave.hooked >= HOOKED:
        behind = f", mostly behind {spoken(leave.hider)}" if leave.hider is not None else ""
        said += f" They see no ball on {tenths(leave.hooked)}{behind}."
    said += f" The nearest ball on is {leave.away:.1f} m away."
    if leave.on_rail >= 0.5:
        said += f" The cue ball lies on a rail {tenths(leave.on_rail)}."
    return said


def next_said(after: After) -> str:
    """The next shot, and how the cue ball comes to it: a sentence."""
    ahead = after.ahead
    if ahead is None:
        return ""
    along, across = ahead.along_deg <= ALONG_DEG, ahead.along_deg >= ACROSS_DEG
    way = "along its line" if along else "across its line" if across else "at an angle to its line"
    return f"Potted, {spoken(ahead.ball)} into {ahead.pocket} is next, {tenths(ahead.p)}: the cue ball comes {way}."
