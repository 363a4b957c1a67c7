"""Cues: found at the table by two shots."""

from dataclasses import dataclass

from fandle.core.table.model import Table
from fandle.core.tablecheck.squirt_test import SIDE, SPEED, START, Squirt, landings, squirt_of

__all__ = ["SIDE", "SPEED", "START", "Found", "find_squirt", "landings"]


@dataclass(frozen=True)
class Found:
    """A cue's squirt and what it means in words."""

    squirt: Squirt
    say: str


def find_squirt(table: Table, left: float, right: float, side: float = SIDE) -> Found:
    """The squirt of the cue whose shots with left and with right side met the foot rail there (diamonds)."""
    found = squirt_of(table, left, right, side)
    if found.deg == 0.0:
        return Found(found, "no squirt to be seen: both balls went the same way")
    return Found(
        found,
        f"{found.deg:.1f}° of squirt with the most side, give or take {found.sd_deg:.1f}°: the ball is "
        f"{found.end_ratio:.0f} times as heavy as the shaft's end",
    )
