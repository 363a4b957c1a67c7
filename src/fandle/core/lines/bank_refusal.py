"""Why there is no bank, in a player's words."""

import math

from fandle.core.lines.bank_question import BankQuestion
from fandle.core.lines.marks import over
from fandle.core.lines.solution import ReasonCode, Refusal
from fandle.core.physics import outcomes
from fandle.core.physics.judge import outcome
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken


def refuse_bank(
    questions: list[BankQuestion],
    stroke: Stroke,
    nearest: list[tuple[float, BankQuestion, float]],
    pocket: str | None,
) -> Refusal:
    """Why there is no bank, from playing the direction that comes nearest to one."""
    question = questions[0]
    layout, rails, ball = question.layout, question.rails, spoken(question.target)
    where = f"into {pocket}" if pocket else "into any pocket"

    def refusal(code: ReasonCode, reason: str) -> Refusal:
        return Refusal(rails, question.target, code, reason)

    blocker = _on_the_way(question, stroke)
    if blocker is not None:
        return refusal("blocked", f"{blocker} is between the cue ball and {ball}")
    never = refusal("no_such_line", f"{ball} cannot be sent {over(rails)} {where}")
    if nearest:
        _, question, theta = min(nearest, key=lambda found: found[0])
    else:  # no direction takes the ball over these rails: see what becomes of the natural one
        theta = question.cue_for(question.geometric(layout.table.ball_radius)) - stroke.squirt
    what, other, leg = outcome(theta, 0, question.scene(layout.table, stroke))
    if not nearest and what != outcomes.SHORT:
        return never
    if what == outcomes.BLOCKED:
        return refusal(
            "blocked", f"{spoken(layout.object_balls()[other].id)} is in the way of {ball} {_leg(rails, leg)}"
        )
    if what == outcomes.JAW:
        return refusal("jaw", f"{ball} would meet a jaw, not the {rails[leg]} rail")
    told: dict[int, tuple[ReasonCode, str]] = {
        outcomes.KISS: ("double_kiss", f"cue ball and {ball} meet again before it gets there"),
        outcomes.SHORT: ("short_of_speed", f"{ball} stops before it gets there: play it firmer"),
    }
    return refusal(*told[what]) if what in told else never


def _on_the_way(question: BankQuestion, stroke: Stroke) -> str | None:
    """The ball that the cue ball meets instead when it is sent full at the object ball."""
    (x, y), (bx, by) = question.cue, question.ball
    way = approach(question.layout, stroke, math.atan2(by - y, bx - x) - stroke.squirt)
    return None if way.first_ball in (None, question.target) else spoken(way.first_ball or "")


def _leg(rails: tuple[Rail, ...], leg: int) -> str:
    if leg == 0:
        return "before the rail"
    return "after the last rail" if leg == len(rails) > 1 else f"after the {rails[leg - 1]} rail"
