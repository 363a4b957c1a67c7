"""The verbs that ask the trade, and the server. Exit 1: no answer exists."""

import json
import math
import sys
from dataclasses import replace
from pathlib import Path
from typing import Annotated, Any

import typer

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.held import Instead
from fandle.core.lines.marks import direction_to, parse_aim
from fandle.core.lines.remembered import place_of
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.cue import HOUSE, find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.systems.base import NoCount
from fandle.core.table.condition import CLOTHS, RUBBERS
from fandle.core.table.model import Table
from fandle.core.table.rails import STRAIGHT, parse_rails
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.core.tablecheck.test_shot import carriable
from fandle.core.techniques.base import NoTechnique
from fandle.formats import words
from fandle.formats.answers import aim_answer, count_answer, instead_answer
from fandle.formats.base import validated
from fandle.formats.cues import SquirtAnswer
from fandle.formats.files import StrokeFile, read_layout, read_stroke, read_table, table_json
from fandle.formats.parts import Answer
from fandle.formats.shots import ShotAnswer
from fandle.formats.technique import technique_answer
from fandle.service.count import count as count_one
from fandle.service.count import count_all
from fandle.service.cues import SIDE as TEST_SIDE
from fandle.service.cues import find_squirt
from fandle.service.hold import hold as held
from fandle.service.lines import aim as find_aim
from fandle.service.shot import play
from fandle.service.situation import Situation, situation_of
from fandle.service.tables import make
from fandle.service.technique import is_technique, technique, techniques

NO_ANSWER = 1

app = typer.Typer(
    add_completion=False,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    rich_markup_mode=None,
    help="Kick, bank and escape lines for pool, snooker and carom: counted, corrected, and proved by playing them.",
)

LayoutArg = Annotated[str, typer.Argument(help="Layout file (*.fandle.json), or - for standard input.")]
Json = Annotated[bool, typer.Option("--json", help="Print JSON.")]
Speed = Annotated[float | None, typer.Option(help="m/s as the ball leaves the tip; default medium.")]
Side = Annotated[float, typer.Option(help="Tip off centre in radii, + right.")]
Up = Annotated[float, typer.Option(help="Tip off centre in radii, + above.")]
Elevation = Annotated[float, typer.Option(help="Cue elevation in degrees.")]
CueName = Annotated[str | None, typer.Option("--cue", help="ideal, house or slim; default ideal.")]
CountCue = Annotated[str, typer.Option("--cue", help="ideal, house or slim: systems are played with a real cue.")]
Rails = Annotated[str | None, typer.Option(help="Rails in order, such as far.")]
Target = Annotated[str | None, typer.Option(help="Ball to be hit; default the layout's target.")]


def layout_at(path: str) -> Layout:
    """The layout in a file."""
    return read_layout(bytes_of(path))


def bytes_of(path: str) -> bytes:
    """What is in a file, - being standard input. Raises BadInputError where it cannot be read."""
    try:
        return sys.stdin.buffer.read() if path == "-" else Path(path).read_bytes()
    except OSError as fault:
        raise BadInputError(f"cannot read {path!r} ({fault.strerror}): check the file's name", code="no_file") from None


def table_at(name: str) -> Table:
    """A table by name, or from a file."""
    return standard_table(name) if name in STANDARDS or not name.endswith(".json") else read_table(bytes_of(name))


def stroke_of(table: Table, speed: float | None, side: float, up: float, elevation: float, cue: str | None) -> Stroke:
    """The stroke that was asked for, medium where no speed was."""
    return Stroke(default_speed(table) if speed is None else speed, side, up, elevation, find_cue(cue))


def print_json(data: Any) -> None:
    """An answer, several, or what is JSON already."""
    parts = (
        [part.json_data() for part in data] if isinstance(data, list) and data and isinstance(data[0], Answer) else data
    )
    typer.echo(json.dumps(parts.json_data() if isinstance(parts, Answer) else parts, allow_nan=False))


@app.command(epilog="Example: fandle simulate layout.fandle.json --aim far:3@nose --speed 3 --json")
def simulate(
    layout: LayoutArg,
    aim: Annotated[str | None, typer.Option(help="Mark to aim at, like far:3.42@nose.")] = None,
    direction: Annotated[float | None, typer.Option(help="Degrees from +x towards +y.")] = None,
    strokes: Annotated[str | None, typer.Option(help="File with one JSON stroke a line, or -.")] = None,
    speed: Speed = None,
    side: Side = 0.0,
    up: Up = 0.0,
    elevation: Elevation = 0.0,
    cue: CueName = None,
    impulse_steps: Annotated[int | None, typer.Option(min=1, max=4000, hidden=True)] = None,
    as_json: Json = False,
) -> None:
    """Play a stroke and print what happens."""
    table_layout = layout_at(layout)
    if strokes is not None:
        if aim is not None or direction is not None:
            raise BadInputError("give --strokes or one stroke's --aim or --direction, not both")
        _simulate_file(table_layout, strokes, as_json)
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


def _simulate_file(layout: Layout, path: str, as_json: bool) -> None:
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


@app.command(epilog="Example: fandle aim layout.fandle.json --rails far --speed 3.1 --side 0.17 --json")
def aim(
    layout: LayoutArg,
    rails: Annotated[str | None, typer.Option(help="Rails in order, such as far; straight for none.")] = None,
    kind: Annotated[str, typer.Option(help="kick, bank or straight.")] = "kick",
    target: Target = None,
    pocket: Annotated[
        str | None, typer.Option(help="Where a bank goes, or a kick or straight shot pots it; or any.")
    ] = None,
    hit: Annotated[float, typer.Option(help="Thickness, -1 to 1 ball diameters right of full.")] = 0.0,
    speed: Speed = None,
    side: Side = 0.0,
    up: Up = 0.0,
    elevation: Elevation = 0.0,
    cue: CueName = None,
    hold: Annotated[str | None, typer.Option(help="Hold this mark, like far:3@nose, and change the stroke.")] = None,
    change: Annotated[str, typer.Option(help="With --hold: side, up or speed.")] = "side",
    as_json: Json = False,
) -> None:
    """Find the corrected aim of a kick, bank or straight shot, or of a pot, and prove it by playing it."""
    table_layout = layout_at(layout)
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


@app.command(epilog="Example: fandle count layout.fandle.json --method M3 --rails far --json")
def count(
    layout: LayoutArg,
    method: Annotated[
        str | None, typer.Option(help="A system's number, M1, M2, … as fandle count --all lists them.")
    ] = None,
    every: Annotated[bool, typer.Option("--all", help="Every method, best first.")] = False,
    rails: Rails = None,
    kind: Annotated[str, typer.Option(help="kick, or bank: the object ball's line by M3's natural pairs.")] = "kick",
    target: Target = None,
    pocket: Annotated[
        str | None,
        typer.Option(
            help="Count to the contact that pots into it, or any; of a bank, without it the one it lands best in."
        ),
    ] = None,
    hit: Annotated[float, typer.Option(help="Thickness: ball diameters right of full, negative left.")] = 0.0,
    first: Annotated[
        str | None, typer.Option(help="The ball met first, of a combination that pots the target.")
    ] = None,
    carry: Annotated[
        float, typer.Option(help="What a test shot found: diamonds at the mark by which lines are to be longer here.")
    ] = 0.0,
    cue: CountCue = HOUSE.name,
    as_json: Json = False,
) -> None:
    """Count a line by a system and say how far off it lands."""
    if every == (method is not None):
        raise BadInputError("choose one of --method M3 and --all", "method")
    table_layout = layout_at(layout)
    over = parse_rails(rails) if rails is not None else None
    if hit and method is not None and is_technique(method):
        raise BadInputError("a technique has its own thickness: leave --hit out", "hit", code="not_with_techniques")
    if first is not None and (kind == "bank" or (method is not None and is_technique(method))):
        raise BadInputError("--first goes with counts of kicks: leave it out", "first", code="only_kicks")
    if method is not None and is_technique(method):
        _technique(situation_of(table_layout, _plain(table_layout, cue), over, "kick", target, pocket), method, as_json)
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
    return Stroke(default_speed(layout.table), cue=find_cue(cue))


def _technique(asked: Situation, method: str, as_json: bool) -> None:
    found = technique(asked, method)
    print_json(technique_answer(found, asked.layout)) if as_json else typer.echo(words.technique(found))
    if isinstance(found, NoTechnique):
        raise typer.Exit(NO_ANSWER)


@app.command(epilog="Example: fandle squirt --left 1.75 --right 2.25 --json")
def squirt(
    left: Annotated[float, typer.Option(help="Where the ball with left side met the foot rail, diamonds.")],
    right: Annotated[float, typer.Option(help="Where the one with right side met it, on the same line of aim.")],
    side: Annotated[float, typer.Option(help="Tip off centre, once left and once right, in radii.")] = TEST_SIDE,
    table: Annotated[str, typer.Option(help="Table, or a table file.")] = "pool-9ft",
    as_json: Json = False,
) -> None:
    """Find a cue's squirt from two shots from (1, 2) at the middle of the foot rail, level and medium."""
    found = find_squirt(table_at(table), left, right, side)
    print_json(SquirtAnswer.of(found)) if as_json else typer.echo(found.say)


@app.command(epilog="Example: fandle table pool-7ft --cloth worn --rubber soft --called bar --json")
def table(
    name: Annotated[str | None, typer.Argument(help="Table, or a table file; without it, all names.")] = None,
    cloth: Annotated[str | None, typer.Option(help=f"{', '.join(CLOTHS)}.")] = None,
    rubber: Annotated[str | None, typer.Option(help=f"{', '.join(RUBBERS)}.")] = None,
    called: Annotated[str | None, typer.Option(help="Name of the table made.")] = None,
    as_json: Json = False,
) -> None:
    """Print a table: every number the engine uses, in SI units. Make one of your own in words."""
    if name is None:
        print_json(list(STANDARDS)) if as_json else typer.echo("\n".join(STANDARDS))
        return
    data = table_json(make(table_at(name), {}, cloth, rubber, called))
    print_json(data) if as_json else typer.echo(words.table(data))


@app.command(epilog="Example: fandle serve --host 0.0.0.0 --port 8000")
def serve(
    host: Annotated[str, typer.Option(help="Address to listen on; other devices need a pass.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(min=1, max=65535, help="Port to listen on.")] = 8000,
    demo: Annotated[bool, typer.Option("--demo", help="Fill an empty database with demo data.")] = False,
    certificate: Annotated[Path | None, typer.Option(help="For HTTPS: the certificate's file, PEM.")] = None,
    key: Annotated[Path | None, typer.Option(help="For HTTPS: the key's file, PEM.")] = None,
    as_json: Json = False,
) -> None:
    """Start the web application and print its address, beyond this machine with a pass for another device."""
    from fandle.web.serve import run_server

    run_server(host, port, demo, as_json, certificate, key)
