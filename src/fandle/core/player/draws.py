"""The same errors for every line: independent pseudo-random draws of a player's scatter, by seed."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError

MOST_DRAWS = 5000
Floats = NDArray[np.float64]


class Draws(NamedTuple):
    """n draws of standard normal errors: of direction, speed, tip across, tip up, mark; table: (n, k) of its numbers.

    The same seed gives the same draws, and fewer are the first of more.
    """

    direction: Floats
    speed: Floats
    across: Floats
    up: Floats
    mark: Floats
    table: Floats

    def first(self, n: int) -> "Draws":
        """The first n of them."""
        return Draws(*[each[:n] for each in self])


def check_draws(n: int, seed: int) -> None:
    """Refuse too few draws, too many, and a seed that is none. Raises BadInputError."""
    if not 1 <= n <= MOST_DRAWS:
        raise BadInputError(f"{n} draws: give 1 to {MOST_DRAWS}", "draws", code="out_of_range")
    if seed < 0:
        raise BadInputError(f"seed {seed}: give 0 or more", "seed", code="out_of_range")


def draws(n: int, seed: int, numbers: int = 0) -> Draws:
    """n draws; numbers: how many numbers of the table are uncertain, too.

    Independent, not spread out evenly: a share of them is a binomial one, and its 95 % range what it says.
    """
    check_draws(n, seed)
    own = np.random.default_rng(seed).standard_normal((n, 5))
    table = np.random.default_rng((seed, 1)).standard_normal((n, numbers))
    direction, speed, across, up, mark = own.T.copy()
    return Draws(direction, speed, across, up, mark, table)
