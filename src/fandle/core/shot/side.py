"""What side does at a rail."""

import math

from fandle.core.table.rails import Rail


def running(side: float, rail: Rail, direction: float) -> str:
    """ "running" or "reverse": what side does at a rail met in `direction` (rad).

    First rail far going towards the foot, running is right; first rail foot going far, left.
    """
    nx, ny = {Rail.NEAR: (0, -1), Rail.FAR: (0, 1), Rail.HEAD: (-1, 0), Rail.FOOT: (1, 0)}[rail]
    turn = math.cos(direction) * ny - math.sin(direction) * nx
    return "running" if side * turn > 0 else "reverse"
