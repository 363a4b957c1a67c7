"""The verbs that keep the data: backup, restore, export, import, layouts, log. They work beside a running server."""

import json
from pathlib import Path
from typing import Annotated

import typer

from fandle.cli.app import Json, app

File = Annotated[Path, typer.Argument(help="The file.")]


@app.command(epilog="Example: fandle backup evening.sqlite3")
def backup(file: File, *, as_json: Json = False) -> None:
    """Copy everything that is kept into one file, also while a server runs."""
    from fandle.cli.run import data as keeping

    made = keeping.copied(file)
    typer.echo(json.dumps({"at": made.at, "file": str(file)}) if as_json else f"Everything is copied to {file}.")


@app.command(epilog="Example: fandle restore evening.sqlite3")
def restore(file: File, *, as_json: Json = False) -> None:
    """Put a copy in place of what is kept; what was there is kept beside it. Not while a server runs."""
    from fandle.cli.run import data as keeping

    before = keeping.restored(file)
    if as_json:
        typer.echo(json.dumps({"restored": str(file), "before": None if before is None else str(before)}))
    else:
        typer.echo(f"{file} is restored." + ("" if before is None else f" What was there is in {before}."))


@app.command("export", epilog="Example: fandle export log.json")
def export_log(
    file: Annotated[str, typer.Argument(help="Where to, .json or .csv; - for standard output, JSON.")],
    nickname: Annotated[str | None, typer.Option(help="What you are called in it from now on.")] = None,
    *,
    as_json: Json = False,
) -> None:
    """Write the log into a file: every attempt that is not deleted, newest first."""
    from fandle.cli.run import data as keeping

    if keeping.ask_nickname(nickname):
        typer.echo(
            "fandle: you are called 'Me' in it, as everybody is: --nickname NAME tells others whose it is", err=True
        )
    if keeping.write_log(file):
        typer.echo(json.dumps({"file": file}) if as_json else f"The log is in {file}.")


@app.command("import", epilog="Example: fandle import log.json")
def import_log(
    file: File,
    player: Annotated[
        str, typer.Option(help="What a player is to be called here who has no name in it, or yours.")
    ] = "",
    *,
    as_json: Json = False,
) -> None:
    """Take the attempts of an exported log in, all or none; those that are kept already stay as they are."""
    from fandle.cli.run import data as keeping

    done = keeping.take_in(file, player)
    typer.echo(json.dumps(done) if as_json else f"{done['new']} new of {done['attempts']} attempts are in the log.")


Last = Annotated[int, typer.Option(help="How many, the newest.")]


@app.command(epilog="Example: fandle layouts --find escape --json")
def layouts(
    name: Annotated[str | None, typer.Argument(help="One of them, printed as a layout file.")] = None,
    find: Annotated[str, typer.Option(help="Only those with this in their name or note.")] = "",
    last: Last = 40,
    *,
    as_json: Json = False,
) -> None:
    """The layouts that are kept, the newest first."""
    from fandle.cli.run.club import layouts as run

    run(name, find, last, as_json=as_json)


@app.command("log", epilog="Example: fandle log --last 10 --json")
def show_log(
    last: Last = 20,
    table: Annotated[str | None, typer.Option(help="Only attempts on this table of the club.")] = None,
    *,
    as_json: Json = False,
) -> None:
    """The last attempts, newest first, and how many of all hit."""
    from fandle.cli.run.club import show_log as run

    run(last, table, as_json=as_json)
