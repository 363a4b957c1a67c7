"""A table's condition in words: cloth and rubber, each a small set of numbers.

For a player who knows no constants. What each word stands for is told in the registry (`parameters`), mostly as a
share of the standard table's own number; on pool that comes to
0.14, 0.15, 0.008 for new cloth and 0.25, 0.25, 0.014 for damp (common practice, no published source).
"""

from dataclasses import replace
from typing import Any, Literal

from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.parameters import TABLE
from fandle.core.table.standards import standard_table

OWN = "own numbers"
MOST_RESTITUTION = 0.98


CLOTHS = {
    "standard": "played in, dry, brushed",
    "new": "slick: running side takes less hold, three-rail tracks come long",
    "worn": "a little slower, a little more hold",
    "damp": "slow, much hold: running three-rail tracks come short",
}
RUBBERS = {
    "standard": "rigid, as the books have it",
    "lively": "hardly gives, returns nearly all",
    "soft": "the ball sinks in: the harder the shot, the shorter",
    "dead": "gives back little: slow off the rail, wider",
}


def conditioned(table: Table, cloth: str, rubber: str) -> Table:
    """The table with cloth and rubber as the words say ("own numbers" as they are), everything else kept."""
    if cloth not in (*CLOTHS, OWN):
        raise BadInputError(f"unknown cloth {cloth!r}: use one of {', '.join(CLOTHS)}", "cloth", code="unknown")
    if rubber not in (*RUBBERS, OWN):
        raise BadInputError(f"unknown rubber {rubber!r}: use one of {', '.join(RUBBERS)}", "rubber", code="unknown")
    numbers: dict[str, Any] = {} if cloth == OWN else _numbers(table, "cloth", cloth)
    numbers |= {} if rubber == OWN else _numbers(table, "rubber", rubber)
    return replace(table, **numbers)


def condition_of(table: Table) -> tuple[str, str]:
    """(cloth, rubber) in words; "own numbers" where no word fits exactly."""
    cloths = {word: _numbers(table, "cloth", word) for word in CLOTHS}
    rubbers = {word: _numbers(table, "rubber", word) for word in RUBBERS}
    return _word(table, cloths), _word(table, rubbers)


def _word(table: Table, known: dict[str, dict[str, float]]) -> str:
    for name, numbers in known.items():
        if all(getattr(table, number) == value for number, value in numbers.items()):
            return name
    return OWN


def _numbers(table: Table, kind: Literal["cloth", "rubber"], word: str) -> dict[str, float]:
    """What a word says of each number it speaks of, by the registry."""
    norm, numbers = standard_table(table.standard), {}
    for name, known in TABLE.items():
        words = known.cloth if kind == "cloth" else known.rubber
        if word in words:
            share = words[word]
            value = share if known.absolute else _tidy(getattr(norm, name) * share)
            numbers[name] = min(value, MOST_RESTITUTION) if name == "cushion_restitution" else value
    return numbers


def _tidy(value: float) -> float:
    return round(value, 5)
