"""Flips, swaps and clearing: the layouts and the lines that come of them."""

import pytest
from tests.conftest import make

from fandle.core.layout.edit import (
    Turning,
    clear,
    edited,
    flip_end_to_end,
    flip_left_right,
    flipped_rail,
    swap_cue_and_target,
)
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail


@pytest.mark.parametrize("across", [True, False])
@pytest.mark.parametrize("rail", [Rail.FAR, Rail.FOOT])
def test_a_flip_turns_rail_and_side_with_it(pool: Table, across: bool, rail: Rail) -> None:
    """The flipped line is the mirror image of the line: same window, same fullness."""
    layout = make(pool, (2.1, 1.3), (5.0, 2.4), (3.3, 2.9))
    flipped = flip_left_right(layout) if across else flip_end_to_end(layout)
    a = solve_kick(layout, (rail,), Stroke(3.0, 0.2), with_chain=False)
    b = solve_kick(flipped, (flipped_rail(rail, left_right=across),), Stroke(3.0, -0.2), with_chain=False)
    assert isinstance(a, Aim)
    assert isinstance(b, Aim)
    assert b.best.window_mm == pytest.approx(a.best.window_mm, abs=0.02)
    again = flip_left_right(flipped) if across else flip_end_to_end(flipped)
    assert [v for b in again.balls for v in (b.x, b.y)] == pytest.approx([v for b in layout.balls for v in (b.x, b.y)])


def test_an_edit_brings_side_and_rail_with_it(pool: Table) -> None:
    layout = make(pool, (1, 1), (5, 2), (3, 3))
    way = Turning((Rail.FAR, Rail.FOOT), 0.2, -0.3)
    assert edited(layout, "left-right", way)[1] == Turning((Rail.NEAR, Rail.FOOT), -0.2, 0.3)
    assert edited(layout, "end-to-end", way)[1] == Turning((Rail.FAR, Rail.HEAD), -0.2, 0.3)
    assert edited(layout, "swap", Turning(None, 0.2))[1] == Turning(None, 0.2)
    assert edited(layout, "clear", way)[1] == way
    assert edited(layout, "left-right", Turning(()))[1] == Turning(())


def test_swap_and_clear(pool: Table) -> None:
    layout = make(pool, (1, 1), (5, 2), (3, 3))
    swapped = swap_cue_and_target(layout)
    assert (swapped.cue.x, swapped.ball("1").x, swapped.ball("2").x) == (5, 1, 3)
    assert [b.id for b in clear(layout).balls] == ["cue", "1"]
