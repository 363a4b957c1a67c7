"""JSON that is read and written an element at a time, whatever its length: a log, a player's results."""

import math
from collections.abc import Iterator, Sequence
from typing import Any, BinaryIO

import ijson

from fandle.core.errors import BadInputError
from fandle.formats.depth import Measured

STARTS = ("start_array", "start_map")


def head_of(file: BinaryIO, names: Sequence[str], until: str = "") -> dict[str, Any]:
    """The plain values of these names, those before the list called `until` if one is given; the file is wound back.

    Raises BadInputError where it is no JSON.
    """
    found: dict[str, Any] = {}
    file.seek(0)
    try:
        for prefix, event, value in ijson.parse(Measured(file), use_float=True):
            if (event == "start_array" and prefix == until) or len(found) == len(names):
                break
            if prefix in names and event not in STARTS:
                found[prefix] = value
    except (ijson.JSONError, ValueError, ArithmeticError) as fault:
        raise _broken(fault, "check the file") from None
    file.seek(0)
    return found


def items_of(file: BinaryIO, name: str, remedy: str) -> Iterator[Any]:
    """The elements of the list of this name, one at a time. Raises BadInputError where the file is no whole JSON."""
    file.seek(0)
    try:
        yield from ijson.items(Measured(file), f"{name}.item", use_float=True)
    except (ijson.JSONError, ValueError, ArithmeticError) as fault:
        raise _broken(fault, remedy) from None


def _broken(fault: Exception, remedy: str) -> BadInputError:
    return BadInputError(f"this is not a whole JSON file ({str(fault)[:200]}): {remedy}", code="bad_file")


def writable(data: Any) -> Any:
    """What can be written as JSON: a part of a record that could not be read, or is no number, becomes null."""
    if isinstance(data, dict):
        return {str(name): writable(value) for name, value in data.items()}
    if isinstance(data, list | tuple):
        return [writable(value) for value in data]
    if isinstance(data, float):
        return data if math.isfinite(data) else None
    return data if data is None or isinstance(data, str | int | bool) else None
