"""A table's condition in words: cloth and rubber, each a small set of numbers.

For a player who knows no constants. The numbers are shares of the standard table's own; on pool they
come to 0.14, 0.15, 0.008 for new cloth and 0.25, 0.25, 0.014 for damp (common practice, no published source).
"""

from dataclasses import dataclass, replace
from typing import Any

from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.standards import standard_table

OWN = "own numbers"
MOST_RESTITUTION = 0.98


@dataclass(frozen=True)
class Cloth:
    """Shares of the standard cushion friction, sliding and rolling resistance; what it does, in words."""

    friction: float
    sliding: float
    rolling: float
    says: str


@dataclass(frozen=True)
class Rubber:
    """Share of the standard restitution; give in s and its loss; what it does, in words."""

    restitution: float
    compression: float
    loss: float
    says: str


CLOTHS = {
    "standard": Cloth(1.0, 1.0, 1.0, "played in, dry, brushed"),
    "new": Cloth(0.70, 0.75, 0.80, "slick: running side takes less hold, three-rail tracks come long"),
    "worn": Cloth(1.10, 1.10, 1.15, "a little slower, a little more hold"),
    "damp": Cloth(1.25, 1.25, 1.40, "slow, much hold: running three-rail tracks come short"),
}
RUBBERS = {
    "standard": Rubber(1.0, 0.0, 0.0, "rigid, as the books have it"),
    "lively": Rubber(1.06, 0.0008, 0.0, "hardly gives, returns nearly all"),
    "soft": Rubber(0.97, 0.0025, 0.1, "the ball sinks in: the harder the shot, the shorter"),
    "dead": Rubber(0.88, 0.0020, 0.3, "gives back little: slow off the rail, wider"),
}


def conditioned(table: Table, cloth: str, rubber: str) -> Table:
    """The table with cloth and rubber as the words say ("own numbers" as they are), everything else kept."""
    if cloth not in (*CLOTHS, OWN):
        raise BadInputError(f"unknown cloth {cloth!r}: use one of {', '.join(CLOTHS)}", "cloth")
    if rubber not in (*RUBBERS, OWN):
        raise BadInputError(f"unknown rubber {rubber!r}: use one of {', '.join(RUBBERS)}", "rubber")
    numbers: dict[str, Any] = {} if cloth == OWN else _cloth_numbers(table, CLOTHS[cloth])
    numbers |= {} if rubber == OWN else _rubber_numbers(table, RUBBERS[rubber])
    return replace(table, **numbers)


def condition_of(table: Table) -> tuple[str, str]:
    """(cloth, rubber) in words; "own numbers" where no word fits exactly."""
    cloths = {name: _cloth_numbers(table, cloth) for name, cloth in CLOTHS.items()}
    rubbers = {name: _rubber_numbers(table, rubber) for name, rubber in RUBBERS.items()}
    return _word(table, cloths), _word(table, rubbers)


def _word(table: Table, known: dict[str, dict[str, float]]) -> str:
    for name, numbers in known.items():
        if all(getattr(table, number) == value for number, value in numbers.items()):
            return name
    return OWN


def _cloth_numbers(table: Table, cloth: Cloth) -> dict[str, float]:
    norm = standard_table(table.standard)
    return {
        "cushion_friction": _tidy(norm.cushion_friction * cloth.friction),
        "cloth_sliding": _tidy(norm.cloth_sliding * cloth.sliding),
        "cloth_rolling": _tidy(norm.cloth_rolling * cloth.rolling),
    }


def _rubber_numbers(table: Table, rubber: Rubber) -> dict[str, float]:
    norm = standard_table(table.standard)
    return {
        "cushion_restitution": min(_tidy(norm.cushion_restitution * rubber.restitution), MOST_RESTITUTION),
        "cushion_compression": rubber.compression,
        "cushion_loss": rubber.loss,
    }


def _tidy(value: float) -> float:
    return round(value, 5)
