"""What strokes are played on when lines are chosen: one layout put before the rules, its numbers looked up once."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.judge import Court
from fandle.core.layout.model import Layout
from fandle.core.layout.state import RED
from fandle.core.physics.batch import TO_FIRST_BALL, WHOLE, Outcomes, Strokes, play_steps
from fandle.core.steps import Steps, finish
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

Floats = NDArray[np.float64]
RAILS = tuple(Rail)  # as the kernels number them
SHORT_CHUNK, CHUNK = 160, 80  # rows a call, two to four milliseconds


@dataclass(frozen=True)
class Field:
    """A layout whose object balls are numbered 1 … m in one order, whatever the file's.

    threads: how many play at once; the outcome is the same.
    """

    layout: Layout
    court: Court
    numbers: Floats
    balls: Floats
    names: tuple[str, ...]
    start: Point
    threads: int

    @classmethod
    def of(cls, layout: Layout, threads: int = 1) -> "Field":
        """From a layout."""
        balls = (layout.cue, *sorted(layout.object_balls(), key=lambda ball: ball.id))
        own = layout.moved(balls)
        return cls(
            own, Court.of(own), own.table.params(), own.obstacles(), tuple(ball.id for ball in own.object_balls()),
            own.metres(own.cue), threads,
        )  # fmt: skip

    @property
    def chosen(self) -> str | None:
        """The ball chosen among several on; None where there is nothing to choose, as among the reds."""
        on = [self.name(number) for number in self.court.on]
        target = self.layout.target
        reds = all(name.startswith(RED) for name in on)
        return target if target in on and len(on) > 1 and not reds and self.court.rules.order != "both" else None

    def whole(self, name: str) -> float:
        """How wide a ball is seen by the cue ball's centre if nothing hides it: every direction that meets it, rad."""
        x, y = self.balls[self.number(name) - 1]
        away = math.hypot(x - self.start[0], y - self.start[1])
        return 2.0 * math.asin(min(1.0, 2.0 * self.layout.table.ball_radius / away))

    def nearest_on(self, most: int) -> list[int]:
        """The balls on nearest to the cue ball, by number: the one chosen first."""
        chosen = self.chosen
        on = [int(number) for number in self.court.on]
        on.sort(key=lambda ball: (self.name(ball) != chosen, math.dist(self.balls[ball - 1], self.start)))
        return on[:most]

    def number(self, name: str) -> int:
        """A ball's number."""
        return self.names.index(name) + 1

    def name(self, number: int) -> str:
        """A number's ball."""
        return self.names[number - 1]

    def played(self, at: Floats, strokes: Floats, tables: Floats | None = None) -> Steps[Outcomes]:
        """Every direction (rad) played to the end with its own stroke, (n, 5), in steps. tables: (n, numbers)."""
        return self._steps(at, strokes, tables, short=WHOLE, chunk=CHUNK)

    def met(self, at: Floats, strokes: Floats, tables: Floats | None = None) -> Steps[Outcomes]:
        """The same only to the first ball."""
        return self._steps(at, strokes, tables, short=TO_FIRST_BALL, chunk=SHORT_CHUNK)

    def played_now(self, at: Floats, strokes: Floats) -> Outcomes:
        """A few directions at once."""
        return finish(self.played(at, strokes))

    def _steps(self, at: Floats, strokes: Floats, tables: Floats | None, *, short: bool, chunk: int) -> Steps[Outcomes]:
        n = len(at)
        start = np.repeat(np.array(self.start)[None], n, axis=0)
        which = np.zeros(n, np.int64) if tables is None else np.arange(n)
        rows = Strokes(np.ascontiguousarray(at), np.ascontiguousarray(strokes), start, which)
        known = self.numbers[None] if tables is None else tables
        return play_steps(rows, known, self.balls, short, self.threads, chunk)


def coded(orders: NDArray[np.int64]) -> NDArray[np.int64]:
    """One number for each order of rails, (n, k) with −1 for none, the same for the same order."""
    return np.asarray(((orders + 1) * 5 ** np.arange(orders.shape[1])).sum(axis=1), np.int64)


def rails_of(numbers: Sequence[int]) -> tuple[Rail, ...]:
    """Rails by number, −1 and beyond left out."""
    return tuple(RAILS[number] for number in numbers if number >= 0)
