"""Layouts: what is refused, in which words, and what is not."""

import math
import random
from dataclasses import replace

import pytest
from tests.conftest import make
from tests.core.cases import FINE, OFF

from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import add_ball, next_id
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import mouth_at, mouths, noses
from fandle.core.table.rails import Rail, parse_rails
from fandle.core.table.standards import STANDARDS, usual_game
from fandle.core.words.balls import spoken
from fandle.web.address import rounded

Raw = list[tuple[str, float, float]]


def build(table: Table, balls: Raw, target: str | None = None) -> Layout:
    return Layout(table, "nine-ball", tuple(Ball(*b) for b in balls), target)


@pytest.mark.parametrize(("balls", "words"), [case[1:] for case in OFF], ids=[case[0] for case in OFF])
def test_impossible_layouts_are_refused_in_one_sentence(pool: Table, balls: Raw, words: str) -> None:
    with pytest.raises(BadInputError, match=words) as caught:
        build(pool, balls)
    assert "\n" not in str(caught.value)
    assert ":" in str(caught.value) or "lies in" in str(caught.value)


@pytest.mark.parametrize("balls", [case[1] for case in FINE], ids=[case[0] for case in FINE])
def test_odd_but_possible_layouts_are_taken(pool: Table, balls: Raw) -> None:
    assert len(build(pool, balls).balls) == len(balls)


def test_targets(pool: Table) -> None:
    with pytest.raises(BadInputError, match="no ball '9'"):
        build(pool, [("cue", 1, 1), ("1", 3, 1)], "9")
    with pytest.raises(BadInputError, match="choose an object ball"):
        build(pool, [("cue", 1, 1), ("1", 3, 1)], "cue")
    with pytest.raises(BadInputError, match="no target"):
        build(pool, [("cue", 1, 1), ("1", 3, 1)]).require_target()
    with pytest.raises(BadInputError, match="unknown game"):
        Layout(pool, "croquet", (Ball("cue", 1, 1),))


def test_a_frozen_ball_is_placed_exactly_on_the_rail(pool: Table) -> None:
    layout = build(pool, [("cue", 0.09, 2), ("1", 5, 3.91)])
    assert layout.metres(layout.cue)[0] == pool.ball_radius
    assert layout.metres(layout.ball("1"))[1] == pool.width - pool.ball_radius


def test_pockets_and_noses_meet_at_the_points(pool: Table) -> None:
    """Mouth widths as the specification has them: 4.5-4.625 in, 5-5.125 in (WPA, from memory)."""
    points = {p for _, a, b in noses(pool) for p in (a, b)}
    for mouth in mouths(pool):
        assert mouth.first in points
        assert mouth.second in points
        width = ((mouth.first[0] - mouth.second[0]) ** 2 + (mouth.first[1] - mouth.second[1]) ** 2) ** 0.5
        low, high = (5.0, 5.125) if mouth.name.startswith("side") else (4.5, 4.625)
        assert low <= width / 0.0254 <= high
        (x, y), (ax, ay) = mouth.middle, mouth.axis
        assert mouth_at(pool, x + 1e-6 * ax, y + 1e-6 * ay) == mouth
        assert mouth_at(pool, x - 1e-6 * ax, y - 1e-6 * ay) is None
    assert len(mouths(pool)) == 6


def test_adding_balls_fills_free_places(pool: Table) -> None:
    layout = build(pool, [("cue", 6, 2)])
    for n in range(1, 16):
        assert next_id(layout) == str(n)
        layout = add_ball(layout)
    with pytest.raises(BadInputError, match="every ball of this game"):
        add_ball(layout)


def test_rails_in_order(pool: Table) -> None:
    assert parse_rails("far, foot") == (Rail.FAR, Rail.FOOT)
    with pytest.raises(BadInputError, match="twice running"):
        parse_rails("far,far")
    with pytest.raises(BadInputError, match="unknown rail 'top'"):
        parse_rails("top")


def test_obstacles_follow_the_layouts_order(pool: Table) -> None:
    layout = make(pool, (1, 1), (2, 1), (3, 1))
    assert layout.index("2") == 1
    assert layout.obstacles().shape == (2, 2)
    assert spoken("cue") == "the cue ball"
    assert spoken("red4") == "red 4"
    assert spoken("7") == "the 7"


@pytest.mark.parametrize("name", STANDARDS)
def test_what_is_accepted_is_accepted_when_an_address_has_rounded_it(name: str) -> None:
    """Frozen, at the very edge of the slack, on rails, at mouth lines: four decimals never make a layout impossible."""
    table, rng, tried = STANDARDS[name], random.Random(4), 0
    dx, dy, r = table.diamond_x, table.diamond_y, table.ball_radius
    game, other = usual_game(table), {"snooker": "red1", "three-cushion": "red"}.get(usual_game(table), "1")
    for _ in range(400):
        x, y, a = rng.uniform(1, 7), rng.uniform(1, 3), rng.uniform(0, 2 * math.pi)
        near = 2 * r - rng.choice((0.0, 0.999, 0.5)) * table.slack
        places = [(x + near * math.cos(a) / dx, y + near * math.sin(a) / dy)]
        places += [(rng.uniform(1.5, 3), (r - rng.choice((0.0, 0.999)) * table.slack) / dy)]
        if table.pockets is not None:
            mouth = rng.choice(mouths(table))
            (mx, my), (ax, ay), deep = mouth.middle, mouth.axis, rng.choice((0.0, 0.999)) * table.slack
            places += [((mx + ax * deep) / dx, (my + ay * deep) / dy)]
        for place in places:
            try:
                layout = Layout(table, game, (Ball("cue", x, y), Ball(other, *place)), other)
            except BadInputError:
                continue  # the ball on the rail lies beside the cue ball
            again = rounded(Situation(layout, Stroke(2.0)))
            assert rounded(again).layout == again.layout
            tried += 1
    assert tried > 700


def test_balls_without_room_are_refused(pool: Table) -> None:
    """Twenty-two balls across a bed that takes hardly so many, each a hair into its neighbours."""
    small = replace(pool, pockets=None, width=22 * 2 * pool.ball_radius - 6e-4, length=2.2)
    step = (4 - 2 * small.ball_radius / small.diamond_y) / 21
    first = small.ball_radius / small.diamond_y
    ids = ["cue", *(f"red{n}" for n in range(1, 16)), "yellow", "green", "brown", "blue", "pink", "black"]
    balls = tuple(Ball(name, 4.0, first + n * step) for n, name in enumerate(ids))
    with pytest.raises(BadInputError, match="have no room: move one of them away"):
        Layout(small, "snooker", balls)
