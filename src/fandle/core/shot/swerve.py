"""How a ball struck with the cue raised bends on its way, on open cloth: how far aside, and where the bend is done.

While it slides the contact point's slip keeps its direction, so the path is a parabola; it lasts 2u/(7 μ g) for a slip
u and turns into a straight roll (Coriolis 1835; Marlow 1995). What elevation adds: side held across the way.
"""

import math
from dataclasses import dataclass, replace

from fandle.core.errors import BadInputError
from fandle.core.physics.cloth import SLIDING, phase
from fandle.core.physics.slots import MU_R, MU_S
from fandle.core.physics.strike import strike
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table

SOFTER, HARDER = 0.8, 1.25  # of the speed


@dataclass(frozen=True)
class Swerve:
    """aside_m: how far off its first line the ball is where the bend is done, + to the left; along_m: how far along it.

    turn_deg: by how much its way has turned then, + to the left.
    """

    aside_m: float
    along_m: float
    turn_deg: float


def swerve(table: Table, stroke: Stroke) -> Swerve:
    """The bend of a stroke on open cloth."""
    numbers = table.params()
    ball = strike(0.0, stroke.speed, stroke.side, stroke.up, math.radians(stroke.elevation), math.inf)
    now = phase(ball.vx, ball.vy, ball.wx, ball.wy, numbers[MU_S], numbers[MU_R])
    if now.kind != SLIDING:
        return Swerve(0.0, 0.0, 0.0)
    t = now.lasts
    along, aside = ball.vx * t + 0.5 * now.ax * t * t, ball.vy * t + 0.5 * now.ay * t * t
    return Swerve(aside, along, math.degrees(math.atan2(ball.vy + now.ay * t, ball.vx + now.ax * t)))


def paced(table: Table, stroke: Stroke) -> tuple[Swerve | None, Swerve | None]:
    """The same stroke softer and harder; None where it would leap, or be too fast."""
    found: list[Swerve | None] = []
    for part in (SOFTER, HARDER):
        try:
            found.append(swerve(table, replace(stroke, speed=stroke.speed * part)))
        except BadInputError:
            found.append(None)
    return found[0], found[1]
