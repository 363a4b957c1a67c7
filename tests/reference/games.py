"""What a replayed shot was by the rules, and a player's errors: written anew, from the rules and the contract."""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from tests.reference.replay import BALL, DOWN, JAW, RAIL

Floats = NDArray[np.float64]
CUE = 0
SEEN = 0.06  # diamonds: a mark so near to a whole, half or quarter is told as that


class Came(NamedTuple):
    """Of one shot: the first ball met (0 for none), the rails before it, off a jaw?, legal but for which ball is on, what
    went down (ball, pocket), and after how many rails the second ball was met (−1 for never). places: of the rails, m."""

    first: int
    rails: tuple[int, ...]
    jaw: bool
    clean: bool
    down: tuple[tuple[int, int], ...]
    second_after: int
    places: tuple[tuple[float, float], ...]


def came_of(events: Floats) -> Came:
    """From the events of a replay. A jaw counts as a rail (common practice)."""
    first, second, rails, jaw, after, met = 0, -1, list[int](), False, False, 0
    down: list[tuple[int, int]] = []
    places: list[tuple[float, float]] = []
    for kind, one, other, x, y in [(*map(int, event[:3]), *event[3:]) for event in events.tolist()]:
        if kind == BALL and CUE in (one, other):
            ball = one + other
            if not first:
                first = ball
            elif ball != first and second < 0:
                second = met
        elif kind == DOWN:
            down.append((one, other))
        elif first:
            after = True
        if kind in (RAIL, JAW) and one == CUE:
            met += 1
            if not first:
                rails.append(other if kind == RAIL else -1)
                places.append((x, y))
                jaw = jaw or kind == JAW
    potted = [ball for ball, _ in down if ball != CUE]
    clean = (after or bool(potted)) and all(ball != CUE for ball, _ in down)
    return Came(first, tuple(rails), jaw, clean, tuple(down), second, tuple(places))


def mark_scatter(mark: float, scatter: dict[str, float]) -> float:
    """The standard deviation of a mark (diamonds at the nose), by how easily it is seen."""
    for unit, name in ((1.0, "diamond"), (0.5, "half"), (0.25, "quarter")):
        if abs(mark - unit * round(mark / unit)) <= SEEN:
            return scatter[name]
    return scatter["between"]


def turned(start: tuple[float, float], rail: tuple[int, float, float], mark: float, off: float) -> float:
    """By how much the cue turns where a mark is missed by `off` diamonds, rad. rail: along x (0) or y (1), where it
    lies across, m a diamond along it."""
    along, across, unit = rail
    gap = across - start[1 - along]

    def way(at: float) -> float:
        aside = at * unit - start[along]
        return math.atan2(gap, aside) if along == 0 else math.atan2(aside, gap)

    return math.remainder(way(mark + off) - way(mark), math.tau)
