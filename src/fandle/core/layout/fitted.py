"""Balls taken over to another table: at the same diamonds, what is frozen stays frozen, nothing overlaps."""

import math

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point

ROUNDS = 60  # of moving overlapping balls apart
CLEAR_M = 1e-5  # left between balls that were moved apart


def fitted(layout: Layout, table: Table) -> tuple[Ball, ...]:
    """The layout's balls at the same diamonds on another table.

    Balls frozen to each other go together, as they touched; one frozen to a rail lies on it there. Balls that would
    overlap, because they are larger or the table smaller, are moved just clear of each other.
    """
    places = {name: place for nest in _nests(layout) for name, place in _nest_places(layout, nest, table).items()}
    frozen = {frozenset((a, b)) for nest in _nests(layout) for a in nest for b in nest if a < b}
    for _ in range(ROUNDS):
        if not _moved_apart(places, table, frozen):
            break
    return tuple(Ball(b.id, places[b.id][0] / table.diamond_x, places[b.id][1] / table.diamond_y) for b in layout.balls)


def _nests(layout: Layout) -> list[list[str]]:
    """The balls in groups that touch each other, directly or over others."""
    nests: list[list[str]] = []
    for ball in layout.balls:
        touched = [nest for nest in nests if any(layout.touch(ball.id, other) for other in nest)]
        nests = [nest for nest in nests if nest not in touched]
        nests.append([ball.id, *(name for nest in touched for name in nest)])
    return nests


def _nest_places(layout: Layout, nest: list[str], table: Table) -> dict[str, Point]:
    """Where the balls of a group go, m: its first ball (one on a rail, if any is) by the diamonds, the others to it."""
    scale = table.ball_radius / layout.table.ball_radius
    first = min(nest, key=lambda name: -_rails_at(layout, name))
    (ox, oy), (x, y) = layout.metres(layout.ball(first)), _place(layout, layout.ball(first), table)
    return {
        name: (x + scale * (px - ox), y + scale * (py - oy))
        for name in nest
        for px, py in (layout.metres(layout.ball(name)),)
    }


def _rails_at(layout: Layout, name: str) -> int:
    """To how many rails a ball is frozen."""
    (x, y), table = layout.metres(layout.ball(name)), layout.table
    r = table.ball_radius
    return (x in (r, table.length - r)) + (y in (r, table.width - r))


def _place(layout: Layout, ball: Ball, table: Table) -> Point:
    """A ball's place on another table, m: on the rail it was frozen to, else at the same diamonds."""
    (x, y), old, r = layout.metres(ball), layout.table, table.ball_radius
    on_x = {old.ball_radius: r, old.length - old.ball_radius: table.length - r}
    on_y = {old.ball_radius: r, old.width - old.ball_radius: table.width - r}
    there_x = on_x.get(x, ball.x * table.length / DIAMONDS_LONG)
    there_y = on_y.get(y, ball.y * table.width / DIAMONDS_SHORT)
    hangs = not (
        old.ball_radius <= x <= old.length - old.ball_radius and old.ball_radius <= y <= old.width - old.ball_radius
    )
    if hangs and table.pockets is not None:
        return there_x, there_y  # it hangs in a mouth
    return min(max(there_x, r), table.length - r), min(max(there_y, r), table.width - r)


def _moved_apart(places: dict[str, Point], table: Table, frozen: set[frozenset[str]]) -> bool:
    """Move every overlapping pair apart by half its overlap each; False where none overlapped."""
    names, moved, wanted, r = list(places), False, 2 * table.ball_radius, table.ball_radius
    for i, one in enumerate(names):
        for other in names[i + 1 :]:
            (ax, ay), (bx, by) = places[one], places[other]
            apart = math.hypot(bx - ax, by - ay)
            if apart >= wanted or frozenset((one, other)) in frozen:
                continue
            push, moved = (wanted + CLEAR_M - apart) / 2, True
            ux, uy = ((bx - ax) / apart, (by - ay) / apart) if apart else (1.0, 0.0)
            for name, sign in ((one, -1.0), (other, 1.0)):
                x, y = places[name][0] + sign * push * ux, places[name][1] + sign * push * uy
                places[name] = min(max(x, r), table.length - r), min(max(y, r), table.width - r)
    return moved
