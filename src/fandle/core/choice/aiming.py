"""Where in a stretch to aim, and what is read there: the mark, how full the ball is hit, what the room is."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.error import Marked, spreads
from fandle.core.choice.field import Field
from fandle.core.choice.judge import judge, pocket_number
from fandle.core.choice.stretch import Stretch, cut, over_own, reached
from fandle.core.lines.marks import crossing, direction_to, markable
from fandle.core.lines.question import Question
from fandle.core.physics.batch import Outcomes
from fandle.core.physics.judge import measure
from fandle.core.physics.roots import find_root
from fandle.core.player.scatter import Player
from fandle.core.steps import Steps

Floats = NDArray[np.float64]
PLATEAU = 0.005  # chances this near to the best are the best: the middle of them is aimed at
AS_GOOD = 0.02  # a full hit, else a plain mark, is aimed at where it costs no more than this
MORE_AIMS = 3  # other places in a stretch that are tried where what is left counts
WINDOW_EDGE_RAD = 1e-5  # how sharply the ends of a window are told: a hundredth of a millimetre at a metre
WITH_MARK = ("kick", "rail-first", "point")


@dataclass(frozen=True)
class Aimed:
    """A stretch and the direction in it to aim along (rad), the mark aimed at, and the chance by estimate."""

    stretch: Stretch
    direction: float
    marked: Marked | None
    estimate: float


def aimed(field: Field, stretch: Stretch, player: Player) -> Aimed:
    """Aim where the chance is best by estimate: full where that is as good, else at a plain mark, else in the middle.

    Marks that are seen best count as what they are: a diamond inside the room may be worth more than its middle.
    """
    table = field.layout.table
    at = _at(stretch)
    aims = np.concatenate([at, _plain_marks(field, stretch)])
    full = _full(field, stretch) if stretch.key.pocket is None and stretch.key.kind != "point" else None
    if full is not None:
        aims = np.append(aims, full)
    rail = stretch.key.aimed[0] if stretch.key.kind in WITH_MARK and stretch.key.aimed else None
    sigmas = spreads(table, player, rail, field.start, aims)
    chance = reached(stretch, aims, sigmas)
    best = float(chance.max())
    if full is not None and chance[-1] >= best - AS_GOOD:
        return Aimed(stretch, full, mark_of(field, stretch, full), float(chance[-1]))
    first, last = len(at), len(aims) - (full is not None)
    if last > first and chance[first:last].max() >= best - AS_GOOD:
        place = first + int(np.argmax(chance[first:last]))
        return Aimed(stretch, float(aims[place]), mark_of(field, stretch, float(aims[place])), float(chance[place]))
    plateau = np.flatnonzero(chance >= best - PLATEAU)
    middle = float(np.sort(aims[plateau])[len(plateau) // 2])
    return Aimed(stretch, middle, mark_of(field, stretch, middle), best)


def aimed_apart(field: Field, stretch: Stretch, player: Player) -> list[Aimed]:
    """The same, and the middles of a few other runs of directions that serve.

    What is left for the opponent may change from one direction to the next: which place is best only playing tells.
    """
    first, at = aimed(field, stretch, player), stretch.at
    runs = [(a, b) for _, a, b in cut(np.where(stretch.good > 0.0, 0, -1))]
    others = [(a, b) for a, b in runs if not at[a] <= first.direction <= at[b - 1]]
    others.sort(key=lambda run: -float(stretch.good[slice(*run)].sum()))
    found = [first]
    for a, b in others[:MORE_AIMS]:
        middle = float(at[(a + b) // 2])
        found.append(Aimed(stretch, middle, mark_of(field, stretch, middle), first.estimate))
    return found


def _at(stretch: Stretch) -> Floats:
    """The directions that may be aimed along: those looked at; of a hit those over the line's own rails, and that come
    to something where any does."""
    if not stretch.key.by_rails:
        return stretch.at
    low, high = stretch.part
    own = (low < stretch.at) & (stretch.at < high) if stretch.own is None else stretch.own
    both = own & (stretch.good > 0.0)
    inside = stretch.at[both if both.any() else own]
    return inside if inside.size else np.array([0.5 * (low + high)])


def _plain_marks(field: Field, stretch: Stretch) -> Floats:
    """The directions inside a stretch of the marks on diamonds, halves and quarters of its first rail."""
    key, table = stretch.key, field.layout.table
    if key.kind not in WITH_MARK or not key.aimed:
        return np.empty(0)
    rail = key.aimed[0]
    ends = sorted(crossing(table, rail, field.start, at, 0.0) for at in (stretch.low, stretch.high))
    if not (markable(rail, ends[0]) and markable(rail, ends[1])):
        return np.empty(0)
    marks = np.arange(math.ceil(4 * ends[0]), math.floor(4 * ends[1]) + 1) / 4
    found = [direction_to(table, rail, field.start, mark, "nose") for mark in marks.tolist()]
    turned = stretch.middle + np.array([math.remainder(at - stretch.middle, 2 * math.pi) for at in found])
    own = _at(stretch)
    low, high = (own.min(), own.max()) if key.by_rails else (stretch.low, stretch.high)
    inside: Floats = turned[(turned > low) & (turned < high)]
    return inside


def mark_of(field: Field, stretch: Stretch, direction: float) -> Marked | None:
    """The mark a kick is aimed at; straight shots are aimed at the ball."""
    key, table = stretch.key, field.layout.table
    if key.kind not in WITH_MARK or not key.aimed:
        return None
    return Marked(key.aimed[0], crossing(table, key.aimed[0], field.start, direction, 0.0), field.start)


def _full(field: Field, stretch: Stretch) -> float | None:
    """The direction that meets the target full over the key's own rails; None where that is hidden."""
    low, high = stretch.part
    if not low < high:
        return None
    table, key = field.layout.table, stretch.key
    scene = Question(field.layout, key.target, key.rails, 0.0).scene(table, stretch.tried.stroke)
    inside = 0.01 * (high - low)
    f_low, f_high = measure(low + inside, scene), measure(high - inside, scene)
    if math.isnan(f_low) or math.isnan(f_high) or f_low * f_high > 0.0:
        return None
    full = float(find_root(low + inside, f_low, high - inside, f_high, 0.0, scene))
    own = _at(stretch)  # what is met there is known between two looks only
    return full if own.min() <= full <= own.max() else None


def sharpened(field: Field, every: Sequence[Aimed]) -> Steps[list[Aimed]]:
    """The same with the ends of their windows cut sharply, and of their own parts, all of them together, in steps."""
    good = np.repeat([a.direction for a in every], 2).astype(float)
    # the first guess is the cell's own edge, which may lie on either side of the end
    ends = np.array([[a.stretch.low, a.stretch.high] for a in every]).reshape(-1)
    cell = np.array([_cell(a.stretch) for a in every]).repeat(2)
    way = np.tile([-1.0, 1.0], len(every))
    inner = ends - way * cell
    ends = yield from _cut(
        field, every, np.where((inner - good) * way > 0.0, inner, good), ends + way * cell, own=False
    )
    wide = [replace(a.stretch, low=float(lo), high=float(hi)) for a, (lo, hi) in zip(every, _pairs(ends), strict=True)]
    whole = [replace(a, stretch=s) for a, s in zip(every, wide, strict=True)]
    own = [place for place, a in enumerate(whole) if a.stretch.key.by_rails]
    if own:
        parts = yield from _own_parts(field, [whole[place] for place in own])
        for place, part in zip(own, parts, strict=True):
            whole[place] = replace(whole[place], stretch=replace(wide[place], part=part))
    return whole


def _own_parts(field: Field, every: Sequence[Aimed]) -> Steps[list[tuple[float, float]]]:
    """Where each line's own part of its window begins and ends, from its aim outwards."""
    good = np.repeat([a.direction for a in every], 2).astype(float)
    cell = np.array([_cell(a.stretch) for a in every]).repeat(2)
    way = np.tile([-1.0, 1.0], len(every))
    parts = np.array([a.stretch.part for a in every]).reshape(-1)
    edges = np.array([[a.stretch.low, a.stretch.high] for a in every]).reshape(-1)
    # no further than the window goes; inside the part all goes its way, but for the last look
    inner = np.where((parts - way * cell - good) * way > 0.0, parts - way * cell, good)
    bad = np.where((parts + way * cell - edges) * way > 0.0, edges + way * WINDOW_EDGE_RAD, parts + way * cell)
    ends = yield from _cut(field, every, inner, bad, own=True)
    return _pairs(ends)


def _pairs(ends: Floats) -> list[tuple[float, float]]:
    return [(float(low), float(high)) for low, high in ends.reshape(-1, 2)]


def _cut(field: Field, every: Sequence[Aimed], good: Floats, bad: Floats, *, own: bool) -> Steps[Floats]:
    """Where what is wanted ends between directions that come to it and some that do not, two for each aim, rad.

    own: is only what goes over the line's own rails wanted?
    """
    strokes = np.repeat([a.stretch.tried.stroke.array() for a in every], 2, axis=0).reshape(-1, 5)
    while (wide := np.flatnonzero(np.abs(good - bad) > WINDOW_EDGE_RAD)).size:
        middle = 0.5 * (good[wide] + bad[wide])
        yes = yield from _wanted(field, every, wide // 2, middle, strokes[wide], own=own)
        good[wide[yes]], bad[wide[~yes]] = middle[yes], middle[~yes]
    return good


def _cell(stretch: Stretch) -> float:
    return float(np.median(np.diff(stretch.at))) if len(stretch.at) > 1 else max(stretch.wide, 10 * WINDOW_EDGE_RAD)


def _wanted(
    field: Field, every: Sequence[Aimed], rows: NDArray[np.int64], at: Floats, strokes: Floats, *, own: bool
) -> Steps[NDArray[np.bool_]]:
    """Does each direction come to what its stretch is about?"""
    keys = [every[row].stretch.key for row in rows]
    target = np.array([field.number(key.target) for key in keys])
    if keys[0].pocket is None and keys[0].kind != "point":
        out: Outcomes = yield from field.met(at, strokes)
        met = np.asarray(out.first == target, np.bool_)
        return met & over_own(keys, out) if own else met
    out = yield from field.played(at, strokes)
    pocket = np.array([pocket_number(key.pocket) for key in keys])
    verdicts = judge(field.court, out, target, pocket)
    if keys[0].kind == "point":
        return verdicts.legal
    down = ((out.down == target[:, None]) & (out.pockets == pocket[:, None])).any(axis=1)
    return np.asarray(verdicts.pot & down, np.bool_)
