"""Where a ball may lie: hanging in a mouth, frozen to a facing, and put beside a place where it cannot."""

import math
import random
import re

import pytest

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.layout.place import check_place, eased, hangs, lies, resting_near
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import Mouth, mouths
from fandle.core.table.standards import STANDARDS

POCKETED = [table for table in STANDARDS.values() if table.pockets is not None]
EVERY = [pytest.param(table, mouth, id=f"{table.name}-{mouth.name}") for table in POCKETED for mouth in mouths(table)]


def ball_at(table: Table, x: float, y: float) -> Ball:
    return Ball("yellow" if table.name.startswith("snooker") else "5", x / table.diamond_x, y / table.diamond_y)


def in_front_of_fall(table: Table, mouth: Mouth, short: float) -> Ball:
    """A ball on the pocket's axis, so many metres short of the fall line."""
    (x, y), (ax, ay) = mouth.fall, mouth.axis
    return ball_at(table, x - short * ax, y - short * ay)


def laid(table: Table, ball: Ball) -> Layout:
    game = "snooker" if ball.id == "yellow" else "nine-ball"
    return Layout(table, game, (Ball("cue", 3.1, 2.2), ball), ball.id)


@pytest.mark.parametrize(("table", "mouth"), EVERY)
def test_a_ball_hangs_a_millimetre_short_of_the_fall_line_and_stays(table: Table, mouth: Mouth) -> None:
    ball = in_front_of_fall(table, mouth, 0.001)
    layout = laid(table, ball)
    assert hangs(table, layout.metres(ball)) == mouth.name
    shot = play(layout, Stroke(0.5), 0.1)  # nothing comes near
    rest = shot.rest[ball.id]
    assert rest is not None
    assert rest == pytest.approx((ball.x, ball.y), abs=1e-9)


@pytest.mark.parametrize(("table", "mouth"), EVERY)
def test_a_millimetre_beyond_it_lies_in_the_pocket(table: Table, mouth: Mouth) -> None:
    with pytest.raises(BadInputError, match=f"lies in the {mouth.name} pocket"):
        laid(table, in_front_of_fall(table, mouth, -0.001))


@pytest.mark.parametrize(("table", "mouth"), [each for each in EVERY if re.match("pool.*(head|foot)", str(each.id))])
def test_a_ball_may_be_frozen_to_a_facing_but_not_lie_into_it(table: Table, mouth: Mouth) -> None:
    for jaw in mouth.jaws(table):
        deep = 0.3 * mouth.shelf
        x, y = (
            jaw.start[k] + deep * jaw.along[k] - (table.ball_radius - 1e-9) * jaw.normal[k] for k in range(2)
        )  # a billionth into the rubber: it is taken to lie on it
        ball = ball_at(table, x, y)
        check_place(table, ball)
        assert jaw.gap(*lies(table, ball), table.ball_radius) == pytest.approx(0.0, abs=1e-12)
        with pytest.raises(BadInputError, match="lies in"):  # into a jaw, or in the pocket
            check_place(table, ball_at(table, x + 0.002 * jaw.normal[0], y + 0.002 * jaw.normal[1]))


@pytest.mark.parametrize("table", POCKETED, ids=lambda table: str(table.name))
def test_a_place_beside_is_found_for_what_is_put_into_rubber_or_a_pocket(table: Table) -> None:
    rng, r, moved = random.Random(5), table.ball_radius, 0
    for _ in range(400):
        mouth = rng.choice(mouths(table))
        (mx, my), (ax, ay) = mouth.middle, mouth.axis
        deep, aside = rng.uniform(-2 * r, mouth.shelf + r), rng.uniform(-2 * r, 2 * r)
        x, y = mx + deep * ax - aside * ay, my + deep * ay + aside * ax
        place = resting_near(table, x, y)
        if place is None:
            continue
        check_place(table, ball_at(table, *place))
        assert math.dist(place, (x, y)) <= 2 * r
        moved += place != (x, y)
    assert moved > 100


@pytest.mark.parametrize("table", POCKETED, ids=lambda table: str(table.name))
def test_what_lies_free_is_left_alone_and_what_is_far_off_is_not_guessed(table: Table) -> None:
    free, gone = ball_at(table, 0.7, 0.4), Ball("5", 9.5, 2.0)
    assert eased(table, free) is free
    assert eased(table, gone) is gone


@pytest.mark.parametrize("table", POCKETED, ids=lambda table: str(table.name))
def test_whatever_is_played_at_a_hanging_ball_every_ball_ends_where_one_can_lie(table: Table) -> None:
    rng, down, stayed = random.Random(11), 0, 0
    for _ in range(60):
        mouth = rng.choice(mouths(table))
        ball = eased(table, in_front_of_fall(table, mouth, rng.uniform(0.0005, mouth.shelf)))
        layout = laid(table, ball)
        (x, y), (cx, cy) = layout.metres(ball), layout.metres(layout.cue)
        way = math.atan2(y - cy, x - cx) + rng.uniform(-1.5, 1.5) * table.ball_radius / math.dist((x, y), (cx, cy))
        shot = play(layout, Stroke(rng.uniform(1.5, 5.0), rng.uniform(-0.3, 0.3)), way)
        for name, rest in shot.rest.items():
            if rest is None:
                down += 1
            else:
                stayed += 1
                check_place(table, Ball(name, *rest))
    assert down > 20
    assert stayed > 20
