"""What was the miss? Which one thing made otherwise than meant explains best what was seen of a shot.

One cause at a time is let be large (mark, speed, side, height, the table), the others stay as they usually are; each is
weighed by how well it predicts where the ball came, under the player's scatter and the table's uncertainty.
"""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing, diamond_along, inset_of
from fandle.core.physics.trace import Line, trace
from fandle.core.player.scatter import Player
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.table.parameters import TABLE
from fandle.core.table.rails import Contact, Rail
from fandle.core.tablecheck.evidence import KINDS, Seen, aim_sd, made, predicted
from fandle.core.tablecheck.fit import NUMBERS, moved
from fandle.core.tablecheck.shots import Setup

Floats = NDArray[np.float64]
Cause = Literal["mark", "speed", "side", "height", "table"]
CAUSES: tuple[Cause, ...] = ("mark", "speed", "side", "height", "table")
KIND_OF = {"speed": KINDS.speed, "side": KINDS.across, "height": KINDS.up, "mark": KINDS.direction}
LARGE = 3.0  # times the usual scatter: how large a cause may be when something went wrong
GRID = np.linspace(-4.0, 4.0, 33)  # of it
USUALLY = 0.6  # times the usual scatter: how much the other causes are left, where one is looked at
TABLES, TABLE_WIDE, MOST_PRIOR = 160, 1.5, 4.0  # drawn; times the uncertainty; prior standard deviations
SOME = 0.4  # diamonds: "short" or "long" without a figure
LOST = 3.0  # diamonds: what goes over other rails is off by so much
LANDED, TOUCHED, STOPPED = 0.1, 0.05, 0.15  # diamonds: how well each is told
OWN_SCATTER = 2.0  # standard deviations of the landing: a miss within is no reason to change anything


@dataclass(frozen=True)
class Miss:
    """A shot as it was meant, and what was seen of it.

    off: diamonds along the line through the target, long positive; touched: contacts with the rails in order; stopped:
    diamonds. direction: of the cue, rad.
    """

    layout: Layout
    rails: tuple[Rail, ...]
    stroke: Stroke
    direction: float
    off: float
    touched: tuple[Contact, ...] = ()
    stopped: tuple[float, float] | None = None


@dataclass(frozen=True)
class Suspect:
    """A cause, its share of the likelihood, how large it was: diamonds of the mark, a share of the speed, radii."""

    cause: Cause
    share: float
    size: float
    say: str


@dataclass(frozen=True)
class Diagnosis:
    """The causes, likeliest first.

    scatter: of this player's landings in this shot, diamonds; typical: is the miss within twice that? slope: by how
    many diamonds the landing moves with one of the mark; per_speed: with the whole speed more; per_side: with a radius.
    """

    suspects: tuple[Suspect, ...]
    scatter: float
    typical: bool
    slope: float
    per_speed: float
    per_side: float


def diagnose(miss: Miss, player: Player) -> Diagnosis:
    """Weigh the causes. Raises BadInputError where the shot never comes off its last rail."""
    seen = seen_of(miss)
    value, error = _noted(miss)
    table_rows = _spreads(miss)
    meant = figures_of(miss, seen, player, np.zeros((1, len(KINDS))), np.zeros((1, len(NUMBERS))))[0]
    if math.isnan(meant[0]):
        raise BadInputError("this aim never comes off its last rail: check rails and stroke", "aim", code="no_line")
    slopes = _slopes(miss, seen, player, table_rows)
    base = np.diag(error**2)
    evidence, sizes = [], []
    for cause in CAUSES:
        others = [USUALLY * slope for name, some in slopes.items() if name != cause for slope in some]
        spread = base + sum((np.outer(slope, slope) for slope in others), np.zeros_like(base))
        log, size = _of_cause(miss, seen, player, table_rows, cause, value, spread)
        evidence.append(log)
        sizes.append(size)
    shares = np.exp(np.array(evidence) - max(evidence))
    shares /= shares.sum()
    found = [
        Suspect(cause, float(share), *_sized(miss, player, cause, size))
        for cause, share, size in zip(CAUSES, shares, sizes, strict=True)
    ]
    every = [float(slope[0]) for name, some in slopes.items() if name != "table" for slope in some]
    scatter = math.hypot(*every)
    return Diagnosis(
        tuple(sorted(found, key=lambda each: -each.share)), scatter, abs(miss.off) <= OWN_SCATTER * scatter,
        _mark_slope(miss, slopes["mark"][0][0], player), float(slopes["speed"][0][0]) / player.speed_part,
        float(slopes["side"][0][0]) / (player.tip_mm / 1000 / miss.layout.table.ball_radius),
    )  # fmt: skip


def seen_of(miss: Miss) -> Seen:
    """The shot as meant, with what was told of it."""
    layout = miss.layout
    setup = Setup("shot", "shot", layout, miss.stroke, miss.direction, miss.rails)
    touched = miss.touched or (Contact(miss.rails[0], 0.0),)
    return Seen(setup, touched, miss.stopped)


def _noted(miss: Miss) -> tuple[Floats, Floats]:
    """(what was seen, how well): the landing, the contacts told, the stop."""
    contacts = [contact.at for contact in miss.touched]
    value = [miss.off, *contacts, *(miss.stopped or ())]
    error = [LANDED, *[TOUCHED] * len(contacts), *([] if miss.stopped is None else [STOPPED] * 2)]
    return np.array(value), np.array(error)


def _line(miss: Miss) -> tuple[Line, float, float]:
    """(the line along which short and long are read, where the target lies on it in m, one diamond in m)."""
    table, last = miss.layout.table, miss.rails[-1]
    x, y = miss.layout.metres(miss.layout.require_target())
    axis = 0 if last.is_long else 1
    return Line(axis, y if axis == 0 else x, len(miss.rails)), x if axis == 0 else y, diamond_along(table, last)


def figures_of(miss: Miss, seen: Seen, player: Player, off: Floats, z: Floats) -> Floats:
    """What each making of the shot (n, 4), on each table (n, numbers moved), would show: (n, figures)."""
    table, n = miss.layout.table, len(off)
    line, goal, unit = _line(miss)
    moves, which = np.unique(z, axis=0, return_inverse=True)
    tables = [table if not row.any() else moved(table, row) for row in moves]
    every = [seen] * n
    rows = made(every, player, off, which.reshape(-1).astype(np.int64))
    found = trace(rows, np.array([each.params() for each in tables]), line)
    legs = found.at[:, len(miss.rails) - 1, line.axis]
    travel = np.where(found.crossed >= legs, 1.0, -1.0)
    same = np.array([_same_rails(miss, row) for row in found.rails])
    landed = np.where(same, travel * (found.crossed - goal) / unit, np.nan)
    rest = predicted(every, found, table)
    columns = [landed[:, None]]
    if miss.touched:
        columns.append(np.array([row[: len(miss.touched)] for row in rest]))
    if miss.stopped is not None:
        columns.append(np.array([row[-2:] for row in rest]))
    return np.concatenate(columns, axis=1)


def _same_rails(miss: Miss, rails: NDArray[np.int64]) -> bool:
    order = tuple(Rail)
    return tuple(order[number] for number in rails[: len(miss.rails)] if number >= 0) == miss.rails


def _spreads(miss: Miss) -> Floats:
    """The table's numbers that are uncertain, each direction of their covariance a row, in prior deviations."""
    fitted = miss.layout.table.fitted
    if fitted is None:
        return np.eye(len(NUMBERS))
    scale = np.array([TABLE[name].prior_sd or 1.0 for name in fitted.names])
    matrix = np.array(fitted.covariance) / scale[:, None] / scale[None, :]
    weights, axes = np.linalg.eigh(matrix)
    rows = (axes * np.sqrt(np.clip(weights, 0.0, None))).T
    found = np.zeros((len(rows), len(NUMBERS)))
    for j, name in enumerate(fitted.names):
        if name in NUMBERS:
            found[:, NUMBERS.index(name)] = rows[:, j]
    return found


def _slopes(miss: Miss, seen: Seen, player: Player, table_rows: Floats) -> dict[Cause, list[Floats]]:
    """By how much what is seen moves with one usual standard deviation of each cause (of the table with each row)."""
    k, r = len(KINDS), len(table_rows)
    off, z = np.zeros((2 * (k + r), k)), np.zeros((2 * (k + r), len(NUMBERS)))
    for j in range(k):
        off[2 * j, j], off[2 * j + 1, j] = 0.5, -0.5
    for j, row in enumerate(table_rows):
        z[2 * (k + j)], z[2 * (k + j) + 1] = 0.5 * row, -0.5 * row
    found = figures_of(miss, seen, player, off, z)
    slope = np.nan_to_num(found[::2] - found[1::2])
    causes: dict[Cause, list[Floats]] = {name: [slope[kind]] for name, kind in KIND_OF.items()}  # type: ignore[misc]
    causes["table"] = list(slope[k:])
    return causes


def _of_cause(
    miss: Miss, seen: Seen, player: Player, table_rows: Floats, cause: Cause, value: Floats, spread: Floats
) -> tuple[float, float]:
    """(the log of the evidence for one cause being large, its likeliest size in usual standard deviations).

    The mean over a prior N(0, 3²) of the normal likelihood of what was seen. Of the table over tables drawn from its
    uncertainty, half as wide again: all its numbers are off at once.
    """
    steps = LARGE * GRID
    weights = np.exp(-0.5 * GRID**2)
    off, z = np.zeros((len(steps), len(KINDS))), np.zeros((len(steps), len(NUMBERS)))
    if cause == "table":
        drawn = np.random.default_rng(0).standard_normal((TABLES, len(table_rows)))
        z = np.clip(TABLE_WIDE * drawn @ table_rows, -MOST_PRIOR, MOST_PRIOR)
        off, steps, weights = np.zeros((TABLES, len(KINDS))), np.linalg.norm(z, axis=1), np.ones(TABLES)
    else:
        off[:, KIND_OF[cause]] = steps
    apart = figures_of(miss, seen, player, off, z) - value
    apart = np.where(np.isnan(apart), LOST, apart)
    inverse = np.linalg.inv(spread)
    log = -0.5 * np.einsum("ij,jk,ik->i", apart, inverse, apart) - 0.5 * np.linalg.slogdet(spread)[1]
    log = log + np.log(weights / weights.sum())
    return float(np.logaddexp.reduce(log)), float(steps[int(np.argmax(log))])


def _sized(miss: Miss, player: Player, cause: Cause, size: float) -> tuple[float, str]:
    """(the size in the cause's own unit, in words)."""
    table = miss.layout.table
    if cause == "speed":
        part = max(player.speed_part * size, -0.8)
        return part, f"{abs(part):.0%} {'firmer' if part > 0 else 'softer'} than meant"
    if cause in ("side", "height"):
        tip = player.tip_mm * size
        way = ("right" if tip > 0 else "left") if cause == "side" else ("higher" if tip > 0 else "lower")
        return tip / 1000 / table.ball_radius, f"the tip {abs(tip):.1f} mm {'to the ' if cause == 'side' else ''}{way}"
    if cause == "table":
        return size, "the table plays otherwise than its numbers say"
    seen = seen_of(miss)
    turned = miss.direction + aim_sd(seen.setup, player) * size
    rail, cue = miss.rails[0], miss.layout.metres(miss.layout.cue)
    marks = [crossing(table, rail, cue, at, inset_of(table, "nose")) for at in (miss.direction, turned)]
    by = marks[1] - marks[0]
    return by, f"the mark met {abs(by):.2f} {'further' if by > 0 else 'nearer'} than aimed"


def _mark_slope(miss: Miss, per_sd: float, player: Player) -> float:
    """By how many diamonds the landing moves with a diamond of the mark."""
    by, _ = _sized(miss, player, "mark", 1.0)
    return per_sd / by if by else math.nan


def off_when_met(layout: Layout, rails: tuple[Rail, ...], stroke: Stroke, direction: float, side: str) -> float:
    """How far a hit on the "left" or "right" half of the ball passed its middle, along the target's line, diamonds.

    A half-ball hit is meant: the way passes R beside the centre, so −R/u_y along x, R/u_x along y, u the unit of the
    last leg, R positive to its left. Raises BadInputError where the shot never comes off its last rail.
    """
    way = approach(layout, stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
    legs = [piece for piece in way.pieces if piece.leg == len(rails)]
    if not legs:
        raise BadInputError("this aim never comes off its last rail: check rails and stroke", "aim", code="no_line")
    ux, uy = math.cos(legs[-1].heading), math.sin(legs[-1].heading)
    beside = {"left": 1.0, "right": -1.0}.get(side, 0.0) * layout.table.ball_radius
    along, travel = (-beside / uy, ux) if rails[-1].is_long else (beside / ux, uy)
    return math.copysign(1.0, travel) * along / diamond_along(layout.table, rails[-1])
