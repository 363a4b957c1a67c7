"""The command line's application, and the options that several verbs share. What a verb does is loaded by it alone."""

from importlib.metadata import version
from typing import Annotated, Any

import typer
from typer.core import TyperCommand

app = typer.Typer(
    add_completion=False,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    rich_markup_mode=None,
    help="Kick, bank and escape lines for pool, snooker and carom: counted, corrected, and proved by playing them.",
)


class WithEngine(TyperCommand):
    """A verb that plays: where the engine has to be compiled first, a bar says so."""

    def invoke(self, ctx: Any) -> Any:
        """Do it, the engine being there."""
        from fandle.work.compiling import compiled

        compiled()
        return super().invoke(ctx)


def _version(*, asked: bool) -> None:
    if asked:
        typer.echo(f"fandle {version('fandle')}")
        raise typer.Exit


@app.callback()
def fandle(
    *,
    _: Annotated[
        bool, typer.Option("--version", callback=_version, is_eager=True, help="Print the version and end.")
    ] = False,
) -> None:
    """What holds for every verb."""


LayoutArg = Annotated[str, typer.Argument(help="Layout file (*.fandle.json), or - for standard input.")]
Json = Annotated[bool, typer.Option("--json", help="Print JSON.")]
Speed = Annotated[float | None, typer.Option(help="m/s as the ball leaves the tip; default medium.")]
Side = Annotated[float, typer.Option(help="Tip off centre in radii, + right.")]
Up = Annotated[float, typer.Option(help="Tip off centre in radii, + above.")]
Elevation = Annotated[float, typer.Option(help="Cue elevation in degrees.")]
CueName = Annotated[str | None, typer.Option("--cue", help="ideal, house, slim or one of the club's; default ideal.")]
CountCue = Annotated[
    str, typer.Option("--cue", help="ideal, house, slim or one of the club's: systems are played with a real cue.")
]
OnTable = Annotated[
    str | None, typer.Option("--table", help="Table to play it on instead: a name, the club's own too, or a file.")
]
Rails = Annotated[str | None, typer.Option(help="Rails in order, such as far.")]
Target = Annotated[str | None, typer.Option(help="Ball to be hit; default the layout's target.")]
