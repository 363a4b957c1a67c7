"""What a played stroke was by the rules: a hit, legal, a pot, an in-off. Row by row, without a loop."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.rules import Rules, balls_on, rules_of
from fandle.core.layout.model import Layout
from fandle.core.physics.batch import Outcomes
from fandle.core.physics.engine import STOPPED
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.words.balls import CUE

Bools = NDArray[np.bool_]
MOVED_M = 1e-4  # a touching ball that lies further from where it lay was moved


class Verdicts(NamedTuple):
    """Of n strokes: the first ball met is on; and legal; and potted as it counts; the cue ball potted."""

    hit: Bools
    legal: Bools
    pot: Bools
    in_off: Bools


class Court(NamedTuple):
    """A layout put before the rules: who is on by number (1 … m), who touches the cue ball, where all lie (m)."""

    rules: Rules
    on: NDArray[np.int64]
    touching: tuple[int, ...]
    places: NDArray[np.float64]

    @classmethod
    def of(cls, layout: Layout) -> "Court":
        """From a layout, its balls numbered as `Layout.obstacles` has them."""
        rules, on = rules_of(layout), balls_on(layout)
        touching = tuple(layout.index(name) + 1 for name in on if rules.order == "snooker" and layout.touch(CUE, name))
        return cls(rules, np.array([layout.index(name) + 1 for name in on], np.int64), touching, layout.obstacles())


def judge(court: Court, out: Outcomes, target: NDArray[np.int64] | int, pocket: NDArray[np.int64] | int) -> Verdicts:
    """The verdicts. target, pocket: the called ball and pocket by number, of each row or of all; −1 for no call."""
    rules, sound = court.rules, out.code == STOPPED
    in_off = (out.down == 0).any(axis=1)
    if rules.counts == "point":
        hit = sound & (out.first > 0)
        point = hit & (out.second > 0) & (out.before_second >= rules.cushions)
        return Verdicts(hit, point, np.zeros_like(hit), in_off)
    hit = sound & _hits(court, out)
    legal = hit & ~in_off
    if rules.needs_rail:
        legal &= (out.down > 0).any(axis=1) | (out.rails_after > 0).any(axis=1)
    return Verdicts(hit, legal, legal & _counts(court, out, target, pocket), in_off)


def _hits(court: Court, out: Outcomes) -> Bools:
    """The first ball met is on. One that touches the cue ball and is on is hit by not being moved."""
    hit = np.isin(out.first, court.on)
    for ball in court.touching:
        rest, lay = out.rests[:, ball], court.places[ball - 1]
        still = np.hypot(rest[:, 0] - lay[0], rest[:, 1] - lay[1]) <= MOVED_M  # NaN, of a potted ball, is not still
        pushed = (out.first == ball) & (out.before_first == 0)
        hit = np.where(still, True, hit & ~pushed)
    return hit


def _counts(court: Court, out: Outcomes, target: NDArray[np.int64] | int, pocket: NDArray[np.int64] | int) -> Bools:
    """Does a ball that counts go down?"""
    if court.rules.counts == "called":
        called = (out.down == _column(target)) & (out.pockets == _column(pocket)) & (out.down > 0)
        return _some(called)
    if court.rules.counts == "any":
        return _some(out.down > 0)
    on = np.isin(out.down, court.on)
    return _some(on) & ~_some((out.down > 0) & ~on)


def _some(found: Bools) -> Bools:
    """In which rows anything is found."""
    return np.asarray(found.any(axis=1), np.bool_)


def _column(value: NDArray[np.int64] | int) -> NDArray[np.int64]:
    return np.asarray(value, np.int64).reshape(-1, 1)


def pocket_number(pocket: str | None) -> int:
    """A pocket as `Outcomes` numbers it; −1 for none."""
    return -1 if pocket is None else POCKET_NAMES.index(pocket)
