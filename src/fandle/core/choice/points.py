"""Three cushions: the directions in which a stroke scores."""

import math
from collections import Counter
from dataclasses import replace

import numpy as np

from fandle.core.choice.field import Field, coded, rails_of
from fandle.core.choice.judge import judge
from fandle.core.choice.stretch import Key, Stretch, cut
from fandle.core.choice.sweep import Look

WIDE_POINT_RAD = math.radians(0.2)  # a point as wide as that is told whatever its chance, and in its own lane

MOST_BEFORE = 9  # rails before the first ball that are told apart


def points(field: Field, look: Look) -> list[Stretch]:
    """The stretches of a look, played to the end, that score: named by the ball met first and the rails in order."""
    out, at = look.out, look.at
    scored = judge(field.court, out, -1, -1).legal
    order = coded(out.cue_rails)
    label = (order * (len(field.names) + 1) + out.first) * MOST_BEFORE + np.minimum(out.before_first, MOST_BEFORE - 1)
    step = float(at[1] - at[0])
    found = []
    for _, a, b in cut(np.where(scored, label, -1)):
        rails = rails_of(out.cue_rails[a, : out.before_second[a]].tolist())
        first = field.name(int(out.first[a]))
        low, high = float(at[a]) - 0.5 * step, float(at[b - 1]) + 0.5 * step
        key = Key("point", first, rails, before=int(out.before_first[a]))
        found.append(Stretch(key, look.tried, low, high, (low, high), at[a:b], np.ones(b - a), first))
    return _in_lanes(found)


def _in_lanes(found: list[Stretch]) -> list[Stretch]:
    """Wide stretches of the same balls and rails that lie apart are lines of their own; narrow ones compete for one."""
    lanes: Counter[Key] = Counter()
    told = []
    for stretch in sorted(found, key=lambda each: -each.wide):
        wide = stretch.wide >= WIDE_POINT_RAD
        lanes[stretch.key] += wide
        told.append(replace(stretch, key=stretch.key._replace(lane=lanes[stretch.key] if wide else 0)))
    return told
