"""Trust maps: the grid lies on the bed, cells are counts, the picture of several systems takes the nearest."""

import random
from dataclasses import replace

import numpy as np
import pytest

from fandle.core.handbook.holds import placed
from fandle.core.handbook.page import page_of
from fandle.core.handbook.trust import (
    ALIKE,
    COLUMNS,
    NONE,
    ROWS,
    Grid,
    Part,
    free,
    grid_of,
    methods_over,
    nearest_over,
    prefer,
    trust,
    without_cue,
)
from fandle.core.layout.ball import Ball
from fandle.core.steps import finish
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import BY_EYE, orders_of
from fandle.core.systems.registry import count
from fandle.core.table.condition import conditioned
from fandle.core.table.standards import STANDARDS

PAGE = page_of("M3")


@pytest.mark.parametrize("name", sorted(STANDARDS))
def test_a_grid_lies_between_the_lines_on_which_centres_turn(name: str) -> None:
    table = STANDARDS[name]
    grid = grid_of(table)
    assert grid.shape == (COLUMNS, ROWS) == (64, 32)
    assert grid.xs[0] > table.ball_radius / table.diamond_x
    assert grid.xs[-1] < 8 - table.ball_radius / table.diamond_x
    assert np.allclose(grid.ys + grid.ys[::-1], 4.0)
    assert len(set(np.diff(grid.xs).round(9).tolist())) == 1


def test_a_cell_is_free_where_a_ball_can_be_put() -> None:
    """A ball can be set down on every free cell, and on none that another ball takes."""
    grid = grid_of(PAGE.example.table)
    clear = free(PAGE.example, grid)
    for k, (x, y) in enumerate(grid.places.tolist()):
        can = placed(PAGE.example, x, y) is not None
        assert can or not clear.ravel()[k]
    assert 5 < (~clear).sum() < 60


def test_cells_are_what_the_count_says_before_and_after_a_change_of_the_table() -> None:
    rng = random.Random(7)
    for cloth in ("new", "damp"):
        layout = replace(PAGE.example, table=conditioned(PAGE.example.table, cloth, "soft"))
        found = finish(trust("M3", layout, PAGE.rails, grid_of(layout.table)))
        cells = [(int(i), int(j)) for i, j in np.argwhere(found.free)]
        for i, j in rng.sample(cells, 60):
            there = placed(layout, float(found.grid.xs[i]), float(found.grid.ys[j]))
            assert there is not None
            told = count("M3", there, PAGE.rails)
            assert isinstance(told, Count) == (not np.isnan(found.off[i, j]))
            if isinstance(told, Count):
                assert told.lands.off == pytest.approx(found.off[i, j], abs=1e-9)
        assert 0.3 < found.counted <= 1.0
        assert 0.1 < found.hits < 1.0


def test_a_map_is_told_column_by_column() -> None:
    told = list(trust("M3", PAGE.example, PAGE.rails, grid_of(PAGE.example.table)))
    parts = [part for part in told if part is not None]
    assert all(isinstance(part, Part) for part in parts)
    assert [part.first for part in parts] == list(range(0, 64, 4))
    assert parts[0].beyond / 64 < 0.1


def test_the_nearest_over_several_orders_is_the_best_of_them() -> None:
    grid = grid_of(PAGE.example.table, 8, 4)
    best = finish(nearest_over("M6", PAGE.example, 1, grid))
    each = [finish(trust("M6", PAGE.example, order, grid)).off_balls for order in orders_of("M6")]
    assert np.array_equal(best, np.fmin.reduce(each), equal_nan=True)
    assert np.isnan(finish(nearest_over("M6", PAGE.example, 3, grid))).all()


def test_the_nearest_is_preferred_and_of_those_alike_the_one_that_is_so_more_often() -> None:
    grid = Grid(np.array([1.0, 2.0, 3.0]), np.array([1.0, 2.0]))
    near = np.array([[0.1, 0.1], [0.1, 0.9], [np.nan, 1.2]])
    other = near.copy()
    other[0, 0] = 0.1 + 0.9 * ALIKE  # alike: the first stays, it is good on more of the bed
    other[1, 0] = 0.1 + 1.1 * ALIKE
    other[1, 1] = 0.2
    other[2, 0] = 0.3
    found = prefer({"A": near, "B": other}, 1, grid)
    assert found.methods == ("A", "B")
    assert found.best[1].tolist() == [0, 1]
    assert found.best[2].tolist() == [1, NONE]
    assert len(set(found.best[0].tolist())) == 1
    assert prefer({}, 2, grid).best.tolist() == [[NONE, NONE]] * 3


def test_only_systems_with_a_sum_are_compared() -> None:
    assert not {name for rails in (1, 2, 3) for name in methods_over(rails)} & BY_EYE
    assert methods_over(3) == ["M14", "M15", "M16", "M17", "M18"]


def test_a_map_depends_on_everything_but_the_cue_ball() -> None:
    layout = PAGE.example
    moved = replace(layout, balls=tuple(Ball("cue", 1.0, 3.0) if b.id == "cue" else b for b in layout.balls))
    assert without_cue(moved) == without_cue(layout)
    assert without_cue(replace(layout, table=conditioned(layout.table, "damp", "soft"))) != without_cue(layout)
