"""Inside a stretch of hits: which directions are legal, and which pot what."""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field, coded, rails_of
from fandle.core.choice.freezes import pushed, steadiest
from fandle.core.choice.judge import Verdicts, judge, pocket_number
from fandle.core.choice.stretch import Key, Stretch, cut, over_own
from fandle.core.choice.sweep import MOST_RAILS
from fandle.core.physics.batch import Outcomes
from fandle.core.steps import Steps
from fandle.core.table.pocket import POCKET_NAMES

Floats = NDArray[np.float64]
LOOKS = 16  # directions played to the end in a stretch of hits
FINE_LOOKS = 24  # and where what is wanted depends on how full the ball is hit
POT_RAD = math.radians(0.03)  # a pot may be no wider than that
MOST_POT_LOOKS, MOST_PLAIN_LOOKS = 128, 512  # a plain straight shot is where combinations over rails are found
MOST_POT_RAILS = 3


def _inside(stretch: Stretch, looks: int) -> Floats:
    """So many directions evenly inside a stretch, none on its edge."""
    return _evenly(stretch.low, stretch.high, looks)


def _evenly(low: float, high: float, looks: int) -> Floats:
    return low + (high - low) * (np.arange(looks) + 0.5) / looks


def _inside_both(stretch: Stretch, looks: int) -> Floats:
    """The same, rising, and half as many more inside a part that is narrow: it is where the line is aimed."""
    (low, high), whole = stretch.part, _inside(stretch, looks)
    if high - low > 0.5 * stretch.wide:
        return whole
    return np.sort(np.concatenate([whole, _evenly(low, high, looks // 2)]))


def _played(field: Field, every: Sequence[Stretch], at: Sequence[Floats]) -> Steps[list[Outcomes]]:
    """The directions of each stretch played to the end with its own stroke."""
    if not every:
        return []
    strokes = [np.repeat(s.tried.stroke.array()[None], len(a), axis=0) for s, a in zip(every, at, strict=True)]
    out = yield from field.played(np.concatenate(at), np.concatenate(strokes))
    ends = np.cumsum([0, *(len(each) for each in at)]).tolist()
    return [out.rows(first, beyond) for first, beyond in pairwise(ends)]


Worth = Callable[[Key, Verdicts, Floats], Floats]  # of strokes, by their verdicts and where all balls stop


def good_inside(
    field: Field, every: Sequence[Stretch], looks: int, worth: Worth, *, whatever: bool
) -> Steps[list[Stretch]]:
    """The same stretches with what each direction in them is worth, and soft pushes among them, in steps.

    whatever: also those in which nothing is worth anything.
    """
    at = [_inside_both(stretch, looks) for stretch in every]
    found = yield from _played(field, every, at)
    kept, pushes = [], []
    for s, a, out in zip(every, at, found, strict=True):
        good = worth(s.key, judge(field.court, out, -1, -1), out.rests)
        yield
        if good.any() or s.key.open_shot or whatever:
            own = (out.first == field.number(s.met)) & over_own([s.key] * len(a), out)
            kept.append(replace(s, at=a, good=good, own=own))
            if s.tried.crawls and good.any():
                pushes.append(pushed(field, kept[-1], out.rests))
    return [*kept, *steadiest(pushes)]


def pots_inside(field: Field, every: Sequence[Stretch], pocket: str | None, worth: Worth) -> Steps[list[Stretch]]:
    """The stretches in which a ball that counts is potted, in steps. pocket: the one called; None for any."""
    short = _once_a_run([s for s in every if len(s.key.rails) <= MOST_POT_RAILS])
    at = [_inside(s, min(_most_looks(s), max(LOOKS, math.ceil(s.wide / POT_RAD)))) for s in short]
    found = yield from _played(field, short, at)
    pots: list[Stretch] = []
    for stretch, a, out in zip(short, at, found, strict=True):
        pots += _pots(field, stretch, a, out, pocket, worth)
    return pots


def _once_a_run(every: Sequence[Stretch]) -> list[Stretch]:
    """Of the lines of one run of hits the one over fewest rails: what is potted in it is looked for once."""
    runs: dict[object, Stretch] = {}
    for s in sorted(every, key=lambda s: len(s.key.rails)):
        runs.setdefault((s.tried, s.met, s.low, s.high), s)
    return list(runs.values())


def _most_looks(stretch: Stretch) -> int:
    plain = not stretch.key.rails and stretch.tried.stroke.side == 0.0
    return MOST_PLAIN_LOOKS if plain else MOST_POT_LOOKS


def _pots(field: Field, stretch: Stretch, at: Floats, out: Outcomes, pocket: str | None, worth: Worth) -> list[Stretch]:
    """The runs of directions of one stretch that send one ball over one way into one pocket.

    A kick that sends another ball down than the one it meets is luck, and no line.
    """
    ball, into = _counted(field, out)
    if pocket is not None:
        ball = np.where(into == pocket_number(pocket), ball, 0)
    own = ball == out.first
    banked = np.where(own, np.minimum((out.first_rails >= 0).sum(axis=1), out.rails_after[np.arange(len(at)), ball]), 0)
    order = coded(out.first_rails) * (banked > 0)
    before = coded(out.cue_rails[:, :MOST_RAILS]) * (out.before_first > 0)
    label = ((ball * 6 + into) * 200 + order) * 1000 + before
    cells = np.concatenate([[stretch.low], 0.5 * (at[1:] + at[:-1]), [stretch.high]])
    found = []
    for _, a, b in cut(np.where((ball > 0) & (own | (out.before_first == 0)), label, -1)):
        name, met = field.name(int(ball[a])), field.name(int(out.first[a]))
        rails = rails_of(out.cue_rails[a, : out.before_first[a]].tolist())
        kind = _kind(stretch, own=name == met, rails=rails, banked=int(banked[a]))
        told = rails_of(out.first_rails[a].tolist()) if kind == "bank" else rails
        key = Key(kind, name, told, POCKET_NAMES[int(into[a])])
        good = worth(key, judge(field.court, out, ball, into), out.rests)[a:b]
        low, high = float(cells[a]), float(cells[b])
        found.append(Stretch(key, stretch.tried, low, high, (low, high), at[a:b], good, met))
    return found


def _kind(stretch: Stretch, *, own: bool, rails: tuple[object, ...], banked: int) -> str:
    """What a pot is called: a bank where the ball itself goes over rails and the cue ball did not."""
    if rails:
        return "kick"
    if not own:
        return "combination"
    return "bank" if banked else stretch.key.kind


def _counted(field: Field, out: Outcomes) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """(ball, pocket) of the first one down that counts by the game, row by row; 0 where none does.

    A called ball is one that is on, where the lowest must be met first any: a combination may go by way of another.
    """
    rows = np.arange(len(out.code))
    counts = out.down > 0
    if field.court.rules.order != "lowest":
        counts &= np.isin(out.down, field.court.on)
    place = np.argmax(counts, axis=1)
    some = counts.any(axis=1)
    return np.where(some, out.down[rows, place], 0), np.where(some, out.pockets[rows, place], 0)
