"""A soft push that leaves a ball on a rail, all but frozen to it: found among the strokes that crawl."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field
from fandle.core.choice.stretch import KIND, Stretch

ON_RAIL_M = 0.03  # half a ball off the rail: the next player has to play it off there


def pushed(field: Field, stretch: Stretch, rests: NDArray[np.float64]) -> Stretch:
    """The directions of a straight stretch whose ball reaches a rail and stays on it: a line of its own.

    rests: where all balls stop, (looks, m + 1, 2). Of a ball that lies on a rail already there is none.
    """
    ball = field.number(stretch.key.target)
    stays = (off_rail(field, rests[:, ball]) <= ON_RAIL_M) & (off_rail(field, field.balls[ball - 1]) > ON_RAIL_M)
    return replace(stretch, key=stretch.key._replace(kind=KIND), good=stretch.good * stays)


def steadiest(pushes: Iterable[Stretch]) -> list[Stretch]:
    """Of each ball the pace, from soft to firm, that leaves it on the rail and whose neighbours do it, too."""
    by_ball: dict[str, list[Stretch]] = defaultdict(list)
    for push in pushes:
        by_ball[push.key.target].append(push)
    found = []
    for some in by_ball.values():
        stays = np.array([push.good.mean() for push in some])
        beside = np.convolve(stays, (0.5, 1.0, 0.5))[1:-1] * (stays > 0.0)
        if beside.any():
            found.append(some[int(np.argmax(beside))])
    return found


def off_rail(field: Field, places: NDArray[np.float64]) -> NDArray[np.float64]:
    """How far from the nearest rail balls lie, m; inf for one that is down."""
    table, r = field.layout.table, field.layout.table.ball_radius
    x, y = places[..., 0], places[..., 1]
    gaps = np.minimum(np.minimum(x, table.length - x), np.minimum(y, table.width - y)) - r
    return np.where(np.isnan(gaps), np.inf, gaps)
