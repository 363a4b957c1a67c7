"""Which lines and strokes are worth playing on all draws: the most promising by estimate, a plain stroke among them."""

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from dataclasses import field as field_of
from typing import TypeVar

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.stretch import Key, Stretch

T = TypeVar("T")
MOST_COMPARED = 30  # lines, the most promising by estimate
MOST_LINES = 24
MOST_POINTS = 48  # of points more, since a wide one is never left out
LEAST_SIDE = 0.005  # of the ball's radius: less is none
OF_ALL, PLAIN_ONES = 5, 3  # strokes of a line that are compared: the best, and so many without side among them
PLAINER = 0.05  # by so much a stroke with side has to serve better than a plain one: side costs more than it shows
SCREENED_NEAR = 0.02  # a gain by side that is so much short of that on a few draws may be that on all of them


@dataclass(frozen=True)
class Shortlist:
    """How many lines are compared and told, and which there was no room for, the first that was seen of each."""

    compared: float
    told: float
    aims: int = 1  # of each stroke, places in its stretch
    left: dict[Key, Stretch] = field_of(default_factory=dict)

    @classmethod
    def of(cls, *, points: bool, every: bool, aims: int = 1) -> "Shortlist":
        """points: is it carom billiards? every: is there room for all? aims: places that each stroke is tried at."""
        if every:
            return cls(math.inf, math.inf, aims)
        return cls(MOST_POINTS, MOST_POINTS, aims) if points else cls(MOST_COMPARED, MOST_LINES, aims)

    def likeliest(self, found: Iterable[tuple[float, Stretch]]) -> set[Key]:
        """The most promising lines, and of every ball and kind the best one: no ball on is left out for the others."""
        keys: dict[Key, Stretch] = {}
        firsts: dict[tuple[str, bool, bool], Key] = {}
        for _, stretch in sorted(found, key=lambda each: -each[0]):
            key = stretch.key
            firsts.setdefault((key.target, bool(key.rails), key.open_shot), key)
            keys.setdefault(key, stretch)
        kept = {key for place, key in enumerate(keys) if place < self.compared} | set(firsts.values())
        self._leave(stretch for key, stretch in keys.items() if key not in kept)
        return kept

    def leading(self, found: Iterable[tuple[float, Stretch, T]]) -> list[T]:
        """The likeliest of some (chance, line, what), as many as are told, and every ball that lies open."""
        order = sorted(found, key=lambda each: -each[0])
        kept = [place < self.told or stretch.key.open_shot for place, (_, stretch, _) in enumerate(order)]
        self._leave(stretch for (_, stretch, _), keep in zip(order, kept, strict=True) if not keep)
        return [what for (_, _, what), keep in zip(order, kept, strict=True) if keep]

    def best_of_each(self, aims: Iterable[Aimed]) -> dict[Key, list[Aimed]]:
        """The most promising strokes of each line, by estimate, plain ones before others that are as good."""
        by_key: dict[Key, list[Aimed]] = defaultdict(list)
        for a in aims:
            by_key[a.stretch.key].append(a)
        for some in by_key.values():
            some.sort(key=lambda a: (-round(a.estimate, 2), abs(a.stretch.tried.tips) + abs(a.stretch.tried.height)))
        keys = self.likeliest((some[0].estimate, some[0].stretch) for some in by_key.values())
        return {
            key: with_plain_ones(some, self.aims * OF_ALL, [not sided(a) for a in some], self.aims * PLAIN_ONES)
            for key, some in by_key.items()
            if key in keys
        }

    def _leave(self, some: Iterable[Stretch]) -> None:
        for stretch in some:
            self.left.setdefault(stretch.key, stretch)


def plainest(some: Sequence[tuple[float, T]]) -> list[tuple[float, T]]:
    """Of a line's strokes, by what they are worth: the best plain one; and, best first, the best of all where it may
    be better by so much that it leads."""
    best = max(some, key=lambda each: each[0])
    plain = max((each for each in some if not sided(each[1])), key=lambda each: each[0], default=best)
    return [best, plain] if best[0] >= plain[0] + PLAINER - SCREENED_NEAR else [plain]


def sided(found: object) -> bool:
    """Has its stroke side?"""
    aim = found.aim if isinstance(found, Ranked) else found
    return isinstance(aim, Aimed) and abs(aim.stretch.tried.stroke.side) > LEAST_SIDE


def with_plain_ones(some: Sequence[T], most: int, plain: Sequence[bool], ones: int = 1) -> list[T]:
    """The first few; and where there are fewer than so many without side among them, the first of those after them."""
    more = [each for each, is_plain in zip(some[most:], plain[most:], strict=True) if is_plain]
    return [*some[:most], *more[: max(ones - sum(plain[:most]), 0)]]


def stretch_of(found: Aimed | Ranked) -> Stretch:
    """The stretch of a line, ranked or not."""
    return found.aim.stretch if isinstance(found, Ranked) else found.stretch
