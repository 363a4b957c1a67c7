"""The drills, as data: how the balls lie, what is played, what is wanted and what counts. Layouts are our own.

A drill is set up alike on every table; its line is solved there, and its return route found there. Where the line, or
what is wanted, cannot be had on a table the drill says so.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import moved_to
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game

Play = Literal["route", "kick", "bank", "pot", "own-number", "point"]
FAR, NEAR, HEAD, FOOT = Rail.FAR, Rail.NEAR, Rail.HEAD, Rail.FOOT


@dataclass(frozen=True)
class Drill:
    """One drill. balls: the cue ball's place, then the target's, then others', diamonds; on a rail where a coordinate
    is 0 or the rail's end (the ball is put frozen there).

    play: a return route, a kick, a bank, a pot, a system's own number on this table, or a carom point by its
    `way`. rails: of the line.
    lengths, tips (+ right), height (tips above centre), hit (ball diameters right of full): the stroke.
    stop: the cue ball is to stop where it does when the shot is made, within `circle` diamonds.
    route: how many rails the cue ball comes back over; places: of the target, tried until a stroke does that.
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
    places: tuple[Point, ...] = ()
    wanted_hits: int = 7
    out_of: int = 10
    given: Layout | None = None
    way: str = ""

    @property
    def goal(self) -> str:
        """When it is learned: "7 of the last 10"."""
        return f"{self.wanted_hits} of the last {self.out_of}"

    def named(self, name: str) -> "Drill":
        """The same drill under a name."""
        return replace(self, name=name)


def _ladder(name: str, title: str, changed: str) -> Drill:
    """A rung of the kick ladder: one set-up, one thing changed."""
    return Drill(
        f"kick-{name}", title, "Kick ladder",
        f"The same kick every time, {changed}. Take one rung after the other: only one thing changes.",
        "the ball is hit off the far rail first", "kick", ((1.5, 1.0), (5.5, 1.0)), (FAR,),
    )  # fmt: skip


def _natural(n: int) -> Drill:
    """A rung of the ladder of natural lines: n diamonds along, half of it on the far rail."""
    start = min(1.0, 3.5 - n / 2)
    return Drill(
        f"natural-{n}", f"Natural line, {n} along", "Natural lines",
        f"Cue ball and target level, {n} {'diamond' if n == 1 else 'diamonds'} apart: half of that on the far rail. "
        "Say the mark before you look at it.",
        "the ball is hit off the far rail first", "kick", ((start, 1.0), (start + n, 1.0)), (FAR,),
        lengths=2.5 if n < 4 else 3.0,
    )  # fmt: skip


def _track(third: int) -> Drill:
    return Drill(
        f"corner-{third}", f"Corner numbers, to {third}", "Corner-number tracks",
        f"The track to {third} on the third rail, one tip of running side, firm, by this table's own number.",
        "the far rail, the foot rail, then the ball on the third rail", "own-number",
        ((1.6, 0.6), (8.0 - third / 10, 0.0)), (FAR, FOOT, NEAR), wanted_hits=5,
    )  # fmt: skip


_PLACES: tuple[Point, ...] = ((6.4, 3.1), (6.2, 2.9), (7.0, 3.3), (6.8, 3.3), (6.0, 2.6), (7.2, 3.5), (6.6, 2.7))
_POT: tuple[Point, ...] = ((4.0, 2.0), _PLACES[0])
COUNTED = {1: "one rail", 2: "two rails", 3: "three rails", 4: "four rails"}
DRILLS: tuple[Drill, ...] = (
    *(
        Drill(
            f"return-{n}", f"Out and back over {COUNTED[n]}", "Return routes",
            "From the centre spot and back to it. Right speed with wrong contacts is the wrong stroke: both count.",
            "the contacts in order, and the stop in the circle", "route", ((4.0, 2.0),), stop=True, route=n,
        )
        for n in (1, 2, 3, 4)
    ),
    *(
        Drill(
            f"pot-return-{n}", f"Pot, and back over {COUNTED[n]}",
            "Return routes with a pot",
            "Pot the ball into the far corner; the cue ball comes back to the circle. Choose the way first.",
            "the pot, and the stop in the circle", "pot", _POT, (), pocket="foot-far", places=_PLACES, stop=True,
            circle=0.75, route=n, wanted_hits=5,
        )
        for n in (1, 2)
    ),
    replace(_ladder("soft", "Kick, soft", "softly"), lengths=2.0),
    replace(_ladder("medium", "Kick, medium", "at medium speed"), lengths=2.5),
    replace(_ladder("firm", "Kick, firm", "firmly"), lengths=3.5),
    replace(_ladder("running", "Kick, running side", "with half a tip of running side"), tips=0.5),
    replace(_ladder("reverse", "Kick, reverse side", "with half a tip of reverse"), tips=-0.5),
    replace(_ladder("follow", "Kick, follow", "with half a tip of follow"), height=0.5, lengths=3.0),
    replace(_ladder("thin-left", "Kick, thin on its left", "met half a ball left of full"), hit=-0.5),
    replace(_ladder("thin-right", "Kick, thin on its right", "met half a ball right of full"), hit=0.5),
    *(_natural(n) for n in (1, 2, 3, 4, 5, 6)),
    *(_track(third) for third in (20, 25, 30)),
    Drill(
        "bank-side", "Bank across into the side", "Bank round",
        "Ball in hand, five balls spread: bank each one dead, call the pocket. This is the first of them.",
        "three of the five", "bank", ((5.2, 0.45), (5.0, 1.4), (2.6, 1.2), (6.8, 2.9), (1.2, 2.8), (3.2, 3.0)), (FAR,),
        wanted_hits=3, out_of=5,
    ),
    Drill(
        "bank-corner", "Bank across into the corner", "Bank round",
        "The long way across: one rail, into the corner, the ball thinned a little at speed.",
        "three of five", "bank", ((4.3, 3.4), (5.0, 2.0)), (NEAR,), lengths=3.0, wanted_hits=3, out_of=5,
    ),
    Drill(
        "rail-first", "Rail first, close", "Close work",
        "The ball lies near the rail and the straight way to its back is shut: rail first, then the ball. "
        "Equal angles are felt here, not measured.",
        "the rail, then the ball", "kick", ((4.9, 0.9), (6.7, 0.35), (5.8, 0.62)), (NEAR,), lengths=2.0,
    ),
    Drill(
        "escape-two", "Escape off two cushions", "Escapes",
        "A ball hides the one that is on: off two cushions, plain. First two plain rebounds alone, then all balls.",
        "two cushions, then the ball that is on", "kick", ((6.6, 2.9), (1.3, 2.1), (4.2, 2.55)), (NEAR, HEAD),
        lengths=3.0, wanted_hits=5,
    ),
    Drill(
        "thin-home", "Thin, and home", "Safe play",
        "The thinnest hit, and the cue ball goes home off the foot rail: pace alone decides where it stops.",
        "the ball is hit, and the cue ball stops in the circle", "kick", ((2.2, 1.2), (6.3, 2.1)), (), lengths=2.4,
        hit=0.8, stop=True, circle=0.75,
    ),
    Drill(
        "freeze", "Roll up and freeze", "Safe play",
        "A soft push that leaves the ball on the rail behind it: the next player has to drive it off.",
        "the ball is hit, and the cue ball stops in the circle", "kick", ((6.3, 1.6), (7.6, 1.7)), (), lengths=0.6,
        stop=True,
    ),
    Drill(
        "point-natural", "The natural", "Three cushions",
        "Round the corners with running side: see all three rails before you bend down, then how thick to hit.",
        "both balls, three cushions before the second", "point", ((2.0, 0.8), (5.6, 0.7), (1.2, 3.2)), (), lengths=4.0,
        tips=1.0, wanted_hits=4, way="natural",
    ),
    Drill(
        "point-rail-first", "Rail first", "Three cushions",
        "A rail before the first ball: the way when the natural would kiss, or the first ball is frozen.",
        "both balls, three cushions before the second", "point", ((2.0, 0.8), (5.6, 0.7), (1.2, 3.2)), (), lengths=3.0,
        tips=-0.5, wanted_hits=3, way="rail first",
    ),
    Drill(
        "pattern-3", "Three balls, three ways", "Patterns",
        "Choose all three ways back before the first shot: this is the first, and where its cue ball should stop.",
        "all three potted, each with the way chosen", "pot", ((3.4, 1.4), (5.6, 0.8), (6.6, 2.6), (2.2, 2.8)), (),
        pocket="foot-near", stop=True, circle=0.75, wanted_hits=3, out_of=5,
    ),
)  # fmt: skip
BY_NAME = {drill.name: drill for drill in DRILLS}


def drill_named(name: str, known: Mapping[str, Drill] = BY_NAME) -> Drill:
    """A drill by its name. known: those there are. Raises BadInputError."""
    if name not in known:
        raise BadInputError(
            f"unknown drill {name!r}: fandle drill --list has them, such as {DRILLS[0].name}", "name", code="unknown"
        )
    return known[name]


def layout_of(drill: Drill, table: Table) -> Layout:
    """How the balls lie on a table. Raises BadInputError, code no_pockets or no_ball, where they cannot."""
    game = usual_game(table)
    ids = id_order(game)
    if drill.play in ("pot", "bank") and table.pockets is None:
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
