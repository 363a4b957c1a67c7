"""A table's numbers."""

import typer

from fandle.cli.run.files import print_json, table_at
from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import table_json


def table(
    name: str | None, cloth: str | None, rubber: str | None, called: str | None, *, club: bool, as_json: bool
) -> None:
    """Print a table: every number the engine uses, in SI units. Make one of your own in words."""
    if name is None:
        names = [*STANDARDS, *(_of_the_club() if club else [])]
        print_json(names) if as_json else typer.echo("\n".join(names))
        return
    made = table_at(name)
    if name not in STANDARDS or cloth or rubber or called:
        from fandle.app.tables import make  # it plays on what it makes: the engine is loaded for that

        made = make(made, {}, cloth, rubber, called)
    data = table_json(made)
    print_json(data) if as_json else typer.echo("\n".join(f"{each:<20} {value}" for each, value in data.items()))


def _of_the_club() -> list[str]:
    from fandle.cli.run.club import table_names  # the database takes 0.7 s: only who asks for it waits

    return table_names()
