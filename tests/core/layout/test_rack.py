"""Racks, scattered balls and spots. The places are those of the games' rules (WPA, WPBSA, UMB; from memory)."""

import math
from itertools import combinations

import pytest

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import SNOOKER_COLOURS
from fandle.core.layout.model import Layout
from fandle.core.layout.rack import on_spot, racked, scattered
from fandle.core.table.standards import STANDARDS, standard_table, usual_game

POOL, SNOOKER, CAROM = standard_table("pool-9ft"), standard_table("snooker-12ft"), standard_table("carom-10ft")
# balls on the table, pairs that touch: a triangle of n rows has 3n(n−1)/2, the nine-ball diamond 16
RACKS = {"eight-ball": (16, 30), "straight": (16, 30), "nine-ball": (10, 16), "ten-ball": (11, 18)}


def empty(table: object, game: str) -> Layout:
    return Layout(table, game, (Ball("cue", 4.0, 1.0),))  # type: ignore[arg-type]


def touching(layout: Layout) -> int:
    return sum(layout.touch(a.id, b.id) for a, b in combinations(layout.balls, 2))


@pytest.mark.parametrize("game", RACKS)
def test_a_pool_rack_is_tight_with_its_apex_on_the_foot_spot(game: str) -> None:
    layout = racked(empty(POOL, game))
    assert (len(layout.balls), touching(layout)) == RACKS[game]
    assert (layout.ball("1").x, layout.ball("1").y) == POOL.spots["foot"]
    assert layout.cue.x < (POOL.head_string or 0.0)
    assert layout.target == "1"


def test_the_nine_the_eight_and_the_ten_lie_in_the_middle_of_the_third_row() -> None:
    for game, name in (("nine-ball", "9"), ("eight-ball", "8"), ("ten-ball", "10")):
        layout = racked(empty(POOL, game))
        middle = layout.ball(name)
        assert middle.y == pytest.approx(2.0)
        back = 2 * math.sqrt(3) * POOL.ball_radius / POOL.diamond_x
        assert middle.x - 6.0 == pytest.approx(back, abs=1e-4)


def test_a_snooker_frame_has_its_colours_on_their_spots_and_the_reds_behind_the_pink() -> None:
    layout = racked(empty(SNOOKER, "snooker"))
    assert len(layout.balls) == 22
    for name in SNOOKER_COLOURS:
        assert (layout.ball(name).x, layout.ball(name).y) == SNOOKER.spots[name]
    reds = [ball for ball in layout.balls if ball.id.startswith("red")]
    assert min(ball.x for ball in reds) == layout.ball("red1").x
    assert not any(layout.touch("pink", ball.id) and ball.id != "red1" for ball in reds)
    d = math.dist(layout.metres(layout.cue), (layout.metres(layout.ball("brown"))))
    assert d < (SNOOKER.d_radius or 0.0)
    assert layout.cue.x < (SNOOKER.head_string or 0.0)


def test_three_cushion_begins_with_red_on_the_foot_spot() -> None:
    layout = racked(empty(CAROM, "three-cushion"))
    assert (layout.ball("red").x, layout.ball("red").y) == CAROM.spots["foot"]
    assert touching(layout) == 0


@pytest.mark.parametrize("table", STANDARDS.values(), ids=lambda table: table.name)
def test_scattered_balls_all_lie_clear_and_the_same_seed_is_the_same_layout(table: object) -> None:
    begun = empty(table, usual_game(table))  # type: ignore[arg-type]
    layout = scattered(begun, 5)
    assert len(layout.balls) == len(racked(begun).balls)
    assert touching(layout) == 0
    assert layout == scattered(begun, 5)
    assert layout != scattered(begun, 6)


def test_a_ball_goes_to_its_spot_and_is_refused_where_another_lies() -> None:
    layout = Layout(SNOOKER, "snooker", (Ball("cue", 1.0, 1.0), Ball("blue", 2.0, 1.0), Ball("red1", 6.0, 2.0)), "blue")
    moved = on_spot(layout, "blue")
    assert (moved.ball("blue").x, moved.ball("blue").y) == SNOOKER.spots["blue"]
    assert moved.ball("red1") == layout.ball("red1")
    pink = Layout(SNOOKER, "snooker", (Ball("cue", 1.0, 1.0), Ball("pink", 2.0, 1.0), Ball("red1", 6.0, 2.0)), "pink")
    with pytest.raises(BadInputError, match="overlap"):
        on_spot(pink, "pink")
    with pytest.raises(BadInputError, match="no spot of its own"):
        on_spot(Layout(SNOOKER, "snooker", (Ball("cue", 1, 1), Ball("red1", 3, 1)), "red1"), "red1")
