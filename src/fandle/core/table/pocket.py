"""Where the pockets are: mouths, jaws as geometry, and whether a ball lies in one."""

import math
from dataclasses import dataclass
from typing import Protocol

from fandle.core.table.parameters import PocketNumbers
from fandle.core.table.rails import Rail

Point = tuple[float, float]


@dataclass(frozen=True)
class Pockets(PocketNumbers):
    """Mouths between the cushion points, cut angles of the facings, shelves, roundings (m, degrees).

    A mouth is measured where nose line and facing would meet; the point itself is rounded.
    """

    @property
    def corner_gap(self) -> float:
        """Distance of a corner pocket's points from the corner of the nose lines."""
        return self.corner_mouth / math.sqrt(2)

    @property
    def corner_straight(self) -> float:
        """Distance from the corner of the nose lines at which the straight nose begins."""
        return self.corner_gap + self.corner_point_radius * _half_tangent(self.corner_cut_deg)

    @property
    def side_straight(self) -> float:
        """Distance from the middle of a long rail at which the straight nose begins."""
        return self.side_mouth / 2 + self.side_point_radius * _half_tangent(self.side_cut_deg)


class Bed(Protocol):
    """What of a table this module needs."""

    @property
    def length(self) -> float:
        """Nose to nose, m."""

    @property
    def width(self) -> float:
        """The same across."""

    @property
    def pockets(self) -> Pockets | None:
        """None where there are none."""


@dataclass(frozen=True)
class Jaw:
    """One jaw: the rounded point, then the straight facing that leads into the pocket.

    `normal` points into the rubber of the facing; the facing starts at `start`, where the
    rounding ends, and runs along `along`.
    """

    centre: Point
    radius: float
    start: Point
    along: Point
    normal: Point

    def gap(self, x: float, y: float, radius: float) -> float:
        """How far a ball at (x, y) is from the rubber, m; negative where it lies into it."""
        hx, hy = x - self.start[0], y - self.start[1]
        if hx * self.along[0] + hy * self.along[1] >= 0.0:
            return -(hx * self.normal[0] + hy * self.normal[1]) - radius
        return math.dist((x, y), self.centre) - self.radius - radius


@dataclass(frozen=True)
class Mouth:
    """One pocket's mouth: its name, its two cushion points in metres, its fall line.

    A ball is down once its centre is `shelf` beyond the mouth line, along `axis`.
    """

    name: str
    first: Point
    second: Point
    shelf: float
    cut_deg: float
    point_radius: float

    @property
    def middle(self) -> Point:
        """Middle of the mouth line."""
        return (self.first[0] + self.second[0]) / 2, (self.first[1] + self.second[1]) / 2

    @property
    def axis(self) -> Point:
        """Unit vector into the pocket, square to the mouth line."""
        dx, dy = self.second[0] - self.first[0], self.second[1] - self.first[1]
        span = math.hypot(dx, dy)
        return dy / span, -dx / span

    @property
    def fall(self) -> Point:
        """Middle of the fall line."""
        (mx, my), (ax, ay) = self.middle, self.axis
        return mx + ax * self.shelf, my + ay * self.shelf

    def deep(self, x: float, y: float) -> float:
        """How far a centre at (x, y) has passed the mouth line, m; negative on the bed."""
        (mx, my), (ax, ay) = self.middle, self.axis
        return (x - mx) * ax + (y - my) * ay

    def jaws(self, bed: Bed) -> tuple[Jaw, Jaw]:
        """The jaws at `first` and at `second`."""
        return self._jaw(bed, self.first, self.second), self._jaw(bed, self.second, self.first)

    def _jaw(self, bed: Bed, point: Point, other: Point) -> Jaw:
        """Nose direction a away from the pocket, o off the bed; the facing turns by 180° − cut.

        facing f = −a·cos + o·sin; rounding of radius ρ tangent to nose and facing, each
        ρ·tan(turn/2) from where they would meet.
        """
        on_short = point[0] in (0.0, bed.length)
        if on_short:
            a = (0.0, math.copysign(1.0, point[1] - other[1]))
            o = (-1.0 if point[0] == 0.0 else 1.0, 0.0)
        else:
            a = (math.copysign(1.0, point[0] - other[0]), 0.0)
            o = (0.0, -1.0 if point[1] == 0.0 else 1.0)
        turn = math.radians(180.0 - self.cut_deg)
        back = self.point_radius * _half_tangent(self.cut_deg)
        c, s = math.cos(turn), math.sin(turn)
        f = (-a[0] * c + o[0] * s, -a[1] * c + o[1] * s)
        n = (a[0] * s + o[0] * c, a[1] * s + o[1] * c)
        px, py = point
        return Jaw(
            centre=(px + a[0] * back + o[0] * self.point_radius, py + a[1] * back + o[1] * self.point_radius),
            radius=self.point_radius,
            start=(px + f[0] * back, py + f[1] * back),
            along=f,
            normal=n,
        )


def _half_tangent(cut_deg: float) -> float:
    return math.tan(math.radians(180.0 - cut_deg) / 2)


# The order of the engine: round the table from the head-near corner.
POCKET_NAMES = ("head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far")


def mouths(bed: Bed) -> tuple[Mouth, ...]:
    """All mouths in the order of POCKET_NAMES, none without pockets. Bed to the left, first to second."""
    pockets = bed.pockets
    if pockets is None:
        return ()
    length, width, gap, half = bed.length, bed.width, pockets.corner_gap, pockets.side_mouth / 2
    mid = length / 2
    corner = (pockets.corner_shelf, pockets.corner_cut_deg, pockets.corner_point_radius)
    side = (pockets.side_shelf, pockets.side_cut_deg, pockets.side_point_radius)
    ends: tuple[tuple[Point, Point, tuple[float, float, float]], ...] = (
        ((0.0, gap), (gap, 0.0), corner),
        ((mid - half, 0.0), (mid + half, 0.0), side),
        ((length - gap, 0.0), (length, gap), corner),
        ((length, width - gap), (length - gap, width), corner),
        ((mid + half, width), (mid - half, width), side),
        ((gap, width), (0.0, width - gap), corner),
    )
    return tuple(Mouth(name, a, b, *sizes) for name, (a, b, sizes) in zip(POCKET_NAMES, ends, strict=True))


def mouth_at(bed: Bed, x: float, y: float) -> Mouth | None:
    """The mouth whose line a centre at (x, y) metres has passed between its points, if any."""
    for mouth in mouths(bed):
        (ax, ay), (bx, by) = mouth.first, mouth.second
        along = (bx - ax) * (x - ax) + (by - ay) * (y - ay)
        if mouth.deep(x, y) > 0.0 and 0.0 <= along <= (bx - ax) ** 2 + (by - ay) ** 2:
            return mouth
    return None


def near_corner(bed: Bed, x: float, y: float) -> bool:
    """Is a centre so near to a corner pocket that it may have passed its mouth line?"""
    gap = bed.pockets.corner_gap if bed.pockets else 0.0
    return min(x, bed.length - x) < gap and min(y, bed.width - y) < gap


def noses(bed: Bed) -> tuple[tuple[Rail, Point, Point], ...]:
    """The stretches of cushion nose between the pockets: rail, start, end, in metres.

    Up to where nose and facing would meet; the rounding begins before that.
    """
    pockets = bed.pockets
    return _stretches(bed, *((pockets.corner_gap, pockets.side_mouth / 2) if pockets else (0.0, 0.0)))


def straights(bed: Bed) -> tuple[tuple[Rail, Point, Point], ...]:
    """The straight stretches of nose, up to where the rounding begins."""
    pockets = bed.pockets
    return _stretches(bed, *((pockets.corner_straight, pockets.side_straight) if pockets else (0.0, 0.0)))


def _stretches(bed: Bed, gap: float, half: float) -> tuple[tuple[Rail, Point, Point], ...]:
    length, width = bed.length, bed.width
    mid = length / 2
    stretches: list[tuple[Rail, Point, Point]] = []
    for rail, y in ((Rail.NEAR, 0.0), (Rail.FAR, width)):
        if bed.pockets:
            stretches += [(rail, (gap, y), (mid - half, y)), (rail, (mid + half, y), (length - gap, y))]
        else:
            stretches.append((rail, (0.0, y), (length, y)))
    for rail, x in ((Rail.HEAD, 0.0), (Rail.FOOT, length)):
        stretches.append((rail, (x, gap), (x, width - gap)))
    return tuple(stretches)
