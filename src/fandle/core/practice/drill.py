"""A drill, as data: how the balls lie, what is played, what is wanted and what counts; and its layout on a table."""

from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import moved_to
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game

Play = Literal["route", "kick", "bank", "pot", "pot-return", "own-number", "point", "pattern", "round"]
POTS = ("pot", "pot-return", "bank", "pattern", "round")  # that need pockets


class Place(NamedTuple):
    """Where cue ball and target lie for a pot into a pocket, diamonds."""

    cue: Point
    target: Point
    pocket: str


@dataclass(frozen=True)
class Drill:
    """One drill. balls: the cue ball's place, then the target's, then others', diamonds; on a rail where a coordinate
    is 0 or the rail's end (the ball is put frozen there).

    play: a return route, a kick, a bank, a pot, a pot from which the cue ball comes back, a system's own number on this
    table, a carom point by its `way`, a pattern of pots, each from where the last one left the cue ball, or a round of
    banks, ball in hand. rails: of the line.
    lengths, tips (+ right), height (tips above centre), hit (ball diameters right of full): the stroke.
    stop: the cue ball is to stop where it does when the shot is made, within `circle` diamonds.
    route: how many rails the cue ball comes back over; home: to where it started, or only to where it met the ball.
    places: tried in turn until a medium stroke does that; heights: tips above centre tried, () for all ways.
    given: the layout of a player's own drill, in place of `balls`.
    say: what is drilled, and why; wanted: one attempt that counts, in words; wanted_hits, out_of: the goal.
    """

    name: str
    title: str
    family: str
    say: str
    wanted: str
    play: Play
    balls: tuple[Point, ...]
    rails: tuple[Rail, ...] = ()
    lengths: float = 2.5
    tips: float = 0.0
    height: float = 0.0
    hit: float = 0.0
    pocket: str | None = None
    stop: bool = False
    circle: float = 0.5
    route: int = 0
    home: Literal["start", "contact"] = "start"
    places: tuple[Place, ...] = ()
    heights: tuple[float, ...] = ()
    wanted_hits: int = 7
    out_of: int = 10
    given: Layout | None = None
    way: str = ""

    @property
    def in_a_row(self) -> bool:
        """Is its goal a streak: every one of so many?"""
        return self.wanted_hits == self.out_of > 1

    @property
    def goal(self) -> str:
        """When it is learned: "7 of the last 10", "8 in a row", "8 of a round of 15"."""
        if self.play == "round":
            return f"{self.wanted_hits} of a round of {self.out_of}"
        if self.in_a_row:
            return f"{self.wanted_hits} in a row"
        return f"{self.wanted_hits} of the last {self.out_of}"

    def named(self, name: str) -> "Drill":
        """The same drill under a name."""
        return replace(self, name=name)


def layout_of(drill: Drill, table: Table) -> Layout:
    """How the balls lie on a table. Raises BadInputError, code no_pockets or no_ball, where they cannot."""
    game = usual_game(table)
    ids = id_order(game)
    if drill.play in POTS and table.pockets is None:
        raise BadInputError("this table has no pockets", "table", code="no_pockets")
    if drill.given is not None:
        return _taken_over(drill.given, table)
    if len(drill.balls) - 1 > len(ids):
        raise BadInputError("it needs more balls than this game has", "name", code="no_ball")
    balls = [Ball("cue", *drill.balls[0])]
    balls += [Ball(name, *_frozen(table, place)) for name, place in zip(ids, drill.balls[1:], strict=False)]
    return Layout(table, game, tuple(balls), balls[1].id if len(balls) > 1 else None)


def _taken_over(given: Layout, table: Table) -> Layout:
    layout = given if given.table == table else moved_to(given, table)
    if len(layout.balls) < len(given.balls):
        raise BadInputError("it needs more balls than this game has", "name", code="no_ball")
    return layout


def _frozen(table: Table, place: Point) -> Point:
    """A place whose coordinate names a rail lies frozen to it."""
    found = []
    for at, whole, unit in ((place[0], 8.0, table.diamond_x), (place[1], 4.0, table.diamond_y)):
        edge = table.ball_radius / unit
        found.append(edge if at == 0.0 else whole - edge if at == whole else at)
    return found[0], found[1]
