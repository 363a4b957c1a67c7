"""Directions side by side that come to the same: what a sweep is cut into, and where in it to aim."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.strokes import Tried
from fandle.core.physics.batch import Outcomes
from fandle.core.table.rails import Rail

Floats = NDArray[np.float64]
LEAST_PART_RAD = math.radians(0.2)  # a way that is narrower is none
KIND = "push"  # a ball that touches the cue ball, or one that is to be left on a rail


class Key(NamedTuple):
    """What makes two stretches the same line: kind, ball met or sent, rails, pocket (by name).

    lane: 0, or which of several wide ways apart over the same rails, by another thickness of the first ball of a point.
    before: of a point, how many of its rails the cue ball meets before the first ball. technique: of close work,
    its number.
    """

    kind: str
    target: str
    rails: tuple[Rail, ...]
    pocket: str | None = None
    lane: int = 0
    before: int = 0
    technique: str = ""

    @property
    def open_shot(self) -> bool:
        """Is it the plain shot at a ball, which is told whatever becomes of it?"""
        return self.kind == "straight" and self.pocket is None and not self.technique

    @property
    def by_rails(self) -> bool:
        """Is it named after its rails alone? What lies beside them widens its room, and is no part of it."""
        return self.kind in ("straight", "kick") and self.pocket is None and not self.technique

    @property
    def aimed(self) -> tuple[Rail, ...]:
        """The rails over which the first ball is aimed at: a point's others come after it."""
        return self.rails[: self.before] if self.kind == "point" else self.rails


@dataclass(frozen=True)
class Stretch:
    """Directions (rad) from low to high that come to the same with one stroke.

    part: the directions among them over the key's own rails (a backstop widens the rest). at: those looked at; good:
    what each of them is worth, 0 to 1. met: the ball met first, of a combination another than the key's. also: over
    which other rails it is met just beside them. own: which of those looked at go over its own rails, where known.
    """

    key: Key
    tried: Tried
    low: float
    high: float
    part: tuple[float, float]
    at: Floats
    good: Floats
    met: str
    also: tuple[tuple[Rail, ...], ...] = ()
    own: NDArray[np.bool_] | None = None

    @property
    def middle(self) -> float:
        """Its middle, rad."""
        return 0.5 * (self.low + self.high)

    @property
    def wide(self) -> float:
        """Its width, rad."""
        return self.high - self.low


def wide_enough(stretch: Stretch) -> bool:
    """Is the part over its own rails wide enough for a line?"""
    return not stretch.key.by_rails or stretch.part[1] - stretch.part[0] >= LEAST_PART_RAD


def widest_of_each(every: Iterable[Stretch]) -> list[Stretch]:
    """Of the stretches of one stroke that are the same line, one either side of what hides it, say, the widest part."""
    best: dict[tuple[Key, Tried], Stretch] = {}
    others = []
    for s in every:
        known = best.get((s.key, s.tried))
        if not s.key.by_rails:
            others.append(s)
        elif known is None or s.part[1] - s.part[0] > known.part[1] - known.part[0]:
            best[s.key, s.tried] = s
    return [*best.values(), *others]


def over_own(keys: Sequence[Key], out: Outcomes) -> NDArray[np.bool_]:
    """In which outcomes does the cue ball go over its line's own rails to the first ball, off no jaw?"""
    met = zip(out.cue_rails.tolist(), out.before_first.tolist(), keys, strict=True)
    same = [tuple(rails[:before]) == tuple(rail.number for rail in key.rails) for rails, before, key in met]
    return np.asarray(np.array(same) & (out.jaw == 0), np.bool_)


def reached(stretch: Stretch, aims: Floats, sigmas: Floats) -> Floats:
    """The chance of what is wanted when aiming along each of some directions, its error normal with its own σ (rad).

    The sum over the directions wanted of Φ((e₂ − d)/σ) − Φ((e₁ − d)/σ), each standing for the cell e₁…e₂ around it.
    An estimate: speed and tip are taken as exact. What it chooses is then played.
    """
    from scipy.special import ndtr  # a fifth of a second, and only who chooses a line waits for it

    at = stretch.at
    edges = np.concatenate([[stretch.low], 0.5 * (at[1:] + at[:-1]), [stretch.high]])
    share = np.diff(ndtr((edges[None, :] - aims[:, None]) / sigmas[:, None]), axis=1)
    found: Floats = share @ stretch.good
    return found


def quick(stretch: Stretch, sigma: float) -> float:
    """The same at once for a stretch all of which is wanted, aimed at its middle: 2Φ(w/2σ) − 1."""
    return math.erf(stretch.wide / (2.0 * sigma * math.sqrt(2.0)))


def cut(same: NDArray[np.int64]) -> list[tuple[int, int, int]]:
    """(label, first, beyond) of every run of equal labels from 0 on; −1 is nothing."""
    if not len(same):
        return []
    turns = np.flatnonzero(np.diff(same)) + 1
    ends = [0, *turns.tolist(), len(same)]
    return [(int(same[a]), a, b) for a, b in pairwise(ends) if same[a] >= 0]
