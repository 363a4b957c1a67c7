"""The situation: what lies where, how it is struck, and what is wanted. Every verb is asked with one."""

from dataclasses import dataclass, replace
from typing import Literal

from fandle.core.choice.wish import ANYHOW, GOALS, Then
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.player.scatter import CLUB, Player
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.halving import METHOD
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

Kind = Literal["kick", "bank", "straight"]
KINDS: tuple[Kind, ...] = ("kick", "bank", "straight")
FAVOURITE = METHOD  # the system of a player who has chosen none


@dataclass(frozen=True)
class Situation:
    """A layout on its table, a stroke with its cue, and what is wanted.

    rails: the order wanted, () for the straight shot, None for the best. goal: what lines are listed for, "hit" or
    "pot", there into the pocket called (None for any); player: whose scatter their chances are of;
    then: what is to become of the cue ball; carried: what a test shot found of the table, diamonds longer at the mark.
    pocket: where a bank goes, None for the widest window; where a kick or straight shot is to pot the ball, None for a
    hit alone; "any" for whichever pocket.
    hit: the thickness, ball diameters right of full. frame: where marks are read; system: the player's favourite.
    """

    layout: Layout
    stroke: Stroke
    rails: tuple[Rail, ...] | None = None
    kind: Kind = "kick"
    pocket: str | None = None
    hit: float = 0.0
    frame: str = "nose"
    system: str = FAVOURITE
    goal: str = GOALS[0]
    called: str | None = None
    player: Player = CLUB
    then: Then = ANYHOW
    carried: float = 0.0

    @property
    def table(self) -> Table:
        """The table it is played on."""
        return self.layout.table


def situation_of(
    layout: Layout,
    stroke: Stroke,
    rails: tuple[Rail, ...] | None,
    kind: str = "kick",
    target: str | None = None,
    pocket: str | None = None,
    hit: float = 0.0,
) -> Situation:
    """A situation from what was written, checked: a straight shot goes over no rails, a pot has its own thickness."""
    if kind not in KINDS:
        raise BadInputError(f"unknown kind {kind!r}: use {', '.join(KINDS)}", "kind", code="unknown")
    if kind == "bank" and hit:
        raise BadInputError("a bank has its own thickness: leave --hit out", "hit", code="not_with_banks")
    if pocket is not None and hit:
        raise BadInputError("a pot has its own thickness: leave --hit or --pocket out", "hit", code="not_with_pots")
    if kind == "straight" and rails:
        raise BadInputError("a straight shot goes over no rail: leave --rails out", "rails", code="not_straight")
    if target is not None:
        layout = replace(layout, target=target)
    wanted: Kind = "bank" if kind == "bank" else "kick"
    return Situation(layout, stroke, () if kind == "straight" else rails, wanted, pocket, hit)
