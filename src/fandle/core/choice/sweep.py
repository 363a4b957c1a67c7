"""All directions of a stroke played once, and cut into stretches: straight shots, kicks, rail-first, flukes alike."""

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field, coded, rails_of
from fandle.core.choice.stretch import KIND, LEAST_PART_RAD, Key, Stretch, cut
from fandle.core.choice.strokes import Tried
from fandle.core.physics.batch import Outcomes
from fandle.core.steps import Steps
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

Floats = NDArray[np.float64]
Rails = tuple[Rail, ...]
ROUND = 1440  # directions round the circle, a quarter of a degree apart,
ROUND_GIVEN = 3600  # with the stroke given a tenth,
ACROSS = 40  # and so many across every ball on: a tenth of it may show
CAROM_ROUND = 2880
MOST_RAILS = 4
NEAREST = 4  # balls on that are pushed
SEEN = 0.5  # of the least width of a line: what looks so wide is cut sharply before it is told
BEYOND = 1.1  # ball widths either side of a ball on that are looked at closely


class Look(NamedTuple):
    """A stroke, the directions it was played in (rising), and what was met in each."""

    tried: Tried
    at: Floats
    out: Outcomes


def directions(field: Field, tried: Tried, round_: int, across: int) -> Floats:
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


def _round(tried: Tried) -> int:
    return ROUND_GIVEN if tried.lengths is None else ROUND


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


def looks(field: Field, every: Sequence[Tried], *, whole: bool = False) -> Steps[list[Look]]:
    """Every stroke played in all directions, to the first ball or to the end, in steps."""
    rounds = [(CAROM_ROUND, 0) if whole else (_round(tried), ACROSS) for tried in every]
    at = [directions(field, tried, *each) for tried, each in zip(every, rounds, strict=True)]
    strokes = np.concatenate([np.repeat(t.stroke.array()[None], len(a), 0) for t, a in zip(every, at, strict=True)])
    played = field.played if whole else field.met
    out = yield from played(np.concatenate(at), strokes)
    ends = np.cumsum([0, *(len(each) for each in at)]).tolist()
    parts = (out.rows(first, beyond) for first, beyond in pairwise(ends))
    return [Look(tried, a, part) for tried, a, part in zip(every, at, parts, strict=True)]


def hits(field: Field, look: Look) -> list[Stretch]:
    """The stretches of a look in which a ball on is met first, over at most four rails: one for each way there.

    A ball near a rail is met straight, off the rail and round the corner in one unbroken run of directions: each part
    of it over rails of its own is a line, with the room of the whole. What is met off a jaw belongs to the room, and
    is no line. With the cue raised the ball is met by a curve or over a rail: those are two runs, also side by side.
    """
    out = look.out
    wanted = np.isin(out.first, field.court.on) & (out.before_first <= MOST_RAILS)
    over = (out.before_first > 0) * (look.tried.stroke.elevation > 0.0)
    pieces, lows, highs = _edges(field, look)
    found, labels = [], 2 * (len(field.balls) + 1)
    for label, first, beyond in cut(np.where(wanted, labels * pieces + 2 * out.first + over, -1)):
        name, low, high = field.name(label % labels // 2), float(lows[first]), float(highs[beyond - 1])
        ways = _ways(look, lows, highs, first, beyond)
        for rails, part in ways.items():
            key, all_of_it = Key(_kind(field, look.tried, name, rails), name, rails), np.ones(beyond - first)
            also = tuple(other for other, (a, b) in ways.items() if other != rails and b - a >= LEAST_PART_RAD)
            found.append(Stretch(key, look.tried, low, high, part, look.at[first:beyond], all_of_it, name, also))
    return found


def _kind(field: Field, tried: Tried, target: str, rails: Rails) -> str:
    if rails:
        return "kick"
    if field.layout.touch(CUE, target):
        return KIND
    return "curve" if tried.stroke.elevation > 0.0 else "straight"


def _ways(look: Look, lows: Floats, highs: Floats, first: int, beyond: int) -> dict[Rails, tuple[float, float]]:
    """The orders of rails, off no jaw, over which a run goes, and the widest part of it over each, rad: widest first.

    Those that may be wide enough for a line: the looks tell a width to a step.
    """
    orders = look.out.cue_rails[first:beyond, :MOST_RAILS]
    parts: dict[Rails, tuple[float, float]] = {}
    for _, a, b in cut(np.where(look.out.jaw[first:beyond] == 0, coded(orders), -1)):
        rails, low, high = rails_of(orders[a].tolist()), float(lows[first + a]), float(highs[first + b - 1])
        known = parts.get(rails, (0.0, 0.0))
        if high - low >= max(SEEN * LEAST_PART_RAD, known[1] - known[0]):
            parts[rails] = (low, high)
    return dict(sorted(parts.items(), key=lambda each: each[1][0] - each[1][1]))
