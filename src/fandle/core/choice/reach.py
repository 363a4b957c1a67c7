"""Reach: can one stand and bridge for a line?"""

import math
from dataclasses import dataclass

from fandle.core import constants as k
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.words.balls import spoken


@dataclass(frozen=True)
class Reach:
    """away_m: from the bridge back along the cue to the outer edge of the rail one stands at; 0 where the hand is on
    the rail. under: the ball that the bridge hand would have to stand on, if any; aid: what helps then."""

    away_m: float
    under: Ball | None
    aid: str = "mechanical bridge"

    @property
    def by_hand(self) -> bool:
        """Can it be played without a mechanical bridge?"""
        return self.away_m <= k.REACH_M

    @property
    def at_all(self) -> bool:
        """Can it be played even with one?"""
        return self.away_m <= k.REACH_M + k.LONG_BRIDGE_M

    @property
    def said(self) -> str:
        """The reason in words; "" where there is none."""
        if not self.by_hand:
            beyond = 100 * (self.away_m - k.REACH_M)
            return f"{beyond:.0f} cm out of reach: needs the {self.aid}; one foot stays on the floor"
        return "" if self.under is None else f"{spoken(self.under.id)} is under the bridge hand: raise the cue"


def reach_of(layout: Layout, direction: float) -> Reach:
    """Whether one can reach the cue ball to send it along `direction` (rad).

    The bridge stands 200 mm behind the cue ball; from there back along the cue to the nearest outer edge of a rail.
    """
    table, (x, y) = layout.table, layout.metres(layout.cue)
    back_x, back_y = -math.cos(direction), -math.sin(direction)
    hand_x, hand_y = x + k.BRIDGE_M * back_x, y + k.BRIDGE_M * back_y
    wide = table.rail_width
    ends = [
        (edge - at) / step
        for at, step, edge in (
            (hand_x, back_x, -wide if back_x < 0 else table.length + wide),
            (hand_y, back_y, -wide if back_y < 0 else table.width + wide),
        )
        if abs(step) > 1e-9
    ]
    near = k.HAND_M + table.ball_radius
    under = next(
        (ball for ball in layout.object_balls() if math.dist(layout.metres(ball), (hand_x, hand_y)) < near), None
    )
    return Reach(max(min(ends), 0.0), under, "rest" if layout.game == "snooker" else "mechanical bridge")
