"""The drills that ship, as data. Layouts are our own.

A drill is set up alike on every table; its line is solved there, and its return route found there. Where the line, or
what is wanted, cannot be had on a table the drill says so.
"""

from collections.abc import Mapping
from dataclasses import replace

from fandle.core.errors import BadInputError
from fandle.core.practice.drill import Drill, Place
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

FAR, NEAR, HEAD, FOOT = Rail.FAR, Rail.NEAR, Rail.HEAD, Rail.FOOT


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


def _pot_return(name: str, title: str, say: str, wanted: str, places: tuple[Place, ...], rails: int) -> Drill:
    return Drill(
        name,
        title,
        "Return routes with a pot",
        say,
        wanted,
        "pot-return",
        places[0][:2],
        stop=True,
        circle=0.75,
        route=rails,
        places=places,
        wanted_hits=5,
    )


def _track(third: int) -> Drill:
    return Drill(
        f"corner-{third}", f"Corner numbers, to {third}", "Corner-number tracks",
        f"The track to {third} on the third rail, one tip of running side, firm, by this table's own number.",
        "the far rail, the foot rail, then the ball on the third rail", "own-number",
        ((1.6, 0.6), (8.0 - third / 10, 0.0)), (FAR, FOOT, NEAR), wanted_hits=5,
    )  # fmt: skip


_POT_PLACES = {  # looked for by the engine: a medium stroke brings the cue ball back on every standard table
    1: (
        Place((6.2, 2.2), (7.0, 3.2), "foot-far"), Place((6.0, 1.2), (6.8, 2.2), "foot-far"),
        Place((4.8, 1.2), (4.2, 3.4), "side-far"),
    ),
    2: (
        Place((5.4, 2.4), (4.4, 3.0), "side-far"), Place((4.4, 1.6), (6.6, 2.6), "foot-far"),
        Place((3.8, 2.0), (3.6, 3.0), "side-far"),
    ),
    3: (Place((4.4, 2.0), (4.4, 3.4), "side-far"), Place((3.6, 0.6), (4.4, 2.8), "side-far")),
}  # fmt: skip
_BACK_CUT = (
    Place((4.8, 1.0), (5.0, 2.8), "side-far"), Place((4.4, 1.4), (4.6, 2.8), "side-far"),
    Place((4.2, 1.4), (4.6, 3.2), "side-far"),
)  # fmt: skip
_STRAIGHT_IN = (Place((5.8, 1.8), (6.9, 2.9), "foot-far"), Place((6.0, 2.0), (7.0, 3.0), "foot-far"))
_HAND: Point = (2.0, 0.4)  # where the cue ball waits: it is placed anew before each bank
_SPREAD: tuple[Point, ...] = (
    (1.2, 2.8), (2.6, 1.2), (3.2, 3.0), (5.2, 0.5), (5.0, 1.5), (6.8, 2.9), (1.0, 1.4), (2.2, 2.2), (3.6, 2.0),
    (4.4, 2.8), (5.8, 2.3), (6.4, 1.2), (7.1, 2.0), (1.8, 0.8), (5.6, 3.3),
)  # fmt: skip
STREAK = 8  # in a row: the goal of a way there and back
COUNTED = {1: "one rail", 2: "two rails", 3: "three rails", 4: "four rails"}
DRILLS: tuple[Drill, ...] = (
    *(
        Drill(
            f"return-{n}", f"Out and back over {COUNTED[n]}", "Return routes",
            "From the centre spot and back to it. Right speed with wrong contacts is the wrong stroke: both count.",
            "the contacts in order, and the stop in the circle", "route", ((4.0, 2.0),), stop=True, route=n,
            wanted_hits=STREAK, out_of=STREAK,
        )
        for n in (1, 2, 3, 4)
    ),
    *(
        _pot_return(
            f"pot-return-{n}", f"Pot, and back over {COUNTED[n]}",
            "Pot the ball at medium pace; the cue ball comes back to the circle it started from. See the way first.",
            "the pot, and the stop in the circle", places, n,
        )
        for n, places in _POT_PLACES.items()
    ),
    _pot_return(
        "pot-back-cut", "Back cut, and back over three rails",
        "A back cut: the pocket lies on your side of the ball, out of sight as you aim. The cue ball comes round.",
        "the pot, and the stop in the circle", _BACK_CUT, 3,
    ),
    replace(
        _pot_return(
            "pot-draw", "Pot, and draw back",
            "Nearly straight in, at medium pace, below centre: the cue ball is drawn back to the circle, over no rail.",
            "the pot, and the stop in the circle", _STRAIGHT_IN, 0,
        ), heights=(-0.5, -0.75, -1.0),
    ),
    replace(
        _pot_return(
            "pot-stop", "Pot, and stop",
            "Nearly straight in, at medium pace: just below centre, so that the cue ball slides in and stays there.",
            "the pot, and the cue ball stays within the circle", _STRAIGHT_IN, 0,
        ), heights=(0.0, -0.125, -0.25, -0.375, -0.5), home="contact", circle=0.25,
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
        "bank-fifteen", "Fifteen banks", "Bank round",
        "Fifteen balls spread, ball in hand before each: bank one after the other dead, call the pocket, count them.",
        "the ball is banked into the pocket shown", "round", (_HAND, *_SPREAD), lengths=3.0, wanted_hits=8,
        out_of=len(_SPREAD),
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
        "Choose all three ways before the first shot: each ball is potted from where the last shot left the cue ball.",
        "all three potted, the cue ball in both circles", "pattern", ((3.4, 1.4), (5.6, 0.8), (6.6, 2.6), (2.2, 2.8)),
        stop=True, circle=0.75, wanted_hits=3, out_of=5,
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
