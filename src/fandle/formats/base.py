"""Settings shared by all border models, and one way to turn their faults into a sentence."""

import json
import math
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Annotated, Any, TypeVar

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, ValidationError

from fandle.core.errors import BadInputError
from fandle.formats.depth import check_depth


def _number(value: Any) -> Any:
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise ValueError(f"{value!r} is not a number")
    try:
        finite = math.isfinite(value)
    except OverflowError:  # an integer beyond any float
        raise ValueError("the number is too large: give it as it is measured") from None
    if not finite:
        raise ValueError(f"{value!r} is not a finite number")
    return value


def _time(text: str) -> str:
    try:
        time = datetime.fromisoformat(text)
    except ValueError:
        raise ValueError(f"{text!r} is no time: write it like 2026-11-26T20:00:00+00:00") from None
    if time.tzinfo is None or not EARLIEST <= time.year <= LATEST:
        raise ValueError(f"{text!r} is no time with its zone between {EARLIEST} and {LATEST}")
    return time.astimezone(UTC).isoformat(timespec="seconds")


EARLIEST, LATEST = 1970, 2200  # years of what is noted
M = TypeVar("M", bound=BaseModel)
Number = Annotated[float, BeforeValidator(_number)]
Time = Annotated[str, Field(max_length=40), AfterValidator(_time)]  # when something was made: UTC, ISO 8601


class Strict(BaseModel):
    """Unknown names are refused, numbers are numbers, nothing changes once read."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False, ser_json_inf_nan="null")


def sentence(error: ValidationError) -> str:
    """The first fault of a model as one sentence that names the place."""
    return fault_sentence(error.errors()[0])


def fault_sentence(fault: Mapping[str, Any]) -> str:
    """One fault as Pydantic lists it, as a sentence."""
    place = ".".join(str(part) for part in fault["loc"]).removeprefix("body.") or "the input"
    kind = fault["type"]
    if kind == "missing":
        return f"{place} is missing: give it a value"
    if kind == "extra_forbidden":
        return f"{place} is not known here: check the spelling or leave it out"
    text = fault["msg"].removeprefix("Value error, ")
    return f"{place}: {text}" if kind == "value_error" else f"{place}: {text[:1].lower()}{text[1:]}"


def fault_code(fault: Mapping[str, Any]) -> str:
    """The same in a short word."""
    kinds = {"missing": "missing", "extra_forbidden": "unknown", "value_error": "not_a_number"}
    return kinds.get(fault["type"], "invalid")


def read_json(text: str | bytes) -> Any:
    """Parse JSON, UTF-8; a fault is one sentence with line and column."""
    try:
        written = text if isinstance(text, str) else text.decode("utf-8-sig")
        check_depth(text if isinstance(text, bytes) else text.encode("utf-8", "surrogatepass"))
        data = json.loads(written)
        if "\\ud" in written.lower() or not isinstance(text, bytes):
            check_writable(data)
        return data
    except json.JSONDecodeError as fault:
        raise BadInputError(
            f"this is not JSON (line {fault.lineno}, column {fault.colno}: {fault.msg}): check the file",
            code="bad_file",
        ) from None
    except (UnicodeDecodeError, RecursionError, ValueError):  # a number of thousands of digits is the last
        raise BadInputError("this is not JSON text: check the file", code="bad_file") from None


def check_writable(data: Any) -> None:
    """Refuse parsed JSON whose text holds half a surrogate pair: no file and no database takes that."""
    try:
        json.dumps(data, ensure_ascii=False).encode()
    except UnicodeEncodeError:
        raise BadInputError(
            "the text holds half a character, which cannot be kept: check the file", code="unwritable"
        ) from None


def validated(model: type[M], data: Any, prefix: str = "") -> M:
    """`data` as a model, or BadInputError with one sentence; `prefix` leads to the place."""
    try:
        return model.model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        raise BadInputError(prefix + sentence(error), prefix + place, code=fault_code(first)) from None
