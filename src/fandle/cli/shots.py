"""The verbs that ask for a shot or a line."""

from typing import Annotated

import typer

from fandle.cli.app import (
    CountCue,
    CueName,
    Elevation,
    Json,
    LayoutArg,
    OnTable,
    Rails,
    Side,
    Speed,
    Target,
    Up,
    WithEngine,
    app,
)


@app.command(cls=WithEngine, epilog="Example: fandle simulate layout.fandle.json --aim far:3@nose --speed 3 --json")
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
    table: OnTable = None,
    impulse_steps: Annotated[int | None, typer.Option(min=1, max=4000, hidden=True)] = None,
    *,
    as_json: Json = False,
) -> None:
    """Play a stroke and print what happens."""
    from fandle.cli.run.shots import simulate as run

    run(layout, aim, direction, strokes, speed, side, up, elevation, cue, impulse_steps, table, as_json=as_json)


@app.command(cls=WithEngine, epilog="Example: fandle aim layout.fandle.json --rails far --speed 3.1 --side 0.17 --json")
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
    table: OnTable = None,
    hold: Annotated[str | None, typer.Option(help="Hold this mark, like far:3@nose, and change the stroke.")] = None,
    change: Annotated[str, typer.Option(help="With --hold: side, up or speed.")] = "side",
    *,
    as_json: Json = False,
) -> None:
    """Find the corrected aim of a kick, bank or straight shot, or of a pot, and prove it by playing it."""
    from fandle.cli.run.shots import aim as run

    run(layout, rails, kind, target, pocket, hit, speed, side, up, elevation, cue, hold, change, table, as_json=as_json)


@app.command(cls=WithEngine, epilog="Example: fandle count layout.fandle.json --method M3 --rails far --json")
def count(
    layout: LayoutArg,
    method: Annotated[
        str | None, typer.Option(help="A system's number, M1, M2, … as fandle count --all lists them.")
    ] = None,
    *,
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
    cue: CountCue = "house",
    table: OnTable = None,
    as_json: Json = False,
) -> None:
    """Count a line by a system and say how far off it lands."""
    from fandle.cli.run.shots import count as run

    run(
        layout,
        method,
        every=every,
        rails=rails,
        kind=kind,
        target=target,
        pocket=pocket,
        hit=hit,
        first=first,
        carry=carry,
        cue=cue,
        table=table,
        as_json=as_json,
    )


@app.command(cls=WithEngine, epilog="Example: fandle plan layout.fandle.json --goal pot --player strong --json")
def plan(
    layout: LayoutArg,
    goal: Annotated[str, typer.Option(help="hit, pot or safe.")] = "hit",
    pocket: Annotated[str | None, typer.Option(help="With --goal pot: where; without it any.")] = None,
    target: Target = None,
    state: Annotated[
        list[str] | None,
        typer.Option(help="Where the game stands, such as group=low, on=red, free_ball=true."),
    ] = None,
    player: Annotated[str, typer.Option(help="new, club, strong, or a player's file.")] = "club",
    reach: Annotated[str, typer.Option(help="How far the player leans: short, usual, tall.")] = "usual",
    hand: Annotated[str, typer.Option(help="Which hand grips: right, left, both.")] = "both",
    strokes: Annotated[str, typer.Option(help="this (the stroke given) or usual.")] = "usual",
    *,
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
    table: OnTable = None,
    as_json: Json = False,
) -> None:
    """Which line? Every line with its chance and its reasons, best first."""
    from fandle.cli.run.plan import plan as run

    run(
        layout,
        goal,
        pocket,
        target,
        state,
        player,
        reach,
        hand,
        strokes,
        plain=plain,
        every=every,
        zone=zone,
        not_zone=not_zone,
        then=then,
        draws=draws,
        seed=seed,
        speed=speed,
        side=side,
        up=up,
        elevation=elevation,
        cue=cue,
        table=table,
        as_json=as_json,
    )
