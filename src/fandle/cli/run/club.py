"""What the club keeps, on the command line. Loaded where a name is not a standard one: the database takes 0.7 s."""

import json
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import asdict

import typer

from fandle.app.club import Club, KeptLayout, MemoryClub
from fandle.app.library import Library
from fandle.cli.run.files import print_json
from fandle.core.errors import BadInputError
from fandle.core.shot.cue import Cue
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.core.words.spoken import landing_word
from fandle.formats.files import layout_json
from fandle.formats.log import attempt_json
from fandle.store import log
from fandle.store.database import FILE, Database
from fandle.store.figures import figures_of
from fandle.store.folder import home_folder
from fandle.store.standing import my_club
from fandle.store.stored_club import StoredClub

MOST = 1000  # layouts or attempts told at once


@contextmanager
def club() -> Iterator[Club]:
    """The club that is kept here; an empty one where nothing is: asking makes no folder."""
    if not (home_folder() / FILE).exists():
        yield MemoryClub()
        return
    with _database() as database:
        yield StoredClub(database)


def table_called(name: str) -> Table:
    """A table of the club by name, or a standard one. Raises BadInputError."""
    with club() as kept:
        library = Library(kept)
        if name not in {*STANDARDS, *library.tables()}:
            raise BadInputError(
                f"unknown table {name!r}: fandle table --club has them, or give a table's file", "table", code="unknown"
            )
        return library.table(name)


def cue_called(name: str) -> Cue:
    """A cue of the club by name, or a standard one. Raises BadInputError."""
    with club() as kept:
        return Library(kept).cue(name)


def table_names() -> list[str]:
    """What the club's home-made tables are called."""
    with club() as kept:
        return list(Library(kept).tables())


@contextmanager
def _database() -> Iterator[Database]:
    if not (home_folder() / FILE).exists():
        raise BadInputError(
            "nothing is kept yet: start fandle serve, or take a log in with fandle import", code="nothing_kept"
        )
    with closing(Database.open(home_folder())) as database:
        yield database


def layouts(name: str | None, find: str, last: int, *, as_json: bool) -> None:
    """The layouts that are kept, or one of them as a file."""
    _check_last(last)
    if name is not None:
        print_json(_file(_layout_called(name)))
        return
    with club() as kept:
        found = kept.layouts(last, find=find)
    if as_json:
        print_json([{"name": row.name, "note": row.note, "layout": _file(row)} for row in found])
    else:
        typer.echo("\n".join(_layout_line(row) for row in found) or "no layout is kept")


def _file(row: KeptLayout) -> dict[str, object] | None:
    return None if row.layout is None else layout_json(row.layout)


def _layout_line(row: KeptLayout) -> str:
    what = "cannot be read" if row.layout is None else f"{row.layout.game} on {row.layout.table.name}"
    return f"{row.name}: {what}" + (f". {row.note}" if row.note else "")


def _layout_called(name: str) -> KeptLayout:
    with club() as kept:
        found = next(iter(kept.layouts_named([name])), None)
    if found is None:
        raise BadInputError(f"no layout is kept as {name!r}: fandle layouts has them", "name", code="unknown")
    if found.layout is None:
        raise BadInputError(f"the record of {name!r} cannot be read: keep it again", "name", code="bad_file")
    return found


def show_log(last: int, table: str | None, *, as_json: bool) -> None:
    """The last attempts with their figures."""
    _check_last(last)
    with _database() as database:
        wanted = log.EVERYTHING if table is None else log.Filter(table=_table_id(StoredClub(database), table))
        rows = [row for _, row in log.page(database, wanted, last)]
        figures, name = figures_of(database, wanted), my_club(database)
    if as_json:
        typer.echo(
            json.dumps(
                {"club": name, "figures": asdict(figures), "attempts": [attempt_json(row) for row in rows]},
                allow_nan=False,
            )
        )
        return
    said = [f"{figures.hits} of {figures.attempts} hit"]
    if figures.low is not None and figures.high is not None:
        said.append(f"({100 * figures.low:.0f}–{100 * figures.high:.0f} %)")
    if figures.bias is not None:
        said.append(f"{landing_word(figures.bias)} on average")
    lines = [f"{row.made_at[:16].replace('T', ' ')}  {row.result:<6} {row.title} ({row.table_label})" for row in rows]
    typer.echo("\n".join([" ".join(said), *lines]))


def _table_id(kept: Club, label: str) -> int:
    found = next((row for row in kept.tables() if label in (row.label, row.standard)), None)
    if found is None:
        raise BadInputError(
            f"no table of the club is called {label!r}: fandle table --club has them", "table", code="unknown"
        )
    return found.id


def _check_last(last: int) -> None:
    if not 1 <= last <= MOST:
        raise BadInputError(f"--last {last}: ask for 1 to {MOST}", "last", code="out_of_range")
