"""Files: a table, a layout, strokes one a line."""

from collections.abc import Callable, Mapping
from dataclasses import MISSING, asdict
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field, StrictBool, create_model

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.layout.state import OPEN, State
from fandle.core.physics.cloth import GRAVITY
from fandle.core.shot.cue import find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.fitted import Fitted
from fandle.core.table.model import Table
from fandle.core.table.parameter import Parameter
from fandle.core.table.parameters import POCKETS, TABLE
from fandle.core.table.pocket import Pockets
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.formats.base import Number, Strict, read_json, validated
from fandle.formats.names import Name

LAYOUT_FORMAT = "fandle-layout/1"


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


class BallFile(Strict):
    """One ball: its id and its centre in diamonds."""

    id: str = Field(max_length=20)
    x: Number
    y: Number


class StateFile(Strict):
    """Where the game stands: eight-ball's group, snooker's ball on ("red", "colour" or a colour's name), free ball."""

    group: Literal["low", "high"] | None = None
    on: str | None = Field(default=None, max_length=20)
    free_ball: StrictBool = False

    def state(self) -> State:
        """The state itself."""
        return State(self.group, self.on, self.free_ball)


class LayoutFile(Strict):
    """A layout, `*.fandle.json`."""

    format: Literal["fandle-layout/1"]
    table: Annotated[str, Field(max_length=240)] | TableFile
    game: str = Field(default="nine-ball", max_length=40)
    balls: list[BallFile] = Field(max_length=64)
    target: str | None = Field(default=None, max_length=20)
    state: StateFile = StateFile()


class StrokeFile(Strict):
    """One stroke with its aim: `aim` like far:3@nose, or `direction` in degrees."""

    aim: str | None = None
    direction: Number | None = None
    speed: Number | None = None
    side: Number = 0.0
    up: Number = 0.0
    elevation: Number = 0.0
    cue: str | None = None

    def stroke(self, table: Table) -> Stroke:
        """The stroke itself, at medium speed where none is given."""
        speed = default_speed(table) if self.speed is None else self.speed
        return Stroke(speed, self.side, self.up, self.elevation, find_cue(self.cue))


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


def layout_of(data: Any, known: Callable[[str], Table] = standard_table) -> Layout:
    """A layout from parsed JSON; every fault is one sentence. known: finds a table's name."""
    if not isinstance(data, Mapping):
        raise BadInputError('a layout is a JSON object that begins {"format": "fandle-layout/1", …}', code="bad_file")
    if data.get("format") != LAYOUT_FORMAT:
        raise BadInputError(
            f"format {data.get('format')!r} is not known: this version reads {LAYOUT_FORMAT!r}",
            "format",
            code="bad_file",
        )
    given = dict(data)
    if isinstance(given.get("table"), Mapping):  # checked alone, so that its own fault is told
        given["table"] = validated(TableFile, given["table"], "table.")
    file = validated(LayoutFile, given)
    balls = tuple(Ball(b.id, b.x, b.y) for b in file.balls)
    return Layout(table_of(file.table, known), file.game, balls, file.target, file.state.state())


def read_layout(text: str | bytes, known: Callable[[str], Table] = standard_table) -> Layout:
    """A layout from the text of a `*.fandle.json` file. known: finds a table's name."""
    return layout_of(read_json(text), known)


def layout_json(layout: Layout, by_name: bool = False) -> dict[str, Any]:
    """A layout as a file; a standard table by name, any other whole (unless `by_name`)."""
    table = layout.table
    short = by_name or STANDARDS.get(table.name) == table
    return {
        "format": LAYOUT_FORMAT,
        "table": table.name if short else table_json(table),
        "game": layout.game,
        "balls": [{"id": b.id, "x": b.x, "y": b.y} for b in layout.balls],
        "target": layout.target,
        **({} if layout.state == OPEN else {"state": asdict(layout.state)}),
    }


def read_stroke(text: str, table: Table) -> tuple[StrokeFile, Stroke]:
    """One line of a strokes file."""
    file = validated(StrokeFile, read_json(text))
    return file, file.stroke(table)
