"""Questions about a line: what is refused, where one looks, where the mark is read."""

import math

import pytest
from tests.conftest import make

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.question import MOST_RAILS, ask
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table


def test_what_cannot_be_asked(pool: Table) -> None:
    layout = make(pool, (1, 1), (5, 1))
    with pytest.raises(BadInputError, match=r"hit 1\.5 is not a thickness: give -1 to 1"):
        ask(layout, (Rail.FAR,), None, 1.5)
    with pytest.raises(BadInputError, match="hit nan"):
        ask(layout, (Rail.FAR,), None, math.nan)
    with pytest.raises(BadInputError, match=f"5 rails: give at most {MOST_RAILS}") as caught:
        ask(layout, (Rail.FAR, Rail.NEAR, Rail.FAR, Rail.NEAR, Rail.FAR), None, 0.0)
    assert (caught.value.field, caught.value.code) == ("rails", "out_of_range")


def test_a_thickness_is_metres_right_of_the_centre_and_never_a_miss(pool: Table) -> None:
    layout = make(pool, (1, 1), (5, 1))
    assert ask(layout, (Rail.FAR,), None, 0.5).offset == pytest.approx(pool.ball_radius)
    assert ask(layout, (Rail.FAR,), None, 1.0).offset < 2 * pool.ball_radius
    assert ask(layout, (Rail.FAR,), None, -1.0).offset > -2 * pool.ball_radius


@pytest.mark.parametrize("rail", list(Rail))
def test_the_span_of_a_rail_runs_from_end_to_end(pool: Table, rail: Rail) -> None:
    """Its two directions, carried on to where the centre turns, end a ball's radius off both corners."""
    question = ask(make(pool, (2, 1.2), (6, 2)), (rail,), None, 0.0)
    low, high = question.span(Stroke(2.0))
    assert low < high
    line = pool.ball_radius if not rail.at_end else (pool.width if rail.is_long else pool.length) - pool.ball_radius
    ends = []
    for direction in (low, high):
        (x, y), (dx, dy) = question.start, (math.cos(direction), math.sin(direction))
        t = (line - rail.across(x, y)) / rail.across(dx, dy)
        assert t > 0
        ends.append(rail.along(x + t * dx, y + t * dy))
    whole = pool.length if rail.is_long else pool.width
    assert sorted(ends) == pytest.approx([pool.ball_radius, whole - pool.ball_radius], abs=1e-9)


@pytest.mark.parametrize("foot", [False, True])
def test_a_ball_in_the_very_corner_looks_along_both_its_rails(foot: bool) -> None:
    """Of the rail it lies on: from the other end right round to straight away from it, half a turn."""
    table = standard_table("carom-10ft")
    r, x = table.ball_radius, table.length - table.ball_radius if foot else table.ball_radius
    cue = Ball("cue", x / table.diamond_x, r / table.diamond_y)
    question = ask(Layout(table, "three-cushion", (cue, Ball("red", 4, 2)), "red"), (Rail.NEAR,), None, 0.0)
    low, high = question.span(Stroke(2.0))
    assert high - low == pytest.approx(math.pi, abs=1e-6)
    assert low < -math.pi / 2 < high
    assert {round(math.cos(low)), round(math.cos(high))} == {-1, 1}


def test_a_raised_cue_looks_wider_and_a_real_one_is_turned(pool: Table) -> None:
    question = ask(make(pool, (2, 1.2), (6, 2)), (Rail.FAR,), None, 0.0)
    level, raised = question.span(Stroke(2.0)), question.span(Stroke(2.0, elevation=4.0))
    assert raised[0] < level[0] < level[1] < raised[1]


def test_the_straight_shot_is_read_behind_the_target(pool: Table) -> None:
    assert ask(make(pool, (2, 2), (6, 2)), (), None, 0.0).rail is Rail.FOOT
    assert ask(make(pool, (2, 1), (3, 3)), (), None, 0.0).rail is Rail.FAR
