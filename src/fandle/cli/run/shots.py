"""The verbs that ask the trade, and the server. Exit 1: no answer exists."""

import math
import sys
from dataclasses import replace
from pathlib import Path

import typer

from fandle.app.count import count as count_one
from fandle.app.count import count_all
from fandle.app.hold import hold as held
from fandle.app.lines import aim as find_aim
from fandle.app.shot import play
from fandle.app.situation import Situation, situation_of
from fandle.app.technique import is_technique, technique, techniques
from fandle.cli.run.files import NO_ANSWER, print_json
from fandle.cli.run.layouts import cue_named, layout_at, stroke_of
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.held import Instead
from fandle.core.lines.marks import direction_to, parse_aim
from fandle.core.lines.remembered import place_of
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.systems.base import NoCount
from fandle.core.table.rails import STRAIGHT, parse_rails
from fandle.core.table.speeds import default_speed
from fandle.core.tablecheck.test_shot import carriable
from fandle.core.techniques.base import NoTechnique
from fandle.formats import words
from fandle.formats.answers import aim_answer, count_answer, instead_answer
from fandle.formats.base import validated
from fandle.formats.files import StrokeFile, read_stroke
from fandle.formats.shots import ShotAnswer
from fandle.formats.technique import technique_answer


def simulate(
    layout: str,
    aim: str | None,
    direction: float | None,
    strokes: str | None,
    speed: float | None,
    side: float,
    up: float,
    elevation: float,
    cue: str | None,
    impulse_steps: int | None,
    table: str | None,
    *,
    as_json: bool,
) -> None:
    """Play a stroke and print what happens."""
    table_layout = layout_at(layout, table)
    if strokes is not None:
        if aim is not None or direction is not None:
            raise BadInputError("give --strokes or one stroke's --aim or --direction, not both")
        _simulate_file(table_layout, strokes, as_json=as_json)
        return
    file = validated(StrokeFile, {"aim": aim, "direction": direction})
    stroke = stroke_of(table_layout.table, speed, side, up, elevation, cue)
    shot = play(table_layout, stroke, _direction(table_layout, file), impulse_steps=impulse_steps)
    print_json(ShotAnswer.of(shot)) if as_json else typer.echo(words.shot(shot))


def _direction(layout: Layout, file: StrokeFile) -> float:
    if (file.aim is None) == (file.direction is None):
        raise BadInputError("say where to aim with one of --aim far:3@nose and --direction 42", "aim")
    if file.direction is not None:
        return math.radians(file.direction)
    rail, at, frame = parse_aim(file.aim or "")
    return direction_to(layout.table, rail, layout.metres(layout.cue), place_of(layout.table, rail, at), frame)


def _simulate_file(layout: Layout, path: str, *, as_json: bool) -> None:
    try:
        text = sys.stdin.read() if path == "-" else Path(path).read_text("utf-8")
    except (OSError, UnicodeDecodeError):
        raise BadInputError(
            f"cannot read {path!r}: give a text file with one JSON stroke a line", code="no_file"
        ) from None
    shots = []
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        try:
            file, stroke = read_stroke(line, layout.table)
            shots.append(play(layout, stroke, _direction(layout, file)))
        except BadInputError as error:
            raise error.at(f"line {number}") from None
    for shot in shots:
        print_json(ShotAnswer.of(shot)) if as_json else typer.echo(words.shot(shot) + "\n")


def aim(
    layout: str,
    rails: str | None,
    kind: str,
    target: str | None,
    pocket: str | None,
    hit: float,
    speed: float | None,
    side: float,
    up: float,
    elevation: float,
    cue: str | None,
    hold: str | None,
    change: str,
    table: str | None,
    *,
    as_json: bool,
) -> None:
    """Find the corrected aim of a kick, bank or straight shot, or of a pot, and prove it by playing it."""
    table_layout = layout_at(layout, table)
    stroke = stroke_of(table_layout.table, speed, side, up, elevation, cue)
    if rails is None and kind != "straight":
        raise BadInputError("no rails: say which, in order, such as --rails far", "rails", code="missing")
    asked = situation_of(table_layout, stroke, parse_rails(rails or STRAIGHT), kind, target, pocket, hit)
    answer: Aim | Instead | Refusal
    answer = find_aim(asked) if hold is None else held(asked, _direction(table_layout, StrokeFile(aim=hold)), change)
    if as_json:
        print_json(instead_answer(answer) if isinstance(answer, Instead) else aim_answer(answer))
    else:
        typer.echo(words.instead(answer) if isinstance(answer, Instead) else words.aim(answer))
    if isinstance(answer, Refusal):
        raise typer.Exit(NO_ANSWER)


def count(
    layout: str,
    method: str | None,
    *,
    every: bool,
    rails: str | None,
    kind: str,
    target: str | None,
    pocket: str | None,
    hit: float,
    first: str | None,
    carry: float,
    cue: str | None,
    table: str | None,
    as_json: bool,
) -> None:
    """Count a line by a system and say how far off it lands."""
    if every == (method is not None):
        raise BadInputError("choose one of --method M3 and --all", "method")
    table_layout = layout_at(layout, table)
    over = parse_rails(rails) if rails is not None else None
    if hit and method is not None and is_technique(method):
        raise BadInputError("a technique has its own thickness: leave --hit out", "hit", code="not_with_techniques")
    if first is not None and (kind == "bank" or (method is not None and is_technique(method))):
        raise BadInputError("--first goes with counts of kicks: leave it out", "first", code="only_kicks")
    if method is not None and is_technique(method):
        _technique(
            situation_of(table_layout, _plain(table_layout, cue), over, "kick", target, pocket), method, as_json=as_json
        )
        return
    if first is not None and pocket is None:
        raise BadInputError("a combination pots: say where with --pocket", "pocket", code="missing")
    asked = situation_of(table_layout, _plain(table_layout, cue), over, kind, target, pocket, hit)
    asked = replace(asked, carried=carriable(carry))
    if method is None:
        found = finish(count_all(asked, first))
        close = finish(techniques(asked)) if kind == "kick" else []
        answers = [*map(count_answer, found), *(technique_answer(each, asked.layout) for each in close)]
        print_json(answers) if as_json else typer.echo("\n\n".join([words.counts(found), *map(words.technique, close)]))
    else:
        counted = count_one(asked, method, first)
        found = [counted.found]
        answer = count_answer(counted.found, counted.others, counted.tuned)
        print_json(answer) if as_json else typer.echo(words.counts(found))
    if all(isinstance(c, NoCount) for c in found):
        raise typer.Exit(NO_ANSWER)


def _plain(layout: Layout, cue: str | None) -> Stroke:
    return Stroke(default_speed(layout.table), cue=cue_named(cue))


def _technique(asked: Situation, method: str, *, as_json: bool) -> None:
    found = technique(asked, method)
    print_json(technique_answer(found, asked.layout)) if as_json else typer.echo(words.technique(found))
    if isinstance(found, NoTechnique):
        raise typer.Exit(NO_ANSWER)
