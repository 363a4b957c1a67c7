"""One ball on the bed."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Ball:
    """One ball: its id and its centre in diamonds."""

    id: str
    x: float
    y: float
