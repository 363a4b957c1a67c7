"""A table's own marks for the systems over three rails: where each really has to be aimed, start by start.

A system's sum is the same on every table; what lands is not. For a grid of starts and targets the mark that lands is
looked for by playing the marks around the counted one, with the system's own stroke; between those fitted it is
interpolated, as a player does who has shot the whole diamonds. Starts are told by where the line of the count, carried
back, leaves the table: diamonds along the rail the cue ball lies at, less than nothing along the head rail.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import Marks, direction_to, marks
from fandle.core.physics.arrive import Goal, arrive
from fandle.core.physics.batch import Strokes
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.systems import corner_numbers, equal_count_further, point_beyond, product, reference_lines
from fandle.core.systems.base import ON_RAIL, Count, Draft, Landing, Own, View
from fandle.core.systems.catalogue import METHODS, view_of
from fandle.core.systems.played import Aiming
from fandle.core.systems.symmetry import Turn
from fandle.core.systems.verdict import proved
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game, usual_target
from fandle.core.tablecheck.test_shot import CARRIED, moved

Floats = NDArray[np.float64]
OFF_RAIL = 0.4  # diamonds: how far off the rail the cue ball of a start lies
AROUND = 2.0  # diamonds to either side of the counted mark that are looked at
COARSE, FINE = 81, 9  # marks played over that, and over one step of it
LEAP = 0.6  # diamonds: two neighbouring marks that land further apart do not belong to one way
PASSES = 4  # to find the cue ball whose line leaves the table at a start


@dataclass(frozen=True)
class Kind:
    """What a system's own marks are fitted for. starts: see above; goals: places of the target along its `rail`.

    start_name, goal_name: these in the system's own numbers; start_word, goal_word: what those are called.
    """

    rail: Rail
    starts: tuple[float, ...]
    goals: tuple[float, ...]
    start_word: str
    start_name: Callable[[float], float]
    goal_word: str
    goal_name: Callable[[float], float]


def _plain(at: float) -> float:
    return at


def _third(x: float) -> float:
    return 10 * (8 - x)


_THIRDS = (7.0, 6.5, 6.0, 5.5, 5.0, 4.6, 3.4, 3.0, 2.5, 2.0)  # along near: the side pocket lies between
_ENDS = (0.4, 0.55, 0.8, 1.1, 1.5, 1.9, 2.2, 2.5, 2.7)  # along head: those its returns are known for among them
_SCORES = (3.5, 3.25, 3.0, 2.75, 2.5, 2.25, 2.0, 1.5, 1.0, 0.5)
KINDS: dict[str, Kind] = {
    corner_numbers.METHOD: Kind(
        Rail.NEAR, (-3.0, -2.5, -2.0, -1.5, -1.0, -0.5, 0.0, 0.5, 1.0, 1.5, 2.0, 3.0, 4.0), _THIRDS,
        "cue ball", lambda u: 50 - 5 * u if u >= 0 else 50 - 10 * u, "third rail", _third,
    ),
    point_beyond.METHOD: Kind(
        Rail.NEAR, (0.0, 0.5, 1.0, 1.5, 2.0, 3.0, 4.0), _THIRDS, "cue ball at", _plain, "third rail", _third
    ),
    reference_lines.METHOD: Kind(
        Rail.FAR, (-1.5, -1.0, -0.5, 0.0, 0.5, 1.0, 1.5, 2.0, 2.5, 3.0), (1.75, 1.5, 1.25, 1.0, 0.75, 0.5),
        "shift", _plain, "ends at", _plain,
    ),
    equal_count_further.METHOD: Kind(
        Rail.HEAD, (2.0, 2.5, 3.0, 3.5, 4.0, 4.5, 5.0, 5.5, 6.0, 6.5, 7.0), _ENDS, "cue ball at", _plain, "ends at",
        _plain,
    ),
    product.METHOD: Kind(
        Rail.HEAD, (0.0, 0.5, 1.0, 1.5, 2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.0), _SCORES,
        "cue ball", lambda u: 5 - u / 2, "scores", lambda y: 2 * (4 - y),
    ),
}  # fmt: skip


@dataclass(frozen=True)
class OwnMarks:
    """shift: (starts, goals) diamonds along the first rail from the counted mark to the one that lands, NaN for none;
    counted: the counted mark, and `own` its number in the system, NaN where it has none; frame: where it is read."""

    method: str
    frame: str
    shift: Floats
    counted: Floats
    own: Floats
    unit: float

    def shift_at(self, start: float, goal: float) -> float | None:
        """Interpolated, both ways; None outside the starts and goals fitted, or next to one that was not found."""
        kind = KINDS[self.method]
        i, a = _between(kind.starts, start)
        j, b = _between(kind.goals, goal)
        if i < 0 or j < 0:
            return None
        part = self.shift[i : i + 2, j : j + 2]
        value = (
            (1 - a) * (1 - b) * part[0, 0] + a * (1 - b) * part[1, 0] + (1 - a) * b * part[0, 1] + a * b * part[1, 1]
        )
        return None if math.isnan(value) else float(value)


def _between(places: tuple[float, ...], at: float) -> tuple[int, float]:
    """(which place is the one before, the share of the way to the next); −1 outside."""
    rising = places if places[0] < places[-1] else tuple(-place for place in places)
    value = at if places[0] < places[-1] else -at
    if not rising[0] <= value <= rising[-1]:
        return -1, 0.0
    k = min(int(np.searchsorted(rising, value, side="right")) - 1, len(rising) - 2)
    return k, (value - rising[k]) / (rising[k + 1] - rising[k])


def carrying(found: OwnMarks, table: Table, cue: Cue, carried: float) -> OwnMarks:
    """The same marks, every one of them moved by what a test shot found, diamonds longer; none past the rail's ends."""
    kind = KINDS[found.method]
    if not carried or found.method not in CARRIED:
        return found
    for start, goal in ((start, goal) for goal in kind.goals for start in kind.starts):
        case = case_of(table, found.method, start, goal, cue)
        if case is not None:
            view, draft = case
            place = view.target.x, view.target.y
            by = moved(Aiming(view.layout, view.rails, draft.frame, draft.stroke, place), view, draft, carried)
            if by:
                at = found.counted + found.shift + by
                return replace(
                    found, shift=np.where((at < 0.0) | (at > view.rail.diamonds), math.nan, found.shift + by)
                )
    return found


def start_of(view: View, draft: Draft) -> float:
    """Where the line of a count, carried back, leaves the table: along near, or less than nothing along head."""
    cue, rail = view.cue, view.rail
    back = view.sight[1 if rail.is_long else 0] if draft.frame == "sight" else 0.0
    ax, ay = rail.point(draft.base, rail.diamonds_across + back)  # far or foot, in the system's own frame
    slope = (ax - cue.x) / (ay - cue.y) if ay != cue.y else math.inf
    x = cue.x - cue.y * slope
    return x if x >= 0.0 else -(cue.y - cue.x / slope)


@lru_cache(maxsize=64)
def own_marks(table: Table, method: str, cue: Cue = IDEAL) -> OwnMarks | None:
    """The marks of one system on a table, played with this cue; None for a system that is not fitted or does not count
    on this table."""
    kind = KINDS.get(method)
    if kind is None:
        return None
    shape = len(kind.starts), len(kind.goals)
    shift, counted, own = (np.full(shape, math.nan) for _ in range(3))
    frame, unit = "", 1.0
    for j, goal in enumerate(kind.goals):
        cases = [
            (i, *case) for i, start in enumerate(kind.starts) if (case := case_of(table, method, start, goal, cue))
        ]
        for i, _, draft in cases:
            counted[i, j], frame = draft.base, draft.frame
            if draft.own is not None:
                own[i, j], unit = draft.own.number, draft.own.unit
        for i, by in zip([case[0] for case in cases], _shifts(table, [(v, d) for _, v, d in cases]), strict=True):
            shift[i, j] = by
    return None if np.isnan(shift).all() else OwnMarks(method, frame, shift, counted, own, unit)


def case_of(table: Table, method: str, start: float, goal: float, cue: Cue = IDEAL) -> tuple[View, Draft] | None:
    """The cue ball whose counted line leaves the table at a start, with the count; None where there is none."""
    kind, game = KINDS[method], usual_game(table)
    edge = table.ball_radius / (table.diamond_y if kind.rail.is_long else table.diamond_x)
    across = kind.rail.diamonds_across - edge if kind.rail.at_end else edge
    target = Ball(usual_target(table), *kind.rail.point(goal, across))
    along = start + OFF_RAIL if start >= 0.0 else start
    found: tuple[View, Draft] | None = None
    for _ in range(PASSES):
        place = (along, OFF_RAIL) if start >= 0.0 else (OFF_RAIL, -along)
        try:
            layout = Layout(table, game, (Ball("cue", *place), target), target.id).settled()
        except BadInputError:
            return None
        view = View(layout, METHODS[method].ORDERS[0], layout.ball(target.id), Turn(), cue)
        draft = METHODS[method].count(view)
        if not isinstance(draft, Draft):
            return None
        found = view, replace(draft, stroke=replace(draft.stroke, cue=cue))
        along += start - start_of(view, draft)
    return found


def _shifts(table: Table, cases: list[tuple[View, Draft]]) -> list[float]:
    """By how much each mark has to be moved to land on its target; NaN where none nearby does."""
    if not cases:
        return []
    by = np.linspace(-AROUND, AROUND, COARSE)
    found = [_crossing(by, off) for off in _landings(table, cases, np.tile(by, (len(cases), 1)))]
    step = by[1] - by[0]
    fine = np.array([each + np.linspace(-step, step, FINE) for each in found])
    open_ = [k for k, each in enumerate(found) if not math.isnan(each)]
    for k, off in zip(open_, _landings(table, [cases[k] for k in open_], fine[open_]), strict=True):
        better = _crossing(fine[k], off)
        found[k] = found[k] if math.isnan(better) else better
    return found


def _crossing(by: Floats, off: Floats) -> float:
    """Where the landing changes its sign nearest to the counted mark, by straight lines between; NaN for nowhere."""
    best = math.nan
    for a, b, low, high in zip(by[:-1], by[1:], off[:-1], off[1:], strict=True):
        if low * high <= 0.0 and abs(high - low) < LEAP:  # NaN is neither
            here = a if high == low else a - low * (b - a) / (high - low)
            best = here if math.isnan(best) or abs(here) < abs(best) else best
    return float(best)


def _landings(table: Table, cases: list[tuple[View, Draft]], by: Floats) -> Floats:
    """(cases, marks) how far off their common target the marks, moved by `by`, land, diamonds; NaN for not there."""
    out = np.full(by.shape, math.nan)
    places, directions, strokes, starts = [], [], [], []
    for k, (view, draft) in enumerate(cases):
        start = view.layout.metres(view.cue)
        for n, at in enumerate((draft.base + by[k]).tolist()):
            if 0.0 <= at <= view.rail.diamonds:
                places.append((k, n))
                directions.append(direction_to(table, view.rail, start, at, draft.frame))
                strokes.append(draft.stroke.array())
                starts.append(start)
    if not places:
        return out
    first, last = cases[0][0], cases[0][0].rails[-1]
    rows = Strokes(np.array(directions), np.array(strokes), np.array(starts), np.zeros(len(places), np.int64))
    goal = Goal(*first.layout.metres(first.target), 0 if last.is_long else 1)
    came = arrive(rows, table.params(), np.array([rail.number for rail in first.rails]), goal)
    out[tuple(np.array(places).T)] = came.off / (table.diamond_x if last.is_long else table.diamond_y)
    return out


@dataclass(frozen=True)
class Tuned:
    """A count's aim on this table by the table's own marks: in every frame, in the system's numbers, how it lands.

    carried: diamonds longer that a test shot added; then `lands` is by the numbers of the table, without what it found.
    """

    aim: Marks
    own: Own | None
    at: float
    lands: Landing
    carried: float = 0.0


def tuned(layout: Layout, count: Count, carried: float = 0.0) -> Tuned | None:
    """What the table's own marks make of a count; None where there are none, it lies outside, or does not come.

    carried: what a test shot found, diamonds longer, for the systems it is carried to.
    """
    settled = layout.settled()
    target = settled.require_target()
    found = own_marks(settled.table, count.method, count.stroke.cue)
    view = view_of(count.method, settled, count.rails, target, count.stroke.cue)
    draft = None if view is None else METHODS[count.method].count(view)
    if found is None or view is None or not isinstance(draft, Draft):
        return None
    carried = carried if count.method in CARRIED else 0.0
    fitted = _fitted(found, view, draft)
    if fitted is None and not carried:
        return None
    rail, aiming = count.rails[0], Aiming(settled, count.rails, draft.frame, count.stroke, (target.x, target.y))
    shift = (fitted or 0.0) + moved(aiming, view, draft, carried)
    at = view.turn.at(view.rail, draft.base + shift)
    if not 0.0 <= at <= rail.diamonds:
        return None
    direction, _, lands = aiming.play(at)
    if lands is None:  # a jaw or a pocket lies between two marks that land
        return None
    own = None if draft.own is None else Own(draft.own.number + shift / draft.own.unit, draft.own.unit)
    played = proved(settled, replace(count, direction=direction, lands=lands), target)
    return Tuned(marks(settled.table, rail, settled.metres(settled.cue), direction), own, at, played, carried)


def _fitted(found: OwnMarks, view: View, draft: Draft) -> float | None:
    """The move of a count's mark by the table's own marks; None outside what they are fitted for."""
    kind = KINDS[found.method]
    if view.off(view.target, kind.rail) > ON_RAIL:
        return None
    return found.shift_at(start_of(view, draft), kind.rail.along(view.target.x, view.target.y))
