"""A mark as a player remembers it: "just past 3", "half a ball short of 2½", a jaw, a string; and how easily seen."""

import math
import re
from dataclasses import dataclass
from typing import Literal

from fandle.core.errors import BadInputError
from fandle.core.table.landmarks import seen_marks
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.words.spoken import FRACTIONS, mixed

Grade = Literal["diamond", "half", "quarter", "between"]
JUST = 0.05  # diamonds: just past, just short of
SEEN = 0.06  # diamonds: a mark this near to a whole, half or quarter is aimed at as one
AT_ONE = 0.01  # a jaw or a string is plainer than anything beside a quarter, not than the quarter itself
AS_SAID = 0.04  # diamonds: no words are further off than this
_PLACE = re.compile(
    r"(?:(?P<off>just|half a ball|a ball) (?P<way>past|short of) )?(?P<sign>[-−]?)(?P<whole>\d*)(?P<part>[¼½¾]?)"
)


@dataclass(frozen=True)
class Remembered:
    """A mark in words, and its grade: on a diamond, a half, a quarter, or between."""

    say: str
    grade: Grade


def remember(table: Table, rail: Rail, at: float) -> Remembered:
    """A mark, diamonds along a rail, as one remembers it: never more than 0.04 off what it says."""
    ways = ((1, "past"), (-1, "short of"))
    beside = [(way * off, f"{name} {word} ") for name, off in _steps(table, rail).items() for way, word in ways]
    told = [
        (abs(off), abs(quarter / 4 + off - at), words + _quarter(quarter))
        for quarter in (round(4 * at) + step for step in (-1, 0, 1))
        for off, words in ((0.0, ""), *beside)
    ]
    told += [(AT_ONE, abs(place - at), name) for place, name in seen_marks(table, rail)]
    close = [each for each in told if each[1] <= AS_SAID]  # of these the plainest, else whatever is nearest
    say = min(close)[2] if close else min(told, key=lambda each: each[1])[2]
    return Remembered(say, grade_of(at))


def grade_of(at: float) -> Grade:
    """How easily a mark is seen."""
    grades: tuple[tuple[Grade, float], ...] = (("diamond", 1.0), ("half", 0.5), ("quarter", 0.25))
    return next((name for name, unit in grades if abs(at - unit * round(at / unit)) <= SEEN + 1e-9), "between")


def place_of(table: Table, rail: Rail, text: str) -> float:
    """Diamonds along a rail from a number or from words such as `remember` finds. Raises BadInputError."""
    try:
        at = float(text)
    except ValueError:
        at = _in_words(table, rail, text)
    if not math.isfinite(at):
        raise BadInputError(
            f'mark {text!r} is not understood: write a number like 3.42, or "just past 3", "half a ball short of 2½"',
            "aim",
        )
    return at


def _in_words(table: Table, rail: Rail, text: str) -> float:
    words = " ".join(text.split())
    found = _PLACE.fullmatch(words)
    named = next((place for place, name in seen_marks(table, rail) if name == words), None)
    if named is not None:
        return named
    if found is None or not (found["whole"] or found["part"]):
        return math.nan
    part = next((value for value, sign in FRACTIONS.items() if sign == found["part"]), 0.0)
    at = (int(found["whole"] or 0) + part) * (-1 if found["sign"] else 1)
    off = _steps(table, rail)[found["off"]] if found["off"] else 0.0
    return at + (off if found["way"] == "past" else -off)


def _steps(table: Table, rail: Rail) -> dict[str, float]:
    """What a mark may lie beside a quarter, diamonds."""
    half = table.ball_radius / (table.diamond_x if rail.is_long else table.diamond_y)
    return {"just": JUST, "half a ball": half, "a ball": 2 * half}


def _quarter(quarters: int) -> str:
    """A number of quarters: 13 is "3¼", −1 is "−¼"."""
    return f"{'−' if quarters < 0 else ''}{mixed(quarters / 4)}"
