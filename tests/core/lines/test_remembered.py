"""Marks as players remember them (trade 6b: a diamond, half, quarter, just past, half a ball), common practice."""

import random

import pytest

from fandle.core.errors import BadInputError
from fandle.core.lines.remembered import grade_of, place_of, remember
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

POOL = STANDARDS["pool-9ft"]


@pytest.mark.parametrize(
    ("at", "say", "grade"),
    [
        (3.0, "3", "diamond"), (3.03, "3", "diamond"), (3.051, "just past 3", "diamond"), (2.95, "just short of 3", "diamond"),
        (3.5, "3½", "half"), (0.25, "¼", "quarter"), (0.0, "0", "diamond"), (-0.26, "−¼", "quarter"),
        (3.11, "half a ball past 3", "between"), (2.63, "half a ball short of 2¾", "between"),
        (3.8, "head-side jaw of side-far", "quarter"), (3.76, "3¾", "quarter"),
    ],
)  # fmt: skip
def test_a_mark_is_said_by_the_nearest_thing_one_sees(at: float, say: str, grade: str) -> None:
    told = remember(POOL, Rail.FAR, at)
    assert (told.say, told.grade) == (say, grade)


def test_what_is_said_is_within_four_hundredths_and_parses_back() -> None:
    rng = random.Random(3)
    for known in STANDARDS.values():
        for _ in range(500):
            rail, at = rng.choice(list(Rail)), rng.uniform(-2, 10)
            said = remember(known, rail, at).say
            assert abs(place_of(known, rail, said) - at) <= 0.04 + 1e-9, (known.name, rail, at, said)


def test_grades_end_at_six_hundredths() -> None:
    assert [grade_of(at) for at in (3.06, 3.061, 3.44, 3.439, 3.19, 3.189)] == [
        "diamond", "between", "half", "between", "quarter", "between",
    ]  # fmt: skip


@pytest.mark.parametrize("text", ["", "past 3", "just past", "nearly 3", "just past x", "nan", "half a ball past"])
def test_other_words_are_refused(text: str) -> None:
    with pytest.raises(BadInputError, match="is not understood"):
        place_of(POOL, Rail.FAR, text)
