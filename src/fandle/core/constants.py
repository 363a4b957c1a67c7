"""Every physical number that is not the player's, with unit and origin. Its only home."""

INCH_M = 0.0254  # m, exact by definition
DIAMONDS_LONG = 8  # along a long rail, nose to nose; on a table without diamonds, eighths
DIAMONDS_SHORT = 4  # along a short rail; quarters

# Pool, 9 ft. Sizes: WPA tournament table and equipment specifications (from memory).
POOL_9FT_LENGTH_M = 100 * INCH_M  # nose to nose
POOL_9FT_WIDTH_M = 50 * INCH_M
POOL_BALL_RADIUS_M = 0.05715 / 2  # 2 1/4 in
POOL_BALL_MASS_KG = 0.170  # 6 oz
POOL_NOSE_SHARE = 0.635  # nose height / ball diameter, 62.5-64.5 %
POOL_SIGHT_SETBACK_M = (3 + 11 / 16) * INCH_M  # sight behind the nose, ± 1/8 in
POOL_CORNER_MOUTH_M = (4 + 9 / 16) * INCH_M  # 4.5-4.625 in between the points
POOL_SIDE_MOUTH_M = (5 + 1 / 16) * INCH_M  # 5-5.125 in
POOL_CORNER_CUT_DEG = 142.0
POOL_SIDE_CUT_DEG = 104.0
POOL_CORNER_SHELF_M = 1.75 * INCH_M  # mouth line to the slate's cut, 1-2.25 in (from memory)
POOL_SIDE_SHELF_M = 0.25 * INCH_M  # 0-0.375 in (from memory)
POOL_POINT_RADIUS_M = 0.125 * INCH_M  # rounding of the rubber where nose and facing meet (from memory)
POOL_RAIL_WIDTH_M = 5.5 * INCH_M  # nose to outer edge of the rail, 4-7.5 in (from memory)

# Pool cushion and cloth: workable defaults, from memory, until a table check fits them.
POOL_CUSHION_RESTITUTION = 0.85
POOL_CUSHION_FRICTION = 0.20
POOL_CLOTH_SLIDING = 0.20  # Marlow 1995, 0.15-0.4 (from memory)
POOL_CLOTH_ROLLING = 0.010  # 0.005-0.015 (from memory)
POOL_SPIN_DECAY = 10.0  # rad/s², 5-15 (from memory)
POOL_BALL_RESTITUTION = 0.95  # 0.92-0.98 (from memory)

# Ball on ball: friction a + b·exp(−c·v) for clean balls, Alciatore's fit to Marlow (from memory).
BALL_FRICTION_FLOOR = 0.010
BALL_FRICTION_RISE = 0.108
BALL_FRICTION_FALL = 1.088  # s/m
# Hertz, two alike spheres: 4/3·E*·√(R/2), E* = E/(2(1−ν²)), phenolic E ≈ 5.8 GPa, ν ≈ 0.34 (from
# memory). It settles only how a blow runs through balls that touch, not how one ball leaves another.
POOL_BALL_STIFFNESS = 5.2e8  # N/m^1.5

# The player.
MISCUE_LIMIT = 0.5  # of the ball's radius; common practice, no published source
TIP_DIAMETER_M = 0.013  # the usual pool tip; the player's own is a setting
TIP_CURVE_M = 0.01791 / 2  # radius of a tip's dome, "dime": US coin, 17.91 mm
HOUSE_END_RATIO = 20.0  # ball mass / end mass of an ordinary shaft (from memory)
SLIM_END_RATIO = 35.0  # of a low-squirt shaft (from memory)
FASTEST_MPS = 12.0  # a hard break; faster is refused
STEEPEST_DEG = 60.0  # of elevation: steeper, the cue hits the rail or the cloth
BED_RESTITUTION = 0.5  # of a ball driven down into cloth and slate (from memory)
LEAP_M = 0.05  # a hop as high as a ball is a leap, which is not modelled; lower hops are neglected
MEDIUM_LENGTHS = 2.5  # the default speed, in table lengths

# Numerics of the cushion, see docs/decisions/impulse-steps.md.
IMPULSE_STEPS = 4
