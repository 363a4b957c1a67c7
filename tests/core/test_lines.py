"""The candidate lines of a layout and the words beside them."""

import pytest
from tests.conftest import make

from fandle.core.layout import Layout
from fandle.core.lines import in_the_way, one_rail_lines
from fandle.core.stroke import Stroke
from fandle.core.table import Table
from fandle.core.travel import clearance


def test_lines_are_ranked_and_refusals_come_last(blocked: Layout) -> None:
    lines = one_rail_lines(blocked, Stroke(3.2))
    assert len({line.rails for line in lines}) == 4
    windows = [line.window_deg for line in lines]
    assert windows == sorted(windows, reverse=True)
    assert [line.solved for line in lines] == sorted((line.solved for line in lines), reverse=True)
    assert all(line.why for line in lines)


def test_a_ball_frozen_to_the_aim_rail_has_no_mark_there(pool: Table) -> None:
    lines = {line.rails[0].value: line for line in one_rail_lines(make(pool, (2.0, 0.09), (6.0, 0.09)), Stroke(3.2))}
    assert not lines["near"].solved
    assert "no mark to aim at" in lines["near"].why
    assert lines["far"].solved


def test_who_is_in_the_way(blocked: Layout, pool: Table) -> None:
    blocker = in_the_way(blocked)
    assert blocker is not None
    assert blocker.id == "2"
    assert in_the_way(make(pool, (1, 1), (5, 1), (6, 1))) is None
    assert in_the_way(make(pool, (1, 1), (5, 1), (3, 1.3))) is None


def test_clearance_is_the_gap_to_the_nearest_ball(pool: Table) -> None:
    layout = make(pool, (1.1, 0.55), (5.3, 0.5), (2.0, 2.6))
    lines = {line.rails[0].value: line for line in one_rail_lines(layout, Stroke(3.2))}
    shot = lines["far"].answer.best.shot  # type: ignore[union-attr]  # this line is solved
    near = clearance(layout, shot, "1")
    assert near is not None
    # by hand: distance of the ball from the straight first leg, less a ball
    (x0, y0), (x1, y1) = shot.pieces[0].start, shot.events[0].x and (shot.events[0].x, shot.events[0].y)
    d = 0.3175
    across = abs((x1 - x0) * (2.6 - y0) - (y1 - y0) * (2.0 - x0)) * d / ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5
    assert near[1] == pytest.approx(across - pool.ball_radius * 2, abs=1e-6)
    assert clearance(make(pool, (1, 1), (5, 1)), shot, "1") is None
