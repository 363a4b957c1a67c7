"""The candidate lines of a layout and the words beside them."""

import math

import pytest
from tests.conftest import make

from fandle.core.layout.model import Layout
from fandle.core.lines.candidates import candidate_steps, in_the_way
from fandle.core.lines.solution import Aim
from fandle.core.shot.cue import find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import clearance
from fandle.core.steps import finish
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail


def test_lines_are_ranked_and_refusals_come_last(blocked: Layout) -> None:
    lines = finish(candidate_steps(blocked, Stroke(3.2)))
    assert len({line.rails for line in lines}) == 5
    assert lines.pop().rails == ()  # the straight shot stands last
    windows = [line.window_deg for line in lines]
    assert windows == sorted(windows, reverse=True)
    assert [line.solved for line in lines] == sorted((line.solved for line in lines), reverse=True)
    assert all(line.why for line in lines)


def test_a_ball_frozen_to_the_aim_rail_has_no_mark_there(pool: Table) -> None:
    lines = {line.name: line for line in finish(candidate_steps(make(pool, (2.0, 0.09), (6.0, 0.09)), Stroke(3.2)))}
    assert not lines["near"].solved
    assert "the cue ball lies against the near rail" in lines["near"].why
    assert lines["far"].solved


def test_who_is_in_the_way(blocked: Layout, pool: Table) -> None:
    blocker = in_the_way(blocked)
    assert blocker is not None
    assert blocker.id == "2"
    assert in_the_way(make(pool, (1, 1), (5, 1), (6, 1))) is None
    assert in_the_way(make(pool, (1, 1), (5, 1), (3, 1.3))) is None


def test_clearance_is_the_gap_to_the_nearest_ball(pool: Table) -> None:
    layout = make(pool, (1.1, 0.55), (5.3, 0.5), (2.0, 2.6))
    lines = {line.name: line for line in finish(candidate_steps(layout, Stroke(3.2)))}
    shot = lines["far"].answer.best.shot
    near = clearance(layout, shot, "1")
    assert near is not None
    # by hand: distance of the ball from the straight first leg, less a ball
    (x0, y0), (x1, y1) = shot.pieces[0].start, (shot.events[0].x, shot.events[0].y)
    d = 0.3175
    across = abs((x1 - x0) * (2.6 - y0) - (y1 - y0) * (2.0 - x0)) * d / ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5
    assert near[1] == pytest.approx(across - pool.ball_radius * 2, abs=1e-6)
    assert clearance(make(pool, (1, 1), (5, 1)), shot, "1") is None


def test_the_straight_shot(pool: Table) -> None:
    """Open: aimed full, its mark read at the rail behind the target; blocked: the ball that blocks."""
    open_table = make(pool, (2.0, 1.0), (5.0, 2.0), (5.0, 3.5))
    lines = finish(candidate_steps(open_table, Stroke(3.0, 0.3, cue=find_cue("house"))))
    straight = lines[0]  # an open ball is shot at first
    assert isinstance(straight.answer, Aim)
    best = straight.answer.best
    assert (best.rails, best.mark_rail) == ((), Rail.FOOT)
    assert best.miss_mm < 1.0
    assert best.natural.nose == pytest.approx(3.0, abs=1e-6)
    squirt = Stroke(3.0, 0.3, cue=find_cue("house")).squirt
    to_target = math.atan2(1.0 * pool.diamond_y, 3.0 * pool.diamond_x)
    assert best.direction == pytest.approx(to_target - squirt, abs=1e-6)
    half = math.asin(2 * pool.ball_radius / math.hypot(3 * pool.diamond_x, pool.diamond_y))
    assert best.window_deg == pytest.approx(math.degrees(2 * half), rel=0.02)
    assert best.window_mm == pytest.approx(4000 * pool.ball_radius, rel=0.03)
    blocked = finish(candidate_steps(make(pool, (2.0, 2.0), (5.0, 2.0), (3.5, 2.0)), Stroke(3.0)))[-1]
    assert not blocked.solved
    assert blocked.why == "the 2 is in the way"
    thin = finish(candidate_steps(open_table, Stroke(3.0), hit=0.5))[0]
    assert isinstance(thin.answer, Aim)
    assert thin.answer.best.fullness == pytest.approx(0.5, abs=1e-6)
    assert thin.answer.best.direction < to_target  # passes right of it, seen along the way
