"""The strokes that systems are taught with, and what is done where such a stroke does not reach the target.

By eye a line is played plain at medium pace, an escape in snooker gentler. Common practice, no published source.
"""

from fandle.core.constants import FASTEST_MPS, MEDIUM_LENGTHS
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import View
from fandle.core.table.model import Table
from fandle.core.table.speeds import speed_of

GENTLE, MEDIUM_SOFT, MEDIUM = 2.0, 2.25, MEDIUM_LENGTHS  # table lengths
HALF_TIP = 0.175  # radii
QUARTER, HARDEST = 0.25, 4.75  # table lengths: the steps in which more is tried, and the most


def paced(table: Table, lengths: float, side: float = 0.0) -> Stroke:
    """A stroke of so many table lengths, no faster than a stroke can be: slow tables ask for more."""
    return Stroke(min(speed_of(table, lengths), FASTEST_MPS), side)


def by_eye(view: View) -> Stroke:
    """Plain, at medium pace; gentler where snooker is played."""
    table = view.layout.table
    return paced(table, GENTLE if table.d_radius is not None else MEDIUM)
