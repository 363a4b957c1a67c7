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
from fandle.core.lines.marks import crossing, inset_of
from fandle.core.player.scatter import Player
from fandle.core.table.parameters import TABLE
from fandle.core.tablecheck.evidence import KINDS, SLOWEST_PART, Seen, aim_sd, off_words
from fandle.core.tablecheck.fit import NUMBERS
from fandle.core.tablecheck.miss import Miss, figures_of, seen_of

Floats = NDArray[np.float64]
Cause = Literal["mark", "speed", "side", "height", "table"]
CAUSES: tuple[Cause, ...] = ("mark", "speed", "side", "height", "table")
KIND_OF = {"speed": KINDS.speed, "side": KINDS.across, "height": KINDS.up, "mark": KINDS.direction}
LARGE = 3.0  # times the usual scatter: how large a cause may be when something went wrong
GRID = np.linspace(-4.0, 4.0, 33)  # of it
USUALLY = 0.6  # times the usual scatter: how much the other causes are left, where one is looked at
TABLES, TABLE_WIDE, MOST_PRIOR = 100, 1.5, 4.0  # drawn; times the uncertainty; prior standard deviations
LOST = 3.0  # diamonds: what goes over other rails is off by so much
LANDED, TOUCHED, STOPPED = 0.1, 0.05, 0.15  # diamonds: how well each is told
OWN_SCATTER = 2.0  # standard deviations of the landing: a miss within is no reason to change anything


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
        raise BadInputError(
            "this aim never comes off its last rail, or another ball is in its way: check rails, stroke and balls",
            "aim", code="no_line",
        )  # fmt: skip
    slopes = _slopes(miss, seen, player, table_rows)
    evidence, sizes = [], []
    for cause in CAUSES:
        log, size = _of_cause(miss, seen, player, table_rows, cause, (value, error))
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


def _noted(miss: Miss) -> tuple[Floats, Floats]:
    """(what was seen, how well): the landing, the contacts told, the stop."""
    contacts = [contact.at for contact in miss.touched]
    value = [miss.off, *contacts, *(miss.stopped or ())]
    error = [LANDED, *[TOUCHED] * len(contacts), *([] if miss.stopped is None else [STOPPED] * 2)]
    return np.array(value), np.array(error)


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
    miss: Miss, seen: Seen, player: Player, table_rows: Floats, cause: Cause, noted: tuple[Floats, Floats]
) -> tuple[float, float]:
    """(the log of the evidence for one cause being large, its likeliest size in usual standard deviations).

    The mean over a prior N(0, 3²) of the normal likelihood of what was seen, with the slopes of the other causes at
    each size. Of the table over tables drawn from its uncertainty, half as wide again: all its numbers are off at once.
    """
    steps = LARGE * GRID
    weights = np.exp(-0.5 * GRID**2)
    off, z = np.zeros((len(steps), len(KINDS))), np.zeros((len(steps), len(NUMBERS)))
    others: list[tuple[int, Floats]] = [(-1, row) for row in table_rows]
    if cause == "table":
        drawn = np.random.default_rng(0).standard_normal((TABLES, len(table_rows)))
        z = np.clip(TABLE_WIDE * drawn @ table_rows, -MOST_PRIOR, MOST_PRIOR)
        off, steps, weights = np.zeros((TABLES, len(KINDS))), np.linalg.norm(z, axis=1), np.ones(TABLES)
        others = []
    else:
        off[:, KIND_OF[cause]] = steps
    others += [(kind, np.zeros(len(NUMBERS))) for kind in KINDS if kind != KIND_OF.get(cause)]
    guess, slopes = _around(miss, seen, player, (off, z), others)
    apart = guess - noted[0]
    apart = np.where(np.isnan(apart), LOST, apart)
    spread = np.diag(noted[1] ** 2) + USUALLY**2 * np.einsum("nki,nkj->nij", slopes, slopes)
    log = -0.5 * np.einsum("ij,ijk,ik->i", apart, np.linalg.inv(spread), apart) - 0.5 * np.linalg.slogdet(spread)[1]
    log = log + np.log(weights / weights.sum())
    return float(np.logaddexp.reduce(log)), float(steps[int(np.argmax(log))])


def _around(
    miss: Miss, seen: Seen, player: Player, made_at: tuple[Floats, Floats], others: list[tuple[int, Floats]]
) -> tuple[Floats, Floats]:
    """(figures (n, f) of makings (n, 4) on tables (n, numbers), their slopes (n, k, f) with k other causes).

    A cause is a kind of error, or −1 and a row of the table's numbers.
    """
    off, z = made_at
    offs, tables = [off], [z]
    for kind, row in others:
        for sign in (0.5, -0.5):
            turned = off.copy()
            if kind >= 0:
                turned[:, kind] += sign
            offs.append(turned)
            tables.append(z + sign * row)
    found = figures_of(miss, seen, player, np.concatenate(offs), np.concatenate(tables))
    found = found.reshape(len(offs), len(off), -1)
    return found[0], np.swapaxes(np.nan_to_num(found[1::2] - found[2::2]), 0, 1)


def _sized(miss: Miss, player: Player, cause: Cause, size: float) -> tuple[float, str]:
    """(the size in the cause's own unit, in words)."""
    table = miss.layout.table
    if cause in KIND_OF and cause != "mark":
        say = off_words(KIND_OF[cause], size, player)
        if cause == "speed":
            return max(player.speed_part * size, SLOWEST_PART - 1.0), say
        return player.tip_mm * size / 1000 / table.ball_radius, say
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
