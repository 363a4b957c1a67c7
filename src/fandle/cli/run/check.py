"""The verbs that ask how the table plays, and what a miss was."""

import json
import math
import re
from dataclasses import replace
from datetime import date
from pathlib import Path

import typer

from fandle.app.check import check as check_table
from fandle.app.check import reference_shots
from fandle.app.diagnose import diagnose as diagnose_miss
from fandle.cli.run.files import bytes_of, print_json, table_at
from fandle.cli.run.layouts import layout_at, stroke_of
from fandle.cli.run.plan import player_at
from fandle.core.errors import BadInputError
from fandle.core.lines.marks import direction_to, parse_aim
from fandle.core.lines.remembered import place_of
from fandle.core.table.rails import parse_rails
from fandle.core.tablecheck.miss import SOME, Miss, off_when_met
from fandle.formats.check import CheckAnswer, DiagnosisAnswer, ReferenceAnswer, read_check, read_contacts
from fandle.formats.tables import table_json

LANDED = re.compile(r"^\s*(?:(?P<off>\d+(?:\.\d+)?)\s*)?(?P<side>short|long|on|hit)\s*$")


def check(
    table: str | None, shots: str | None, *, listed: bool, on: str | None, out: str | None, player: str, as_json: bool
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


def diagnose(
    layout: str,
    rails: str,
    aim: str,
    landed: str,
    met: str | None,
    touched: str | None,
    stopped: str | None,
    target: str | None,
    player: str,
    speed: float | None,
    side: float,
    up: float,
    elevation: float,
    cue: str | None,
    table: str | None,
    *,
    as_json: bool,
) -> None:
    """What was the miss: mark, speed, side, height or the table? And what to aim at next."""
    laid = layout_at(layout, table)
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
