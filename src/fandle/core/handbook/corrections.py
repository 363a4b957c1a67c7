"""The corrections, each played on a table: the same aim twice, one thing changed, and how far apart the two arrive.

Directions as players report them (common practice, no published source); sizes are whatever this table's numbers give.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace

from fandle.core.constants import FASTEST_MPS
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.path import Piece
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.table.condition import OWN, conditioned
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import usual_game

Change = Callable[[Table, Stroke], tuple[Table, Stroke]]


@dataclass(frozen=True)
class Setup:
    """A cue ball aimed at a mark (nose) on its first rail; read where it crosses `level` after the last of `rails`,
    diamonds across from that rail's own nose."""

    cue: Point
    rails: tuple[Rail, ...]
    at: float
    level: float
    lengths: float = 2.5
    side: float = 0.0
    up: float = 0.0


@dataclass(frozen=True)
class Correction:
    """One thing changed. claimed: what players say it does, "short", "long" or "either"; remedy: what they do then."""

    title: str
    claimed: str
    why: str
    remedy: str
    setup: Setup
    change: Change


@dataclass(frozen=True)
class Corrected:
    """A correction on a table: how much farther it arrives (diamonds, + long), None where one of the two never comes
    there; the paths without and with the change."""

    correction: Correction
    shift: float | None
    before: tuple[Piece, ...]
    after: tuple[Piece, ...]


ONE = Setup((1.0, 1.0), (Rail.FAR,), 3.0, 1.0)
FIRM = replace(ONE, lengths=3.5)
SLIDING = Setup((1.0, 3.0), (Rail.FAR,), 2.0, 1.0, 3.0)
THREE = Setup((0.5, 0.4), (Rail.FAR, Rail.FOOT, Rail.NEAR), 5.6, 0.1, 2.9, 0.4, 0.2)
SHORT_FIRST = Setup((3.0, 0.6), (Rail.FOOT, Rail.FAR), 2.2, 4.0)


def _stroke(**more: float) -> Change:
    return lambda table, stroke: (table, replace(stroke, **more))  # type: ignore[arg-type]  # figures of the stroke


def _paced(by: float, side: float = 0.0) -> Change:
    def change(table: Table, stroke: Stroke) -> tuple[Table, Stroke]:
        faster = min(stroke.speed * by, FASTEST_MPS)
        return table, replace(stroke, speed=faster, side=stroke.side + side)

    return change


def _made_of(cloth: str = OWN, rubber: str = OWN) -> Change:
    return lambda table, stroke: (conditioned(table, cloth, rubber), stroke)


def _cue(table: Table, stroke: Stroke) -> tuple[Table, Stroke]:
    return table, replace(stroke, cue=HOUSE)


CORRECTIONS = (
    Correction(
        "Harder",
        "short",
        "The ball still slides into the rubber and presses it in: it comes off steeper.",
        "Aim further along, towards the target.",
        ONE,
        _paced(1.5),
    ),
    Correction(
        "Softer",
        "long",
        "The ball rolls into the rail and drifts wide after it, sometimes wildly.",
        "Play it firmer, or aim nearer to yourself.",
        ONE,
        _paced(0.7),
    ),
    Correction(
        "Running side",
        "long",
        "The spin opens the rebound off the rail it meets.",
        "Aim nearer to yourself.",
        ONE,
        _stroke(side=0.2),
    ),
    Correction(
        "Reverse side", "short", "The spin holds the rebound up.", "Aim further along.", ONE, _stroke(side=-0.2)
    ),
    Correction(
        "Running and harder", "either", "The two partly cancel.", "The same mark may serve.", ONE, _paced(1.5, 0.2)
    ),
    Correction(
        "Follow that still slides",
        "long",
        "After the rail the ball bends long.",
        "Aim nearer to yourself.",
        SLIDING,
        _stroke(up=0.4),
    ),
    Correction(
        "Draw that still slides",
        "short",
        "After the rail the ball bends short.",
        "Aim further along.",
        SLIDING,
        _stroke(up=-0.4),
    ),
    Correction(
        "New, slick cloth: three rails",
        "long",
        "Running side keeps its hold over three rails.",
        "Shoot a number or two less.",
        THREE,
        _made_of("new"),
    ),
    Correction(
        "Damp or old cloth: three rails",
        "short",
        "The cloth takes the side away and slows the ball.",
        "By so much on this table; half a diamond is a table's own correction, not the weather's.",
        THREE,
        _made_of("damp"),
    ),
    Correction(
        "Damp or old cloth: one rail",
        "either",
        "A plain ball over one rail may go either way.",
        "Let the table check decide.",
        ONE,
        _made_of("damp"),
    ),
    Correction(
        "Soft rubber, firm",
        "either",
        "The ball sinks in, stays longer and turns deeper.",
        "Let the table check decide.",
        FIRM,
        _made_of(rubber="soft"),
    ),
    Correction(
        "Dead rubber",
        "long",
        "It gives back little: slow off the rail, and wide.",
        "Aim nearer to yourself.",
        ONE,
        _made_of(rubber="dead"),
    ),
    Correction(
        "Running side, the short rail first",
        "short",
        "It opens the first rebound across the table, so the ball comes back to the long rail shorter.",
        "Aim nearer to yourself.",
        SHORT_FIRST,
        _stroke(side=-0.2),
    ),
    Correction(
        "An ordinary cue, with side",
        "either",
        "It squirts: the ball leaves a little to the other side of the line.",
        "Your own cue's number is on its card.",
        replace(ONE, side=0.3),
        _cue,
    ),
    Correction(
        "Cue raised, with side",
        "either",
        "The ball swerves on its way to the rail, most when struck softly.",
        "Keep the cue level.",
        replace(ONE, side=0.3),
        _stroke(elevation=12.0),
    ),
)


def corrected(correction: Correction, table: Table) -> Corrected:
    """A correction played on a table."""
    setup = correction.setup
    stroke = Stroke(min(speed_of(table, setup.lengths), FASTEST_MPS), setup.side, setup.up)
    (at, before), (then, after) = (
        arrives(setup, where, how) for where, how in ((table, stroke), correction.change(table, stroke))
    )
    return Corrected(correction, None if at is None or then is None else then - at, before, after)


def arrives(setup: Setup, table: Table, stroke: Stroke) -> tuple[float | None, tuple[Piece, ...]]:
    """(where it crosses the level, diamonds in its direction of travel; None if it does not; its path)."""
    layout = Layout(table, usual_game(table), (Ball("cue", *setup.cue),))
    direction = direction_to(table, setup.rails[0], layout.metres(layout.cue), setup.at, "nose")
    way = approach(layout, stroke, direction, most_rails=len(setup.rails) + 1, ignore_balls=True)
    last = setup.rails[-1]
    if way.rails[: len(setup.rails)] != setup.rails:
        return None, way.pieces
    if len(setup.rails) > 1:  # read at the last rail itself
        met = [ev for ev in way.events if ev.rail is not None][len(setup.rails) - 1]
        leg = [q for q in way.pieces if q.leg == len(setup.rails) - 1]
        travel = 1.0 if leg and last.along(*leg[-1].end) >= last.along(*leg[0].start) else -1.0
        return travel * last.along(met.x, met.y), way.pieces
    found = crosses(way, last, len(setup.rails), setup.level, carry=True)
    return (None if found is None else found[0] * found[1]), way.pieces


def corrections(table: Table) -> list[Corrected]:
    """All of them on a table."""
    return [corrected(each, table) for each in CORRECTIONS]
