"""Lengths, tips, clock, words."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fandle.core import constants
from fandle.core.errors import BadInputError
from fandle.core.shot.cue import find_cue
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import clock_of, offset_of, tips_of
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_of, speed_word
from fandle.core.table.standards import standard_table
from fandle.core.words.spoken import landing_word, mixed, plural_lengths, tips_word


@pytest.mark.parametrize(("lengths", "mps"), [(1, 1.0), (2, 2.2), (3, 4.2), (4, 6.7), (5, 9.4)])
def test_lengths_on_the_default_table(pool: Table, lengths: float, mps: float) -> None:
    """About 1.0, 2.2, 4.2, 6.7, 9.4 m/s (common practice, no published source)."""
    assert speed_of(pool, lengths) == pytest.approx(mps, abs=0.1)


@given(speed=st.floats(0.01, 12))
def test_lengths_and_speed_are_inverse(speed: float) -> None:
    table = standard_table("pool-9ft")
    # at the end rails a cushion stepped in a few steps leaves a ripple of 1e-4 lengths
    assert speed_of(table, lengths_of(table, speed)) == pytest.approx(speed, abs=5e-4)


def test_lag_is_two_lengths_whatever_the_word(pool: Table) -> None:
    assert [speed_word(n) for n in (1, 2, 2.5, 3, 4, 5)] == ["soft", "lag", "medium", "firm", "hard", "break"]
    assert lengths_of(pool, 2.0) < lengths_of(pool, 3.0) < lengths_of(pool, 4.0)


def test_one_tip_is_about_a_third_of_the_radius(pool: Table) -> None:
    """A 13 mm dime-curved tip on a 57.15 mm ball: about 0.35 R (common practice, no published source)."""
    assert offset_of(1.0, pool) == pytest.approx(0.35, abs=0.01)
    assert tips_of(offset_of(0.7, pool), pool) == pytest.approx(0.7)
    assert tips_of(constants.MISCUE_LIMIT, pool) == pytest.approx(1.44, abs=0.01)


@pytest.mark.parametrize(
    ("side", "up", "clock"),
    [
        (0, 0, "centre"),
        (0, 0.3, "12:00"),
        (0.3, 0, "3:00"),
        (0, -0.3, "6:00"),
        (-0.3, 0, "9:00"),
        (0.2, 0.2, "1:30"),
    ],
)
def test_clock_face(side: float, up: float, clock: str) -> None:
    """3 o'clock is full right at centre height, 12 pure follow."""
    assert clock_of(side, up) == clock


def test_fractions_as_players_say_them() -> None:
    assert [mixed(v) for v in (0.5, 2.5, 3.0, 2.74, 0.1)] == ["½", "2½", "3", "2¾", "0"]
    assert plural_lengths(1.0) == "1 length"
    assert plural_lengths(2.5) == "2½ lengths"
    assert tips_word(0.5) == "½ tip"
    assert tips_word(-1.25) == "1¼ tips"
    assert tips_word(0.37) == "0.37 tip"


@pytest.mark.parametrize(
    ("rail", "direction", "name"),
    [
        (Rail.FAR, math.radians(60), "running"), (Rail.FAR, math.radians(120), "reverse"),
        (Rail.FOOT, math.radians(30), "reverse"), (Rail.FOOT, math.radians(-30), "running"),
        (Rail.NEAR, math.radians(-60), "reverse"), (Rail.HEAD, math.radians(150), "running"),
    ],
)  # fmt: skip
def test_right_side_is_running_or_reverse_by_the_path(rail: Rail, direction: float, name: str) -> None:
    """First rail far going towards the foot, running is right; first rail foot going far, left."""
    assert running(0.2, rail, direction) == name
    assert running(-0.2, rail, direction) != name


@pytest.mark.parametrize(
    ("values", "words"),
    [
        ((0.0,), "does not move the ball"), ((-1.0,), "does not move"), ((12.1,), "faster than any break"),
        ((math.nan,), "speed is nan"), ((3.0, math.inf), "side is inf"), ((3.0, 0.4, 0.4), "a miscue"),
        ((3.0, 0.51), "a miscue"), ((3.0, 0.0, -0.6), "a miscue"), ((3.0, 0.0, 0.0, 61.0), "elevation"),
        ((3.0, 0.0, 0.0, -1.0), "elevation"),
    ],
)  # fmt: skip
def test_impossible_strokes(values: tuple[float, ...], words: str) -> None:
    with pytest.raises(BadInputError, match=words):
        Stroke(*values)  # type: ignore[arg-type]  # four numbers


@pytest.mark.parametrize(("off", "word"), [(None, ""), (0.0, "on"), (0.3, "0.30 long"), (-0.3, "0.30 short")])
def test_landings_in_words(off: float | None, word: str) -> None:
    assert landing_word(off) == word


def test_cues() -> None:
    assert find_cue(None).end_ratio == math.inf
    assert Stroke(3.0, 0.3, cue=find_cue("house")).squirt > Stroke(3.0, 0.3, cue=find_cue("slim")).squirt > 0
    with pytest.raises(BadInputError, match="unknown cue 'broom'"):
        find_cue("broom")
