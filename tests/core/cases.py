"""The growing list of nasty layouts: each bug adds one. (name, balls, the sentence's core)"""

import math

OFF = [
    ("no place", [("cue", 1, 1), ("1", math.nan, 1)], "has no place"),
    ("infinite", [("cue", math.inf, 1), ("1", 2, 1)], "has no place"),
    ("off the bed", [("cue", 1, 1), ("1", 8.5, 1)], "off the bed"),
    ("off the bed by a negative", [("cue", -1, 1), ("1", 2, 1)], "off the bed"),
    ("in a corner pocket", [("cue", 1, 1), ("4", 0.02, 0.02)], "ball 4 lies in the head-near pocket"),
    ("in the other corner", [("cue", 7.98, 3.98), ("4", 4, 1)], "the cue ball lies in the foot-far pocket"),
    ("in a side pocket", [("cue", 1, 1), ("4", 4.0, -0.03)], "ball 4 lies in the side-near pocket"),
    ("into the cushion", [("cue", 1, 1), ("4", 3.0, 0.05)], "into the near cushion"),
    ("into a jaw point", [("cue", 1, 1), ("4", 3.82, 0.03)], "cushion"),
    ("overlapping", [("cue", 1, 1), ("4", 1.1, 1)], "overlap by"),
    ("two of one name", [("cue", 1, 1), ("4", 3, 1), ("4", 5, 1)], "two balls are called '4'"),
    ("no cue ball", [("1", 1, 1), ("4", 3, 1)], "no cue ball"),
    ("unknown ball", [("cue", 1, 1), ("16", 3, 1)], "unknown ball '16'"),
]

FINE = [
    ("frozen to a rail", [("cue", 0.09, 2), ("1", 5, 0.09)]),
    ("frozen to each other", [("cue", 2, 2), ("1", 2.18, 2)]),
    ("in the jaws of a corner", [("cue", 0.2, 0.2), ("1", 5, 1)]),
    ("hanging in a side pocket", [("cue", 1, 1), ("1", 4.0, 0.05)]),
    ("hanging on the nose line itself", [("cue", 1, 1), ("1", 4.0, 0.0)]),
    ("the cue ball on the nose line itself", [("cue", 4.0, 4.0), ("1", 6.5, 1.5)]),
    ("alone", [("cue", 4, 2)]),
]

# Many balls, metres on the nine-foot bed: (name, places, the first ball's vx, vy, wx, wy, wz).
_R = 0.05715 / 2
_D = 2 * _R
CROWDS = [
    ("frozen behind a ball, heavy follow", [(0.6, 0.6), (0.6 + _D, 0.6)], (1.0, 0, 0, 2.5, 0)),
    ("pressing a ball on the rail", [(1.2, _D + _R), (1.2, _R)], (0, -0.5, 1.25, 0, 0)),
    ("pressing two on the rail", [(1.2, _R + _D), (1.2, _R), (1.2 + _D, _R)], (0.1, -2.0, 5.0, 0, 0)),
    ("a row into the rail", [(0.3, 0.4), (0.6, 0.4), (0.6 + _D, 0.4), (0.6 + 2 * _D, 0.4)], (5, 0, 0, 5, 0)),
    ("a breath at a row", [(0.6 - _D, 0.4), (0.6, 0.4), (0.6 + _D, 0.4), (0.6 + 2 * _D, 0.4)], (1e-3, 0, 0, 1e-3, 0)),
    ("a breath at a nest", [(0.6, 0.6), (0.6 + _D, 0.6), (0.6 + _R, 0.6 + _R * 3**0.5)], (4e-4, 3e-4, -3e-4, 4e-4, 0)),
    ("spinning on the spot beside a ball", [(0.6, 0.6), (0.6 + _D, 0.6)], (0, 0, 0, 0, 3.0)),
    ("along the rail under the side pocket", [(0.5, _R), (2.0, _R)], (3, 0, 0, 3, 0)),
    ("frozen to rail and ball", [(0.6, _R), (0.6 + _D, _R), (2.0, 0.6)], (2.0, -0.2, 0.2, 2.0, 1.0)),
    ("between two that nearly touch", [(0.8, 0.6), (1.4, 0.6 + _R + 1e-7), (1.4, 0.6 - _R - 1e-7)], (3, 0, 0, 0, 0)),
    ("away from the ball it is frozen to", [(0.6, 0.6), (0.6 + _D, 0.6)], (-2, 0, 0, -2, 0)),
    ("along the rail, spun into it by the cloth", [(0.9, 1.27 - _R)], (1.0, 0, -0.01, 1.1357, -0.52)),
    ("along the rail, a breath into it", [(0.9, 1.27 - _R)], (1.0, 5e-66, -5e-66, 1.0, 0)),
    ("square past the ball it is frozen to", [(0.6, 0.6), (0.6 + _D, 0.6)], (0, 2, -2, 0, 0)),
]

# Two balls frozen to one another and to a rail that gives, a breath along it: (table, compression in s, places in m,
# the first ball's vx, vy, wx, wy, wz). Each came to 6,000 contacts at one moment.
SOFT_RAIL = [
    ("pool-8ft", 0.002, [(0.0285750000001, 0.5012274795066195), (0.0285750000001, 0.5583774795066195)],
     (-3.558849205853595e-05, 0.0009993665289737292, 0, 0, 0.00075)),
    ("carom-10ft", 0.002, [(0.030750001, 0.49339281468562207), (0.030750001, 0.554892814685722)],
     (-6.581000926188234e-05, 0.0009978321716004907, 0.0009978321716004907, 6.581000926188234e-05, 0.00075)),
    ("pool-9ft", 0.0005, [(0.02857500000000001, 0.4661124917222197), (0.02857500000000001, 0.5232624927222197)],
     (-0.00018168920470777502, 0.0009833560051642825, 0, 0, 0.00075)),
    ("snooker-12ft", 0.004, [(1.471295971277628, 1.75175), (1.5237959712777278, 1.75175)],
     (0.0009931604234840459, -0.00011675775445335791, 0, 0, 0)),
    ("pool-8ft", 0.002, [(0.5313188866292486, 1.1398249989999998), (0.5884688866292487, 1.1398249989999998)],
     (0.0009999653310851246, 8.326861822869728e-06, 0, 0, 0.00075)),
]  # fmt: skip
