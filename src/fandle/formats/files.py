"""Files: a table, a layout, strokes one a line."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any, Literal

from pydantic import Field

from fandle.core import constants as k
from fandle.core.errors import BadInputError
from fandle.core.layout import Ball, Layout
from fandle.core.pocket import Pockets
from fandle.core.stroke import Stroke, find_cue
from fandle.core.table import Table, standard_table
from fandle.core.units import default_speed
from fandle.formats.base import Number, Strict, read_json, validated

LAYOUT_FORMAT = "fandle-layout/1"


class PocketsFile(Strict):
    """Pocket mouths and facings: metres and degrees."""

    corner_mouth: Number
    side_mouth: Number
    corner_cut_deg: Number
    side_cut_deg: Number
    corner_shelf: Number
    side_shelf: Number
    corner_point_radius: Number = k.POOL_POINT_RADIUS_M
    side_point_radius: Number = k.POOL_POINT_RADIUS_M


class TableFile(Strict):
    """A whole table, every number the engine uses, SI; marks in diamonds."""

    name: str = Field(min_length=1, max_length=60)
    standard: str
    length: Number
    width: Number
    ball_radius: Number
    ball_mass: Number
    nose_height: Number
    sight_setback: Number | None
    rail_width: Number
    cushion_restitution: Number
    cushion_friction: Number
    cushion_compression: Number
    cloth_sliding: Number
    cloth_rolling: Number
    spin_decay: Number
    ball_restitution: Number
    ball_friction_floor: Number = k.BALL_FRICTION_FLOOR
    ball_friction_rise: Number = k.BALL_FRICTION_RISE
    ball_friction_fall: Number = k.BALL_FRICTION_FALL
    ball_stiffness: Number = k.POOL_BALL_STIFFNESS
    gravity: Number
    pockets: PocketsFile | None
    head_string: Number | None
    spots: dict[str, tuple[Number, Number]]


class BallFile(Strict):
    """One ball: its id and its centre in diamonds."""

    id: str
    x: Number
    y: Number


class LayoutFile(Strict):
    """A layout, `*.fandle.json`."""

    format: Literal["fandle-layout/1"]
    table: str | TableFile
    game: str = "nine-ball"
    balls: list[BallFile] = Field(max_length=64)
    target: str | None = None


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


def table_of(file: str | TableFile) -> Table:
    """The table that a name or a table object stands for."""
    if isinstance(file, str):
        return standard_table(file)
    standard_table(file.standard)
    values: dict[str, Any] = {name: getattr(file, name) for name in TableFile.model_fields}
    if file.pockets is not None:
        values["pockets"] = Pockets(**file.pockets.model_dump())
    values["spots"] = dict(file.spots)
    return Table(**values)


def table_json(table: Table) -> dict[str, Any]:
    """A table as a table object, every number in it."""
    data = asdict(table)
    data["spots"] = {name: list(spot) for name, spot in table.spots.items()}
    return data


def layout_of(data: Any) -> Layout:
    """A layout from parsed JSON; every fault is one sentence."""
    if not isinstance(data, Mapping):
        raise BadInputError('a layout is a JSON object that begins {"format": "fandle-layout/1", …}')
    if data.get("format") != LAYOUT_FORMAT:
        raise BadInputError(
            f"format {data.get('format')!r} is not known: this version reads {LAYOUT_FORMAT!r}", "format"
        )
    given = dict(data)
    if isinstance(given.get("table"), Mapping):  # checked alone, so that its own fault is told
        given["table"] = validated(TableFile, given["table"], "table.")
    file = validated(LayoutFile, given)
    balls = tuple(Ball(b.id, b.x, b.y) for b in file.balls)
    return Layout(table_of(file.table), file.game, balls, file.target)


def read_layout(text: str | bytes) -> Layout:
    """A layout from the text of a `*.fandle.json` file."""
    return layout_of(read_json(text))


def layout_json(layout: Layout) -> dict[str, Any]:
    """A layout as a file; a standard table by name, any other whole."""
    standard = layout.table == _standard_or_none(layout.table.name)
    table = layout.table.name if standard else table_json(layout.table)
    return {
        "format": LAYOUT_FORMAT,
        "table": table,
        "game": layout.game,
        "balls": [{"id": b.id, "x": b.x, "y": b.y} for b in layout.balls],
        "target": layout.target,
    }


def _standard_or_none(name: str) -> Table | None:
    try:
        return standard_table(name)
    except BadInputError:
        return None


def read_stroke(text: str, table: Table) -> tuple[StrokeFile, Stroke]:
    """One line of a strokes file."""
    file = validated(StrokeFile, read_json(text))
    return file, file.stroke(table)
