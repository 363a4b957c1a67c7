"""The mirror view: the table unfolded across the rails in order, so that a rail shot is a straight line."""

from collections.abc import Sequence

from fandle.core.lines.mirror import reflect
from fandle.core.shot.path import Piece
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.web.table.models import Joint, MirrorModel, MirrorTable

MARGIN_MM = 200.0  # room for the numbers above the balls at the edge


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
    corners = [(inset, inset), (table.length - inset, inset), (table.length - inset, table.width - inset)]
    corners.append((inset, table.width - inset))

    def image(point: Point, legs: int) -> tuple[float, float]:
        """A point as it is seen over the first `legs` rails."""
        for rail in reversed(rails[:legs]):
            point = reflect(table, rail, point, inset)
        return round(point[0] * 1000, 1), round(-point[1] * 1000, 1)

    def placed(point: Point, legs: int) -> str:
        x, y = image((point[0] * table.diamond_x, point[1] * table.diamond_y), legs)
        return f"{x:g} {y:g}"

    tables: list[MirrorTable] = []
    for legs in range(len(rails) + 1):
        outline = [image(corner, legs) for corner in corners]
        tables.append(
            {
                "outline": " ".join(f"{x:g},{y:g}" for x, y in outline),
                "balls": [{"id": name, "at": image(place, legs)} for name, place in balls.items()],
            }
        )
    played = "".join(
        f"M{placed(q.start, q.leg)}Q{placed(q.control, q.leg)} {placed(q.end, q.leg)}"
        for q in pieces
        if q.leg <= len(rails)
    )
    (x0, y0), (x1, y1) = image(start, 0), image(goal, len(rails))
    joints: list[Joint] = []
    for k, (rail, along) in enumerate(zip(rails, at, strict=False)):
        line = inset if not rail.at_end else (table.width if rail.is_long else table.length) - inset
        whole = table.length if rail.is_long else table.width
        unit = table.diamond_x if rail.is_long else table.diamond_y
        a, b = image(rail.point(inset, line), k), image(rail.point(whole - inset, line), k)
        joints.append({"rail": rail.value, "from": a, "to": b, "turn": image(rail.point(along * unit, line), k)})
    xs = [image(corner, legs)[0] for corner in corners for legs in range(len(rails) + 1)]
    ys = [image(corner, legs)[1] for corner in corners for legs in range(len(rails) + 1)]
    box = (
        min(xs) - MARGIN_MM,
        min(ys) - MARGIN_MM,
        max(xs) - min(xs) + 2 * MARGIN_MM,
        max(ys) - min(ys) + 2 * MARGIN_MM,
    )
    return {
        "view": " ".join(f"{v:g}" for v in box),
        "wide": box[2],
        "high": box[3],
        "radius": round(table.ball_radius * 1000, 2),
        "tables": tables,
        "joints": joints,
        "natural": f"M{x0:g} {y0:g}L{x1:g} {y1:g}",
        "played": played,
    }
