"""Where a table's numbers stand in the array that the kernels read.

First six pockets of `POCKET` numbers each, in the order of `core.table.pocket` (fall point and axis, rounding, two
jaws), then the numbers that `SLOTS` names. `core.table.kernel_numbers` fills it from the registry.
"""

POCKET = 21  # numbers a pocket: fall point, axis, point radius, then twice centre, start, along, normal
FALL_X, FALL_Y, AXIS_X, AXIS_Y, POINT_RADIUS = range(5)
JAW_AT = (5, 13)
# of one jaw, from where it begins
CENTRE_X, CENTRE_Y, START_X, START_Y, ALONG_X, ALONG_Y, NORMAL_X, NORMAL_Y = range(8)
FIRST_SLOT = 6 * POCKET

SLOTS = (
    "length", "width", "radius", "cloth_sliding", "cloth_rolling", "spin_decay_w",
    "cushion_restitution", "cushion_friction", "sin_theta", "corner_straight", "side_straight", "impulse_steps",
    "ball_restitution", "ball_friction_floor", "ball_friction_rise", "ball_friction_fall",
    "ball_stiffness_per_mass", "pocketed", "cue_lightness", "give", "grip", "loss",
)  # fmt: skip
(LENGTH, WIDTH, RADIUS, MU_S, MU_R, DECAY, REST, MU_W, SIN_T, CORNER, SIDE, STEPS,
 BALL_REST, MU_FLOOR, MU_RISE, MU_FALL, STIFF, POCKETED, LIGHT, GIVE, GRIP, LOSS) = range(
    FIRST_SLOT, FIRST_SLOT + 22)  # fmt: skip
