"""What the verbs read that ask for a shot."""

from fandle.cli.run.files import bytes_of
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.speeds import default_speed
from fandle.formats.files import read_layout


def layout_at(path: str) -> Layout:
    """The layout in a file."""
    return read_layout(bytes_of(path))


def stroke_of(table: Table, speed: float | None, side: float, up: float, elevation: float, cue: str | None) -> Stroke:
    """The stroke that was asked for, medium where no speed was."""
    return Stroke(default_speed(table) if speed is None else speed, side, up, elevation, find_cue(cue))
