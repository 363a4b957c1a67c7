"""A table: every number the engine uses, in SI, and where its pockets and marks are."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.errors import BadInputError, check_text
from fandle.core.table.fitted import Fitted, check_fitted
from fandle.core.table.kernel_numbers import kernel_numbers
from fandle.core.table.parameter import Parameter
from fandle.core.table.parameters import POCKETS, TABLE, TableNumbers
from fandle.core.table.pocket import Pockets, Point

NARROWEST, WIDEST = 0.4, 0.65  # of the length; every usual table has half
BALLS_ACROSS = 10  # on the smallest bed; a 7-ft table has 17
WRITTEN = 1.05e-4  # diamonds: two places rounded to four decimals may come this much nearer to each other


@dataclass(frozen=True, kw_only=True)
class Table(TableNumbers):
    """One table: the numbers of the registry, its pockets, and its spots in diamonds.

    cue_ball_mass: None where it is an object ball's. cushion_compression in s (m of give per m/s), with
    its grip and loss as `physics.give` has them. d_radius: of the D on a snooker table. fitted: how sure its numbers
    are, where a table check found them.
    """

    name: str
    standard: str
    pockets: Pockets | None
    spots: dict[str, Point] = field(hash=False)
    fitted: Fitted | None = None

    def __post_init__(self) -> None:
        check_text(self.name, "table.name")
        _check_limits(self.name, self, TABLE, "table.")
        _check_sizes(self)
        if self.pockets is not None:
            _check_pockets(self, self.pockets)
        if self.fitted is not None:
            check_fitted(self.name, self.fitted)
        for name, (x, y) in self.spots.items():
            check_text(name, "table.spots")
            if not (0.0 <= x <= k.DIAMONDS_LONG and 0.0 <= y <= k.DIAMONDS_SHORT):
                raise BadInputError(
                    f"table {self.name!r}: the spot {name!r} at {x:g}, {y:g} is off the bed; "
                    f"give 0 to {k.DIAMONDS_LONG} along and 0 to {k.DIAMONDS_SHORT} across",
                    "table.spots",
                    code="out_of_range",
                )

    @cached_property
    def diamond_x(self) -> float:
        """One diamond along the long rails, in metres."""
        return self.length / k.DIAMONDS_LONG

    @cached_property
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
        """The table as the kernels read it."""
        return kernel_numbers(self)


def renamed(table: Table, name: str) -> Table:
    """The same table under another name."""
    return replace(table, name=name)


def _check_limits(table: str, owner: object, registry: Mapping[str, Parameter], place: str) -> None:
    """Refuse a number outside its limits; one that may be missing is not looked at where it is."""
    for name, known in registry.items():
        value = getattr(owner, name)
        if value is not None and not known.low <= value <= known.high:  # nan is outside, too
            unit = known.unit if known.unit in ("", "°") else f" {known.unit}"
            raise BadInputError(
                f"table {table!r}: {name} {value:g} is outside {known.low:g} to {known.high:g}{unit}; "
                "check the number and its unit",
                f"{place}{name}",
                code="out_of_range",
            )


def _check_sizes(table: Table) -> None:
    """What must go together: masses, width and length, balls and bed, nose and ball."""
    if not 0.8 <= table.cue_mass / table.ball_mass <= 1.3:
        raise BadInputError(
            f"table {table.name!r}: a cue ball of {table.cue_mass:g} kg does not go with object balls of "
            f"{table.ball_mass:g} kg; give it 0.8 to 1.3 times their mass",
            "table.cue_ball_mass",
            code="out_of_range",
        )
    if not NARROWEST * table.length <= table.width <= WIDEST * table.length:
        raise BadInputError(
            f"table {table.name!r}: width {table.width:g} m does not suit length {table.length:g} m; give the bed "
            f"nose to nose, length first: a width of {NARROWEST * table.length:.3g} to {WIDEST * table.length:.3g}",
            "table.width",
            code="out_of_range",
        )
    if 2 * table.ball_radius * BALLS_ACROSS > table.width:
        raise BadInputError(
            f"table {table.name!r}: a ball_radius of {table.ball_radius:g} m is too large for a bed {table.width:g} m "
            f"wide; {BALLS_ACROSS} balls must lie side by side: at most {table.width / (2 * BALLS_ACROSS):.3g}",
            "table.ball_radius",
            code="out_of_range",
        )
    share = table.nose_height / (2 * table.ball_radius)
    if not 0.5 <= share <= 0.75:
        raise BadInputError(
            f"table {table.name!r}: nose_height {table.nose_height:g} is {share:.0%} of the ball; "
            "it must be 50 % to 75 %",
            "table.nose_height",
            code="out_of_range",
        )


def _check_pockets(table: Table, pockets: Pockets) -> None:
    """Each number in its range, a ball goes in, and some straight nose is left."""
    _check_limits(table.name, pockets, POCKETS, "table.pockets.")
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
