"""The verbs that ask how the table plays, and what a miss was."""

import json
import math
import re
from dataclasses import replace
from datetime import date
from pathlib import Path
from typing import Annotated

import typer

from fandle.cli.plan import player_at
from fandle.cli.verbs import (
    CueName,
    Elevation,
    Json,
    LayoutArg,
    Side,
    Speed,
    Target,
    Up,
    app,
    bytes_of,
    layout_at,
    print_json,
    stroke_of,
    table_at,
)
from fandle.core.errors import BadInputError
from fandle.core.lines.marks import direction_to, parse_aim
from fandle.core.lines.remembered import place_of
from fandle.core.table.rails import parse_rails
from fandle.core.tablecheck.miss import SOME, Miss, off_when_met
from fandle.formats.check import CheckAnswer, DiagnosisAnswer, ReferenceAnswer, read_check, read_contacts
from fandle.formats.files import table_json
from fandle.service.check import check as check_table
from fandle.service.check import reference_shots
from fandle.service.diagnose import diagnose as diagnose_miss

PlayerName = Annotated[str, typer.Option("--player", help="new, club, strong, or a player's file.")]
LANDED = re.compile(r"^\s*(?:(?P<off>\d+(?:\.\d+)?)\s*)?(?P<side>short|long|on|hit)\s*$")


@app.command(epilog="Example: fandle check pool-9ft --shots evening.json --json")
def check(
    table: Annotated[str | None, typer.Argument(help="A table's name or file; with --list it may be left out.")] = None,
    shots: Annotated[str | None, typer.Option(help="File of the shots as they landed, fandle-check/1, or -.")] = None,
    listed: Annotated[bool, typer.Option("--list", help="Print the reference shots.")] = False,
    on: Annotated[str | None, typer.Option("--table", help="With --list: the table they are for.")] = None,
    out: Annotated[str | None, typer.Option(help="Write the fitted table to this file.")] = None,
    player: PlayerName = "club",
    as_json: Json = False,
) -> None:
    """How does this table play? The numbers that a few shots fit, or with --list the shots to play."""
    made = table_at(table or on or "pool-9ft")
    if listed:
        told = [ReferenceAnswer.of(shot, setup) for shot, setup in reference_shots(made)]
        print_json(told) if as_json else typer.echo("\n".join(f"{each.id:<8} {each.say}" for each in told))
        return
    if shots is None:
        raise BadInputError(
            "say what was played: give --shots FILE, or --list for what to play", "shots", code="missing"
        )
    found = check_table(made, read_check(bytes_of(shots), made), player_at(player), date.today())
    if out is not None:
        Path(out).write_text(json.dumps(table_json(found.table), indent=1) + "\n", "utf-8")
    if as_json:
        print_json(CheckAnswer.of(found))
        return
    said = [found.verdict.say, f"It plays like {found.like}.", *(each.say for each in found.plays)]
    said += [each.say for each in found.systems if each.change] + list(found.notes)
    typer.echo("\n".join(said))


@app.command(epilog="Example: fandle diagnose layout.fandle.json --rails far --aim far:3@nose --landed '0.5 short'")
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
    as_json: Json = False,
) -> None:
    """What was the miss: mark, speed, side, height or the table? And what to aim at next."""
    laid = layout_at(layout)
    if target is not None:
        laid = replace(laid, target=target)
    order = parse_rails(rails)
    if not order:
        raise BadInputError("a straight shot is not diagnosed: give the rails of a kick", "rails", code="not_straight")
    rail, at, frame = parse_aim(aim)
    if rail is not order[0]:
        raise BadInputError(f"the aim is on {rail}, the way begins with {order[0]}", "aim", code="not_this_rail")
    direction = direction_to(laid.table, rail, laid.metres(laid.cue), place_of(laid.table, rail, at), frame)
    stroke = stroke_of(laid.table, speed, side, up, elevation, cue)
    off = _off(landed, met)
    if off == 0.0 and met in ("left", "right"):
        off = off_when_met(laid, order, stroke, direction, met)
    miss = Miss(
        laid, order, stroke, direction, off, read_contacts(touched) if touched else (),
        None if stopped is None else _place(stopped),
    )  # fmt: skip
    found = diagnose_miss(miss, player_at(player))
    if as_json:
        print_json(DiagnosisAnswer.of(found))
        return
    said = [f"{each.share:4.0%}  {each.cause}: {each.say}" for each in found.diagnosis.suspects]
    typer.echo("\n".join([*said, *(f"next: {each.say}" for each in found.next)]))


def _off(text: str, met: str | None) -> float:
    """Diamonds from what was said, long positive."""
    found = LANDED.match(text.lower())
    if found is None:
        raise BadInputError(f"landed {text!r} is not understood: write 0.5 short, 0.3 long or on", "landed")
    if met not in (None, "left", "full", "right"):
        raise BadInputError(f"met {met!r}: use left, full or right", "met", code="unknown")
    if found["side"] in ("on", "hit"):
        return 0.0
    off = SOME if found["off"] is None else float(found["off"])
    return -off if found["side"] == "short" else off


def _place(text: str) -> tuple[float, float]:
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError:
        x = y = math.nan
    if not (0.0 <= x <= 8.0 and 0.0 <= y <= 4.0):
        raise BadInputError(f"stopped {text!r} is not understood: write x,y in diamonds, like 2.5,3", "stopped")
    return x, y
