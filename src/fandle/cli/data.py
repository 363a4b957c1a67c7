"""The verbs that keep the data: backup, restore, export, import. They work beside a running server."""

import json
import sys
from contextlib import closing
from pathlib import Path
from typing import Annotated

import typer

from fandle.cli.verbs import Json, app
from fandle.core.errors import BadInputError
from fandle.formats.log import csv_parts, json_parts
from fandle.store import log
from fandle.store.backup import backup as make_backup
from fandle.store.backup import restore as put_back
from fandle.store.database import Database
from fandle.store.folder import home_folder
from fandle.store.log_files import take_in

File = Annotated[Path, typer.Argument(help="The file.")]


@app.command(epilog="Example: fandle backup evening.sqlite3")
def backup(file: File, as_json: Json = False) -> None:
    """Copy everything that is kept into one file, also while a server runs."""
    made = make_backup(home_folder(), file)
    typer.echo(json.dumps({"at": made.at, "file": str(file)}) if as_json else f"Everything is copied to {file}.")


@app.command(epilog="Example: fandle restore evening.sqlite3")
def restore(file: File, as_json: Json = False) -> None:
    """Put a copy in place of what is kept; what was there is kept beside it. Not while a server runs."""
    before = put_back(home_folder(), file)
    if as_json:
        typer.echo(json.dumps({"restored": str(file), "before": None if before is None else str(before)}))
    else:
        typer.echo(f"{file} is restored." + ("" if before is None else f" What was there is in {before}."))


@app.command("export", epilog="Example: fandle export log.json")
def export_log(
    file: Annotated[str, typer.Argument(help="Where to, .json or .csv; - for standard output, JSON.")],
    as_json: Json = False,
) -> None:
    """Write the log into a file: every attempt that is not deleted, newest first."""
    with closing(Database.open(home_folder())) as database:
        rows = log.every(database)
        parts = csv_parts(rows) if file.endswith(".csv") else json_parts(rows)
        if file == "-":
            sys.stdout.writelines(parts)
            return
        try:
            with Path(file).open("w", encoding="utf-8", newline="") as out:
                out.writelines(parts)
        except OSError as fault:
            raise BadInputError(
                f"cannot write {file!r} ({fault.strerror}): check the file's name and folder", code="no_file"
            ) from None
    typer.echo(json.dumps({"file": file}) if as_json else f"The log is in {file}.")


@app.command("import", epilog="Example: fandle import log.json")
def import_log(file: File, as_json: Json = False) -> None:
    """Take the attempts of an exported log in, all or none; those that are kept already stay as they are."""
    try:
        with file.open("rb") as source, closing(Database.open(home_folder())) as database:
            done = take_in(database, source)
    except OSError as fault:
        raise BadInputError(
            f"cannot read {str(file)!r} ({fault.strerror}): check the file's name", code="no_file"
        ) from None
    typer.echo(json.dumps(done) if as_json else f"{done['new']} new of {done['attempts']} attempts are in the log.")
