"""The usual strokes: what a player would try before anything special."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import product

import numpy as np

from fandle.core.errors import BadInputError
from fandle.core.shot.cue import Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of, speed_of

SOFT, MEDIUM, FIRM, HARD = 1.25, 2.5, 3.0, 4.0  # table lengths
USUAL = (MEDIUM, SOFT, FIRM)
CAROM = (MEDIUM, FIRM, HARD)  # three cushions and a second ball: softer does not arrive
SIDES = (0.0, -0.5, 0.5, -1.0, 1.0)  # tips, + right: reverse one is left out line by line
HEIGHT = 0.75  # tips below or above centre
RAISED_BY_DEG = (8.0, 12.0, 15.0, 20.0)  # elevation of a slight curve
CURVE_TIPS, CURVE_LOW = 1.0, 0.5  # its side, tips below centre
CURVE_PACES = (SOFT, 1.75)  # and medium, where the cue is hardly raised
MUCH_SIDE = (-1.25, 1.25)  # tips: more is near a miscue; for position over two rails and more
SLOW_MPS = (0.4, 0.55, 0.75, 1.0)
CRAWL_MPS, CRAWLS = (0.4, 2.0), 33  # paces of a push, each a twentieth firmer than the one before


@dataclass(frozen=True)
class Tried:
    """A stroke that is tried, and its place among those: how many table lengths, tips of side, tips of height.

    lengths: None of the stroke given. crawls: is it tried only on the balls nearby, straight?
    """

    stroke: Stroke
    lengths: float | None
    tips: float = 0.0
    height: float = 0.0
    crawls: bool = False


def usual_strokes(table: Table, cue: Cue, lengths: tuple[float, ...] = USUAL) -> list[Tried]:
    """Soft, medium and firm, each plain and with half a tip and one tip of side either way, at centre height."""
    return [tried(table, cue, each, tips) for each in lengths for tips in SIDES]


def tried(table: Table, cue: Cue, lengths: float, tips: float = 0.0, height: float = 0.0) -> Tried:
    """A stroke in a player's units."""
    speed, tip = speed_of(table, lengths), cue.tip
    return Tried(
        Stroke(speed, offset_of(tips, table, tip), offset_of(height, table, tip), cue=cue), lengths, tips, height
    )


def slow_strokes(table: Table, cue: Cue) -> list[Tried]:
    """Plain strokes down to a crawl, for what is to be left: half a table length and less."""
    return [Tried(Stroke(speed, cue=cue), lengths_of(table, speed)) for speed in SLOW_MPS]


def crawls(table: Table, cue: Cue) -> list[Tried]:
    """Plain strokes from a crawl upwards, in small steps: how a ball is pushed just as far as it is to go."""
    paces = np.geomspace(*CRAWL_MPS, CRAWLS).tolist()
    return [Tried(Stroke(speed, cue=cue), lengths_of(table, speed), crawls=True) for speed in paces]


def curves(table: Table, cue: Cue) -> list[Tried]:
    """Slight curves either way: the cue raised, the tip low and on the side it is to curve to, soft to medium."""
    found = []
    paces = [*product(RAISED_BY_DEG, CURVE_PACES), (RAISED_BY_DEG[0], MEDIUM)]
    for (raised, lengths), tips in product(paces, (-CURVE_TIPS, CURVE_TIPS)):
        side, up = offset_of(tips, table, cue.tip), offset_of(-CURVE_LOW, table, cue.tip)
        try:
            stroke = Stroke(speed_of(table, lengths), side, up, raised, cue)
        except BadInputError:  # it would leap at that speed
            continue
        found.append(Tried(stroke, lengths, tips, -CURVE_LOW))
    return found


def much_side(table: Table, cue: Cue) -> list[Tried]:
    """Medium to hard with a tip and a half either way: what brings the cue ball round over two rails and more."""
    return [tried(table, cue, lengths, tips) for lengths in (MEDIUM, HARD) for tips in MUCH_SIDE]


def plain_ones(every: Iterable[Tried]) -> list[Tried]:
    """Those without side; the stroke given without its own."""
    kept = [each for each in every if each.tips == 0.0]
    return [replace(t, stroke=replace(t.stroke, side=0.0)) if t.lengths is None else t for t in kept]
