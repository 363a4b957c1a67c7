"""The registry: every number of a table, once. Limits, file, form, words of condition and kernel follow from it.

To add a number, add one field here (CONTRIBUTING.md). Numbers of the five standard tables: `standards`; what each
stands for in a kernel: `core.physics.slots`. Limits are where the models still hold (our own estimate) unless
`origin` says otherwise.
"""

from dataclasses import dataclass

from fandle.core import constants as k
from fandle.core.table.parameter import Shown, number, parameters_of

SIZES = "rules of the games (from memory)"
USUAL = "workable default until a table check fits it (from memory)"
ESTIMATE = "our own estimate"
HERTZ = "Hertz contact of two alike spheres (from memory)"


@dataclass(frozen=True, kw_only=True)
class TableNumbers:
    """Numbers of bed, balls, rubber and cloth, SI; marks in diamonds."""

    length: float = number(
        "m", 0.5, 6.0, SIZES,
        Shown("Bed", "Length", "Nose to nose. The longer the bed, the more an error at the rail grows.", "mm", 1000, 1),
        slot="length",
    )  # fmt: skip
    width: float = number(
        "m", 0.25, 3.0, SIZES,
        Shown("Bed", "Width", "Nose to nose; half the length on every usual table.", "mm", 1000, 1), slot="width",
    )  # fmt: skip
    sight_setback: float | None = number(
        "m", 0.0, 0.3, SIZES,
        Shown(
            "Bed", "Sights behind the nose",
            "How much a line sighted through a diamond differs from one aimed at the nose.", "mm", 1000, 1,
        ),
    )  # fmt: skip
    rail_width: float = number("m", 0.02, 0.5, SIZES)
    head_string: float | None = number("diamonds", 0.0, 8.0, SIZES)
    d_radius: float | None = number("m", 0.05, 0.8, SIZES, default=None)

    ball_radius: float = number(
        "m", 0.01, 0.05, SIZES,
        Shown("Balls", "Ball, across", "A larger ball turns earlier and is easier to hit.", "mm", 2000, 2),
        slot="radius",
    )  # fmt: skip
    ball_mass: float = number(
        "kg", 0.02, 0.5, SIZES, Shown("Balls", "Object ball", "Only its share to the cue ball's matters.", "g", 1000, 1)
    )
    cue_ball_mass: float | None = number(
        "kg", 0.02, 0.5, SIZES,
        Shown(
            "Balls", "Cue ball",
            "A heavier cue ball drives on through a full hit and draws less; its path to the first ball is the same.",
            "g", 1000, 1,
        ),
        default=None, slot="cue_lightness", kernel=lambda table: float(table.ball_mass / table.cue_mass),
    )  # fmt: skip
    ball_restitution: float = number(
        "", 0.5, 1.0, "0.92-0.98 (from memory)",
        Shown("Balls", "Liveliness of a hit", "1 keeps all speed between balls; less leaves a stun shot creeping on."),
        slot="ball_restitution", condition=True, prior_sd=0.015,
    )  # fmt: skip
    ball_friction_floor: float = number(
        "", 0.0, 0.5, "Alciatore's fit to Marlow (from memory)",
        default=k.BALL_FRICTION_FLOOR, slot="ball_friction_floor", condition=True,
    )  # fmt: skip
    ball_friction_rise: float = number(
        "", 0.0, 0.5, "Alciatore's fit to Marlow (from memory)",
        default=k.BALL_FRICTION_RISE, slot="ball_friction_rise", condition=True,
    )  # fmt: skip
    ball_friction_fall: float = number(
        "s/m", 0.0, 10.0, "Alciatore's fit to Marlow (from memory)",
        default=k.BALL_FRICTION_FALL, slot="ball_friction_fall", condition=True,
    )  # fmt: skip
    ball_stiffness: float = number(
        "N/m^1.5", 1e7, 1e10, HERTZ, default=k.POOL_BALL_STIFFNESS, slot="ball_stiffness_per_mass",
        kernel=lambda table: float(table.ball_stiffness / table.ball_mass),
    )  # fmt: skip

    nose_height: float = number(
        "m", 0.01, 0.08, SIZES,
        Shown(
            "Rubber", "Nose above the bed",
            "A high nose presses the ball down: it grips the cloth and comes off shorter and slower.", "mm", 1000, 2,
        ),
        slot="sin_theta", kernel=lambda table: float(table.sin_theta),
    )  # fmt: skip
    cushion_restitution: float = number(
        "", 0.3, 1.0, USUAL,
        Shown(
            "Rubber", "Liveliness",
            "Less comes back slower and, at an angle, longer: it loses speed into the rail only.",
        ),
        slot="cushion_restitution", condition=True, prior_sd=0.04,
        rubber={"standard": 1.0, "lively": 1.06, "soft": 0.97, "dead": 0.88},
    )  # fmt: skip
    cushion_friction: float = number(
        "", 0.0, 0.4, USUAL,
        Shown(
            "Rubber", "Grip of the nose", "How much side takes at the rail, and how a rolling ball is turned by it."
        ),
        slot="cushion_friction", condition=True, prior_sd=0.04,
        cloth={"standard": 1.0, "new": 0.70, "worn": 1.10, "damp": 1.25},
    )  # fmt: skip
    cushion_compression: float = number(
        "s", 0.0, 0.006, "√(mass / stiffness of the nose); 0 is the rigid cushion (our own estimate)",
        Shown(
            "Rubber", "Give",
            "How far the ball sinks in. The harder the shot the deeper, and the shorter it comes off. 0 is rigid.",
            "mm per m/s", 1000, 2,
        ),
        slot="give", prior_sd=0.001, absolute=True,
        rubber={"standard": 0.0, "lively": 0.0008, "soft": 0.0025, "dead": 0.0020},
    )  # fmt: skip
    cushion_grip: float = number(
        "", 0.0, 0.4, ESTIMATE,
        Shown(
            "Rubber", "Hold of the dent",
            "How much of the dent's wall still stands in the ball's way as it leaves: more is shorter.",
        ),
        default=k.CUSHION_GRIP, slot="grip",
    )  # fmt: skip
    cushion_loss: float = number(
        "", 0.0, 1.0, ESTIMATE,
        Shown(
            "Rubber", "Loss when pressed in",
            "Rubber pressed in far returns less: slower off the rail, a little longer.",
        ),
        default=k.CUSHION_LOSS, slot="loss", absolute=True,
        rubber={"standard": 0.0, "lively": 0.0, "soft": 0.1, "dead": 0.3},
    )  # fmt: skip

    cloth_sliding: float = number(
        "", 0.01, 0.4, "Marlow 1995, 0.15-0.4 (from memory)",
        Shown(
            "Cloth", "Hold while it slides",
            "Slick cloth lets follow, draw and stun live longer; damp cloth makes the ball roll at once.",
        ),
        slot="cloth_sliding", condition=True, prior_sd=0.03,
        cloth={"standard": 1.0, "new": 0.75, "worn": 1.10, "damp": 1.25},
    )  # fmt: skip
    cloth_rolling: float = number(
        "", 0.001, 0.05, "0.005-0.015 (from memory)",
        Shown("Cloth", "Roll resistance", "Slow cloth needs a harder stroke for the same distance.", places=4),
        slot="cloth_rolling", condition=True, prior_sd=0.002,
        cloth={"standard": 1.0, "new": 0.80, "worn": 1.15, "damp": 1.40},
    )  # fmt: skip
    spin_decay: float = number(
        "rad/s²", 0.0, 60.0, "5-15 (from memory)",
        Shown(
            "Cloth", "Side dies by", "How fast side wears off on the way to the second and third rail.", "rad/s²", 1, 1
        ),
        slot="spin_decay_w", kernel=lambda table: float(table.ball_radius * table.spin_decay), condition=True,
        prior_sd=3.0,
    )  # fmt: skip


@dataclass(frozen=True)
class PocketNumbers:
    """Numbers of the pockets: metres, and degrees between nose and facing."""

    corner_mouth: float = number(
        "m",
        0.04,
        0.25,
        SIZES,
        Shown("Pockets", "Corner mouth", "Between the points: wider forgives more.", "mm", 1000, 1),
    )
    side_mouth: float = number(
        "m", 0.04, 0.25, SIZES,
        Shown(
            "Pockets", "Side mouth", "Between the points; also where no plain line can turn on the long rails.",
            "mm", 1000, 1,
        ),
    )  # fmt: skip
    corner_cut_deg: float = number(
        "°", 95.0, 165.0, SIZES,
        Shown(
            "Pockets", "Corner cut", "Angle of nose and facing: parallel facings (135) spit more balls out.", "°", 1, 1
        ),
    )  # fmt: skip
    side_cut_deg: float = number(
        "°", 90.0, 165.0, SIZES, Shown("Pockets", "Side cut", "Nearer to 90, only straighter balls go in.", "°", 1, 1)
    )
    corner_shelf: float = number(
        "m", 0.0, 0.06, SIZES,
        Shown(
            "Pockets", "Corner shelf", "How far past the mouth the slate reaches: deep shelves let a ball rattle.",
            "mm", 1000, 1,
        ),
    )  # fmt: skip
    side_shelf: float = number(
        "m", 0.0, 0.03, SIZES, Shown("Pockets", "Side shelf", "The same at the side.", "mm", 1000, 1)
    )
    corner_point_radius: float = number(
        "m", 0.0, 0.15, ESTIMATE,
        Shown(
            "Pockets", "Corner rounding",
            "Round points take a ball near the rail aside instead of knocking it back.", "mm", 1000, 1,
        ),
        default=k.POOL_POINT_RADIUS_M,
    )  # fmt: skip
    side_point_radius: float = number(
        "m", 0.0, 0.15, ESTIMATE, Shown("Pockets", "Side rounding", "The same at the side.", "mm", 1000, 1),
        default=k.POOL_POINT_RADIUS_M,
    )  # fmt: skip


TABLE = parameters_of(TableNumbers)
POCKETS = parameters_of(PocketNumbers)
CONDITION = tuple(name for name, number_ in TABLE.items() if number_.condition)
