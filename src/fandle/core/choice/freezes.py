"""A soft push that leaves a ball on a rail, all but frozen to it: a shot of its own."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.field import Field
from fandle.core.choice.judge import judge
from fandle.core.choice.strokes import SLOWEST_MPS, Tried
from fandle.core.shot.cue import Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps

FASTEST_MPS, PACES = 2.0, 97  # speeds that are tried
MOST_BALLS = 4
ON_RAIL_M = 0.03  # half a ball off the rail: the next player has to play it off there
KIND = "push"


def freezes(field: Field, straight: Sequence[Aimed], cue: Cue) -> Steps[list[Aimed]]:
    """The straight hits, played as softly as it takes for the ball to reach a rail and stay on it.

    Of each ball that is not on a rail already the speed that does it legally and whose neighbours do it, too.
    """
    aims = [a for a in straight if a.stretch.key.kind == "straight" and a.stretch.key.pocket is None]
    aims = [a for a in aims if _off_rail(field, field.balls[field.number(a.stretch.key.target) - 1]) > ON_RAIL_M]
    if not aims:
        return []
    aims = aims[:MOST_BALLS]
    strokes = [Stroke(pace, cue=cue) for pace in np.linspace(SLOWEST_MPS, FASTEST_MPS, PACES).tolist()]
    at = np.repeat([a.direction for a in aims], PACES)
    out = yield from field.played(at, np.tile([stroke.array() for stroke in strokes], (len(aims), 1)))
    legal, found = judge(field.court, out, -1, -1).legal, []
    for k, a in enumerate(aims):
        rows, ball = slice(k * PACES, (k + 1) * PACES), field.number(a.stretch.key.target)
        stays = legal[rows] & (_off_rail(field, out.rests[rows, ball]) <= ON_RAIL_M)
        if stays.any():
            beside = np.convolve(stays.astype(float), (0.5, 1.0, 0.5), "same") * stays
            stretch = replace(a.stretch, key=a.stretch.key._replace(kind=KIND))
            tried = Tried(strokes[int(np.argmax(beside))], 0.0)
            found.append(replace(a, stretch=replace(stretch, tried=tried)))
    return found


def _off_rail(field: Field, places: NDArray[np.float64]) -> NDArray[np.float64]:
    """How far from the nearest rail balls lie, m; inf for one that is down."""
    table, r = field.layout.table, field.layout.table.ball_radius
    x, y = places[..., 0], places[..., 1]
    gaps = np.minimum(np.minimum(x, table.length - x), np.minimum(y, table.width - y)) - r
    return np.where(np.isnan(gaps), np.inf, gaps)
