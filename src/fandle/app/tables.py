"""Tables: made from figures and words, checked by playing on them, and shown by what they do to a plain shot."""

from collections.abc import Mapping
from dataclasses import dataclass

from fandle.core.layout.ball import Ball
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.approach import Approach, approach
from fandle.core.shot.stroke import Stroke
from fandle.core.table.condition import condition_of, conditioned
from fandle.core.table.figures import with_shown
from fandle.core.table.model import Table, renamed
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_of
from fandle.core.table.standards import usual_game
from fandle.core.tablecheck.response import (
    AIM,
    START,
    Rebound,
    check_playable,
    plain_landing,
    rebounds,
    rigid,
    standard,
)

MEDIUM, FIRM = 2.5, 3.0  # lengths
LAG = 2.0
LENGTHS = (LAG, MEDIUM, 4.0)  # of the plain shots whose landings are told


@dataclass(frozen=True)
class Landing:
    """Where the plain shot comes back at so many lengths, here and on the standard table, diamonds."""

    lengths: float
    here: float
    standard: float


@dataclass(frozen=True)
class Response:
    """What a table does: its plain shot, its rebounds, and the same of its rigid twin and the standard table.

    lag: the speed of two lengths, m/s, and how many lengths it would be on the standard table; firm: the rebound of
    a hard shot, None where it stops short.
    """

    plain: Approach
    standard_plain: Approach
    here: list[Rebound]
    rigid: list[Rebound]
    standard: list[Rebound]
    lag: tuple[float, float]
    landings: tuple[Landing, ...]
    firm: Rebound | None


def make(
    base: Table,
    figures: Mapping[str, float],
    cloth: str | None = None,
    rubber: str | None = None,
    name: str | None = None,
) -> Table:
    """A table made from another: figures as a player sets them, then cloth and rubber in words, then a name."""
    made = with_shown(base, figures)
    if cloth is not None or rubber is not None:
        has_cloth, has_rubber = condition_of(made)
        made = conditioned(made, cloth or has_cloth, rubber or has_rubber)
    return made if name is None else renamed(made, name)


def check(table: Table) -> Table:
    """The table, refused where no plain shot can be played on it."""
    check_playable(table)
    return table


def response(table: Table) -> Response:
    """What a table does, beside its rigid twin and the standard table of its make."""
    norm, here = standard(table), rebounds(table)
    lag = speed_of(table, LAG)
    landings = []
    for lengths in LENGTHS:
        mine, theirs = plain_landing(table, lengths), plain_landing(norm, lengths)
        if mine is not None and theirs is not None:
            landings.append(Landing(lengths, mine, theirs))
    return Response(
        _plain(table), _plain(norm), here, rebounds(rigid(table)), rebounds(norm), (lag, lengths_of(norm, lag)),
        tuple(landings), next((row for row in here if row.lengths == FIRM), None),
    )  # fmt: skip


def _plain(table: Table) -> Approach:
    """The plain one-rail shot of a table check."""
    layout = Layout(table, usual_game(table), (Ball("cue", *START),))
    direction = direction_to(table, Rail.FAR, layout.metres(layout.cue), AIM, "nose")
    return approach(layout, Stroke(speed_of(standard(table), MEDIUM)), direction, most_rails=2)


def first_kick(table: Table) -> Layout:
    """A kick laid out on a table, to play on it."""
    game = usual_game(table)
    target = id_order(game)[0]
    return Layout(table, game, (Ball("cue", 1.5, 1.0), Ball(target, 5.5, 1.2)), target)
