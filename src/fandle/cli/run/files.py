"""What every verb reads and prints."""

import json
import sys
from pathlib import Path
from typing import Any

import typer

from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS

NO_ANSWER = 1


def bytes_of(path: str) -> bytes:
    """What is in a file, - being standard input. Raises BadInputError where it cannot be read."""
    try:
        return sys.stdin.buffer.read() if path == "-" else Path(path).read_bytes()
    except OSError as fault:
        raise BadInputError(f"cannot read {path!r} ({fault.strerror}): check the file's name", code="no_file") from None


def table_at(name: str) -> Table:
    """A table by name, the club's own too, or from a file."""
    if name.endswith(".json"):
        from fandle.formats.tables import read_table

        return read_table(bytes_of(name))
    return table_named(name)


def table_named(name: str) -> Table:
    """A standard table, or one that the club keeps here, by name."""
    if name in STANDARDS:
        return STANDARDS[name]
    from fandle.cli.run.club import table_called

    return table_called(name)


def print_json(data: Any) -> None:
    """An answer, several, or what is JSON already."""
    every = data if isinstance(data, list) else [data]
    parts = [each.json_data() if hasattr(each, "json_data") else each for each in every]
    typer.echo(json.dumps(parts if isinstance(data, list) else parts[0], allow_nan=False))
