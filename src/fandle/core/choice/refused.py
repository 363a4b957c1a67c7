"""What is no line, and why: the straight shot, the four rails, the jump."""

from collections.abc import Collection
from dataclasses import dataclass

from fandle.core.choice.field import Field
from fandle.core.choice.search import Ranked
from fandle.core.choice.wish import Goal
from fandle.core.lines.marks import over
from fandle.core.lines.question import Question
from fandle.core.lines.refusal import guarded, no_kick, refuse
from fandle.core.lines.solution import Refusal
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken

MOST_BALLS = 4  # nearest ones whose refusals are told
STRAIGHT: tuple[Rail, ...] = ()


@dataclass(frozen=True)
class Refused:
    """What is not offered: its kind, ball and rails, the code and the reason in a player's words."""

    kind: str
    target: str
    rails: tuple[Rail, ...]
    reason_code: str
    reason: str


def refused(field: Field, stroke: Stroke, lines: Collection[Ranked], goal: Goal) -> list[Refused]:
    """Why the straight shot and each single rail is no line to the balls on (the nearest few), and what of a jump."""
    found: list[Refused] = []
    if field.court.rules.counts == "point":  # any way to the first ball may score: none of them is missed
        return found
    for name in map(field.name, field.nearest_on(MOST_BALLS)):
        straight = _why_not(field, stroke, name, STRAIGHT, lines, goal)
        if straight is not None:
            found.append(straight)
            if straight.reason_code == "blocked" and not field.layout.touch(CUE, name):
                found.append(_jump(field, name))
        for rail in Rail:
            other = _why_not(field, stroke, name, (rail,), lines, goal)
            if other is not None:
                found.append(other)
    return found


def _why_not(
    field: Field, stroke: Stroke, name: str, rails: tuple[Rail, ...], lines: Collection[Ranked], goal: Goal
) -> Refused | None:
    """Why a way is no line; None where it is one, or where the ball itself lies before the rail."""
    own = [line for line in lines if line.aim.stretch.met == name]
    kinds = ("straight", "push", "bank", "combination") if not rails else ("kick", "rail-first")
    if any(line.key.kind in kinds and (not rails or line.key.rails == rails) for line in own):
        return None
    question = Question(field.layout, name, rails, 0.0)

    def why() -> Refusal:
        natural = question.geometric(field.layout.table.ball_radius)
        against = no_kick(field.layout, rails, name)
        return against or refuse(question, stroke, 0.0 if natural is None else natural)

    answer = guarded(field.layout, rails, name, why)
    if rails and answer.by == name:
        return None
    code, reason = answer.reason_code, answer.reason
    kind = "kick" if rails else "straight"
    if code == "no_such_line" and goal == "pot":
        code, reason = "no_pot", f"no thickness {over(rails)} sends {spoken(name)} into a pocket"
    return Refused(kind, name, rails, code, reason)


JUMP_SNOOKER = "a jump is a foul in snooker"
JUMP_POOL = (
    "a jump is not played here: aim level, then raise the cue, just below centre, medium-hard, and strike down, never "
    "scoop; it can tear cloth and hit people, so ask what the room allows"
)


def _jump(field: Field, name: str) -> Refused:
    """The jump over what is in the way: named, and left to the room's rules."""
    snooker = field.layout.game == "snooker"
    reason = JUMP_SNOOKER if snooker else JUMP_POOL
    return Refused("jump", name, STRAIGHT, "not_played", reason)
