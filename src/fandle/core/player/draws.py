"""The same errors for every line: pseudo-random draws of a player's scatter, by seed, standardised.

A plain sample of 300 is off by chance in its mean and spread, alike for every line that shares it. So every column is
shifted and scaled to mean 0 and standard deviation 1: the first few, on which strokes are screened, by themselves, and
the rest by themselves, so that the whole is standardised, too.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError

MOST_DRAWS = 5000
OWN = 5  # columns that are the player's
FEW = 48  # that strokes are screened on
PLAYERS, TABLES = 1, 2  # streams: of forty, the first one gives seed 0, which nearly all ask for, the fairest sample
ENOUGH = 4  # draws for each column that a share is explained by
Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Draws:
    """n draws of standard normal errors: of direction, speed, tip across, tip up, mark; table: (n, k) of its numbers.

    Every column has mean 0 and standard deviation 1. The same seed gives the same draws.
    """

    direction: Floats
    speed: Floats
    across: Floats
    up: Floats
    mark: Floats
    table: Floats

    @property
    def few(self) -> "Draws":
        """The first of them, that strokes are screened on."""
        return Draws(
            self.direction[:FEW], self.speed[:FEW], self.across[:FEW], self.up[:FEW], self.mark[:FEW], self.table[:FEW]
        )

    @cached_property
    def basis(self) -> Floats:
        """(n, m) orthonormal columns: a constant, the errors, their squares, the products of the player's: right
        on average over the draws. Only the constant where there are too few draws to tell more apart."""
        own = np.column_stack([self.direction, self.speed, self.across, self.up, self.mark, self.table])
        n = len(own)
        constant = np.ones((n, 1))
        both = [own[:, i : i + 1] * own[:, j : j + 1] for j in range(OWN) for i in range(j)]
        known = np.hstack([constant, own, own**2, *both])
        columns = known if n >= ENOUGH * known.shape[1] else constant
        found: Floats = np.linalg.qr(columns)[0]
        return found


def check_draws(n: int, seed: int) -> None:
    """Refuse too few draws, too many, and a seed that is none. Raises BadInputError."""
    if not 1 <= n <= MOST_DRAWS:
        raise BadInputError(f"{n} draws: give 1 to {MOST_DRAWS}", "draws", code="out_of_range")
    if seed < 0:
        raise BadInputError(f"seed {seed}: give 0 or more", "seed", code="out_of_range")


def draws(n: int, seed: int, numbers: int = 0) -> Draws:
    """n draws; numbers: how many numbers of the table are uncertain, too."""
    check_draws(n, seed)
    own = standardised(np.random.default_rng((seed, PLAYERS)).standard_normal((n, OWN)))
    table = standardised(np.random.default_rng((seed, TABLES)).standard_normal((n, numbers)))
    direction, speed, across, up, mark = own.T.copy()
    return Draws(direction, speed, across, up, mark, table)


def standardised(raw: Floats) -> Floats:
    """Columns with mean 0 and standard deviation 1 that do not go with each other: the first few and the rest apart,
    where there are as many more."""
    parts = np.split(raw, [FEW]) if len(raw) >= 2 * FEW else [raw]
    return np.vstack([_white(part) for part in parts])


def _white(part: Floats) -> Floats:
    """One part: z = (x − mean)·L⁻ᵀ with L·Lᵀ its covariance; with few rows scaled only, with one left as it is."""
    n, k = part.shape
    if n < 2 or not k:
        return part
    own = part - part.mean(axis=0)
    if n <= ENOUGH * k:
        found: Floats = own / own.std(axis=0)
        return found
    white: Floats = np.linalg.solve(np.linalg.cholesky(own.T @ own / n), own.T).T
    return white
