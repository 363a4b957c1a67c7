"""Cues: found at the table by two shots."""

from fandle.core.table.model import Table
from fandle.core.tablecheck.squirt_test import SIDE, SPEED, START, Squirt, landings, squirt_of

__all__ = ["SIDE", "SPEED", "START", "find_squirt", "landings"]


def find_squirt(table: Table, left: float, right: float, side: float = SIDE) -> Squirt:
    """The squirt of the cue whose shots with left and with right side met the foot rail there (diamonds)."""
    return squirt_of(table, left, right, side)
