"""The mirror view: the table unfolded across the rails in order, so that a rail shot is a straight line.

The whole is turned so that this line reads from left to right.
"""

import math
from collections.abc import Callable, Sequence

from fandle.core.lines.marks import over
from fandle.core.lines.mirror import reflect
from fandle.core.shot.path import Piece
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.web.table.models import Joint, MirrorModel, MirrorTable

EDGE_MARGIN_MM = 200.0  # room for the numbers above the balls at the edge


def unfolded(
    table: Table,
    rails: tuple[Rail, ...],
    balls: dict[str, Point],
    start: Point,
    goal: Point,
    pieces: Sequence[Piece],
    at: Sequence[float],
) -> MirrorModel:
    """Drawing data in mm, y down. Mirrors lie where centres turn, so the natural line is straight.

    balls: centres in metres; start, goal: what the line runs from and to; pieces: the played path;
    at: where it turns at each rail, diamonds, in the centre frame.
    """
    inset = table.ball_radius
    x1, y1 = table.length - inset, table.width - inset
    corners = [(inset, inset), (x1, inset), (x1, y1), (inset, y1)]

    image = _imaging(table, rails, start, goal)

    def placed(point: Point, legs: int) -> str:
        x, y = image((point[0] * table.diamond_x, point[1] * table.diamond_y), legs)
        return f"{x:g} {y:g}"

    tables: list[MirrorTable] = [
        {
            "name": f"seen {over(rails[:legs])}" if legs else "the table",
            "middle": image((table.length / 2, table.width / 2), legs),
            "outline": " ".join("{:g},{:g}".format(*image(corner, legs)) for corner in corners),
            "balls": [{"id": name, "at": image(place, legs)} for name, place in balls.items()],
        }
        for legs in range(len(rails) + 1)
    ]
    on = [q for q in pieces if q.leg <= len(rails)]
    played = "".join(f"M{placed(q.start, q.leg)}Q{placed(q.control, q.leg)} {placed(q.end, q.leg)}" for q in on)
    line = "M{:g} {:g}L{:g} {:g}".format(*image(start, 0), *image(goal, len(rails)))
    joints = [_joint(table, rail, along, image, k) for k, (rail, along) in enumerate(zip(rails, at, strict=False))]
    box = _box([image(corner, legs) for corner in corners for legs in range(len(rails) + 1)])
    return {
        "view": " ".join(f"{v:g}" for v in box),
        "wide": box[2],
        "high": box[3],
        "radius": round(table.ball_radius * 1000, 2),
        "tables": tables,
        "joints": joints,
        "natural": line,
        "played": played,
    }


def _imaging(table: Table, rails: tuple[Rail, ...], start: Point, goal: Point) -> Callable[[Point, int], Point]:
    """What shows a point (m) as seen over the first so many rails, in mm, the line from start to goal level."""

    def seen(point: Point, legs: int) -> Point:
        for rail in reversed(rails[:legs]):
            point = reflect(table, rail, point, table.ball_radius)
        return point

    (ax, ay), (bx, by) = start, seen(goal, len(rails))
    away = math.hypot(bx - ax, by - ay)
    c, s = (bx - ax) / away, (by - ay) / away

    def image(point: Point, legs: int) -> Point:
        x, y = seen(point, legs)
        return round((c * x + s * y) * 1000, 1), round((s * x - c * y) * 1000, 1)

    return image


def _box(corners: list[Point]) -> tuple[float, float, float, float]:
    """What the view shows: (x, y, width, height) round all corners."""
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    wide, high = max(xs) - min(xs) + 2 * EDGE_MARGIN_MM, max(ys) - min(ys) + 2 * EDGE_MARGIN_MM
    return min(xs) - EDGE_MARGIN_MM, min(ys) - EDGE_MARGIN_MM, wide, high


def _joint(table: Table, rail: Rail, along: float, image: Callable[[Point, int], Point], legs: int) -> Joint:
    """Where two images of the table meet, and where the played line turns there."""
    inset = table.ball_radius
    line = inset if not rail.at_end else (table.width if rail.is_long else table.length) - inset
    whole, unit = (table.length, table.diamond_x) if rail.is_long else (table.width, table.diamond_y)
    ends = image(rail.point(inset, line), legs), image(rail.point(whole - inset, line), legs)
    return {"rail": rail.value, "from": ends[0], "to": ends[1], "turn": image(rail.point(along * unit, line), legs)}
