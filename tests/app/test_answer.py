"""The answer of a page that nobody has asked a line of yet."""

from dataclasses import replace

from fandle.app.answer import answer
from fandle.app.situation import Situation
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.question import MOST_RAILS
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.standards import standard_table


def test_the_first_line_is_one_that_can_be_asked_for() -> None:
    """On a narrow table a hard stroke scores most often over five rails before it meets a ball: those are told in the
    plan, and the page opens with the best that has a question of its own (found by the campaign)."""
    table = replace(standard_table("carom-10ft"), width=1.3059994762785687)
    balls = (
        Ball("cue", 5.909939546609956, 1.8083595783615614), Ball("red", 3.2052656143346336, 3.660274694771785),
        Ball("white", 3.2993942187130076, 3.818406076315575),
    )  # fmt: skip
    stroke = Stroke(10.707160223864769, -0.01958610669379393, 0.18236760939975488)
    found = finish(answer(Situation(Layout(table, "three-cushion", balls, "red"), stroke, None, hit=1.0)))
    assert found.plan is not None
    over = [len(line.run.rails) for line in found.plan.lines]
    assert over[0] > MOST_RAILS, "the case has lost its point"
    first = next(line for line in found.plan.lines if len(line.run.rails) <= MOST_RAILS)
    assert found.asked.rails == first.run.rails
    assert found.played is not None
