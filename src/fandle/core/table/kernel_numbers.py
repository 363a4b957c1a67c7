"""A table as the kernels read it: one array, filled from the registry (`core.physics.slots` has the places)."""

from collections.abc import Callable
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core import constants as k
from fandle.core.physics.slots import FIRST_SLOT, POCKET, SLOTS
from fandle.core.table.parameters import TABLE
from fandle.core.table.pocket import Bed, mouths

# slots that are no number of the table but come of several
COMPUTED: dict[str, Callable[[Bed], float]] = {
    "corner_straight": lambda table: table.pockets.corner_straight if table.pockets else 0.0,
    "side_straight": lambda table: table.pockets.side_straight if table.pockets else 0.0,
    "impulse_steps": lambda _: float(k.IMPULSE_STEPS),
    "pocketed": lambda table: 1.0 if table.pockets else 0.0,
}


def values(table: Bed) -> dict[str, float]:
    """What stands in each slot, those that a kernel has a name for first."""
    filled = {
        known.slot: float(getattr(table, name)) if known.kernel is None else known.kernel(table)
        for name, known in TABLE.items()
        if known.slot is not None
    } | {slot: compute(table) for slot, compute in COMPUTED.items()}
    return {slot: filled.pop(slot) for slot in SLOTS} | filled


@lru_cache(maxsize=256)
def kernel_numbers(table: Bed) -> NDArray[np.float64]:
    """The array, read-only."""
    scalars = values(table)
    array = np.zeros(FIRST_SLOT + len(scalars))
    array[FIRST_SLOT:] = list(scalars.values())
    for i, mouth in enumerate(mouths(table)):
        numbers = [*mouth.fall, *mouth.axis, mouth.point_radius]
        for jaw in mouth.jaws(table):
            numbers += [*jaw.centre, *jaw.start, *jaw.along, *jaw.normal]
        array[POCKET * i :][:POCKET] = numbers
    array.flags.writeable = False
    return array
