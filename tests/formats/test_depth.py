"""JSON is measured before it is parsed: depth, length of an element, digits, at any cut between two parts."""

import io
import json
import random

import pytest

from fandle.core.errors import BadInputError
from fandle.formats.base import read_json
from fandle.formats.depth import DEEPEST, LONGEST, MOST_DIGITS, Depth, Measured, check_depth
from fandle.formats.streams import head_of, items_of


def by_hand(data: bytes) -> int:
    """How deep the brackets are that stand in no text, one character at a time."""
    now = deepest = 0
    inside = escaped = False
    for character in data.decode("latin-1"):
        if inside:
            escaped, inside = (not escaped and character == "\\"), escaped or character != '"'
        elif character == '"':
            inside = True
        elif character in "[{":
            now += 1
            deepest = max(deepest, now)
        elif character in "]}":
            now -= 1
    return deepest


def test_any_bytes_in_any_parts_are_as_deep_as_by_hand() -> None:
    rng = random.Random(7)
    for _ in range(2000):
        data = bytes(rng.choice(b'[]{}"\\a,1') for _ in range(rng.randrange(60)))
        depth, at = Depth(), 0
        while at < len(data):
            size = rng.randrange(1, 9)
            depth.add(data[at : at + size])
            at += size
        assert depth.deepest == by_hand(data), data


@pytest.mark.parametrize("opening", [b"[", b'{"a":', b'[{"a":'])
def test_what_is_nested_too_deep_is_refused_before_it_is_parsed(opening: bytes) -> None:
    with pytest.raises(BadInputError, match="nested more than 20"):
        read_json(opening * 1_000_000)
    with pytest.raises(BadInputError, match="nested more than 20"):
        list(items_of(io.BytesIO(b'{"attempts": ' + opening * 1_000_000), "attempts", "again"))
    brackets = "[" * DEEPEST + "]" * DEEPEST
    assert json.dumps(read_json(brackets)) == brackets
    assert read_json(json.dumps({"a": "[" * 1000})) == {"a": "[" * 1000}  # brackets of a text are none


@pytest.mark.parametrize("digits", [MOST_DIGITS + 1, 5000, 70_000])
def test_a_number_that_kills_a_parser_in_c_is_refused_before(digits: int) -> None:
    """Of 4,301 digits and more the streaming parser ended the whole process (a segmentation fault)."""
    for text in (b'{"format": ' + b"7" * digits + b"}", b'{"attempts": [{"a": ' + b"7" * digits + b"}]}"):
        for start in (b"", b" " * 65_000):  # also where it lies across two looks
            with pytest.raises(BadInputError, match="more than 1000 digits"):
                head_of(io.BytesIO(start + text), ("format",))
            with pytest.raises(BadInputError, match="more than 1000 digits"):
                list(items_of(io.BytesIO(start + text), "attempts", "again"))
            with pytest.raises(BadInputError, match="more than 1000 digits"):
                check_depth(start + text)


def read_all(file: Measured) -> int:
    """How many bytes a file has."""
    return sum(len(part) for part in iter(lambda: file.read(65_536), b""))


@pytest.mark.parametrize(
    "endless",
    [b'{"attempts": ["', b'{"attempts": [{"a": "', b'{"attempts": [1, ', b'{"format": "x", "y": "'],
    ids=["text", "text within", "numbers", "head"],
)
def test_an_element_that_never_ends_is_refused(endless: bytes) -> None:
    file = Measured(io.BytesIO(endless + b"1, " * 40_000_000))
    with pytest.raises(BadInputError, match="one entry is longer"):
        read_all(file)
    assert file.file.tell() < LONGEST + 3 * 65_536


def test_a_long_file_of_short_elements_is_read_to_its_end() -> None:
    row = json.dumps({"a": "x" * 1000, "b": [1, 2]})
    text = '{"attempts": [' + ",\n".join([row] * 3000) + "]}"
    assert len(list(items_of(io.BytesIO(text.encode()), "attempts", "again"))) == 3000
    lines = Measured(io.BytesIO(b"short\n" * 200_000), lines=True)
    assert read_all(lines) == 1_200_000
    with pytest.raises(BadInputError, match="one entry is longer"):
        read_all(Measured(io.BytesIO(b"," * 10_000_000), lines=True))
