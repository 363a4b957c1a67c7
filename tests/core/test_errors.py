"""Faults carry their data; text that cannot be written down is refused where it comes in."""

import pytest

from fandle.core.errors import BadInputError, check_text


def test_a_fault_put_in_its_place_keeps_its_data() -> None:
    fault = BadInputError("too fast", "speed", code="too_large", balls=("7",)).at("line 3")
    assert (str(fault), fault.field, fault.code, fault.balls) == ("line 3: too fast", "speed", "too_large", ("7",))


@pytest.mark.parametrize("text", ["\ud800", "a\udfffb", "\udc00 at the end"])
def test_half_a_character_is_refused(text: str) -> None:
    with pytest.raises(BadInputError, match="half a character, which cannot be kept") as fault:
        check_text(text, "comment")
    assert (fault.value.field, fault.value.code) == ("comment", "unwritable")


@pytest.mark.parametrize("text", ["", "plain", "½ tip · −3", "\ud7ff", "\ue000", "🎱"])
def test_whole_characters_pass(text: str) -> None:
    check_text(text, "comment")
