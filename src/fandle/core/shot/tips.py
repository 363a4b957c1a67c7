"""Tips off centre, as players count them, and the contact point they come to."""

import math

from fandle.core import constants as k
from fandle.core.table.model import Table


def offset_of(tips: float, table: Table, tip: float = k.TIP_DIAMETER_M) -> float:
    """Contact point off centre, in radii, when a tip of diameter `tip` (m) is moved by `tips`.

    tips · tip / (R + r_dome): the dome touches where its own radius meets the ball's.
    """
    return tips * tip / (table.ball_radius + k.TIP_CURVE_M)


def tips_of(offset: float, table: Table, tip: float = k.TIP_DIAMETER_M) -> float:
    """Tips off centre for a contact point `offset` radii off centre; inverse of `offset_of`."""
    return offset * (table.ball_radius + k.TIP_CURVE_M) / tip


def clock_of(side: float, up: float) -> str:
    """The tip's place on the clock face: 12 follow, 3 right; "centre" in the middle."""
    if math.hypot(side, up) < 0.01:
        return "centre"
    minutes = round(math.degrees(math.atan2(side, up)) * 2 / 15) * 15 % 720
    return f"{minutes // 60 or 12}:{minutes % 60:02d}"
