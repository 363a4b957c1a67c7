"""A simulated shooter: plays reference shots on a hidden table, so that a check can be tried at a desk."""

import math
from collections.abc import Sequence

import numpy as np

from fandle.core.physics.trace import trace
from fandle.core.player.scatter import Player
from fandle.core.table.model import Table
from fandle.core.table.rails import Contact
from fandle.core.tablecheck.evidence import KINDS, READING, STOP_READING, Seen, made, predicted
from fandle.core.tablecheck.shots import Setup

BEYOND = 0.4  # diamonds past a corner that a reading may lie


def shoot(
    setups: Sequence[Setup], hidden: Table, player: Player, rng: np.random.Generator,
    steady: tuple[float, ...] = (0.0,) * len(KINDS),
) -> list[Seen]:  # fmt: skip
    """Each shot made with this player's errors on the hidden table, and read as well as one reads by eye.

    steady: errors made in every shot beside them, by `KINDS`, in the player's standard deviations.
    Where the ball does not come to a rail that is watched, the reading ends.
    """
    asked = [Seen(each, tuple(Contact(rail, 0.0) for rail in each.watch), (0.0, 0.0)) for each in setups]
    off = rng.standard_normal((len(setups), len(KINDS))) + steady
    found = trace(made(asked, player, off, np.zeros(len(setups), np.int64)), hidden.params()[None])
    return [read(one.setup, figures, rng) for one, figures in zip(asked, predicted(asked, found, hidden), strict=True)]


def read(setup: Setup, figures: np.ndarray, rng: np.random.Generator) -> Seen:
    """A shot's figures as one reads them by eye, up to the first that there is none of."""
    contacts: list[Contact] = []
    for rail, value in zip(setup.watch, figures.tolist(), strict=False):
        if not math.isfinite(value):
            break
        read = value + READING * rng.standard_normal()
        contacts.append(Contact(rail, float(min(max(read, -BEYOND), rail.diamonds + BEYOND))))
    x, y = figures[-2:].tolist()
    stop = None
    if setup.stops and math.isfinite(x):
        read_x, read_y = x + STOP_READING * rng.standard_normal(), y + STOP_READING * rng.standard_normal()
        stop = min(max(read_x, 0.0), 8.0), min(max(read_y, 0.0), 4.0)
    return Seen(setup, tuple(contacts), stop)
