"""Where a ball may lie: on the bed, off the noses and the jaws, short of the fall lines; and where it is taken to lie.

A ball past the line of a mouth hangs: it lies there as long as it has not come to the fall line behind it.
"""

import math
from functools import lru_cache

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.table.model import Table
from fandle.core.table.pocket import Jaw, Mouth, Point, mouth_at, mouths, near_corner, straights
from fandle.core.words.balls import CUE

FROZEN_M = 1e-6  # a ball this near to a rail is frozen to it
SHORT_M = 1e-6  # a ball written on to the fall line lies this much short of it
TRIES = 100  # to find a place beside a place


def lies(table: Table, ball: Ball) -> Point:
    """A ball's centre in metres: exactly on the line it is frozen to or written into, short of a fall line."""
    r, slack = table.ball_radius, table.slack
    x = _off_nose(ball.x * table.diamond_x, table.length, r, slack)
    y = _off_nose(ball.y * table.diamond_y, table.width, r, slack)
    beside = r <= x <= table.length - r and r <= y <= table.width - r
    mouth = None if beside and not near_corner(table, x, y) else mouth_at(table, x, y)
    return (x, y) if mouth is None else _hanging(table, mouth, x, y)


def _hanging(table: Table, mouth: Mouth, x: float, y: float) -> Point:
    """A hanging ball's centre, off the facings and short of the fall line where it is written into them by a hair."""
    for jaw in mouth.jaws(table):
        over = min(jaw.gap(x, y, table.ball_radius), 0.0)
        if over < 0.0:
            x, y = x + over * jaw.normal[0], y + over * jaw.normal[1]
    over = max(mouth.deep(x, y) - mouth.shelf + SHORT_M, 0.0)
    return x - over * mouth.axis[0], y - over * mouth.axis[1]


def hangs(table: Table, place: Point) -> str | None:
    """In which pocket's mouth a ball at a place (m) hangs, if in any."""
    mouth = mouth_at(table, *place)
    return None if mouth is None else mouth.name


def _off_nose(at: float, whole: float, r: float, slack: float) -> float:
    if -slack <= at - r <= FROZEN_M:
        return r
    if -slack <= whole - r - at <= FROZEN_M:
        return whole - r
    return at


def check_place(table: Table, ball: Ball) -> None:
    """Refuse a ball that does not lie on the bed, clear of rubber and mouths."""
    name = "the cue ball" if ball.id == CUE else f"ball {ball.id}"
    if not (math.isfinite(ball.x) and math.isfinite(ball.y)):
        raise BadInputError(
            f"{name} has no place (x={ball.x}, y={ball.y}): give both coordinates as numbers in {table.marks}",
            "balls",
            code="no_place",
            balls=(ball.id,),
        )
    x, y = ball.x * table.diamond_x, ball.y * table.diamond_y
    mouth = mouth_at(table, x, y)
    if mouth is not None and mouth.deep(x, y) > mouth.shelf + table.slack:
        raise BadInputError(
            f"{name} lies in the {mouth.name} pocket: move its centre out of it, or take it off",
            "balls",
            code="in_pocket",
            balls=(ball.id,),
        )
    s = table.slack
    if mouth is None and not (-s <= x <= table.length + s and -s <= y <= table.width + s):
        raise BadInputError(
            f"{name} lies off the bed (x={ball.x:g}, y={ball.y:g}): x runs 0 to {DIAMONDS_LONG}, "
            f"y runs 0 to {DIAMONDS_SHORT}",
            "balls",
            code="off_bed",
            balls=(ball.id,),
        )
    _check_rubber(table, ball, name, (x, y))


def _check_rubber(table: Table, ball: Ball, name: str, place: Point) -> None:
    """The part of it that is about cushions and jaws. place: the ball's centre, m."""
    x, y = place
    r = table.ball_radius
    for rail, a, b in straights(table):
        if _distance(x, y, a, b) < r - table.slack:
            least = r / (table.diamond_y if rail.is_long else table.diamond_x)
            raise BadInputError(
                f"{name} lies into the {rail} cushion: keep its centre {least:.3g} {table.marks} off the nose",
                "balls",
                code="in_cushion",
                balls=(ball.id,),
            )
    for pocket, jaw in _jaws(table):
        if jaw.gap(x, y, r) < -table.slack:
            raise BadInputError(
                f"{name} lies into a jaw of the {pocket} pocket: move it off the rubber",
                "balls",
                code="in_jaw",
                balls=(ball.id,),
            )


@lru_cache(maxsize=64)
def _jaws(table: Table) -> list[tuple[str, Jaw]]:
    """All jaws with their pockets."""
    return [(mouth.name, jaw) for mouth in mouths(table) for jaw in mouth.jaws(table)]


def resting_near(table: Table, x: float, y: float) -> Point | None:
    """The place nearest to (x, y) metres, or nearly, at which a ball rests; None if there is none within a ball.

    Out of rubber straight away from it, back from a fall line square to it, until nothing is in the way.
    """
    r, (px, py) = table.ball_radius, (x, y)
    for _ in range(TRIES):
        push = _push(table, px, py)
        if push is None:
            return (px, py) if math.dist((px, py), (x, y)) <= 2 * r else None
        px, py = px + push[0], py + push[1]
    return None


def eased(table: Table, ball: Ball) -> Ball:
    """The ball where it can lie, or as it is where there is no such place beside it."""
    try:
        check_place(table, ball)
    except BadInputError:
        place = resting_near(table, ball.x * table.diamond_x, ball.y * table.diamond_y)
        if place is not None:
            return Ball(ball.id, place[0] / table.diamond_x, place[1] / table.diamond_y)
    return ball


def _push(table: Table, x: float, y: float) -> Point | None:
    """By how much the first thing that a ball lies into pushes it away; None where it lies free."""
    r = table.ball_radius
    mouth = mouth_at(table, x, y)
    if mouth is not None and (deep := mouth.deep(x, y) - mouth.shelf + SHORT_M) > 0.0:
        return -deep * mouth.axis[0], -deep * mouth.axis[1]
    for _, jaw in _jaws(table):
        gap = jaw.gap(x, y, r)
        if -2 * r < gap < 0.0:
            facing = (x - jaw.start[0]) * jaw.along[0] + (y - jaw.start[1]) * jaw.along[1] >= 0.0
            away = math.dist((x, y), jaw.centre) or 1.0
            nx, ny = jaw.normal if facing else ((jaw.centre[0] - x) / away, (jaw.centre[1] - y) / away)
            return (gap - FROZEN_M) * nx, (gap - FROZEN_M) * ny
    if mouth is None:
        dx, dy = (min(max(at, r), whole - r) - at for at, whole in ((x, table.length), (y, table.width)))
        if any(_distance(x, y, a, b) < r for _, a, b in straights(table)) or not (
            0.0 <= x <= table.length and 0.0 <= y <= table.width
        ):
            return dx, dy
    return None


def _distance(x: float, y: float, a: tuple[float, float], b: tuple[float, float]) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    t = max(0.0, min(1.0, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy)))
    return math.hypot(x - a[0] - t * dx, y - a[1] - t * dy)
