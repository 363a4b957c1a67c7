"""The table as a drawing, in mm: x from the head nose, y down from the far nose."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.path import Piece
from fandle.core.pocket import Mouth, Point, mouths, noses
from fandle.core.rails import Rail
from fandle.core.table import Table

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
    spots: tuple[tuple[float, float], ...]
    string: float | None
    view: str
    setback: float


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
    return Drawing(
        length=length,
        width=width,
        radius=table.ball_radius * 1000,
        rail=rail,
        cushions=tuple(_cushion(table, *nose) for nose in noses(table)),
        pockets=tuple(_hole(table, mouth) for mouth in mouths(table)),
        sights=tuple(_sights(table, setback)),
        spots=tuple(diamonds_mm(table, spot) for spot in table.spots.values()),
        string=None if table.head_string is None else diamonds_mm(table, (table.head_string, 0.0))[0],
        view=" ".join(f"{v:g}" for v in (-edge, -edge, length + 2 * edge, width + 2 * edge)),
        setback=setback,
    )


def _cushion(table: Table, rail: Rail, a: Point, b: Point) -> str:
    """Outline of one cushion: its nose, and facings cut back at the pockets' angles."""
    deep = CUSHION_MM / 1000

    def back(end: Point, towards: Point) -> Point:
        cut = _cut_deg(table, rail, end)
        run = deep / math.tan(math.radians(180.0 - cut)) if cut else 0.0
        along = math.copysign(run, rail.along(*towards) - rail.along(*end))
        out = deep if rail.at_end else -deep
        # a facing opens away from the pocket: the back of the cushion is longer than its nose
        return rail.point(rail.along(*end) - along, rail.across(*end) + out)

    corners = (a, b, back(b, a), back(a, b))
    return " ".join("{:g},{:g}".format(*mm(table, *corner)) for corner in corners)


def _cut_deg(table: Table, rail: Rail, end: Point) -> float:
    pockets = table.pockets
    if pockets is None:
        return 0.0
    half = table.length / 2
    at_side = rail.is_long and abs(abs(end[0] - half) - pockets.side_mouth / 2) < 1e-9
    return pockets.side_cut_deg if at_side else pockets.corner_cut_deg


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
    x, y = diamonds_mm(table, pieces[0].start)
    parts = [f"M{x:g} {y:g}"]
    for piece in pieces:
        cx, cy = diamonds_mm(table, piece.control)
        ex, ey = diamonds_mm(table, piece.end)
        parts.append(f"Q{cx:g} {cy:g} {ex:g} {ey:g}" if piece.sliding else f"L{ex:g} {ey:g}")
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
    """Points in metres as SVG path data."""
    drawn = ["{:g} {:g}".format(*mm(table, *p)) for p in points]
    return "M" + "L".join(drawn)
