"""Layouts taken over to another table: what is frozen stays frozen, nothing overlaps, the rest keeps its diamonds."""

import random
from itertools import combinations

import pytest
from campaign import scenes

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import moved_to
from fandle.core.layout.model import Layout
from fandle.core.layout.rack import racked
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS, standard_table

POOL = standard_table("pool-9ft")
R = POOL.ball_radius
ALL = pytest.mark.parametrize("table", STANDARDS.values(), ids=lambda table: table.name)


@ALL
def test_balls_in_the_open_keep_their_diamonds(table: Table) -> None:
    layout = Layout(POOL, "nine-ball", (Ball("cue", 1.5, 1.0), Ball("1", 5.5, 3.0)), "1")
    assert [v for b in moved_to(layout, table).balls for v in (b.x, b.y)] == pytest.approx([1.5, 1.0, 5.5, 3.0])


@ALL
def test_a_ball_on_the_rail_and_a_frozen_pair_stay_so(table: Table) -> None:
    near, wide = R / POOL.diamond_y, 2 * R / POOL.diamond_x
    layout = Layout(POOL, "nine-ball", (Ball("cue", 2.0, 2.0), Ball("1", 5.0, near), Ball("2", 5.0 + wide, near)), "1")
    moved = moved_to(layout, table)
    cue, one, two = moved.balls
    assert moved.metres(one)[1] == moved.metres(two)[1] == table.ball_radius
    assert moved.touch(one.id, two.id)
    assert not moved.touch(cue.id, one.id)


@ALL
def test_a_tight_rack_stays_tight(table: Table) -> None:
    layout = racked(Layout(POOL, "nine-ball", (Ball("cue", 2.0, 2.0),)))
    moved = moved_to(layout, table)
    kept = [pair for pair in combinations([ball.id for ball in moved.balls], 2) if moved.touch(*pair)]
    assert len(kept) == (16 if len(moved.balls) == 10 else 1)  # carom has but two object balls


@ALL
def test_a_smaller_table_moves_near_balls_apart(table: Table) -> None:
    """Five millimetres apart on nine feet, they would overlap on a bar table."""
    gap = (2 * R + 0.005) / POOL.diamond_x
    layout = Layout(POOL, "nine-ball", (Ball("cue", 2.0, 2.0), Ball("1", 5.0, 1.0), Ball("2", 5.0 + gap, 1.0)), "1")
    moved = moved_to(layout, table)
    assert moved.balls[2].x - moved.balls[1].x == pytest.approx(
        max(gap, 2 * table.ball_radius / table.diamond_x), abs=1e-4
    )


def test_random_layouts_go_from_table_to_table() -> None:
    """Refused only for a ball in a mouth that has no such place on the other table."""
    rng, refused = random.Random(3), []
    for _ in range(60):
        before, after = rng.sample(list(STANDARDS.values()), 2)
        layout = scenes.layout(rng, before, 8)
        try:
            moved = moved_to(layout, after)
        except BadInputError as fault:
            refused.append(fault.code)
            continue
        frozen = {
            frozenset(p)
            for p in combinations(range(len(moved.balls)), 2)
            if layout.touch(layout.balls[p[0]].id, layout.balls[p[1]].id)
        }
        for a, b in frozen:
            assert moved.touch(moved.balls[a].id, moved.balls[b].id)
    assert len(refused) < 15
    assert set(refused) <= {"in_pocket", "in_cushion", "off_bed", "overlap"}
