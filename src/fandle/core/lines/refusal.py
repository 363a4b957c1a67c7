"""Why there is no aim, in a player's words."""

import logging
import math
from collections.abc import Callable
from typing import TypeVar

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.layout.place import hangs
from fandle.core.lines.marks import over
from fandle.core.lines.question import Question
from fandle.core.lines.solution import Aim, ReasonCode, Refusal
from fandle.core.shot.approach import approach, pushes
from fandle.core.shot.path import into_pocket
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail, rails_name
from fandle.core.words.balls import spoken

LOG = logging.getLogger(__name__)
LYING_M = 0.0005  # a ball this near to a rail lies against it
T = TypeVar("T", bound=Aim | Refusal)
FAILED = "this line could not be worked out; what went wrong is in the log"


def guarded(layout: Layout, rails: tuple[Rail, ...], target: str, solve: Callable[[], T]) -> T | Refusal:
    """What `solve` says. A line that fails is logged and told as one that cannot be solved: the others stand."""
    try:
        return solve()
    except BadInputError:
        raise
    except EngineError as fault:
        return Refusal(rails, target, "no_such_line", str(fault))
    except Exception:
        LOG.exception("the line %s to %s fails on %r", rails_name(rails), target, layout)
        return Refusal(rails, target, "no_such_line", FAILED)


def against(layout: Layout, ball: Ball, rail: Rail) -> bool:
    """Does a ball lie against a rail? One that hangs in a pocket's mouth does not: there is no rail."""
    table = layout.table
    across = table.diamond_y if rail.is_long else table.diamond_x
    off = abs(rail.across(ball.x, ball.y) - (rail.diamonds_across if rail.at_end else 0.0)) * across
    return off <= table.ball_radius + LYING_M and hangs(table, layout.metres(ball)) is None


def no_kick(layout: Layout, rails: tuple[Rail, ...], target: str) -> Refusal | None:
    """Why a way over these rails is none worth telling: a ball lies against the first or the last of them.

    From the rail it lies against the cue ball goes straight off; a ball on the last rail is met from the rail before.
    """
    if not rails:
        return None
    ball = layout.ball(target)
    if against(layout, layout.cue, rails[0]):
        reason = f"the cue ball lies against the {rails[0]} rail: that would be no kick over it"
    elif against(layout, ball, rails[-1]):
        reason = f"{spoken(target)} lies against the {rails[-1]} rail: it is met without going over that rail"
    else:
        return None
    return Refusal(rails, target, "no_such_line", reason)


def refuse(question: Question, stroke: Stroke, best: float) -> Refusal:
    """Why there is no aim, from playing the direction that comes nearest to one, else the natural."""
    layout, way, asked = question.layout, over(question.rails), len(question.rails)
    ball = spoken(question.target)

    def refusal(code: ReasonCode, reason: str, by: str | None = None) -> Refusal:
        return Refusal(question.rails, question.target, code, reason, by)

    shot = approach(layout, stroke, best)
    met = len(shot.rails)
    last = shot.events[-1]
    if last.other is not None and met <= asked:
        return refusal(*_met(question, last.other, met, pushed=pushes(layout, shot)), by=last.other)
    if last.pocket is not None and met < asked:
        return refusal("jaw", f"the ball would {into_pocket(last)}, not meet the {question.rails[met]} rail")
    if last.kind == "stop" and met <= asked:
        gx, gy = question.goal
        table = layout.table
        left = math.hypot(last.x * table.diamond_x - gx, last.y * table.diamond_y - gy) - 2 * table.ball_radius
        return refusal(
            "short_of_speed",
            f"the cue ball stops {max(left, 0.0) / table.diamond_x:.1f} diamonds short of {ball}",
        )
    return refusal("no_such_line", f"no line {way} reaches {ball}")


def _met(question: Question, other: str, met: int, *, pushed: bool) -> tuple[ReasonCode, str]:
    """Why a way ends at a ball that is met after so many rails."""
    if pushed:
        return "blocked", f"{spoken(other)} is frozen to the cue ball: on this line it would be pushed"
    if other != question.target:
        return "blocked", f"{spoken(other)} is {leg_name(question, met)}"
    if met < len(question.rails):
        return "blocked", f"{spoken(other)} itself is hit before the {question.rails[met]} rail"
    return "no_such_line", f"{spoken(other)} is met {over(question.rails)}, but not as it is asked for"


def leg_name(question: Question, leg: int) -> str:
    """A leg in words, 0 being the one before the first rail."""
    rails = question.rails
    if not rails:
        return "in the way"
    if leg == 0:
        return "in the way before the rail"
    if leg == len(rails):
        return "in the way after the rail" if len(rails) == 1 else "in the way after the last rail"
    return f"between the {rails[leg - 1]} and the {rails[leg]} rail"
