"""A table's numbers."""

import typer

from fandle.cli.run.files import print_json, table_at
from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import table_json


def table(name: str | None, cloth: str | None, rubber: str | None, called: str | None, *, as_json: bool) -> None:
    """Print a table: every number the engine uses, in SI units. Make one of your own in words."""
    if name is None:
        print_json(list(STANDARDS)) if as_json else typer.echo("\n".join(STANDARDS))
        return
    made = table_at(name)
    if name not in STANDARDS or cloth or rubber or called:
        from fandle.app.tables import make  # it plays on what it makes: the engine is loaded for that

        made = make(made, {}, cloth, rubber, called)
    data = table_json(made)
    print_json(data) if as_json else typer.echo("\n".join(f"{each:<20} {value}" for each, value in data.items()))
