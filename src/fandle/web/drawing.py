"""The table as a drawing, in mm: x from the head nose, y down from the far nose."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.shot.path import Piece
from fandle.core.table.model import Table
from fandle.core.table.pocket import Jaw, Mouth, Point, mouths, noses
from fandle.core.table.rails import Rail

CUSHION_MM = 45.0  # breadth of the cushion's top, nose to rail cap
MARGIN_MM = 160.0  # room for dimension lines outside the rails


@dataclass(frozen=True)
class Drawing:
    """Everything of a table that does not move, as numbers and SVG point lists."""

    length: float
    width: float
    radius: float
    rail: float
    cushions: tuple[str, ...]
    pockets: tuple[tuple[float, float, float, str], ...]
    sights: tuple[tuple[float, float], ...]
    spots: tuple[tuple[float, float, str], ...]
    string: float | None
    d: str
    view: str
    setback: float
    diamonds: bool


def mm(table: Table, x: float, y: float) -> tuple[float, float]:
    """A point in metres from the head-near corner, as a drawing point."""
    return round(x * 1000, 2), round((table.width - y) * 1000, 2)


def diamonds_mm(table: Table, point: Point) -> tuple[float, float]:
    """A point in diamonds, as a drawing point."""
    return mm(table, point[0] * table.diamond_x, point[1] * table.diamond_y)


def drawing(table: Table) -> Drawing:
    """The table's drawing."""
    rail = table.rail_width * 1000
    length, width = table.length * 1000, table.width * 1000
    edge = rail + MARGIN_MM
    setback = (table.sight_setback or table.rail_width / 2) * 1000
    jaws = {
        point: jaw
        for mouth in mouths(table)
        for point, jaw in zip((mouth.first, mouth.second), mouth.jaws(table), strict=True)
    }
    return Drawing(
        length=length,
        width=width,
        radius=table.ball_radius * 1000,
        rail=rail,
        cushions=tuple(_cushion(table, rail, (a, b), jaws) for rail, a, b in noses(table)),
        pockets=tuple(_hole(table, mouth) for mouth in mouths(table)),
        sights=tuple(_sights(table, setback)),
        spots=tuple((*diamonds_mm(table, spot), name) for name, spot in table.spots.items()),
        string=None if table.head_string is None else diamonds_mm(table, (table.head_string, 0.0))[0],
        d=_the_d(table),
        view=" ".join(f"{v:g}" for v in (-edge, -edge, length + 2 * edge, width + 2 * edge)),
        setback=setback,
        diamonds=table.has_diamonds,
    )


def _the_d(table: Table) -> str:
    """The D of a snooker table: a half circle on the baulk line, towards baulk."""
    if table.head_string is None or table.d_radius is None:
        return ""
    x, r, middle = table.head_string * table.diamond_x * 1000, table.d_radius * 1000, table.width * 500
    return f"M{x:g} {middle - r:g}A{r:g} {r:g} 0 0 0 {x:g} {middle + r:g}"


def _cushion(table: Table, rail: Rail, ends: tuple[Point, Point], jaws: dict[Point, Jaw]) -> str:
    """Outline of one cushion: facing, rounding, nose, rounding, facing, back."""
    first, second = (_end(rail, end, jaws.get(end)) for end in ends)
    parts = ["M{:g} {:g}".format(*mm(table, *first[0]))]
    for before, after in itertools.pairwise([*first, *reversed(second)]):
        jaw = jaws.get(ends[0]) if after == first[-1] else jaws.get(ends[1]) if before == second[-1] else None
        parts.append(_arc(table, before, after, jaw) if jaw else "L{:g} {:g}".format(*mm(table, *after)))
    return "".join(parts) + "Z"


def _end(rail: Rail, end: Point, jaw: Jaw | None) -> list[Point]:
    """One end of a cushion from its back to the straight nose."""
    deep = CUSHION_MM / 1000
    out = (1.0 if rail.at_end else -1.0) * deep
    if jaw is None:
        mitre = -deep if rail.along(*end) == 0.0 else deep
        return [rail.point(rail.along(*end) + mitre, rail.across(*end) + out), end]
    ax, ay = jaw.along
    run = max((rail.across(*end) + out - rail.across(*jaw.start)) / rail.across(ax, ay), 0.0) if ax or ay else 0.0
    back = (jaw.start[0] + run * ax, jaw.start[1] + run * ay)
    nose = rail.point(rail.along(*jaw.centre), rail.across(*end))
    return [back, jaw.start, nose]


def _arc(table: Table, a: Point, b: Point, jaw: Jaw) -> str:
    """The rounding from a to b as an SVG arc."""
    (cx, cy), r = jaw.centre, jaw.radius * 1000
    left = (a[0] - cx) * (b[1] - cy) - (a[1] - cy) * (b[0] - cx) > 0.0
    x, y = mm(table, *b)
    return f"A{r:g} {r:g} 0 0 {0 if left else 1} {x:g} {y:g}"


def _hole(table: Table, mouth: Mouth) -> tuple[float, float, float, str]:
    """Centre, radius and name of a pocket's hole: it just touches the shelf's depth."""
    pockets = table.pockets
    if pockets is None:
        raise ValueError("a table without pockets has no mouths")
    (ax, ay), (bx, by) = mouth.first, mouth.second
    side = mouth.name.startswith("side")
    shelf = pockets.side_shelf if side else pockets.corner_shelf
    span = math.hypot(bx - ax, by - ay)
    radius = span / 2 * (0.95 if side else 1.05)
    out = shelf + radius * (0.75 if side else 0.45)
    mx, my = mouth.middle
    # outward: to the right of the mouth line, whose left is the bed
    x, y = mx + (by - ay) / span * out, my - (bx - ax) / span * out
    px, py = mm(table, x, y)
    return px, py, round(radius * 1000, 1), mouth.name


def _sights(table: Table, setback: float) -> list[tuple[float, float]]:
    places = []
    for i in range(1, DIAMONDS_LONG):
        if i == DIAMONDS_LONG // 2 and table.pockets:
            continue
        x, _ = diamonds_mm(table, (i, 0))
        places += [(x, -setback), (x, table.width * 1000 + setback)]
    for j in range(1, DIAMONDS_SHORT):
        _, y = diamonds_mm(table, (0, j))
        places += [(-setback, y), (table.length * 1000 + setback, y)]
    return places


def path(table: Table, pieces: Sequence[Piece]) -> str:
    """A played path as SVG path data: every stretch is exactly one quadratic curve."""
    if not pieces:
        return ""
    dx, dy, width = table.diamond_x, table.diamond_y, table.width  # looked up once: a drag draws every line

    def at(point: Point) -> str:
        return f"{round(point[0] * dx * 1000, 2):g} {round((width - point[1] * dy) * 1000, 2):g}"

    parts = [f"M{at(pieces[0].start)}"]
    parts += [f"Q{at(p.control)} {at(p.end)}" if p.sliding else f"L{at(p.end)}" for p in pieces]
    return "".join(parts)


def film(table: Table, pieces: Sequence[Piece]) -> list[list[float]]:
    """The path with its times: start, duration, start x y, control x y, end x y; uniform along each."""
    return [
        [
            round(piece.t, 5),
            round(piece.lasts, 5),
            *diamonds_mm(table, piece.start),
            *diamonds_mm(table, piece.control),
            *diamonds_mm(table, piece.end),
        ]
        for piece in pieces
        if piece.lasts > 1e-5
    ]


def polyline(table: Table, points: list[Point]) -> str:
    """Points in metres as SVG path data; "" of none."""
    if not points:
        return ""
    drawn = ["{:g} {:g}".format(*mm(table, *p)) for p in points]
    return "M" + "L".join(drawn)
