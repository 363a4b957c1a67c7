"""Where the pockets are: mouths, points, and the question whether a ball lies in one."""

from dataclasses import dataclass

from fandle.core.rails import Rail
from fandle.core.table import Point, Table


@dataclass(frozen=True)
class Mouth:
    """One pocket's mouth: its name and its two cushion points, in metres."""

    name: str
    first: Point
    second: Point

    @property
    def middle(self) -> Point:
        """Middle of the mouth line."""
        return (self.first[0] + self.second[0]) / 2, (self.first[1] + self.second[1]) / 2


def mouths(table: Table) -> tuple[Mouth, ...]:
    """All mouths of the table, none if it has no pockets. Bed to the left from first to second."""
    pockets = table.pockets
    if pockets is None:
        return ()
    length, width, gap, half = table.length, table.width, pockets.corner_gap, pockets.side_mouth / 2
    mid = length / 2
    return (
        Mouth("head-near", (0.0, gap), (gap, 0.0)),
        Mouth("side-near", (mid - half, 0.0), (mid + half, 0.0)),
        Mouth("foot-near", (length - gap, 0.0), (length, gap)),
        Mouth("foot-far", (length, width - gap), (length - gap, width)),
        Mouth("side-far", (mid + half, width), (mid - half, width)),
        Mouth("head-far", (gap, width), (0.0, width - gap)),
    )


def pocket_at(table: Table, x: float, y: float) -> str | None:
    """Name of the pocket whose mouth line a centre at (x, y) metres has passed, if any."""
    for mouth in mouths(table):
        (ax, ay), (bx, by) = mouth.first, mouth.second
        beyond = (bx - ax) * (y - ay) - (by - ay) * (x - ax) < 0.0
        along = (bx - ax) * (x - ax) + (by - ay) * (y - ay)
        if beyond and 0.0 <= along <= (bx - ax) ** 2 + (by - ay) ** 2:
            return mouth.name
    return None


def noses(table: Table) -> tuple[tuple[Rail, Point, Point], ...]:
    """The stretches of cushion nose between the pockets: rail, start, end, in metres."""
    length, width = table.length, table.width
    gap = table.pockets.corner_gap if table.pockets else 0.0
    half = table.pockets.side_mouth / 2 if table.pockets else 0.0
    mid = length / 2
    stretches: list[tuple[Rail, Point, Point]] = []
    for rail, y in ((Rail.NEAR, 0.0), (Rail.FAR, width)):
        if table.pockets:
            stretches += [(rail, (gap, y), (mid - half, y)), (rail, (mid + half, y), (length - gap, y))]
        else:
            stretches.append((rail, (0.0, y), (length, y)))
    for rail, x in ((Rail.HEAD, 0.0), (Rail.FOOT, length)):
        stretches.append((rail, (x, gap), (x, width - gap)))
    return tuple(stretches)


def jaw_name(table: Table, rail: Rail, along_m: float) -> str:
    """Name of the pocket nearest to a point of a rail."""
    x, y = rail.point(along_m, (table.width if rail.is_long else table.length) if rail.at_end else 0.0)
    best = min(mouths(table), key=lambda m: (m.middle[0] - x) ** 2 + (m.middle[1] - y) ** 2)
    return best.name
