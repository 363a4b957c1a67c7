"""All directions of a stroke played once, and cut into stretches: straight shots, kicks, rail-first, flukes alike."""

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field, coded, rails_of
from fandle.core.choice.stretch import KIND, Key, Stretch, cut
from fandle.core.choice.strokes import Tried
from fandle.core.physics.batch import Outcomes
from fandle.core.steps import Steps
from fandle.core.words.balls import CUE

Floats = NDArray[np.float64]
ROUND = 1440  # directions round the circle, a quarter of a degree apart,
ACROSS = 40  # and so many across every ball on: a tenth of it may show
CAROM_ROUND = 2880
MOST_RAILS = 4
NEAREST = 4  # balls on that are pushed
BEYOND = 1.1  # ball widths either side of a ball on that are looked at closely


class Look(NamedTuple):
    """A stroke, the directions it was played in (rising), and what was met in each."""

    tried: Tried
    at: Floats
    out: Outcomes


def directions(field: Field, tried: Tried, round_: int, across: int = ACROSS) -> Floats:
    """The directions of the cue that are looked at: all round, and closely across each ball on, rising.

    A stroke that crawls is looked at only across the nearest balls on.
    """
    x, y = field.start
    seam = math.atan2(-y, -x)  # towards the corner at head and near: no line runs over it
    found = [] if tried.crawls else [seam + 2.0 * math.pi * (np.arange(round_) + 0.5) / round_]
    for middle, half in _spans(field, tried):
        near = middle + np.linspace(-half, half, across)
        found.append(seam + np.mod(near - seam, 2.0 * math.pi))
    every: Floats = np.unique(np.concatenate(found))
    return every - tried.stroke.squirt


def _spans(field: Field, tried: Tried) -> list[tuple[float, float]]:
    """(middle, half the width) of what is looked at closely, rad: a little more than every ball on."""
    (x, y), found = field.start, []
    for number in field.nearest_on(NEAREST) if tried.crawls else field.court.on:
        bx, by = field.balls[number - 1]
        half = min(0.5 * BEYOND * field.whole(field.name(number)), 0.5 * math.pi)
        found.append((math.atan2(by - y, bx - x), half))
    return found


def _edges(field: Field, look: Look) -> tuple[NDArray[np.int64], Floats, Floats]:
    """(which directions go on from one another, where the stretch that each stands for begins, where it ends): half-way
    to its neighbours. A stroke that crawls is not looked at between the balls, so that nothing goes on from there."""
    at = look.at
    if not len(at):
        return np.zeros(0, np.int64), at, at
    gaps, step = np.diff(at), math.inf
    if look.tried.crawls:
        step = 1.5 * 2.0 * max(half for _, half in _spans(field, look.tried)) / (ACROSS - 1)
    apart, half = gaps > step, np.where(gaps > step, 0.0, 0.5 * gaps)
    pieces = np.concatenate([[0], np.cumsum(apart)]).astype(np.int64)
    return pieces, at - np.concatenate([[0.0], half]), at + np.concatenate([half, [0.0]])


def looks(field: Field, every: Sequence[Tried], whole: bool = False) -> Steps[list[Look]]:
    """Every stroke played in all directions, to the first ball or to the end, in steps."""
    round_ = CAROM_ROUND if whole else ROUND
    at = [directions(field, tried, round_, 0 if whole else ACROSS) for tried in every]
    strokes = np.concatenate([np.repeat(t.stroke.array()[None], len(a), 0) for t, a in zip(every, at, strict=True)])
    played = field.played if whole else field.met
    out = yield from played(np.concatenate(at), strokes)
    ends = np.cumsum([0, *(len(each) for each in at)]).tolist()
    parts = (out.rows(first, beyond) for first, beyond in pairwise(ends))
    return [Look(tried, a, part) for tried, a, part in zip(every, at, parts, strict=True)]


def hits(field: Field, look: Look) -> list[Stretch]:
    """The stretches of a look in which a ball on is met first, over at most four rails.

    What is met off a jaw is part of a stretch beside it, and none of its own. With the cue raised the ball is met by a
    curve or over a rail: those are two lines, also side by side.
    """
    out = look.out
    wanted = np.isin(out.first, field.court.on) & (out.before_first <= MOST_RAILS)
    over = (out.before_first > 0) * (look.tried.stroke.elevation > 0.0)
    pieces, lows, highs = _edges(field, look)
    found, labels = [], 2 * (len(field.balls) + 1)
    for label, first, beyond in cut(np.where(wanted, labels * pieces + 2 * out.first + over, -1)):
        ball = label % labels // 2
        if out.jaw[first:beyond].all():
            continue
        name, low, high = field.name(ball), float(lows[first]), float(highs[beyond - 1])
        for rails, (a, b) in _ways(look, lows, highs, first, beyond):
            part = float(lows[a]), float(highs[b - 1])
            key, all_of_it = Key(_kind(field, look.tried, name, rails), name, rails_of(rails)), np.ones(beyond - first)
            found.append(Stretch(key, look.tried, low, high, part, look.at[first:beyond], all_of_it, name))
    return found


def _kind(field: Field, tried: Tried, target: str, rails: tuple[int, ...]) -> str:
    if rails:
        return "kick"
    if field.layout.touch(CUE, target):
        return KIND
    return "curve" if tried.stroke.elevation > 0.0 else "straight"


Way = tuple[tuple[int, ...], tuple[int, int]]


def _ways(look: Look, lows: Floats, highs: Floats, first: int, beyond: int) -> list[Way]:
    """The rails over which most of a run goes, off no jaw, which directions that is (from, beyond); and where it goes
    over a rail the part that is straight: a ball near a rail is met either way."""
    orders = look.out.cue_rails[first:beyond, :MOST_RAILS]
    runs = [(first + a, first + b) for _, a, b in cut(np.where(look.out.jaw[first:beyond] == 0, coded(orders), -1))]

    def wide(run: tuple[int, int]) -> float:
        return float(highs[run[1] - 1] - lows[run[0]])

    most = max(runs, key=wide)
    straight = [run for run in runs if run != most and look.out.before_first[run[0]] == 0]
    told = [most] if look.out.before_first[most[0]] == 0 else [most, *sorted(straight, key=wide)[-1:]]
    return [(tuple(int(rail) for rail in look.out.cue_rails[a, :MOST_RAILS] if rail >= 0), (a, b)) for a, b in told]
