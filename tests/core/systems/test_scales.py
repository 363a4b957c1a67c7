"""The scales written at the rails (trade, common practice): every number where it is counted, none under the mark."""

import pytest

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count
from fandle.core.systems.registry import count
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL = standard_table("pool-9ft")


def scale(found: Count, rail: Rail) -> dict[str, float]:
    return {number.label: number.at for number in found.numbers if number.role == "scale" and number.rail is rail}


@pytest.mark.parametrize(("cue", "target"), [(6.0, 1.0), (5.2, 1.9), (7.4, 3.0)])
def test_equal_count_numbers_the_short_rail_in_half_diamonds_from_the_far_corner(cue: float, target: float) -> None:
    """1 is the corner away from the cue ball's rail, then half a diamond each; a number within 0.3 of the mark gives way."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", cue, 0.2), Ball("7", target, 0.09)), "7")
    found = count("M11", layout, (Rail.FOOT, Rail.FAR))
    assert isinstance(found, Count)
    mark = next(number.at for number in found.numbers if number.role == "aim")
    whole = {str(k): 4.0 - (k - 1) / 2 for k in range(1, 10)}
    assert scale(found, Rail.FOOT) == {label: at for label, at in whole.items() if abs(at - mark) > 0.3}
    counted = {str(k): target + k for k in range(1, 9) if target + k < cue - 0.3}
    assert scale(found, Rail.NEAR) == pytest.approx(counted)
