"""What the verbs read that ask for a shot."""

from dataclasses import replace

from fandle.cli.run.files import bytes_of, table_at, table_named
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import CUES, Cue, find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.speeds import default_speed
from fandle.formats.files import read_layout


def layout_at(path: str, table: str | None = None) -> Layout:
    """The layout in a file; table: a name or file of the table that it is to lie on instead of its own."""
    layout = read_layout(bytes_of(path), table_named)
    return layout if table is None else replace(layout, table=table_at(table))


def cue_named(name: str | None) -> Cue:
    """A cue by name, the club's own too; the ideal one where none is named."""
    if name is None or name in CUES:
        return find_cue(name)
    from fandle.cli.run.club import cue_called

    return cue_called(name)


def stroke_of(table: Table, speed: float | None, side: float, up: float, elevation: float, cue: str | None) -> Stroke:
    """The stroke that was asked for, medium where no speed was."""
    return Stroke(default_speed(table) if speed is None else speed, side, up, elevation, cue_named(cue))
