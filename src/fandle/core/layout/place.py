"""Where a ball may lie: on the bed, off the noses and the jaws, short of the mouths; and where it is taken to lie."""

import math
from functools import lru_cache

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point, mouths, near_corner, out_of_mouth, pocket_at, straights
from fandle.core.words.balls import CUE

FROZEN_M = 1e-6  # a ball this near to a rail is frozen to it


def lies(table: Table, ball: Ball) -> Point:
    """A ball's centre in metres: exactly on the line it is frozen to or written into, short of a mouth."""
    r, slack = table.ball_radius, table.slack
    x = _off_nose(ball.x * table.diamond_x, table.length, r, slack)
    y = _off_nose(ball.y * table.diamond_y, table.width, r, slack)
    beside = r <= x <= table.length - r and r <= y <= table.width - r
    return (x, y) if beside and not near_corner(table, x, y) else out_of_mouth(table, x, y)


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
    pocket = pocket_at(table, x, y, table.slack)
    if pocket is not None:
        raise BadInputError(
            f"{name} lies in the {pocket} pocket: move its centre out of the mouth, or take it off",
            "balls",
            code="in_pocket",
            balls=(ball.id,),
        )
    s = table.slack
    if not (-s <= x <= table.length + s and -s <= y <= table.width + s):
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
    for pocket, centre, radius in _roundings(table):
        if math.dist((x, y), centre) < r + radius - table.slack:
            raise BadInputError(
                f"{name} lies into a jaw of the {pocket} pocket: move it off the rubber",
                "balls",
                code="in_jaw",
                balls=(ball.id,),
            )


@lru_cache(maxsize=64)
def _roundings(table: Table) -> list[tuple[str, Point, float]]:
    """The rounded points of all jaws: pocket, centre, radius, m."""
    return [(mouth.name, jaw.centre, jaw.radius) for mouth in mouths(table) for jaw in mouth.jaws(table)]


def _distance(x: float, y: float, a: tuple[float, float], b: tuple[float, float]) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    t = max(0.0, min(1.0, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy)))
    return math.hypot(x - a[0] - t * dx, y - a[1] - t * dy)
