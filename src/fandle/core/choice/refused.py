"""What is no line, and why: the straight shot, the four rails, the jump."""

from collections.abc import Collection
from dataclasses import dataclass

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.field import Field
from fandle.core.choice.wish import Goal
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import over
from fandle.core.lines.refusal import guarded, no_kick
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
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


def refused(field: Field, stroke: Stroke, lines: Collection[Aimed], goal: Goal) -> Steps[list[Refused]]:
    """Why the straight shot and each single rail is no line to the balls on (the nearest few), and what of a jump.

    In steps. lines: all that were found, told or not. A way that there is at this stroke is not refused, though it be
    too narrow for a line.
    """
    found: list[Refused] = []
    if field.court.rules.counts == "point":  # any way to the first ball may score: none of them is missed
        return found
    for name in map(field.name, field.nearest_on(MOST_BALLS)):
        for rails in (STRAIGHT, *((rail,) for rail in Rail)):
            no = _why_not(field, stroke, name, rails, lines, goal)
            yield
            if no is not None:
                found.append(no)
            if no is not None and not rails and no.reason_code == "blocked" and not field.layout.touch(CUE, name):
                found.append(_jump(field, name))
    return found


def _why_not(
    field: Field, stroke: Stroke, name: str, rails: tuple[Rail, ...], lines: Collection[Aimed], goal: Goal
) -> Refused | None:
    """Why a way is no line; None where it is one, or where the ball itself lies before the rail."""
    keys = [aim.stretch.key for aim in lines if aim.stretch.met == name]
    kinds = ("straight", "push", "bank", "combination") if not rails else ("kick", "rail-first")
    if any(key.kind in kinds and (not rails or key.rails == rails) for key in keys):
        return None
    answer = guarded(field.layout, rails, name, lambda: _against(field, stroke, name, rails))
    if isinstance(answer, Refusal):
        if rails and answer.by == name:
            return None
        code, reason = answer.reason_code, answer.reason
    elif goal == "pot":
        code, reason = "no_such_line", ""
    else:
        return None
    kind = "kick" if rails else "straight"
    if code == "no_such_line" and goal == "pot":
        code, reason = "no_pot", f"no thickness {over(rails)} sends {spoken(name)} into a pocket"
    return Refused(kind, name, rails, code, reason)


def _against(field: Field, stroke: Stroke, name: str, rails: tuple[Rail, ...]) -> Aim | Refusal:
    """What `aim` says of a way: its aim, or what is against it."""
    answer = solve_kick(field.layout, rails, stroke, name, with_chain=False)
    return answer if isinstance(answer, Aim) else no_kick(field.layout, rails, name) or answer


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
