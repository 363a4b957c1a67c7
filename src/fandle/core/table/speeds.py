"""Trade units at the edges: table lengths <-> m/s, tips <-> offset."""

from functools import lru_cache

import numpy as np

from fandle.core import constants as k
from fandle.core.errors import EngineError
from fandle.core.physics.engine import MOST_EVENTS, MOST_PIECES, NO_JAWS, STOPPED
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.single import roll
from fandle.core.physics.state import PIECE
from fandle.core.table.model import Table

NO_BALLS = np.empty((0, 2))
SPEED_WORDS = ((1.5, "soft"), (2.25, "lag"), (2.75, "medium"), (3.5, "firm"), (4.75, "hard"))


@lru_cache(maxsize=4096)
def lengths_of(table: Table, speed: float) -> float:
    """Table lengths a ball runs at `speed` m/s: path until rest / length of the bed.

    Struck at its centre from the head rail, straight up and down the middle.
    """
    tape = blank_tape(MOST_EVENTS, MOST_PIECES)
    start = np.array((table.ball_radius, table.width / 2, speed, 0.0, 0.0, 0.0, 0.0))
    code, _, n = roll(start, table.params(), NO_BALLS, 0, NO_JAWS, MOST_EVENTS, tape.events, tape.pieces)
    if code != STOPPED:
        raise EngineError(f"a ball at {speed:g} m/s never comes to rest: check the table's rolling resistance")
    path = 0.0
    for q in tape.pieces[:n]:
        lasts = q[PIECE.lasts]
        path += abs(lasts * (q[PIECE.vx] + 0.5 * q[PIECE.ax] * lasts))  # decelerated along x: never turns in a piece
    return float(path / table.length)


@lru_cache(maxsize=1024)
def speed_of(table: Table, lengths: float) -> float:
    """Speed in m/s at which a ball runs so many table lengths; inverse of `lengths_of`."""
    low, high = 0.0, 1.0
    while lengths_of(table, high) < lengths and high < 4 * k.FASTEST_MPS:
        low, high = high, 2 * high
    for _ in range(60):
        mid = 0.5 * (low + high)
        if mid > 0.0 and lengths_of(table, mid) < lengths:
            low = mid
        else:
            high = mid
        if high - low < 1e-9:
            break
    return 0.5 * (low + high)


def default_speed(table: Table) -> float:
    """Medium: the speed of 2½ table lengths, m/s."""
    return speed_of(table, k.MEDIUM_LENGTHS)


def speed_word(lengths: float) -> str:
    """A speed in a word."""
    for limit, word in SPEED_WORDS:
        if lengths < limit:
            return word
    return "break"
