"""A question about a bank: how the cue ball is sent so that the object ball leaves where it is wanted."""

import math

import pytest
from tests.conftest import make

from fandle.core.lines.bank_question import BankQuestion
from fandle.core.table.model import Table
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail


@pytest.mark.parametrize("direction", [0.3, 1.2, -0.8, 2.5])
def test_the_cue_ball_is_sent_at_the_ghost_ball(pool: Table, direction: float) -> None:
    """One ball's diameter behind the object ball on its line: the ghost ball of every handbook (geometry)."""
    layout = make(pool, (3.0, 2.5), (5.0, 1.2))
    question = BankQuestion(layout, "1", (Rail.NEAR,), mouths(pool)[2])
    (x, y), (bx, by) = question.cue, question.ball
    ghost = bx - 2 * pool.ball_radius * math.cos(direction), by - 2 * pool.ball_radius * math.sin(direction)
    aimed = question.cue_for(direction)
    assert math.tan(aimed) == pytest.approx((ghost[1] - y) / (ghost[0] - x), abs=1e-12)
    assert math.cos(aimed) * (ghost[0] - x) + math.sin(aimed) * (ghost[1] - y) > 0


def test_the_natural_line_of_a_bank_ends_in_the_middle_of_the_mouth(pool: Table) -> None:
    """Reflected in the noses: as far beyond the rail as the mouth lies before it."""
    layout = make(pool, (3.0, 2.5), (5.0, 1.2))
    mouth = next(m for m in mouths(pool) if m.name == "foot-far")
    question = BankQuestion(layout, "1", (Rail.NEAR,), mouth)
    bx, by = question.ball
    mx, my = mouth.middle
    assert math.tan(question.geometric(0.0)) == pytest.approx((-my - by) / (mx - bx), abs=1e-12)
    at = question.nose(question.geometric(0.0)) * pool.diamond_x
    assert (at - bx) / by == pytest.approx((mx - at) / my, abs=1e-9)
