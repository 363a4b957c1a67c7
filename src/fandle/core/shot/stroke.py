"""A stroke and the cue that makes it, checked."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.constants import GRAVITY
from fandle.core.errors import BadInputError
from fandle.core.physics.strike import squirt_rad
from fandle.core.shot.cue import IDEAL, Cue

ROUNDING = 1e-4  # radii: an address keeps so much of side and height


def within_limit(side: float, up: float) -> tuple[float, float]:
    """A tip a rounding past the miscue limit, brought back: the larger of the two gives way by 1e-4.

    A tip that is further out stays where it is, for the stroke to refuse it.
    """
    if math.hypot(side, up) <= k.MISCUE_LIMIT:
        return side, up
    if abs(side) >= abs(up):
        return round(math.copysign(abs(side) - ROUNDING, side), 4), up
    return side, round(math.copysign(abs(up) - ROUNDING, up), 4)


@dataclass(frozen=True)
class Stroke:
    """speed: m/s as the ball leaves the tip; side (+ right), up (+ above): radii; elevation: degrees."""

    speed: float
    side: float = 0.0
    up: float = 0.0
    elevation: float = 0.0
    cue: Cue = IDEAL

    def __post_init__(self) -> None:
        for name in ("speed", "side", "up", "elevation"):
            if not math.isfinite(getattr(self, name)):
                raise BadInputError(f"{name} is {getattr(self, name)}: give it as a number", name, code="not_a_number")
        if self.speed <= 0.0:
            raise BadInputError(
                f"speed {self.speed:g} m/s does not move the ball: give more than 0", "speed", code="out_of_range"
            )
        if self.speed > k.FASTEST_MPS:
            raise BadInputError(
                f"speed {self.speed:g} m/s is faster than any break: give at most {k.FASTEST_MPS:g}",
                "speed",
                code="out_of_range",
            )
        offset = math.hypot(self.side, self.up)
        if offset > k.MISCUE_LIMIT + 1e-12:
            raise BadInputError(
                f"the tip is {offset:.2f} of the radius off centre, a miscue: keep it within {k.MISCUE_LIMIT:g}",
                "side" if abs(self.side) >= abs(self.up) else "up",
                code="miscue",
            )
        if not 0.0 <= self.elevation <= k.STEEPEST_DEG:
            raise BadInputError(
                f"elevation {self.elevation:g}° is out of range: 0 is level, at most {k.STEEPEST_DEG:g}; "
                "a leap off the bed is not played",
                "elevation",
                code="out_of_range",
            )
        if self.hop > k.LEAP_M:
            most = self.speed * math.sqrt(k.LEAP_M / self.hop)
            raise BadInputError(
                f"at {self.elevation:g}° and {self.speed:g} m/s the ball leaps {self.hop * 100:.0f} cm off the bed, "
                f"which is not played: lower the cue, or play at most {most:.2f} m/s",
                "elevation",
                code="leap",
            )

    def array(self) -> NDArray[np.float64]:
        """The stroke as the kernels take it."""
        return np.array(
            [self.speed, self.side, self.up, math.radians(self.elevation), self.cue.end_ratio],
            dtype=np.float64,
        )

    @property
    def hop(self) -> float:
        """How high the raised cue makes the ball hop, m: (e·v·tan ε)²/2g, driven down and bounced."""
        up = k.BED_RESTITUTION * self.speed * math.tan(math.radians(self.elevation))
        return up * up / (2 * GRAVITY)

    @property
    def squirt(self) -> float:
        """Angle in radians by which the ball leaves to the left of the cue's line."""
        return float(squirt_rad(self.side, self.cue.end_ratio))

    def plain(self) -> "Stroke":
        """The same speed struck level in the centre with the ideal cue."""
        return Stroke(self.speed)
