"""A cue's squirt from two shots: the same line down the middle, once with left and once with right side.

Nothing but squirt parts the two balls before the first rail, and an error of the line moves both alike. Where they
meet the foot rail, played by the engine, is matched by the ball's mass over the shaft's end mass. Common practice, no
published source; the formula of squirt itself is in `physics.strike`.
"""

import math
from dataclasses import dataclass

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import CUE_LIMITS, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game
from fandle.core.words.balls import CUE

START = (1.0, 2.0)  # diamonds: down the middle of the table
SIDE = 0.4  # radii, once left and once right: much, but short of a miscue
SPEED = 3.0  # m/s, level: with a raised cue the ball would swerve back
READING_M, TIP_M = 0.005, 0.0005  # how well a landing is read, and a tip placed: estimates


@dataclass(frozen=True)
class Squirt:
    """end_ratio: ball mass over the shaft's end mass, inf without squirt; deg: at most side; sd_deg: its error."""

    end_ratio: float
    deg: float
    sd_deg: float

    @property
    def say(self) -> str:
        """In words."""
        if self.deg == 0.0:
            return "no squirt to be seen: both balls went the same way"
        return (
            f"{self.deg:.1f}° of squirt with the most side, give or take {self.sd_deg:.1f}°: the ball is "
            f"{self.end_ratio:.0f} times as heavy as the shaft's end"
        )


def set_up(table: Table) -> Layout:
    """Where the cue ball lies for both shots."""
    return Layout(table, usual_game(table), (Ball(CUE, *START),))


def landings(table: Table, cue: Cue, side: float = SIDE) -> tuple[float, float]:
    """(with left side, with right side): where the ball's centre turns at the foot rail, diamonds."""
    left, right = (_landing(table, Stroke(SPEED, way * side, cue=cue)) for way in (-1.0, 1.0))
    return left, right


def _landing(table: Table, stroke: Stroke) -> float:
    shot = approach(set_up(table), stroke, 0.0, most_rails=1, ignore_balls=True)
    return next(ev.y for ev in shot.events if ev.rail is Rail.FOOT)


def squirt_of(table: Table, left: float, right: float, side: float = SIDE) -> Squirt:
    """The cue whose two shots land as far apart as these did. left, right: diamonds along the foot rail.

    Raises BadInputError where the two are further apart than any cue would send them, or the side is none or a miscue.
    """
    from scipy.optimize import brentq  # a fifth of a second: only who asks waits for it

    if not side > 0.0:
        raise BadInputError(
            f"a side of {side:g} shows no squirt: play both shots with side, such as {SIDE:g}", "side",
            code="out_of_range",
        )  # fmt: skip
    gap, (low, high) = right - left, CUE_LIMITS["end_ratio"]

    def beyond(share: float) -> float:
        ends = landings(table, Cue("tried", "tried", 1 / share if share else math.inf), side)
        return ends[1] - ends[0] - gap

    if beyond(1 / low) < 0.0:
        raise BadInputError(
            f"the two balls landed {gap:.2f} apart, further than any cue squirts: play both along the same line, and "
            "give the left-hand side's landing first",
            "right",
            code="out_of_range",
        )
    share = 0.0 if beyond(1 / high) > 0.0 else float(brentq(beyond, 1 / high, 1 / low, xtol=1e-9))
    cue = Cue("found", "found", 1 / share if share else math.inf)
    apart = max(abs(gap) * table.diamond_y, READING_M)
    error = math.hypot(math.sqrt(2) * READING_M / apart, TIP_M / math.sqrt(2) / (side * table.ball_radius))
    return Squirt(cue.end_ratio, cue.squirt_deg, cue.squirt_deg * error)
