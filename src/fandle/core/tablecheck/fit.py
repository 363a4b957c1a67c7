"""What a few shots say of a table: its numbers, how sure they are, and which shot does not fit the others.

Unknown are the numbers of cloth and rubber, each with its prior from the registry, and of every single shot how it was
really made (speed, tip, aim), with the player's scatter as prior. The likeliest of all of them together is found by
least squares on the engine; its curvature says how sure each is. A wild landing pulls with bounded force (soft L1), at
last with hardly any (Cauchy).
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import accumulate, pairwise
from typing import Any, cast

import numpy as np
from numpy.typing import NDArray

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.errors import BadInputError
from fandle.core.physics.batch import Strokes
from fandle.core.player.scatter import Player
from fandle.core.steps import Steps, finish
from fandle.core.table.fitted import Fitted
from fandle.core.table.model import Table
from fandle.core.table.parameters import TABLE
from fandle.core.table.rails import Contact
from fandle.core.tablecheck.evidence import KINDS, STOP_READING, Seen, made, noted, residuals
from fandle.core.tablecheck.posterior import Around, Posterior, Shots, posterior_steps

Floats = NDArray[np.float64]
NUMBERS = tuple(  # what a lone ball can tell of
    name for name, known in TABLE.items() if known.prior_sd is not None and name != "ball_restitution"
)
STEP = 0.05  # standard deviations of the prior, of a player's error, by which each is moved to see what it does
FAR_OFF = 3.0  # reading errors from which a figure pulls less and less
WILD = 4.0  # and from which a shot is told not to fit
MOST_STEPS = 25
BEYOND = 3.5  # standard deviations of the prior; the words of condition go up to 2.9
SETTLES = 4  # steps to the likeliest errors on a table that stays as it is
DOUBTFUL = 1.5  # diamonds: a ball that stops nearer to the next rail may have come off that


@dataclass(frozen=True)
class Number:
    """A number of the table: as fitted and as it was, each with its standard deviation (SI); learned: 0 to 1."""

    name: str
    value: float
    sd: float
    prior: float
    prior_sd: float

    @property
    def beyond(self) -> bool:
        """Is it further from what it was than any table's? Then the shots say something else."""
        return abs(self.value - self.prior) > BEYOND * self.prior_sd

    @property
    def learned(self) -> float:
        """The share of the prior's variance that the shots took away; nothing of a number beyond any table's."""
        return 0.0 if self.beyond else 1.0 - min(self.sd / self.prior_sd, 1.0) ** 2


@dataclass(frozen=True)
class Fitting:
    """The fitted table, its numbers, their covariance in prior standard deviations, and what is left of every shot.

    around: where numbers and errors together are likeliest; wild: shots, by place, that do not fit the others. problem:
    the shots as they were fitted; said: all that they say of table and player.
    """

    table: Table
    numbers: tuple[Number, ...]
    covariance: Floats
    around: Around
    wild: tuple[int, ...]
    problem: "Problem"
    said: Posterior

    @property
    def off(self) -> Floats:
        """(n, 4) how each shot was made otherwise than meant, in the player's standard deviations."""
        return self.around.off


def moved(table: Table, z: Floats) -> Table:
    """The table with its numbers moved by so many prior standard deviations, no further than their limits."""
    values = {}
    for name, by in zip(NUMBERS, z.tolist(), strict=True):
        known = TABLE[name]
        values[name] = min(max(getattr(table, name) + by * (known.prior_sd or 0.0), known.low), known.high)
    return replace(table, fitted=None, **values)


@dataclass(frozen=True)
class Problem:
    """The shots on the table as it was before, by a player. Unknown: the numbers, then four errors of each shot."""

    table: Table
    seen: tuple[Seen, ...]
    player: Player

    def split(self, x: Floats) -> tuple[Floats, Floats]:
        """(the table's numbers moved, each shot's own errors)."""
        k = len(NUMBERS)
        return x[:k], x[k:].reshape(len(self.seen), len(KINDS))

    @property
    def ends(self) -> list[int]:
        """Where each shot's figures begin, and the end."""
        return [0, *accumulate(one.count for one in self.seen)]

    def residual(self, x: Floats) -> Floats:
        """What is left of the figures, in reading errors, then what was moved, in priors."""
        z, off = self.split(x)
        strokes = made(self.seen, self.player, off, np.zeros(len(self.seen), np.int64))
        return np.concatenate([residuals(self.seen, strokes, [moved(self.table, z)])[0], x])

    def left(self, z: Floats, off: Floats) -> Floats:
        """What is left of the figures, in reading errors, of numbers (m, k), each with errors (s, n, 4): (m, s, f)."""
        m, s, n = off.shape[:3]
        rows = made(self.seen, self.player, off.reshape(-1, len(KINDS)), np.repeat(np.arange(m), s * n))
        return residuals(self.seen, rows, [moved(self.table, row) for row in z]).reshape(m, s, -1)

    def slopes(self, x: Floats) -> Floats:
        """By how much each figure changes with each unknown: a shot's own errors move its own figures only."""
        z, off = self.split(x)
        n, k = len(self.seen), len(NUMBERS)
        shifts = [z + STEP * sign * np.eye(k)[j] for j in range(k) for sign in (1.0, -1.0)]
        tables = [moved(self.table, shift) for shift in shifts] + [moved(self.table, z)]
        parts = [made(self.seen, self.player, off, np.full(n, j)) for j in range(2 * k)]
        for kind in KINDS:
            for sign in (1.0, -1.0):
                turned = off.copy()
                turned[:, kind] += STEP * sign
                parts.append(made(self.seen, self.player, turned, np.full(n, 2 * k)))
        rows = Strokes(*[np.concatenate(column) for column in zip(*parts, strict=True)])
        found = residuals(self.seen, rows, tables)
        slope = (found[::2] - found[1::2]) / (2.0 * STEP)
        figures = found.shape[1]
        jac = np.zeros((figures + len(x), len(x)))
        jac[:figures, :k] = slope[:k].T
        for s, (a, b) in enumerate(pairwise(self.ends)):
            for kind in KINDS:
                rows_of = slice(a, b)
                jac[rows_of, k + len(KINDS) * s + kind] = slope[k + kind, rows_of]
        jac[figures:] = np.eye(len(x))
        return jac


def fit(table: Table, seen: Sequence[Seen], player: Player) -> Fitting:
    """The same at once."""
    return finish(fit_steps(table, seen, player))


def fit_steps(table: Table, seen: Sequence[Seen], player: Player) -> Steps[Fitting]:
    """Fit the table's numbers to what was seen. Raises BadInputError where nothing was."""
    problem, around = likeliest(table, seen, player)
    yield
    said = yield from posterior_steps(Shots(problem.left, around))
    return _whole(problem, around, said)


def likeliest(table: Table, seen: Sequence[Seen], player: Player) -> tuple[Problem, Around]:
    """Where numbers and single shots together are likeliest. Raises BadInputError where nothing was seen."""
    from scipy.optimize import least_squares

    if not seen:
        raise BadInputError("no shot was noted: play one of the reference shots and say where it landed", "shots")
    problem = Problem(table, tuple(seen), player)
    figures = sum(one.count for one in seen)
    unknown = len(NUMBERS) + len(KINDS) * len(seen)
    x = np.zeros(unknown)
    for pull in (_softly, _hardly):  # first every figure pulls, then what lies far off all but lets go
        found: Any = least_squares(
            problem.residual, x, problem.slopes, loss=cast(Any, partial(_loss, pull, figures)), max_nfev=MOST_STEPS,
            xtol=1e-4, ftol=1e-5,
        )  # fmt: skip
        x = found.x
    return problem, _around(problem, found.x)


def _around(problem: Problem, x: Floats) -> Around:
    """What the shots say about the likeliest numbers and errors."""
    z, off = problem.split(x)
    weigh = told_apart(problem.seen)
    slopes, left = problem.slopes(x)[: len(weigh)], problem.residual(x)[: len(weigh)]
    k, ends = len(NUMBERS), problem.ends
    own = [slopes[a:b, k + len(KINDS) * s :][:, : len(KINDS)] for s, (a, b) in enumerate(pairwise(ends))]
    pull = np.sqrt(1.0 + (left / FAR_OFF) ** 2)  # what lies far off counts less
    jac = slopes * (weigh / pull)[:, None]
    covariance = np.linalg.inv(jac.T @ jac + np.eye(len(x)))[:k, :k].astype(np.float64)
    return Around(z, off, covariance, left, slopes[:, :k], np.concatenate(own), weigh, tuple(ends))


def told_apart(seen: Sequence[Seen]) -> Floats:
    """What each figure counts, 0 to 1: a ball that stops a little before a rail may have met it and come back."""
    found = []
    for one in seen:
        weigh = np.ones(one.count)
        if one.rest is not None and _ahead(one) < DOUBTFUL:
            weigh[-2:] = STOP_READING / DOUBTFUL
        found.append(weigh)
    return np.concatenate(found)


def _ahead(one: Seen) -> float:
    """How far a shot's ball, carried on straight from where it stopped, was from the next rail, diamonds."""
    end = np.array(one.rest)
    last = one.landed[-1] if one.landed else Contact(one.setup.watch[-1], one.setup.layout.cue.y)
    way = end - np.array(last.rail.point(last.at, last.rail.end))
    way = way / max(float(np.hypot(*way)), 1e-9)
    gaps = np.where(way > 0.0, np.array([DIAMONDS_LONG, DIAMONDS_SHORT]) - end, -end)
    return float(np.min(gaps / np.where(np.abs(way) > 1e-9, way, 1e-9)))


def _whole(problem: Problem, around: Around, said: Posterior) -> Fitting:
    """The fit with how sure it is: the numbers' means and spreads over what the shots really say."""
    table, sds = problem.table, np.array([TABLE[name].prior_sd or 0.0 for name in NUMBERS])
    was = np.array([getattr(table, name) for name in NUMBERS])
    low, high = (np.array([getattr(TABLE[name], end) for name in NUMBERS]) for end in ("low", "high"))
    values = (np.clip(was + said.numbers * sds, low, high) - was) / sds
    mean = said.weights @ values
    covariance = (said.weights[:, None] * (values - mean)).T @ (values - mean)
    fitted = moved(table, mean)
    numbers = tuple(_number(table, fitted, name, covariance[j, j]) for j, name in enumerate(NUMBERS))
    return Fitting(
        _told(fitted, covariance), numbers, covariance, around, _wild(problem, around.left, around.off), problem,
        said,
    )  # fmt: skip


def unmoved(problem: Problem, off: Floats) -> Shots:
    """The shots about the table as it was, their errors as likely as they can be there, beginning from `off`."""
    x = np.concatenate([np.zeros(len(NUMBERS)), off.reshape(-1)])
    shots = Shots(problem.left, _around(problem, x))
    for _ in range(SETTLES):
        x[len(NUMBERS) :] = shots.likeliest().reshape(-1)
        shots = Shots(problem.left, _around(problem, x))
    return shots


def _softly(z: Floats) -> Floats:
    """Soft L1: a pull that grows no further."""
    root = np.sqrt(1.0 + z)
    return np.array([2.0 * (root - 1.0), 1.0 / root, -0.5 / root**3])


def _hardly(z: Floats) -> Floats:
    """Cauchy's: a pull that fades."""
    return np.array([np.log1p(z), 1.0 / (1.0 + z), -1.0 / (1.0 + z) ** 2])


def _loss(pull: Callable[[Floats], Floats], figures: int, z: Floats) -> Floats:
    """A bounded pull for what was read, squares for the priors: (3, m) as `least_squares` takes it."""
    c = FAR_OFF**2
    rho: Floats = pull(z / c) * np.array([[c], [1.0], [1.0 / c]])
    rest = z[figures:]
    rho[:, figures:] = np.array([rest, np.ones_like(rest), np.zeros_like(rest)])
    return rho


def _number(before: Table, after: Table, name: str, variance: float) -> Number:
    prior_sd = TABLE[name].prior_sd or 0.0
    return Number(name, getattr(after, name), math.sqrt(variance) * prior_sd, getattr(before, name), prior_sd)


def _told(table: Table, covariance: Floats, date: str = "") -> Table:
    """The fitted table with how sure its numbers are."""
    scale = np.array([TABLE[name].prior_sd or 0.0 for name in NUMBERS])
    matrix = covariance * scale[:, None] * scale[None, :]
    matrix = 0.5 * (matrix + matrix.T)
    return replace(table, fitted=Fitted(date, NUMBERS, tuple(tuple(row) for row in matrix.tolist())))


def _wild(problem: Problem, left: Floats, off: Floats) -> tuple[int, ...]:
    """Shots whose figures, or whose making, lie far off everything expected."""
    ends = problem.ends
    return tuple(
        k for k in range(len(problem.seen))
        if np.abs(left[ends[k] : ends[k + 1]]).max() > WILD or np.abs(off[k]).max() > WILD
    )  # fmt: skip


def shot_figures(one: Seen, table: Table, player: Player) -> Floats:
    """What a table predicts of a shot made as it was meant: contacts, then the stop, diamonds."""
    strokes = made([one], player, np.zeros((1, len(KINDS))), np.zeros(1, np.int64))
    value, error = noted(one)
    guess: Floats = residuals([one], strokes, [table])[0] * error + value
    return guess
