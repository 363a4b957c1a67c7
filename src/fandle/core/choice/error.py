"""How a player's errors turn into strokes: the same draws for every line."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.choice.field import Field
from fandle.core.errors import BadInputError
from fandle.core.lines.marks import MARK_BEYOND, diamond_along, markable
from fandle.core.lines.mirror import rail_line
from fandle.core.lines.remembered import SEEN, Grade, grade_of
from fandle.core.player.draws import Draws
from fandle.core.player.scatter import Player
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.parameters import TABLE
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
THIN_RAD = math.radians(70.0)  # of cut: thinner is not aimed at by mistake
SLOWEST_PART = 0.05  # of the speed meant: no stroke is drawn slower


@dataclass(frozen=True)
class Through:
    """A ball that is sent at a mark: where the cue ball starts, the ball's centre (m), the heading meant (rad)."""

    start: Point
    ball: Point
    heading: float


@dataclass(frozen=True)
class Marked:
    """A mark that is aimed at: the rail, the mark at its nose in diamonds, and where it is seen from (m).

    Of a kick that is the cue ball. Of a bank it is the object ball, which is met `through` a ghost ball behind it.
    """

    rail: Rail
    nose: float
    seen_from: Point
    through: Through | None = None

    @property
    def grade(self) -> Grade:
        """How easily it is seen."""
        return grade_of(self.nose)


def direction_error(table: Table, marked: Marked, off: Floats) -> Floats:
    """By how much the cue turns (rad) when the mark at the nose is off by `off` diamonds."""
    turned = _turned(table, marked.rail, marked.seen_from, np.full_like(off, marked.nose), off)
    return turned if marked.through is None else _behind(table, marked.through, turned)


def _behind(table: Table, way: Through, turned: Floats) -> Floats:
    """By how much the cue turns (rad) when a ball is sent so far beside its heading: to its ghost ball, exactly.

    No further round the ball than a player aims at it: a ball that is near is aimed at, not the mark beyond it.
    """
    (x, y), (bx, by), wide = way.start, way.ball, 2 * table.ball_radius
    line = math.atan2(by - y, bx - x)
    cut = math.remainder(way.heading - line, math.tau)
    most = max(THIN_RAD, abs(cut))
    cuts = np.clip(cut + turned, -most, most)

    def aim(cuts: Floats) -> Floats:
        found: Floats = np.arctan2(by - wide * np.sin(line + cuts) - y, bx - wide * np.cos(line + cuts) - x)
        return found

    off = aim(cuts) - aim(np.array([cut]))
    wrapped: Floats = np.arctan2(np.sin(off), np.cos(off))
    return wrapped


def _turned(table: Table, rail: Rail, seen_from: Point, nose: Floats, off: Floats) -> Floats:
    """The angle between the lines to a mark and to one `off` diamonds further, rad."""
    gap = rail_line(table, rail, 0.0) - rail.across(*seen_from)
    unit, start = diamond_along(table, rail), rail.along(*seen_from)
    meant, made = nose * unit - start, (nose + off) * unit - start
    if rail.is_long:
        turned = np.arctan2(gap, made) - np.arctan2(gap, meant)
    else:
        turned = np.arctan2(made, gap) - np.arctan2(meant, gap)
    wrapped: Floats = np.arctan2(np.sin(turned), np.cos(turned))
    return wrapped


def spread(table: Table, player: Player, marked: Marked | None) -> float:
    """The standard deviation of the cue's direction, rad: the arm's, and the mark's where one is aimed at."""
    arm = math.radians(player.direction_deg)
    if marked is None or not markable(marked.rail, marked.nose):
        return arm
    sd = getattr(player.mark, marked.grade)
    ends = direction_error(table, marked, np.array([-sd, sd]))
    return math.hypot(arm, 0.5 * float(abs(ends[1] - ends[0])))


def spreads(table: Table, player: Player, rail: Rail | None, start: Point, at: Floats) -> Floats:
    """The same for many directions (rad), whose marks are read at one rail; None where none is aimed at."""
    arm = np.full(len(at), math.radians(player.direction_deg))
    if rail is None:
        return arm
    ahead, aside = (np.sin(at), np.cos(at)) if rail.is_long else (np.cos(at), np.sin(at))
    gap = rail_line(table, rail, 0.0) - rail.across(*start)
    with np.errstate(divide="ignore", invalid="ignore"):
        nose = (rail.along(*start) + gap * aside / ahead) / diamond_along(table, rail)
    seen = np.abs(nose - rail.diamonds / 2) <= rail.diamonds / 2 + MARK_BEYOND
    nose = np.where(seen, nose, 0.0)
    sd = np.full(len(at), player.mark.between)
    for unit, scatter in ((0.25, player.mark.quarter), (0.5, player.mark.half), (1.0, player.mark.diamond)):
        sd[np.abs(nose - unit * np.round(nose / unit)) <= SEEN + 1e-9] = scatter
    wide = 0.5 * np.abs(_turned(table, rail, start, nose, sd) - _turned(table, rail, start, nose, -sd))
    found: Floats = np.where(seen, np.hypot(arm, wide), arm)
    return found


@dataclass(frozen=True)
class Rows:
    """n strokes with their errors: directions (rad), strokes as the kernels take them, which of them are miscues.

    tables: the numbers of the table in each, None where they are all alike.
    """

    at: Floats
    strokes: Floats
    miscue: Bools
    tables: Floats | None


def scattered(
    field: Field, direction: float, stroke: Stroke, marked: Marked | None, player: Player, drawn: Draws
) -> Rows:
    """A stroke as this player makes it, draw by draw.

    Direction and mark turn the cue; the speed is a share more or less; the tip is off across and up, and squirt follows
    from where it really is. Beyond half the radius it is a miscue, played as nothing.
    """
    table = field.layout.table
    at = direction + math.radians(player.direction_deg) * drawn.direction
    if marked is not None and markable(marked.rail, marked.nose):
        at = at + direction_error(table, marked, getattr(player.mark, marked.grade) * drawn.mark)
    n, tip = len(at), player.tip_mm / 1000 / table.ball_radius
    strokes = np.repeat(stroke.array()[None], n, axis=0)
    strokes[:, 0] *= np.maximum(1.0 + player.speed_part * drawn.speed, SLOWEST_PART)
    strokes[:, 0] = np.minimum(strokes[:, 0], k.FASTEST_MPS)
    side, up = strokes[:, 1] + tip * drawn.across, strokes[:, 2] + tip * drawn.up
    miscue = np.hypot(side, up) > k.MISCUE_LIMIT
    strokes[:, 1], strokes[:, 2] = np.where(miscue, 0.0, side), np.where(miscue, 0.0, up)
    return Rows(at, strokes, miscue, _tables(table, drawn.table))


def uncertain(table: Table) -> int:
    """How many of a table's numbers are uncertain."""
    return 0 if table.fitted is None else len(table.fitted.names)


def _tables(table: Table, drawn: Floats) -> Floats | None:
    """A table's numbers draw by draw, from the covariance of a table check; None where nothing is uncertain."""
    if table.fitted is None or not drawn.size:
        return None
    return _drawn_tables(table, drawn.shape[0], drawn.tobytes())


@lru_cache(maxsize=4)
def _drawn_tables(table: Table, n: int, drawn: bytes) -> Floats:
    """The same, kept: every line asks for them."""
    fitted = table.fitted
    if fitted is None:
        raise ValueError("a table without a check has nothing to draw")
    weights, axes = np.linalg.eigh(np.array(fitted.covariance))
    root = axes * np.sqrt(np.clip(weights, 0.0, None))
    off = np.frombuffer(drawn).reshape(n, -1) @ root.T
    return np.array([_moved(table, fitted.names, row).params() for row in off])


def _moved(table: Table, names: tuple[str, ...], off: Floats) -> Table:
    """The table with some of its numbers moved, no further than their limits."""
    values = {
        name: min(max(getattr(table, name) + by, TABLE[name].low), TABLE[name].high)
        for name, by in zip(names, off.tolist(), strict=True)
    }
    try:
        return replace(table, fitted=None, **values)
    except BadInputError:  # numbers that do not go together: the draw is as good as none
        return replace(table, fitted=None)
