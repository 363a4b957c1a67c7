"""Racks and spots: the balls as a game begins, broken open, or one of them back on its spot.

Places are those of the rules of each game, from memory: the pool rack has its apex on the foot spot; on a snooker table
the reds stand behind the pink, as near to it as they can without touching, the colours on their spots.
"""

import math
import random
from collections.abc import Iterable
from dataclasses import replace

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import CAROM_GAMES, SNOOKER_COLOURS
from fandle.core.layout.model import Layout
from fandle.core.layout.place import check_place
from fandle.core.table.model import Table
from fandle.core.words.balls import CUE

GAP_M = 2e-6  # left between racked balls: they stand tight, and none overlaps by a rounding
APART = 2.05  # ball diameters' halves: scattered balls lie no nearer than this many radii
TRIES = 4000
ROWS = {
    "nine-ball": (1, 2, 3, 2, 1),
    "ten-ball": (1, 2, 3, 4),
}  # balls in each row of the rack; else five rows of a triangle
BREAK_X = 1.6  # diamonds: where the cue ball is put for a break, behind the head string


def racked(layout: Layout) -> Layout:
    """The game's opening: all balls in the rack, the cue ball where it may be broken from."""
    table, game = layout.table, layout.game
    cue = Ball(CUE, *_break_place(table))
    if game in CAROM_GAMES:
        balls: list[Ball] = [Ball("red", *table.spots["foot"]), Ball("white", *table.spots["head"])]
        return Layout(table, game, (replace(cue, y=cue.y - 0.55), *balls), "red")
    if game == "snooker":
        x, y = table.spots["pink"]
        apex = x + (2 * table.ball_radius + GAP_M) / table.diamond_x
        reds = _rows((1, 2, 3, 4, 5), table, (apex, y), (f"red{n}" for n in range(1, 16)))
        colours = [Ball(name, *table.spots[name]) for name in SNOOKER_COLOURS]
        return Layout(table, game, (cue, *reds, *colours), "red1")
    rows = ROWS.get(game, (1, 2, 3, 4, 5))
    order = (str(n) for n in _order(game, sum(rows)))
    return Layout(table, game, (cue, *_rows(rows, table, table.spots["foot"], order)), "1")


def scattered(layout: Layout, seed: int) -> Layout:
    """The game's balls spread over the bed as after a break, none touching; the same seed, the same layout.

    Snooker's colours stay on their spots.
    """
    whole, rng = racked(layout), random.Random(seed)
    table, r = layout.table, layout.table.ball_radius
    spotted = SNOOKER_COLOURS if layout.game == "snooker" else ()
    placed = {ball.id: ball for ball in whole.balls if ball.id in spotted}
    for name in (ball.id for ball in whole.balls if ball.id not in spotted):
        for _ in range(TRIES):
            x, y = rng.uniform(2 * r, table.length - 2 * r), rng.uniform(2 * r, table.width - 2 * r)
            ball = Ball(name, x / table.diamond_x, y / table.diamond_y)
            if _is_clear(table, ball, placed.values()):
                placed[name] = ball
                break
    balls = tuple(placed[ball.id] for ball in whole.balls if ball.id in placed)
    return Layout(table, whole.game, balls, whole.target)


def _is_clear(table: Table, ball: Ball, others: Iterable[Ball]) -> bool:
    """Does a ball lie on the bed (not in a pocket's mouth), well away from the others?"""
    try:
        check_place(table, ball)
    except BadInputError:
        return False
    x, y, least = ball.x * table.diamond_x, ball.y * table.diamond_y, APART * table.ball_radius
    return all(math.hypot(b.x * table.diamond_x - x, b.y * table.diamond_y - y) > least for b in others)


def on_spot(layout: Layout, name: str) -> Layout:
    """One ball on its spot (the cue ball where it is broken from); BadInputError where another lies on it."""
    spots = layout.table.spots
    if name == CUE:
        place = _break_place(layout.table)
    elif name in spots:
        place = spots[name]
    elif "foot" in spots:
        place = spots["foot"]
    else:
        raise BadInputError(f"ball {name} has no spot of its own: drag it where it belongs", "balls", code="no_spot")
    return replace(layout, balls=tuple(Ball(b.id, *place) if b.id == name else b for b in layout.balls))


def _break_place(table: Table) -> tuple[float, float]:
    """Where the cue ball is put to break: a little off the middle, behind the string or in the D."""
    if table.d_radius is not None and table.head_string is not None:
        return table.head_string - 0.5 * table.d_radius / table.diamond_x, 2.0 - 0.4 * table.d_radius / table.diamond_y
    return BREAK_X, 2.0


def _order(game: str, number: int) -> list[int]:
    """Numbers row by row: the one in front, nine or eight in the middle as the game wants it."""
    order = list(range(1, number + 1))
    middle = {"nine-ball": 9, "ten-ball": 10, "eight-ball": 8}.get(game)
    if middle is not None:
        order.remove(middle)
        order.insert(4, middle)  # the middle of the third row
    return order


def _rows(rows: tuple[int, ...], table: Table, apex: tuple[float, float], names: Iterable[str]) -> list[Ball]:
    """Tight rows of balls from the apex towards the foot."""
    step, (x, y) = 2 * table.ball_radius + GAP_M, apex
    found, given = [], iter(names)
    for row, number in enumerate(rows):
        for place in range(number):
            dx, dy = row * step * math.sqrt(3) / 2, (place - (number - 1) / 2) * step
            found.append(Ball(next(given), x + dx / table.diamond_x, y + dy / table.diamond_y))
    return found
