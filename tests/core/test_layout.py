"""Layouts: what is refused, in which words, and what is not."""

import pytest
from tests.conftest import make
from tests.core.cases import FINE, OFF

from fandle.core.edit import add_ball, next_id
from fandle.core.errors import BadInputError
from fandle.core.layout import Ball, Layout, spoken
from fandle.core.pocket import mouths, noses, pocket_at
from fandle.core.rails import Rail, parse_rails
from fandle.core.table import Table

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
        assert pocket_at(pool, *mouth.middle) is None or pocket_at(pool, *mouth.middle) == mouth.name
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
