"""Why there is no aim, in a player's words."""

import math

from fandle.core.approach import approach
from fandle.core.layout import spoken
from fandle.core.path import into_pocket
from fandle.core.question import Question
from fandle.core.readout import over
from fandle.core.solution import Refusal
from fandle.core.stroke import Stroke


def refuse(question: Question, stroke: Stroke, best: float) -> Refusal:
    """Why there is no aim, from playing the direction that comes nearest to one, else the natural."""
    layout, way, asked = question.layout, over(question.rails), len(question.rails)
    ball = spoken(question.target)

    def refusal(code: str, reason: str) -> Refusal:
        return Refusal(question.rails, question.target, code, reason)

    shot = approach(layout, stroke, best)
    met = len(shot.rails)
    last = shot.events[-1]
    if last.kind == "ball" and last.other == question.target and met < asked:
        return refusal("blocked", f"{ball} itself is met before the {question.rails[met]} rail")
    if last.kind == "ball" and last.other is not None and met <= asked:
        return refusal("blocked", f"{spoken(last.other)} is {leg_name(question, met)}")
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


def leg_name(question: Question, leg: int) -> str:
    """A leg in words, 0 being the one before the first rail."""
    rails = question.rails
    if not rails:
        return "on the way"
    if leg == 0:
        return "on the way in"
    if leg == len(rails):
        return "on the way out"
    return f"between the {rails[leg - 1]} and the {rails[leg]} rail"
