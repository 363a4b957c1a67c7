"""Cue on ball: spin from the tip's offset, squirt from the cue's end mass."""

import math
from typing import Any, NamedTuple

from fandle.core.physics.jit import Floats, kernel


class Struck(NamedTuple):
    """A ball just after the tip: m/s, and R·ω in m/s."""

    vx: float
    vy: float
    wx: float
    wy: float
    wz: float


class StrokeNumbers(NamedTuple):
    """A stroke as the kernels take it: m/s, radii, radii, rad, ball mass over end mass. Also its array's columns."""

    speed: float
    side: float
    up: float
    elevation: float
    end_ratio: float


STROKE: Any = StrokeNumbers(*range(5))  # columns


@kernel
def squirt_rad(side: float, end_ratio: float) -> float:
    """Angle by which the ball leaves off the cue's line, away from the side struck.

    tan α = 5/2·b·√(1−b²) / (1 + m/m_end + 5/2·(1−b²)), b = side in radii, end_ratio = m/m_end
    (inf = ideal cue, no squirt). Published squirt relation, endmass model (from memory);
    2.5 degrees to the left for half a radius of right side at m/m_end = 20.
    """
    if math.isinf(end_ratio):
        return 0.0
    rest = 1.0 - side * side
    return math.atan2(2.5 * side * math.sqrt(rest), 1.0 + end_ratio + 2.5 * rest)


@kernel
def strike(direction: float, speed: float, side: float, up: float, elevation: float, end_ratio: float) -> Struck:
    """The ball just after the tip.

    direction, elevation in radians; side (+ right) and up (+ above) in radii. Impulse along
    the cue through the offset point, the vertical part taken by the bed:
    w = 5/2·v/cos ε·(side·(cos ε ẑ + sin ε f̂) + up·l̂), f̂ ahead, l̂ to the left.
    """
    ahead = direction + squirt_rad(side, end_ratio)
    fx, fy = math.cos(ahead), math.sin(ahead)
    blow = 2.5 * speed / math.cos(elevation)
    roll = blow * up
    twist = blow * side * math.sin(elevation)
    return Struck(
        speed * fx,
        speed * fy,
        twist * fx - roll * fy,
        twist * fy + roll * fx,
        blow * side * math.cos(elevation),
    )


@kernel
def strike_by(direction: float, stroke: Floats) -> Struck:
    """The same for a stroke's array."""
    return strike(
        direction, stroke[STROKE.speed], stroke[STROKE.side], stroke[STROKE.up], stroke[STROKE.elevation],
        stroke[STROKE.end_ratio],
    )  # fmt: skip
