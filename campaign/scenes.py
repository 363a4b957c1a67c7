"""Valid scenes for the campaign: tables over all limits, layouts with balls where balls lie, any stroke.

Everything is drawn from one `random.Random`; hypothesis hands one in (`scenes`), so that what fails shrinks.
"""

import math
import random
from dataclasses import dataclass, replace
from typing import Any

from hypothesis import assume
from hypothesis import strategies as st

from fandle.core import constants as k
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import id_order
from fandle.core.layout.model import MOST_BALLS, Layout
from fandle.core.shot.cue import HOUSE, IDEAL, SLIM
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.parameters import POCKETS, TABLE
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, usual_game
from fandle.core.words.balls import CUE

KEPT = 0.5  # share of a home-made table's numbers that stay the standard one's
TRIES = 12  # places tried for each ball
PLACES = ("open", "rail", "corner", "frozen", "frozen", "mouth")


@dataclass(frozen=True)
class Scene:
    """A layout with a stroke, and what may be asked of it."""

    layout: Layout
    stroke: Stroke
    rails: tuple[Rail, ...]
    direction: float
    hit: float


def scene(rng: random.Random, table: Table, most: int = 10) -> Scene:
    """A random scene on a table."""
    rails: list[Rail] = []
    for _ in range(rng.choice((0, 1, 1, 1, 2, 2, 3, 4))):
        rails.append(rng.choice([rail for rail in Rail if rail not in rails[-1:]]))
    return Scene(
        layout(rng, table, most),
        stroke(rng),
        tuple(rails),
        rng.uniform(-math.pi, math.pi),
        rng.choice((0.0, 0.0, 0.5, -0.8, 1.0, rng.uniform(-1, 1))),
    )


@st.composite
def scenes(draw: st.DrawFn, *, own: bool = False, most: int = 10) -> Scene:
    """Scenes on standard tables, or on home-made ones that may be made."""
    rng = draw(st.randoms(use_true_random=False))
    if not own:
        return scene(rng, rng.choice(list(STANDARDS.values())), most)
    found = table(rng)
    assume(isinstance(found, Table))
    return scene(rng, found, most) if isinstance(found, Table) else draw(st.nothing())


def layout(rng: random.Random, table: Table, most: int = 10) -> Layout:
    """Two to `most` balls, each in the open, on a rail, in a corner, in a mouth, or frozen to another."""
    game = usual_game(table)
    order = id_order(game)
    rng.shuffle(order)
    names = [CUE, *order][: rng.randint(2, min(most, MOST_BALLS))]
    balls: list[Ball] = []
    for name in names:
        for _ in range(TRIES):
            x, y = _place(rng, table, balls)
            try:
                Layout(table, game, (*balls, Ball(name, x, y)))
            except BadInputError:
                continue
            balls.append(Ball(name, x, y))
            break
        if not balls:
            balls.append(Ball(CUE, 4.0, 2.0))
    if len(balls) == 1:
        balls.append(Ball(names[1], 6.0, 1.0))
    target = rng.choice(balls[1:]).id
    return Layout(table, game, tuple(balls), target)


def _place(rng: random.Random, table: Table, balls: list[Ball]) -> tuple[float, float]:
    """A centre in diamonds, of one of the kinds; it may turn out not to be free."""
    dx, dy, r = table.diamond_x, table.diamond_y, table.ball_radius
    kind = rng.choice(PLACES)
    if kind == "frozen" and balls:
        other, a = rng.choice(balls), rng.choice((rng.uniform(0, 2 * math.pi), rng.randrange(4) * math.pi / 2))
        return other.x + 2 * r * math.cos(a) / dx, other.y + 2 * r * math.sin(a) / dy
    if kind == "rail":
        x, y = rng.uniform(r, table.length - r), rng.uniform(r, table.width - r)
        if rng.random() < 0.5:
            return rng.choice((r, table.length - r)) / dx, y / dy
        return x / dx, rng.choice((r, table.width - r)) / dy
    if kind == "mouth" and table.pockets is not None:
        mouth = rng.choice(mouths(table))
        (mx, my), (ax, ay), back = mouth.middle, mouth.axis, rng.uniform(-0.2, 2.0) * r
        return (mx - ax * back) / dx, (my - ay * back) / dy
    if kind == "corner":
        near, along = rng.uniform(r, 4 * r), rng.uniform(r, 4 * r)
        x, y = rng.choice((near, table.length - near)), rng.choice((along, table.width - along))
        return x / dx, y / dy
    return rng.uniform(r, table.length - r) / dx, rng.uniform(r, table.width - r) / dy


def stroke(rng: random.Random) -> Stroke:
    """Any stroke that can be played."""
    while True:
        offset, clock = k.MISCUE_LIMIT * math.sqrt(rng.random()) * rng.choice((0, 0.5, 1)), rng.uniform(0, math.tau)
        speed = rng.choice((rng.uniform(0.3, 6), rng.uniform(0.001, 12.0)))
        elevation = rng.choice((0.0, 0.0, 0.0, rng.uniform(0, k.STEEPEST_DEG), rng.uniform(0, 8)))
        try:
            cue = rng.choice((IDEAL, HOUSE, SLIM))
            return Stroke(speed, offset * math.cos(clock), offset * math.sin(clock), elevation, cue)
        except BadInputError:
            continue


def table(rng: random.Random) -> Table | BadInputError:
    """A home-made table with numbers from anywhere within the limits, or why such a one is refused."""
    base = rng.choice(list(STANDARDS.values()))
    values: dict[str, Any] = {"name": "made"}
    kept = rng.choice((0.0, KEPT, 0.9))
    for name, known in TABLE.items():
        if getattr(base, name) is not None and rng.random() >= kept:
            values[name] = _within(rng, known.low, known.high)
    for pair in (("width", "length"), ("nose_height", "ball_radius")):
        _suit(rng, base, values, *pair)
    pockets = base.pockets
    if pockets is not None:
        inside = {name: _within(rng, known.low, known.high) for name, known in POCKETS.items() if rng.random() >= kept}
        pockets = replace(pockets, **inside) if inside else pockets
        if rng.random() < 0.5:  # mouths that a ball goes through
            width = values.get("ball_radius", base.ball_radius) * 2
            pockets = replace(
                pockets, corner_mouth=width * rng.uniform(1.1, 2.2), side_mouth=width * rng.uniform(1.1, 2.2)
            )
        values["pockets"] = pockets
    try:
        return replace(base, **values)
    except BadInputError as refused:
        return refused


def _within(rng: random.Random, low: float, high: float) -> float:
    return rng.choice((low, high, *(rng.uniform(low, high),) * 4))


def _suit(rng: random.Random, base: Table, values: dict[str, Any], name: str, by: str) -> None:
    """A number that must go with another one mostly does."""
    other = values.get(by, getattr(base, by))
    if rng.random() < 0.9:
        share = rng.uniform(0.4, 0.6) * other if name == "width" else rng.uniform(1.0, 1.5) * other
        values[name] = min(max(share, TABLE[name].low), TABLE[name].high)


def triangle(table: Table, rows: int = 5) -> list[Ball]:
    """A tight rack, its apex on the foot spot, balls 1, 2 … row by row."""
    r, (x, y) = table.ball_radius, table.spots["foot"]
    balls: list[Ball] = []
    for row in range(rows):
        for place in range(row + 1):
            dx, dy = row * r * math.sqrt(3), (2 * place - row) * r
            balls.append(Ball(str(len(balls) + 1), x + dx / table.diamond_x, y + dy / table.diamond_y))
    return balls
