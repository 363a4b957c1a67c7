"""Every physical number that is not the player's, with unit and origin. Its only home."""

GRAVITY = 9.81  # m/s², standard value rounded
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

# Pool, 8 and 7 ft: the same balls, rails and pockets on a smaller bed.
POOL_8FT_LENGTH_M = 92 * INCH_M  # WPA specifications (from memory)
POOL_8FT_WIDTH_M = 46 * INCH_M
POOL_7FT_LENGTH_M = 78 * INCH_M  # makers vary; the usual bar box (from memory)
POOL_7FT_WIDTH_M = 39 * INCH_M

# Snooker, 12 ft. Sizes: WPBSA table dimensions (from memory).
SNOOKER_LENGTH_M = 3.569  # within the cushion faces
SNOOKER_WIDTH_M = 1.778
SNOOKER_BALL_RADIUS_M = 0.0525 / 2
SNOOKER_BALL_MASS_KG = 0.142  # (from memory)
SNOOKER_NOSE_SHARE = 0.7  # nose height 7R/5: Mathavan, Jackson & Parkin 2010 (from memory)
SNOOKER_BAULK_M = 0.737  # baulk line from the baulk cushion's face
SNOOKER_D_RADIUS_M = 0.292
SNOOKER_BLACK_M = 0.324  # black spot from the top cushion's face
SNOOKER_CORNER_MOUTH_M = 0.086  # between the facings; ~3 3/8 in (from memory)
SNOOKER_SIDE_MOUTH_M = 0.098  # (from memory)
SNOOKER_CORNER_CUT_DEG = 135.0  # facings run parallel to the pocket's axis (approximation: templates curve on)
SNOOKER_SIDE_CUT_DEG = 90.0
SNOOKER_CORNER_POINT_RADIUS_M = 0.060  # rounding of the cushion into the pocket (from memory)
SNOOKER_SIDE_POINT_RADIUS_M = 0.045
SNOOKER_CORNER_SHELF_M = 0.020  # (from memory)
SNOOKER_SIDE_SHELF_M = 0.012
SNOOKER_RAIL_WIDTH_M = 0.115  # (from memory)
SNOOKER_CUSHION_RESTITUTION = 0.98  # Mathavan, Jackson & Parkin 2010 (from memory)
SNOOKER_CUSHION_FRICTION = 0.14  # the same
SNOOKER_CLOTH_SLIDING = 0.212  # the same

# Carom, 10 ft (match table). Sizes: UMB rules for equipment (from memory).
CAROM_LENGTH_M = 2.84
CAROM_WIDTH_M = 1.42
CAROM_BALL_RADIUS_M = 0.0615 / 2  # 61-61.5 mm
CAROM_BALL_MASS_KG = 0.210  # 205-220 g
CAROM_NOSE_HEIGHT_M = 0.037
CAROM_CUSHION_RESTITUTION = 0.88  # workable default (from memory)
CAROM_CUSHION_FRICTION = 0.20
CAROM_CLOTH_ROLLING = 0.007  # heated, napless cloth runs further (from memory)
CAROM_RAIL_WIDTH_M = 0.125  # (from memory)

# A cushion that gives, see physics/give.py. Standard tables are rigid until a table check says otherwise.
CUSHION_GRIP = 0.15  # share of the dent's wall the ball presses against (our own estimate)
CUSHION_LOSS = 0.0  # restitution lost per radius of depth

# Ball on ball: friction a + b·exp(−c·v) for clean balls, Alciatore's fit to Marlow (from memory).
BALL_FRICTION_FLOOR = 0.010
BALL_FRICTION_RISE = 0.108
BALL_FRICTION_FALL = 1.088  # s/m
# Hertz, two alike spheres: 4/3·E*·√(R/2), E* = E/(2(1−ν²)), phenolic E ≈ 5.8 GPa, ν ≈ 0.34 (from
# memory). It settles only how a blow runs through balls that touch, not how one ball leaves another.
POOL_BALL_STIFFNESS = 5.2e8  # N/m^1.5
SNOOKER_BALL_STIFFNESS = 5.0e8  # the same law, smaller balls
CAROM_BALL_STIFFNESS = 5.4e8  # larger ones

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

# The scatter of a club player: standard deviations (estimates; the log refines them).
CLUB_DIRECTION_DEG = 0.10  # of the cue's line: a straight-in with a metre and a metre forgives 0.097 either way
CLUB_SPEED_PART = 0.10  # of the speed, as a share of it
CLUB_TIP_M = 0.0005  # of the tip, across and up
CLUB_MARK_DIAMONDS = (0.05, 0.08, 0.11, 0.14)  # of a mark at the nose: on a diamond, a half, a quarter, between
NEW_PLAYER, STRONG_PLAYER = 2.0, 0.5  # times a club player's scatter (estimates)
WITH_THE_REST = 1.25  # times the player's own scatter with the rest or a mechanical bridge (estimate)

# How far one can reach (estimates).
BRIDGE_M = (0.20, 0.30)  # from the cue ball back to the bridge hand
GRIP_M = (0.70, 0.90)  # from the bridge back to the grip hand
LEAN_M = (0.90, 1.00, 1.10)  # from the outer edge of a rail to the bridge hand: a short, a usual, a tall player
GRIP_PART = 0.85  # of that, to the grip hand
ASTRIDE_M = 0.20  # so far on the other side of the cue one stands with a leg beneath it
HALF_HAND_M = 0.04  # half the width of a bridge hand: a ball nearer than that is under it
SPAN_M = 0.2  # a hand, from thumb to little finger: a longer span is taken with the cue

LEAST_SLACK_M = 5e-5  # a ball may be written at least this much into its neighbour and count as frozen to it

# Numerics of the cushion, see docs/decisions/impulse-steps.md.
IMPULSE_STEPS = 4
