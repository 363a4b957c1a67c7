"""A table: every number the engine uses, in SI, and where its pockets and marks are."""

from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.errors import BadInputError
from fandle.core.physics.bed import PARAMS, POCKET, SCALARS, SIZE
from fandle.core.physics.cloth import GRAVITY
from fandle.core.pocket import Pockets, Point, mouths


@dataclass(frozen=True)
class Table:
    """One table. Lengths in m, mass in kg, spin decay in rad/s², marks in diamonds."""

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

    def __post_init__(self) -> None:
        for name, (low, high, unit) in LIMITS.items():
            value = getattr(self, name)
            if value is not None and not low <= value <= high:
                raise BadInputError(
                    f"table {self.name!r}: {name} {value:g} is outside {low:g} to {high:g}{unit}; "
                    "check the number and its unit",
                    f"table.{name}",
                )
        if not 0.3 * self.length <= self.width <= self.length:
            raise BadInputError(
                f"table {self.name!r}: width {self.width:g} m does not suit length {self.length:g} m; "
                "give the bed nose to nose, length first",
                "table.width",
            )
        share = self.nose_height / (2 * self.ball_radius)
        if not 0.5 <= share <= 0.75:
            raise BadInputError(
                f"table {self.name!r}: nose_height {self.nose_height:g} is {share:.0%} of the ball; "
                "it must be 50 % to 75 %",
                "table.nose_height",
            )

    @property
    def diamond_x(self) -> float:
        """One diamond along the long rails, in metres."""
        return self.length / k.DIAMONDS_LONG

    @property
    def diamond_y(self) -> float:
        """One diamond along the short rails, in metres."""
        return self.width / k.DIAMONDS_SHORT

    @property
    def sin_theta(self) -> float:
        """Sine of the elevation of the nose above the ball's centre, seen from the centre."""
        return self.nose_height / self.ball_radius - 1.0

    def params(self) -> NDArray[np.float64]:
        """The engine's parameters, in the order of `physics.engine.PARAMS`."""
        return _params(self)

    def standard_twin(self) -> "Table":
        """This table's sizes with the constants of the standard table it derives from."""
        norm = standard_table(self.standard)
        return replace(self, **{name: getattr(norm, name) for name in CONDITION})


# The numbers that say in which condition a table is, as against what it is.
CONDITION = (
    "cushion_restitution", "cushion_friction", "cushion_compression",
    "cloth_sliding", "cloth_rolling", "spin_decay", "ball_restitution",
    "ball_friction_floor", "ball_friction_rise", "ball_friction_fall",
)  # fmt: skip

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
    "cushion_compression": (0.0, 0.0, " (only the rigid cushion is played so far)"),
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


def _pool_9ft() -> Table:
    return Table(
        name="pool-9ft",
        standard="pool-9ft",
        length=k.POOL_9FT_LENGTH_M,
        width=k.POOL_9FT_WIDTH_M,
        ball_radius=k.POOL_BALL_RADIUS_M,
        ball_mass=k.POOL_BALL_MASS_KG,
        nose_height=k.POOL_NOSE_SHARE * 2 * k.POOL_BALL_RADIUS_M,
        sight_setback=k.POOL_SIGHT_SETBACK_M,
        rail_width=k.POOL_RAIL_WIDTH_M,
        cushion_restitution=k.POOL_CUSHION_RESTITUTION,
        cushion_friction=k.POOL_CUSHION_FRICTION,
        cushion_compression=0.0,
        cloth_sliding=k.POOL_CLOTH_SLIDING,
        cloth_rolling=k.POOL_CLOTH_ROLLING,
        spin_decay=k.POOL_SPIN_DECAY,
        ball_restitution=k.POOL_BALL_RESTITUTION,
        ball_friction_floor=k.BALL_FRICTION_FLOOR,
        ball_friction_rise=k.BALL_FRICTION_RISE,
        ball_friction_fall=k.BALL_FRICTION_FALL,
        ball_stiffness=k.POOL_BALL_STIFFNESS,
        gravity=GRAVITY,
        pockets=Pockets(
            corner_mouth=k.POOL_CORNER_MOUTH_M,
            side_mouth=k.POOL_SIDE_MOUTH_M,
            corner_cut_deg=k.POOL_CORNER_CUT_DEG,
            side_cut_deg=k.POOL_SIDE_CUT_DEG,
            corner_shelf=k.POOL_CORNER_SHELF_M,
            side_shelf=k.POOL_SIDE_SHELF_M,
            corner_point_radius=k.POOL_POINT_RADIUS_M,
            side_point_radius=k.POOL_POINT_RADIUS_M,
        ),
        head_string=2.0,
        spots={"head": (2.0, 2.0), "centre": (4.0, 2.0), "foot": (6.0, 2.0)},
    )


_MAKERS = {"pool-9ft": _pool_9ft}
STANDARD_NAMES = tuple(_MAKERS)


@lru_cache
def _make(name: str) -> Table:
    return _MAKERS[name]()


def standard_table(name: str) -> Table:
    """The standard table called `name`."""
    if name not in _MAKERS:
        names = ", ".join(STANDARD_NAMES)
        raise BadInputError(f"unknown table {name!r}: use {names}, or give a whole table object", "table")
    return _make(name)
