"""What is known of one number of a table, whatever number it is. The numbers themselves: `parameters`."""

from collections.abc import Callable, Mapping
from dataclasses import MISSING, dataclass, field, fields
from typing import Any

KEY = "parameter"
NO_WORDS: Mapping[str, float] = {}


@dataclass(frozen=True)
class Shown:
    """How a player sees and sets a number: SI × `scale`, in `unit`, to `places` decimals; what it does, in words."""

    group: str
    label: str
    says: str
    unit: str = ""
    scale: float = 1.0
    places: int = 3


@dataclass(frozen=True)
class Parameter:
    """One number of a table: its unit in SI, its limits, and everything that derives from them.

    slot: what the kernels call it, None where none reads it as it is; kernel: what goes there, of the whole table,
    where that is not the number itself. condition: says in which condition a table is, not what it is. cloth, rubber:
    words of condition and the share of the standard table's number they stand for (`absolute`: the number itself).
    prior_sd: how far a table of its make may be from the standard number, for a fit (our own estimate).
    origin: where default and limits come from. default: of a file without it; MISSING where a file must say it.
    """

    name: str
    unit: str
    low: float
    high: float
    default: Any
    optional: bool
    origin: str
    shown: Shown | None
    slot: str | None
    kernel: Callable[[Any], float] | None
    condition: bool
    cloth: Mapping[str, float]
    rubber: Mapping[str, float]
    absolute: bool
    prior_sd: float | None


def number(
    unit: str,
    low: float,
    high: float,
    origin: str,
    shown: Shown | None = None,
    *,
    default: Any = MISSING,
    slot: str | None = None,
    kernel: Callable[[Any], float] | None = None,
    condition: bool = False,
    cloth: Mapping[str, float] = NO_WORDS,
    rubber: Mapping[str, float] = NO_WORDS,
    absolute: bool = False,
    prior_sd: float | None = None,
) -> Any:
    """An entry of the registry: a field of the table with all that is known of it. See `Parameter`."""
    known = {
        "unit": unit, "low": low, "high": high, "default": default, "origin": origin, "shown": shown, "slot": slot,
        "kernel": kernel, "condition": condition, "cloth": cloth, "rubber": rubber, "absolute": absolute,
        "prior_sd": prior_sd,
    }  # fmt: skip
    return field(default=default, metadata={KEY: known})


def parameters_of(owner: type) -> dict[str, Parameter]:
    """The entries of a class of numbers by name, in their order."""
    return {
        f.name: Parameter(name=f.name, optional="None" in str(f.type), **f.metadata[KEY])
        for f in fields(owner)
        if KEY in f.metadata
    }
