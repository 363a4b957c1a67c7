"""Files: a table, a layout, strokes one a line."""

from collections.abc import Callable, Mapping
from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.layout.state import OPEN, State
from fandle.core.shot.cue import find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.formats.base import Number, Strict, read_json, validated
from fandle.formats.tables import TableFile, table_json, table_of

LAYOUT_FORMAT = "fandle-layout/1"


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


def layout_json(layout: Layout, *, by_name: bool = False) -> dict[str, Any]:
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
