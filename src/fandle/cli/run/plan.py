"""The verb that chooses a line."""

from dataclasses import replace
from pathlib import Path

import typer

from fandle.app.choose import all_processors, wish_of
from fandle.app.choose import plan as choose
from fandle.app.situation import Situation
from fandle.cli.run.files import NO_ANSWER, bytes_of, print_json
from fandle.cli.run.layouts import layout_at, stroke_of
from fandle.core.choice.position import next_of
from fandle.core.choice.wish import Then, Zone, zone_of
from fandle.core.layout.state import state_of_text
from fandle.core.player.body import body_of
from fandle.core.player.scatter import Player, player_named
from fandle.core.steps import finish
from fandle.formats import words
from fandle.formats.plan import PlanAnswer
from fandle.formats.player import read_player


def plan(
    layout: str,
    goal: str,
    pocket: str | None,
    target: str | None,
    state: list[str] | None,
    player: str,
    reach: str,
    hand: str,
    strokes: str,
    *,
    plain: bool,
    every: bool,
    zone: list[str] | None,
    not_zone: list[str] | None,
    then: str | None,
    draws: int,
    seed: int,
    speed: float | None,
    side: float,
    up: float,
    elevation: float,
    cue: str | None,
    table: str | None,
    as_json: bool,
) -> None:
    """Which line? Every line with its chance and its reasons, best first."""
    laid = layout_at(layout, table)
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
