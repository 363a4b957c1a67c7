"""A cue's squirt."""

import typer

from fandle.app.cues import find_squirt
from fandle.cli.run.files import print_json, table_at
from fandle.formats.cues import SquirtAnswer


def squirt(left: float, right: float, side: float, table: str, *, as_json: bool) -> None:
    """Find a cue's squirt from two shots from (1, 2) at the middle of the foot rail, level and medium."""
    found = find_squirt(table_at(table), left, right, side)
    print_json(SquirtAnswer.of(found)) if as_json else typer.echo(found.say)
