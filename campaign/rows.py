"""A line of the campaign's table, and how faults are printed."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path


@dataclass(frozen=True)
class Row:
    """One line of the table: what was tried, what came of it, did it hold?"""

    part: str
    tried: str
    found: str
    held: bool


Run = Callable[[int, float, Path], list[Row]]


def tell(faults: list[str]) -> None:
    """Print the first few."""
    for fault in faults[:5]:
        print(f"  fault: {fault[:3000]}", flush=True)
