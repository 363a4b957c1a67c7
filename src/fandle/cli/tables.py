"""The verbs that ask about a table, a cue, a miss, practice, and the one that serves the application."""

from pathlib import Path
from typing import Annotated

import typer

from fandle.cli.app import CueName, Elevation, Json, LayoutArg, OnTable, Side, Speed, Target, Up, WithEngine, app

PlayerName = Annotated[str, typer.Option("--player", help="new, club, strong, or a player's file.")]


@app.command(epilog="Example: fandle table pool-7ft --cloth worn --rubber soft --called bar --json")
def table(
    name: Annotated[
        str | None, typer.Argument(help="A table's name, the club's own too, or its file; without it, all names.")
    ] = None,
    cloth: Annotated[str | None, typer.Option(help="standard, new, worn, damp.")] = None,
    rubber: Annotated[str | None, typer.Option(help="standard, lively, soft, dead.")] = None,
    called: Annotated[str | None, typer.Option(help="Name of the table made.")] = None,
    *,
    club: Annotated[bool, typer.Option("--club", help="Without a name: the club's own tables too.")] = False,
    as_json: Json = False,
) -> None:
    """Print a table: every number the engine uses, in SI units. Make one of your own in words."""
    from fandle.cli.run.table import table as run

    run(name, cloth, rubber, called, club=club, as_json=as_json)


@app.command(cls=WithEngine, epilog="Example: fandle squirt --left 1.75 --right 2.25 --json")
def squirt(
    left: Annotated[float, typer.Option(help="Where the ball with left side met the foot rail, diamonds.")],
    right: Annotated[float, typer.Option(help="Where the one with right side met it, on the same line of aim.")],
    side: Annotated[float, typer.Option(help="Tip off centre, once left and once right, in radii.")] = 0.4,
    table: Annotated[str, typer.Option(help="Table, or a table file.")] = "pool-9ft",
    *,
    as_json: Json = False,
) -> None:
    """Find a cue's squirt from two shots from (1, 2) at the middle of the foot rail, level and medium."""
    from fandle.cli.run.cue import squirt as run

    run(left, right, side, table, as_json=as_json)


@app.command(cls=WithEngine, epilog="Example: fandle check pool-9ft --shots evening.json --json")
def check(
    table: Annotated[str | None, typer.Argument(help="A table's name or file; with --list it may be left out.")] = None,
    shots: Annotated[str | None, typer.Option(help="File of the shots as they landed, fandle-check/1, or -.")] = None,
    *,
    listed: Annotated[bool, typer.Option("--list", help="Print the reference shots.")] = False,
    on: Annotated[str | None, typer.Option("--table", help="With --list: the table they are for.")] = None,
    out: Annotated[str | None, typer.Option(help="Write the fitted table to this file.")] = None,
    player: PlayerName = "club",
    as_json: Json = False,
) -> None:
    """How does this table play? The numbers that a few shots fit, or with --list the shots to play."""
    from fandle.cli.run.check import check as run

    run(table, shots, listed=listed, on=on, out=out, player=player, as_json=as_json)


@app.command(
    cls=WithEngine,
    epilog="Example: fandle diagnose layout.fandle.json --rails far --aim far:3@nose --landed '0.5 short'",
)
def diagnose(
    layout: LayoutArg,
    rails: Annotated[str, typer.Option(help="Rails in order, such as far,foot.")],
    aim: Annotated[str, typer.Option(help="The mark that was aimed at, like far:3.42@nose.")],
    landed: Annotated[str, typer.Option(help='"0.5 short", "0.3 long" (diamonds at the target\'s line), or "on".')],
    met: Annotated[str | None, typer.Option(help="Side of the ball that was hit: left, full or right.")] = None,
    touched: Annotated[str | None, typer.Option(help="Contacts seen, like far:3.1,foot:2.2.")] = None,
    stopped: Annotated[str | None, typer.Option(help="Where the cue ball stopped: x,y in diamonds.")] = None,
    target: Target = None,
    player: PlayerName = "club",
    speed: Speed = None,
    side: Side = 0.0,
    up: Up = 0.0,
    elevation: Elevation = 0.0,
    cue: CueName = None,
    table: OnTable = None,
    *,
    as_json: Json = False,
) -> None:
    """What was the miss: mark, speed, side, height or the table? And what to aim at next."""
    from fandle.cli.run.check import diagnose as run

    run(
        layout,
        rails,
        aim,
        landed,
        met,
        touched,
        stopped,
        target,
        player,
        speed,
        side,
        up,
        elevation,
        cue,
        table,
        as_json=as_json,
    )


@app.command(cls=WithEngine, epilog="Example: fandle drill return-3 --table pool-9ft --json")
def drill(
    name: Annotated[
        str | None,
        typer.Argument(
            help="A drill's name, an own one too, as --list has them, or a file of drills that was handed out."
        ),
    ] = None,
    *,
    listed: Annotated[bool, typer.Option("--list", help="Print all drills.")] = False,
    table: Annotated[str, typer.Option(help="A table's name or file.")] = "pool-9ft",
    as_json: Json = False,
) -> None:
    """What should I work on? A drill set up on a table: where the balls lie, the stroke, its contacts, its end."""
    from fandle.cli.run.drill import drill as run

    run(name, listed=listed, table=table, as_json=as_json)


@app.command(epilog="Example: fandle serve --host 0.0.0.0 --port 8000")
def serve(
    host: Annotated[str, typer.Option(help="Address to listen on; other devices need a pass.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(min=1, max=65535, help="Port to listen on.")] = 8000,
    *,
    demo: Annotated[bool, typer.Option("--demo", help="Fill an empty database with demo data.")] = False,
    certificate: Annotated[Path | None, typer.Option(help="For HTTPS: the certificate's file, PEM.")] = None,
    key: Annotated[Path | None, typer.Option(help="For HTTPS: the key's file, PEM.")] = None,
    as_json: Json = False,
) -> None:
    """Start the web application and print its address, beyond this machine with a pass for another device."""
    from fandle.web.serve import run_server

    run_server(host, port, demo=demo, as_json=as_json, certificate=certificate, key=key)
