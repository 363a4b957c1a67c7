"""Tables as files: every number the engine uses, SI units."""

from collections.abc import Callable, Mapping
from dataclasses import MISSING, asdict
from typing import Annotated, Any

from pydantic import AfterValidator, Field, create_model

from fandle.core.constants import GRAVITY
from fandle.core.errors import BadInputError
from fandle.core.table.fitted import Fitted
from fandle.core.table.model import Table
from fandle.core.table.parameter import Parameter
from fandle.core.table.parameters import POCKETS, TABLE
from fandle.core.table.pocket import Pockets
from fandle.core.table.standards import standard_table
from fandle.formats.base import Number, Strict, read_json, validated
from fandle.formats.names import Name


def _fields(registry: Mapping[str, Parameter]) -> dict[str, Any]:
    """The numbers of a registry as a file has them: required, unless the registry has a default."""
    return {
        name: (Number | None if known.optional else Number, ... if known.default is MISSING else known.default)
        for name, known in registry.items()
    }


_PocketNumbers = create_model("_PocketNumbers", __base__=Strict, **_fields(POCKETS))
_TableNumbers = create_model("_TableNumbers", __base__=Strict, **_fields(TABLE))


class PocketsFile(_PocketNumbers):  # type: ignore[valid-type, misc]  # made from the registry
    """Pocket mouths and facings: metres and degrees."""


def _as_everywhere(value: float | None) -> float | None:
    if value is not None and value != GRAVITY:
        raise ValueError(f"{value:g} is not what it is on any table, {GRAVITY:g}: leave it out")
    return value


class FittedFile(Strict):
    """How sure a table check is of some of the numbers: their names, and the covariance of their errors, SI."""

    date: str = Field(max_length=40)
    names: list[Annotated[str, Field(max_length=60)]] = Field(min_length=1, max_length=12)
    covariance: list[list[Number]] = Field(max_length=12)


class TableFile(_TableNumbers):  # type: ignore[valid-type, misc]  # made from the registry
    """A whole table, every number the engine uses, SI; marks in diamonds. gravity: read in older files, not kept."""

    name: Name
    standard: str = Field(max_length=40)
    pockets: PocketsFile | None
    spots: dict[str, tuple[Number, Number]]
    fitted: FittedFile | None = None
    gravity: Annotated[Number | None, AfterValidator(_as_everywhere)] = None


def table_of(file: str | TableFile, known: Callable[[str], Table] = standard_table) -> Table:
    """The table that a name or a table object stands for; `known` finds a name."""
    if isinstance(file, str):
        return known(file)
    standard_table(file.standard)
    values = file.model_dump(exclude={"gravity"})
    if values["pockets"] is not None:
        values["pockets"] = Pockets(**values["pockets"])
    if values["fitted"] is not None:
        fit = values["fitted"]
        rows = tuple(tuple(row) for row in fit["covariance"])
        values["fitted"] = Fitted(fit["date"], tuple(fit["names"]), rows)
    return Table(**values)


def table_json(table: Table) -> dict[str, Any]:
    """A table as a table object, every number in it."""
    data = asdict(table)
    data["spots"] = {name: list(spot) for name, spot in table.spots.items()}
    if data["fitted"] is None:
        del data["fitted"]
    else:
        names, rows = list(data["fitted"]["names"]), [list(row) for row in data["fitted"]["covariance"]]
        data["fitted"] = {"date": data["fitted"]["date"], "names": names, "covariance": rows}
    return {"name": data.pop("name"), "standard": data.pop("standard"), **data}


def table_of_json(data: Any) -> Table:
    """A table from parsed JSON, a table object; every fault is one sentence."""
    if not isinstance(data, Mapping):
        raise BadInputError(
            "a table is a JSON object, as `fandle table pool-9ft --json` prints one", "table", code="bad_file"
        )
    return table_of(validated(TableFile, dict(data), "table."))


def read_table(text: str | bytes) -> Table:
    """A table from the text of a table file."""
    return table_of_json(read_json(text))
