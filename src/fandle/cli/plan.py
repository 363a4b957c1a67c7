"""The verb that chooses a line."""

from dataclasses import replace
from pathlib import Path
from typing import Annotated

import typer

from fandle.cli.verbs import (
    NO_ANSWER,
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
)
from fandle.core.choice.position import next_of
from fandle.core.choice.wish import Then, Zone, zone_of
from fandle.core.layout.state import state_of_text
from fandle.core.player.body import BUILDS, HANDS, body_of
from fandle.core.player.scatter import PLAYERS, Player, player_named
from fandle.core.steps import finish
from fandle.formats import words
from fandle.formats.plan import PlanAnswer
from fandle.formats.player import read_player
from fandle.service.choose import all_processors, wish_of
from fandle.service.choose import plan as choose
from fandle.service.situation import Situation


@app.command(epilog="Example: fandle plan layout.fandle.json --goal pot --player strong --json")
def plan(
    layout: LayoutArg,
    goal: Annotated[str, typer.Option(help="hit, pot or safe.")] = "hit",
    pocket: Annotated[str | None, typer.Option(help="With --goal pot: where; without it any.")] = None,
    target: Target = None,
    state: Annotated[
        list[str] | None,
        typer.Option(help="Where the game stands, such as group=low, on=red, free_ball=true."),
    ] = None,
    player: Annotated[str, typer.Option(help=f"{', '.join(PLAYERS)}, or a player's file.")] = "club",
    reach: Annotated[str, typer.Option(help=f"How far the player leans: {', '.join(BUILDS)}.")] = "usual",
    hand: Annotated[str, typer.Option(help=f"Which hand grips: {', '.join(HANDS)}.")] = "both",
    strokes: Annotated[str, typer.Option(help="this (the stroke given) or usual.")] = "usual",
    plain: Annotated[bool, typer.Option("--plain", help="Without side: the natural angle.")] = False,
    every: Annotated[bool, typer.Option("--all", help="All lines, else as many as anyone looks at.")] = False,
    zone: Annotated[
        list[str] | None, typer.Option(help="Where the cue ball is to stop: x,y,r in diamonds; may be repeated.")
    ] = None,
    not_zone: Annotated[list[str] | None, typer.Option(help="Where it is not to stop.")] = None,
    then: Annotated[
        str | None, typer.Option("--next", help="The ball to be potted next, BALL or BALL:POCKET, or any.")
    ] = None,
    draws: Annotated[int, typer.Option(help="How often each line is played with the player's errors.")] = 300,
    seed: Annotated[int, typer.Option(help="Of the errors: the same seed, the same answer.")] = 0,
    speed: Speed = None,
    side: Side = 0.0,
    up: Up = 0.0,
    elevation: Elevation = 0.0,
    cue: CueName = None,
    as_json: Json = False,
) -> None:
    """Which line? Every line with its chance and its reasons, best first."""
    laid = layout_at(layout)
    for text in ",".join(state or []).split(",") if state else []:
        laid = replace(laid, state=state_of_text(text, laid.state))
    if target is not None:
        laid = replace(laid, target=target)
    shooter = replace(player_at(player), body=body_of(reach, hand))
    wish = wish_of(goal, shooter, strokes, pocket, draws, seed, laid)
    ahead = None if then is None else next_of(laid, then)
    wish = replace(wish, then=Then(_zones(zone), _zones(not_zone), ahead), plain=plain, every=every)
    asked = Situation(laid, stroke_of(laid.table, speed, side, up, elevation, cue))
    found = finish(choose(asked, wish, all_processors()))
    if as_json:
        print_json(PlanAnswer.of(found))
    else:
        typer.echo(words.plan(found))
    if not found.lines:
        raise typer.Exit(NO_ANSWER)


def player_at(text: str) -> Player:
    """A player by name, or from a file."""
    return read_player(bytes_of(text)) if text == "-" or Path(text).is_file() else player_named(text)


def _zones(texts: list[str] | None) -> tuple[Zone, ...]:
    """Circles on the cloth, written x,y,r."""
    return tuple(zone_of(text) for text in texts or ())
