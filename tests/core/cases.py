"""The growing list of nasty layouts: each bug adds one. (name, balls, the sentence's core)"""

import math

OFF = [
    ("no place", [("cue", 1, 1), ("1", math.nan, 1)], "has no place"),
    ("infinite", [("cue", math.inf, 1), ("1", 2, 1)], "has no place"),
    ("off the bed", [("cue", 1, 1), ("1", 8.5, 1)], "off the bed"),
    ("off the bed by a negative", [("cue", -1, 1), ("1", 2, 1)], "off the bed"),
    ("in a corner pocket", [("cue", 1, 1), ("4", 0.05, 0.05)], "ball 4 lies in the head-near pocket"),
    ("in the other corner", [("cue", 7.95, 3.95), ("4", 4, 1)], "the cue ball lies in the foot-far pocket"),
    ("in a side pocket", [("cue", 1, 1), ("4", 4.0, -0.01)], "ball 4 lies in the side-near pocket"),
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
    ("alone", [("cue", 4, 2)]),
]
