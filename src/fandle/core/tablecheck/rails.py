"""Does one rail answer otherwise than the other three? Read from what the fitted table leaves over of the shots.

The fit knows one rubber for all rails. Here each rail is given its own restitution beside it, unknown together with
everything the fit had unknown: to first order about the fitted table, so that it costs some hundred shots. A rail is
named where it lies further from the mean of the others than chance would have it.
"""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.physics.trace import Traces, trace_by_rail
from fandle.core.table.rails import Rail
from fandle.core.tablecheck.evidence import made, noted, predicted
from fandle.core.tablecheck.fit import FAR_OFF, Problem, moved
from fandle.core.tablecheck.posterior import Around

Floats = NDArray[np.float64]
NUMBER = "cushion_restitution"
STEP = 0.01  # of restitution, by which a rail is moved to see what it does
APART = 0.06  # of restitution: how much rails of one table may differ, before anything is known
DIFFERS = 2.5  # standard deviations from the mean of the others from which a rail is named


@dataclass(frozen=True)
class OddRail:
    """A rail by how much its restitution lies above (+) the mean of the other three, with the standard deviation."""

    rail: Rail
    off: float
    sd: float

    @property
    def say(self) -> str:
        """In words."""
        what = "livelier" if self.off > 0 else "deader"
        return f"the {self.rail} rail is {what} than the other three: look at its rubber, and count on it less"


def odd_rail(problem: Problem, around: Around) -> OddRail | None:
    """The rail that differs most from the others, where that is more than chance; None where none does."""
    off, covariance = _rails(problem, around)
    worst: OddRail | None = None
    for number, rail in enumerate(Rail):
        weights = np.full(len(Rail), -1.0 / (len(Rail) - 1))
        weights[number] = 1.0
        apart, sd = float(weights @ off), math.sqrt(float(weights @ covariance @ weights))
        if abs(apart) > DIFFERS * sd and (worst is None or abs(apart) / sd > abs(worst.off) / worst.sd):
            worst = OddRail(rail, apart, sd)
    return worst


def _rails(problem: Problem, around: Around) -> tuple[Floats, Floats]:
    """(each rail's restitution beside the fitted one, their covariance), all other unknowns let free again."""
    x = np.concatenate([around.numbers, around.off.ravel()])
    figures = sum(one.count for one in problem.seen)
    rest, slopes = problem.residual(x), problem.slopes(x)
    left, known = rest[:figures], len(x)
    weight = 1.0 / np.sqrt(1.0 + (left / FAR_OFF) ** 2)
    slopes_all = np.hstack([slopes[:figures], _slopes(problem, around) * APART]) * weight[:, None]
    normal = slopes_all.T @ slopes_all + np.eye(known + len(Rail))
    pull = -(slopes_all.T @ (weight * left) + np.concatenate([x, np.zeros(len(Rail))]))
    covariance = np.linalg.inv(normal).astype(np.float64)
    step: Floats = covariance @ pull
    return step[known:] * APART, covariance[known:, known:] * APART**2


def _slopes(problem: Problem, around: Around) -> Floats:
    """(figures, 4): by how many reading errors each figure changes with each rail's restitution."""
    table, seen, rails = moved(problem.table, around.numbers), problem.seen, len(Rail)
    n = len(seen)
    kinds = []
    for number in range(rails):
        for sign in (1.0, -1.0):
            own = replace(table, **{NUMBER: getattr(table, NUMBER) + sign * STEP})
            kinds.append([own.params() if k == number else table.params() for k in range(rails)])
    off = np.tile(around.off, (2 * rails, 1))
    rows = made(seen, problem.player, off, np.repeat(np.arange(2 * rails), n))
    found = trace_by_rail(rows, np.array(kinds))
    told = []
    for k in range(2 * rails):
        part = Traces._make(column[k * n : (k + 1) * n] for column in found)
        pairs = zip(seen, predicted(seen, part, table), strict=True)
        told.append(np.concatenate([guess / noted(one)[1] for one, guess in pairs]))
    values = np.array(told)
    slope = (values[::2] - values[1::2]).T / (2.0 * STEP)
    told_of: Floats = np.nan_to_num(slope)
    return told_of
