"""The numbers of a table as a player can set them: what each is called, its unit, what it does to a shot."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fandle.core.errors import BadInputError
from fandle.core.table.model import LIMITS, POCKET_LIMITS, Table

SAME = 1e-9  # a figure this near to the one shown was not changed


@dataclass(frozen=True)
class TableField:
    """One number: its name in the table ("pockets.side_mouth" inside), and how it is shown.

    Shown is SI times `scale`, in `unit`, to `places` decimals.
    """

    name: str
    group: str
    label: str
    unit: str
    scale: float
    places: int
    says: str

    @property
    def limits(self) -> tuple[float, float]:
        """Least and most, as shown."""
        inner = self.name.removeprefix("pockets.")
        low, high, _ = POCKET_LIMITS[inner] if inner != self.name else LIMITS[inner]
        return low * self.scale, high * self.scale

    def shown(self, table: Table) -> float | None:
        """The number as shown; None where the table has none."""
        part, _, inner = self.name.rpartition(".")
        owner = table.pockets if part else table
        value = None if owner is None else getattr(owner, inner)
        if self.name == "cue_ball_mass":
            value = table.cue_mass
        return None if value is None else round(value * self.scale, self.places)


def _f(name: str, group: str, label: str, unit: str, scale: float, places: int, says: str) -> TableField:
    return TableField(name, group, label, unit, scale, places, says)


FIELDS = (
    _f(
        "length",
        "Bed",
        "Length",
        "mm",
        1000,
        1,
        "Nose to nose. The longer the bed, the more an error at the rail grows.",
    ),
    _f("width", "Bed", "Width", "mm", 1000, 1, "Nose to nose; half the length on every usual table."),
    _f(
        "sight_setback",
        "Bed",
        "Sights behind the nose",
        "mm",
        1000,
        1,
        "How much a line sighted through a diamond differs from one aimed at the nose.",
    ),
    _f("ball_radius", "Balls", "Ball, across", "mm", 2000, 2, "A larger ball turns earlier and is easier to hit."),
    _f("ball_mass", "Balls", "Object ball", "g", 1000, 1, "Only its share to the cue ball's matters."),
    _f(
        "cue_ball_mass",
        "Balls",
        "Cue ball",
        "g",
        1000,
        1,
        "A heavier cue ball drives on through a full hit and draws less; its path to the first ball is the same.",
    ),
    _f(
        "ball_restitution",
        "Balls",
        "Liveliness of a hit",
        "",
        1,
        3,
        "1 keeps all speed between balls; less leaves a stun shot creeping on.",
    ),
    _f(
        "nose_height",
        "Rubber",
        "Nose above the bed",
        "mm",
        1000,
        2,
        "A high nose presses the ball down: it grips the cloth and comes off shorter and slower.",
    ),
    _f(
        "cushion_restitution",
        "Rubber",
        "Liveliness",
        "",
        1,
        3,
        "Less comes back slower and, at an angle, longer: it loses speed into the rail only.",
    ),
    _f(
        "cushion_friction",
        "Rubber",
        "Grip of the nose",
        "",
        1,
        3,
        "How much side takes at the rail, and how a rolling ball is turned by it.",
    ),
    _f(
        "cushion_compression",
        "Rubber",
        "Give",
        "mm per m/s",
        1000,
        2,
        "How far the ball sinks in. The harder the shot the deeper, and the shorter it comes off. 0 is rigid.",
    ),
    _f(
        "cushion_grip",
        "Rubber",
        "Hold of the dent",
        "",
        1,
        3,
        "How much of the dent's wall still stands in the ball's way as it leaves: more is shorter.",
    ),
    _f(
        "cushion_loss",
        "Rubber",
        "Loss when pressed in",
        "",
        1,
        3,
        "Rubber pressed in far returns less: slower off the rail, a little longer.",
    ),
    _f(
        "cloth_sliding",
        "Cloth",
        "Hold while it slides",
        "",
        1,
        3,
        "Slick cloth lets follow, draw and stun live longer; damp cloth makes the ball roll at once.",
    ),
    _f(
        "cloth_rolling", "Cloth", "Roll resistance", "", 1, 4, "Slow cloth needs a harder stroke for the same distance."
    ),
    _f(
        "spin_decay",
        "Cloth",
        "Side dies by",
        "rad/s²",
        1,
        1,
        "How fast side wears off on the way to the second and third rail.",
    ),
    _f("pockets.corner_mouth", "Pockets", "Corner mouth", "mm", 1000, 1, "Between the points: wider forgives more."),
    _f(
        "pockets.side_mouth",
        "Pockets",
        "Side mouth",
        "mm",
        1000,
        1,
        "Between the points; also where no plain line can turn on the long rails.",
    ),
    _f(
        "pockets.corner_cut_deg",
        "Pockets",
        "Corner cut",
        "°",
        1,
        1,
        "Angle of nose and facing: parallel facings (135) spit more balls out.",
    ),
    _f("pockets.side_cut_deg", "Pockets", "Side cut", "°", 1, 1, "Nearer to 90, only straighter balls go in."),
    _f(
        "pockets.corner_shelf",
        "Pockets",
        "Corner shelf",
        "mm",
        1000,
        1,
        "How far past the mouth the slate reaches: deep shelves let a ball rattle.",
    ),
    _f("pockets.side_shelf", "Pockets", "Side shelf", "mm", 1000, 1, "The same at the side."),
    _f(
        "pockets.corner_point_radius",
        "Pockets",
        "Corner rounding",
        "mm",
        1000,
        1,
        "Round points take a ball near the rail aside instead of knocking it back.",
    ),
    _f("pockets.side_point_radius", "Pockets", "Side rounding", "mm", 1000, 1, "The same at the side."),
)


def shown(table: Table) -> dict[str, float]:
    """Every number the table has, as shown, by name."""
    values = ((f.name, f.shown(table)) for f in FIELDS)
    return {name: value for name, value in values if value is not None}


def with_shown(table: Table, figures: Mapping[str, float]) -> Table:
    """The table with shown figures put in. A figure that is what is shown already changes nothing."""
    known = {f.name: f for f in FIELDS}
    plain: dict[str, Any] = {}
    pocket: dict[str, Any] = {}
    for name, figure in figures.items():
        field = known.get(name)
        if field is None or field.shown(table) is None:
            raise BadInputError(f"this table has no number {name!r}: use one of {', '.join(shown(table))}", name)
        if not math.isfinite(figure):
            raise BadInputError(f"{field.label.lower()}: {figure} is not a number: type one", name)
        if abs(figure - (field.shown(table) or 0.0)) < SAME:
            continue
        low, high = field.limits
        if not low <= figure <= high:
            unit = f" {field.unit}" if field.unit else ""
            raise BadInputError(
                f"{field.group.lower()}, {field.label.lower()}: {figure:g} is outside {low:g} to {high:g}{unit}", name
            )
        target = pocket if name.startswith("pockets.") else plain
        target[name.removeprefix("pockets.")] = figure / field.scale
    if pocket and table.pockets is not None:
        plain["pockets"] = replace(table.pockets, **pocket)
    return replace(table, **plain) if plain else table
