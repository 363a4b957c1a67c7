"""Where on the bed a system can be trusted: its own aim from every start of a grid, played on one table.

And of several systems together: which of them lands nearest from where. Nothing is fitted or smoothed: every cell is
what `fandle count` says of a cue ball there.
"""

import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.layout.model import Layout
from fandle.core.layout.place import hangs
from fandle.core.shot.cue import HOUSE, Cue
from fandle.core.steps import Steps, Telling, quietly
from fandle.core.systems.catalogue import BY_EYE, METHODS, orders_of
from fandle.core.systems.mapped import landings
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

Floats = NDArray[np.float64]
COLUMNS, ROWS = 64, 32  # starts of a map
COARSE = 32, 16  # and of a picture of several systems
BLOCK = 4  # columns that are told at a time
ALIKE = 0.15  # ball diameters: two systems that land so nearly alike are one as good as the other
NONE = -1  # no system hits from there


class Grid(NamedTuple):
    """Starts, diamonds: columns along the bed and rows across it, all where a ball's centre can be."""

    xs: Floats
    ys: Floats

    @property
    def shape(self) -> tuple[int, int]:
        """Columns, rows."""
        return len(self.xs), len(self.ys)

    @property
    def places(self) -> Floats:
        """(columns · rows, 2), column by column."""
        return np.stack([np.repeat(self.xs, len(self.ys)), np.tile(self.ys, len(self.xs))], axis=1)


def grid_of(table: Table, columns: int = COLUMNS, rows: int = ROWS) -> Grid:
    """The middles of equal cells between the lines on which centres turn."""

    def middles(whole: float, unit: float, n: int) -> Floats:
        edge = table.ball_radius / unit
        return edge + (whole / unit - 2 * edge) * (np.arange(n) + 0.5) / n

    return Grid(middles(table.length, table.diamond_x, columns), middles(table.width, table.diamond_y, rows))


def free(layout: Layout, grid: Grid) -> NDArray[np.bool_]:
    """(columns, rows): where the cue ball can lie, clear of the other balls and of the mouths."""
    table = layout.table
    scale = np.array([table.diamond_x, table.diamond_y])
    places = grid.places * scale
    apart = np.full(len(places), math.inf)
    for x, y in layout.obstacles():
        apart = np.minimum(apart, np.hypot(places[:, 0] - x, places[:, 1] - y))
    open_ = np.array([hangs(table, (x, y)) is None for x, y in places.tolist()])
    clear: NDArray[np.bool_] = (open_ & (apart >= 2 * table.ball_radius)).reshape(grid.shape)
    return clear


@dataclass(frozen=True)
class TrustMap:
    """A system's landings from every start: (columns, rows), diamonds off (long +) and ball diameters beside the
    target, NaN where it does not count; free: where a cue ball can lie at all."""

    grid: Grid
    free: NDArray[np.bool_]
    off: Floats
    off_balls: Floats

    @property
    def counted(self) -> float:
        """The share of the starts from which it counts."""
        return float((~np.isnan(self.off)).sum() / max(self.free.sum(), 1))

    @property
    def hits(self) -> float:
        """The share of those from which it hits."""
        counted = ~np.isnan(self.off)
        return float((self.off_balls[counted] < 1.0).mean()) if counted.any() else 0.0


class Part(NamedTuple):
    """Columns of a map, first to beyond, as soon as they are known."""

    first: int
    beyond: int
    found: TrustMap


def trust(
    method: str, layout: Layout, rails: tuple[Rail, ...], grid: Grid, cue: Cue = HOUSE, block: int = BLOCK
) -> Telling[Part, TrustMap]:
    """A system's map over one order of rails, played with this cue; tells every block of columns on the way."""
    found = TrustMap(grid, free(layout, grid), np.full(grid.shape, math.nan), np.full(grid.shape, math.nan))
    for first in range(0, len(grid.xs), block):
        beyond = min(first + block, len(grid.xs))
        cells = [(i, j) for i in range(first, beyond) for j in range(len(grid.ys)) if found.free[i, j]]
        starts = [(float(grid.xs[i]), float(grid.ys[j])) for i, j in cells]
        landed = landings(method, layout, rails, starts, cue)
        where = tuple(np.array(cells, dtype=np.int64).reshape(-1, 2).T)
        found.off[where], found.off_balls[where] = landed.off, landed.off_balls
        yield Part(first, beyond, found)
    return found


@dataclass(frozen=True)
class Preferred:
    """Which of the systems that count over so many rails lands nearest: (columns, rows), a number in `methods`, −1
    where none of them hits."""

    rails: int
    grid: Grid
    methods: tuple[str, ...]
    best: NDArray[np.int64]


def prefer(maps: dict[str, Floats], rails: int, grid: Grid) -> Preferred:
    """The picture of several systems. maps: how many ball diameters each passes beside the target.

    Of systems that land alike the one that is best on more of the bed is taken, so that the picture has few pieces.
    """
    methods = tuple(maps)
    if not methods:
        return Preferred(rails, grid, (), np.full(grid.shape, NONE))
    beside = np.array([np.where(np.isnan(each), math.inf, each) for each in maps.values()])
    least = beside.min(axis=0)
    near = (beside <= least + ALIKE) & (beside < 1.0)
    order = np.argsort(-near.sum(axis=(1, 2)), kind="stable")
    best = np.full(grid.shape, NONE)
    for number in order[::-1]:  # the one that is good on most of it last, so that it stands
        best[near[number]] = number
    return Preferred(rails, grid, methods, best)


def nearest_over(method: str, layout: Layout, rails: int, grid: Grid, cue: Cue = HOUSE) -> Steps[Floats]:
    """How many ball diameters a system passes beside the target over the best of its orders of so many rails."""
    found = np.full(grid.shape, math.nan)
    for order in orders_of(method):
        if len(order) == rails:
            part = yield from quietly(trust(method, layout, order, grid, cue))
            found = np.fmin(found, part.off_balls)
    return found


def methods_over(rails: int) -> list[str]:
    """The systems with a sum over so many rails; those by eye, a mirror, apply everywhere and compare with nothing."""
    return [name for name in METHODS if name not in BY_EYE and any(len(order) == rails for order in orders_of(name))]


def without_cue(layout: Layout) -> tuple[object, ...]:
    """What a map depends on: everything but where the cue ball lies."""
    others = tuple(sorted((ball.id, ball.x, ball.y) for ball in layout.balls if ball.id != CUE))
    return layout.table, layout.target, others
