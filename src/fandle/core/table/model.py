"""A table: every number the engine uses, in SI, and where its pockets and marks are."""

import math
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.errors import BadInputError, check_text
from fandle.core.physics.bed import PARAMS, POCKET, SCALARS, SIZE
from fandle.core.physics.cloth import GRAVITY
from fandle.core.table.pocket import Pockets, Point, mouths

NARROWEST, WIDEST = 0.4, 0.65  # of the length; every usual table has half
BALLS_ACROSS = 10  # on the smallest bed; a 7-ft table has 17
WRITTEN = 1.05e-4  # diamonds: two places rounded to four decimals may come this much nearer to each other


@dataclass(frozen=True)
class Table:
    """One table. Lengths in m, mass in kg, spin decay in rad/s², marks in diamonds.

    cue_ball_mass: None where it is an object ball's. cushion_compression in s (m of give per m/s), with
    its grip and loss as `physics.give` has them. d_radius: of the D on a snooker table.
    """

    name: str
    standard: str
    length: float
    width: float
    ball_radius: float
    ball_mass: float
    nose_height: float
    sight_setback: float | None
    rail_width: float
    cushion_restitution: float
    cushion_friction: float
    cushion_compression: float
    cloth_sliding: float
    cloth_rolling: float
    spin_decay: float
    ball_restitution: float
    ball_friction_floor: float
    ball_friction_rise: float
    ball_friction_fall: float
    ball_stiffness: float
    gravity: float
    pockets: Pockets | None
    head_string: float | None
    spots: dict[str, Point] = field(hash=False)
    cue_ball_mass: float | None = None
    cushion_grip: float = k.CUSHION_GRIP
    cushion_loss: float = k.CUSHION_LOSS
    d_radius: float | None = None

    def __post_init__(self) -> None:
        check_text(self.name, "table.name")
        for name, (low, high, unit) in LIMITS.items():
            value = getattr(self, name)
            if value is not None and not low <= value <= high:  # nan is outside, too
                raise BadInputError(
                    f"table {self.name!r}: {name} {value:g} is outside {low:g} to {high:g}{unit}; "
                    "check the number and its unit",
                    f"table.{name}",
                )
        if not 0.8 <= self.cue_mass / self.ball_mass <= 1.3:
            raise BadInputError(
                f"table {self.name!r}: a cue ball of {self.cue_mass:g} kg does not go with object balls of "
                f"{self.ball_mass:g} kg; give it 0.8 to 1.3 times their mass",
                "table.cue_ball_mass",
            )
        if not NARROWEST * self.length <= self.width <= WIDEST * self.length:
            raise BadInputError(
                f"table {self.name!r}: width {self.width:g} m does not suit length {self.length:g} m; give the bed "
                f"nose to nose, length first: a width of {NARROWEST * self.length:.3g} to {WIDEST * self.length:.3g}",
                "table.width",
            )
        if 2 * self.ball_radius * BALLS_ACROSS > self.width:
            raise BadInputError(
                f"table {self.name!r}: a ball_radius of {self.ball_radius:g} m is too large for a bed {self.width:g} m "
                f"wide; {BALLS_ACROSS} balls must lie side by side: at most {self.width / (2 * BALLS_ACROSS):.3g}",
                "table.ball_radius",
            )
        share = self.nose_height / (2 * self.ball_radius)
        if not 0.5 <= share <= 0.75:
            raise BadInputError(
                f"table {self.name!r}: nose_height {self.nose_height:g} is {share:.0%} of the ball; "
                "it must be 50 % to 75 %",
                "table.nose_height",
            )

        if self.pockets is not None:
            _check_pockets(self, self.pockets)
        for name, (x, y) in self.spots.items():
            check_text(name, "table.spots")
            if not (0.0 <= x <= k.DIAMONDS_LONG and 0.0 <= y <= k.DIAMONDS_SHORT):
                raise BadInputError(
                    f"table {self.name!r}: the spot {name!r} at {x:g}, {y:g} is off the bed; "
                    f"give 0 to {k.DIAMONDS_LONG} along and 0 to {k.DIAMONDS_SHORT} across",
                    "table.spots",
                )

    @property
    def diamond_x(self) -> float:
        """One diamond along the long rails, in metres."""
        return self.length / k.DIAMONDS_LONG

    @property
    def diamond_y(self) -> float:
        """One diamond along the short rails, in metres."""
        return self.width / k.DIAMONDS_SHORT

    @cached_property
    def slack(self) -> float:
        """How far (m) balls may be written into each other or a rail and still count as frozen.

        Four decimals of a diamond, as an address keeps them, are half of 1e-4 off either way for each of two balls.
        """
        return max(k.LEAST_SLACK_M, WRITTEN * math.hypot(self.diamond_x, self.diamond_y))

    @property
    def cue_mass(self) -> float:
        """Mass of the cue ball, kg."""
        return self.ball_mass if self.cue_ball_mass is None else self.cue_ball_mass

    @property
    def has_diamonds(self) -> bool:
        """Are there sights on the rails? Without them the same grid is called eighths and quarters."""
        return self.sight_setback is not None

    @property
    def marks(self) -> str:
        """What the steps along the rails are called."""
        return "diamonds" if self.has_diamonds else "marks"

    @property
    def sin_theta(self) -> float:
        """Sine of the elevation of the nose above the ball's centre, seen from the centre."""
        return self.nose_height / self.ball_radius - 1.0

    def params(self) -> NDArray[np.float64]:
        """The engine's parameters, in the order of `physics.engine.PARAMS`."""
        return _params(self)


def renamed(table: Table, name: str) -> Table:
    """The same table under another name."""
    return replace(table, name=name)


# Sensible ranges: low, high, unit. Beyond them the models no longer hold.
LIMITS: dict[str, tuple[float, float, str]] = {
    "length": (0.5, 6.0, " m"),
    "width": (0.25, 3.0, " m"),
    "ball_radius": (0.01, 0.05, " m"),
    "ball_mass": (0.02, 0.5, " kg"),
    "nose_height": (0.01, 0.08, " m"),
    "sight_setback": (0.0, 0.3, " m"),
    "rail_width": (0.02, 0.5, " m"),
    "cushion_restitution": (0.3, 1.0, ""),
    "cushion_friction": (0.0, 0.4, ""),
    "cushion_compression": (0.0, 0.006, " s"),
    "cushion_grip": (0.0, 0.4, ""),
    "cushion_loss": (0.0, 1.0, ""),
    "cue_ball_mass": (0.02, 0.5, " kg"),
    "head_string": (0.0, 8.0, " diamonds"),
    "d_radius": (0.05, 0.8, " m"),
    "cloth_sliding": (0.01, 0.4, ""),
    "cloth_rolling": (0.001, 0.05, ""),
    "spin_decay": (0.0, 60.0, " rad/s²"),
    "ball_restitution": (0.5, 1.0, ""),
    "ball_friction_floor": (0.0, 0.5, ""),
    "ball_friction_rise": (0.0, 0.5, ""),
    "ball_friction_fall": (0.0, 10.0, " s/m"),
    "ball_stiffness": (1e7, 1e10, " N/m^1.5"),
    "gravity": (GRAVITY, GRAVITY, " m/s²"),
}


# The same of the pockets: a cut is the angle between nose and facing.
POCKET_LIMITS: dict[str, tuple[float, float, str]] = {
    "corner_mouth": (0.04, 0.25, " m"),
    "side_mouth": (0.04, 0.25, " m"),
    "corner_cut_deg": (95.0, 165.0, "°"),
    "side_cut_deg": (90.0, 165.0, "°"),
    "corner_shelf": (0.0, 0.06, " m"),
    "side_shelf": (0.0, 0.03, " m"),
    "corner_point_radius": (0.0, 0.15, " m"),
    "side_point_radius": (0.0, 0.15, " m"),
}


def _check_pockets(table: Table, pockets: Pockets) -> None:
    """Each number in its range, a ball goes in, and some straight nose is left."""
    for name, (low, high, unit) in POCKET_LIMITS.items():
        value = getattr(pockets, name)
        if not low <= value <= high:
            raise BadInputError(
                f"table {table.name!r}: {name} {value:g} is outside {low:g} to {high:g}{unit}; "
                "check the number and its unit",
                f"table.pockets.{name}",
            )
    for name in ("corner_mouth", "side_mouth"):
        if getattr(pockets, name) <= 2 * table.ball_radius:
            raise BadInputError(
                f"table {table.name!r}: no ball of {2000 * table.ball_radius:g} mm goes through a {name} of "
                f"{1000 * getattr(pockets, name):g} mm; make it wider",
                f"table.pockets.{name}",
            )
    if pockets.corner_straight + pockets.side_straight > 0.45 * table.length or pockets.corner_straight > 0.45 * (
        table.width
    ):
        raise BadInputError(
            f"table {table.name!r}: the pockets leave no straight cushion; make mouths or roundings smaller",
            "table.pockets.corner_mouth",
        )


@lru_cache(maxsize=256)
def _params(table: Table) -> NDArray[np.float64]:
    pockets = table.pockets
    values = {
        "length": table.length,
        "width": table.width,
        "radius": table.ball_radius,
        "cloth_sliding": table.cloth_sliding,
        "cloth_rolling": table.cloth_rolling,
        "spin_decay_w": table.ball_radius * table.spin_decay,
        "cushion_restitution": table.cushion_restitution,
        "cushion_friction": table.cushion_friction,
        "sin_theta": table.sin_theta,
        "corner_straight": pockets.corner_straight if pockets else 0.0,
        "side_straight": pockets.side_straight if pockets else 0.0,
        "impulse_steps": float(k.IMPULSE_STEPS),
        "ball_restitution": table.ball_restitution,
        "ball_friction_floor": table.ball_friction_floor,
        "ball_friction_rise": table.ball_friction_rise,
        "ball_friction_fall": table.ball_friction_fall,
        "ball_stiffness_per_mass": table.ball_stiffness / table.ball_mass,
        "pocketed": 1.0 if pockets else 0.0,
        "cue_lightness": table.ball_mass / table.cue_mass,
        "give": table.cushion_compression,
        "grip": table.cushion_grip,
        "loss": table.cushion_loss,
    }
    array = np.zeros(SIZE)
    array[:SCALARS] = [values[name] for name in PARAMS]
    for i, mouth in enumerate(mouths(table)):
        numbers = [*mouth.fall, *mouth.axis, mouth.point_radius]
        for jaw in mouth.jaws(table):
            numbers += [*jaw.centre, *jaw.start, *jaw.along, *jaw.normal]
        array[SCALARS + POCKET * i :][:POCKET] = numbers
    array.flags.writeable = False
    return array
