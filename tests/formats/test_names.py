"""Names in any script, and none that cannot be seen as they are."""

import pytest

from fandle.core.errors import BadInputError
from fandle.core.words.names import LONGEST_NAME, clean_name, other_name


@pytest.mark.parametrize(
    "name",
    ["Ash", "Old Tuesday", "ü ß", "Ωμέγα", "Борис", "小明", "محمد", "נועה", "می‌خواهم", "क्‍ष", "Hall 1/2", "50 % #1?", "👩‍🦱 Ann", "…"],
)  # fmt: skip
def test_names_in_any_script_are_welcome(name: str) -> None:
    assert clean_name(f"  {name} ") == name


def test_a_name_is_kept_as_one_reads_it() -> None:
    assert clean_name("Zoe\u0308") == "Zoë"  # two ways to write one letter are one name


@pytest.mark.parametrize(
    "name",
    [
        ".", "..", "", "   ", "a\u202eb", "a\u2066b", "a\u200bb", "\u2800", "\u3164", "a\nb", "a\x00b", "a\x7fb", "\ufeffa", "a\u00adb",
        "a\u00a0b", "a\u2028b", "a\ue000b", "a\u200db", "\u200dab", "ab\u200c", "a\U000e0041b", "x" * (LONGEST_NAME + 1),
    ],
)  # fmt: skip
def test_names_that_are_not_what_they_look_are_refused(name: str) -> None:
    with pytest.raises(BadInputError, match=r"name") as refused:
        clean_name(name)
    assert refused.value.field == "name"


def test_another_person_of_one_name_is_told_apart_within_the_length_of_a_name() -> None:
    assert other_name("Me", "The Blue Chalk") == "Me (The Blue Chalk)"
    assert len(clean_name(other_name("x" * LONGEST_NAME, "The Blue Chalk"))) == LONGEST_NAME
