"""What a table's play does to the systems: by how much each one's aim has to be changed, in its own numbers."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count, figure
from fandle.core.systems.catalogue import TITLES, orders_of
from fandle.core.systems.played import Aiming
from fandle.core.systems.registry import plain_count
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game, usual_target
from fandle.core.words.spoken import mixed

TRIED = 3  # layouts for each system
APART = 0.15  # diamonds by which the aim is moved to see what it does
TELLING = 0.1  # and from here on it is told
LITTLE = 0.05  # diamonds of aim: less is no change


@dataclass(frozen=True)
class SystemChange:
    """method; change: of the aim, in the system's own numbers where it has any, else in diamonds; say: in words.

    tells: is it as much as half a number, or a tenth of a diamond?
    """

    method: str
    change: float
    say: str
    tells: bool = False


def system_changes(before: Table, after: Table, methods: tuple[str, ...]) -> list[SystemChange]:
    """By how much each system's aim has to change to land as it did on the table before, the mean of a few layouts.

    Systems that do not count on this table are left out.
    """
    found = []
    for method in methods:
        shifts = [
            shift for layout in layouts_of(before, method) if (shift := _shift(layout, after, method)) is not None
        ]
        if shifts:
            found.append(_told(method, shifts[:TRIED]))
    return found


def layouts_of(table: Table, method: str) -> Iterator[tuple[Layout, tuple[Rail, ...]]]:
    """Layouts on which a system counts, the cue ball near the head, the target where the system wants it."""
    game = usual_game(table)
    target = usual_target(table)
    edge = table.ball_radius / table.diamond_y
    given = 0
    for place in ((6.0, 1.5), (2.6, edge), (5.0, edge), (1.2, 2.4), (edge * 2, 2.0)):
        for cue in ((1.0, 0.7), (1.6, 1.2), (2.2, 0.6)):
            balls = [Ball("cue", *cue), Ball(target, *place)]
            if game == "three-cushion":
                balls.append(Ball("white", 7.6, 3.7))
            layout = Layout(table, game, tuple(balls), target)
            for rails in orders_of(method):
                count = plain_count(method, layout, rails)
                if isinstance(count, Count) and count.lands.off_diamonds < 1.0:
                    given += 1
                    yield layout, rails
                    break
            if given >= TRIED:
                return


def _shift(case: tuple[Layout, tuple[Rail, ...]], after: Table, method: str) -> tuple[float, float | None] | None:
    """(by how many diamonds the aim moves, the diamonds of one own number or None); None where it cannot be told."""
    layout, rails = case
    was = plain_count(method, layout, rails)
    if not isinstance(was, Count):
        return None
    there = Layout(after, layout.game, layout.balls, layout.target)
    goal = there.ball(layout.target or "")
    at = getattr(was.aim, was.frame)
    aiming = Aiming(there, was.rails, was.frame, was.stroke, (goal.x, goal.y))
    lands = [aiming.play(at + by)[2] for by in (-APART, 0.0, APART)]
    if any(each is None for each in lands):
        return None
    low, here, high = (each.off for each in lands if each is not None)
    slope = (high - low) / (2 * APART)
    if abs(slope) < 0.2:
        return None
    return -(here - was.lands.off) / slope, None if was.own is None else was.own.unit


def _told(method: str, shifts: list[tuple[float, float | None]]) -> SystemChange:
    diamonds = float(np.mean([shift for shift, _ in shifts]))
    unit = shifts[0][1]
    title = TITLES[method].lower()
    if abs(diamonds) < LITTLE:
        return SystemChange(method, 0.0, f"{title}: as it is")
    if unit is None:
        tells = abs(diamonds) >= TELLING
        return SystemChange(method, diamonds, f"{title}: aim {figure(abs(diamonds))} {_way(diamonds)}", tells)
    change = diamonds / unit
    half = round(2 * change) / 2
    if half == 0.0:
        return SystemChange(method, change, f"{title}: less than half a number")
    more = "more" if half > 0 else "less"
    numbers = "number" if abs(half) <= 1 else "numbers"
    return SystemChange(method, change, f"{title}: {mixed(abs(half))} {numbers} {more}", tells=True)


def _way(diamonds: float) -> str:
    return "further along" if diamonds > 0 else "nearer"
