"""How sure the numbers of a table check are: the likelihood's real shape, not its curvature at one point.

The fit's best point is where table and single shots together are likeliest, which pulls numbers that only bend the way
(sliding friction) and tells them too surely. Here the errors of the single shots are integrated out, and the table's
numbers are drawn from what is left, with the player's steady offsets beside them.

Of every draw of numbers and steady offsets, each shot's likeliest errors e* are told by the slopes about the fit and
one look at the engine; a few errors drawn around them are played, and the mean of p(figures | e) p(e) / q(e) over these
is how likely the shot is. It is unbiased, so the weights of the draws are (importance sampling with estimated
likelihoods: Tran, Scharth, Pitt and Kohn 2013, from memory); the same errors serve every draw, so that most of
their chance cancels. Draws: from a Student t that is tempered towards the likelihood in stages (Cappé et al., J.
Comput. Graph. Stat. 13 (2004) 907-929, from memory).
"""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.steps import Steps
from fandle.core.tablecheck.evidence import KINDS

Floats = NDArray[np.float64]
Left = Callable[[Floats, Floats], Floats]  # (m, k) numbers, (m, s, n, 4) errors: (m, s, figures) left, reading errors
Likely = Callable[[Floats, Floats], Floats]  # (m, k) numbers, (m, 3) steady offsets: (m, n) logs
STEADY = (KINDS.speed, KINDS.across, KINDS.direction)  # of these a player may be off shot after shot
STEADY_SD = np.array([1.0, 2.0, 1.0])  # prior of each, in the player's standard deviations
PLAYED = ((24, 8), (10**9, 4))  # up to so many shots, twice so many of the errors of each for every draw
ROOMIER = 1.15  # times the spread of a shot's likeliest errors
DRAWN, FEW, STAGES, ALIVE, TAILS = 512, 128, 8, 0.2, 6  # draws at last, on the way; stages, effective share, tails
ROUNDS, WIDER = 2, 1.3  # of drawing at last; times the spread found
AT_ONCE = 64  # draws in one step
LOOKS = 2  # at the engine, for a shot's likeliest errors
MOST_LEFT = 20.0  # reading errors that a step makes up for
FAR = 5.0  # standard deviations: no shot is made further off
FADES = 3.0  # reading errors from which a figure counts less and less


@dataclass(frozen=True)
class Posterior:
    """Draws of the numbers (m, k, in prior standard deviations) with their weights, and of the steady offsets (m, 3).

    by_shot: (m, n) the log of how likely each shot is under each draw. evidence: the log of how likely all of them are
    under the priors.
    """

    numbers: Floats
    steady: Floats
    weights: Floats
    by_shot: Floats
    evidence: float

    def offsets(self) -> tuple[Floats, Floats]:
        """(mean, standard deviation) of the steady offsets."""
        mean = self.weights @ self.steady
        return mean, np.sqrt(self.weights @ (self.steady - mean) ** 2)

    def ahead(self) -> float:
        """How well each shot is predicted from the others: the sum of the logs of 1 / E[1/p]."""
        from scipy.special import logsumexp  # a fifth of a second, and only who fits a table waits for it

        return float(-logsumexp(-self.by_shot, axis=0, b=self.weights[:, None]).sum())


class Around(NamedTuple):
    """The fit: its numbers (k,) and their covariance, each shot's errors (n, 4), what is left there (f,).

    by_number, by_error: slopes of that with the numbers (f, k) and with the shot's own errors (f, 4).

    weigh: (f,) what each figure counts, 0 to 1; ends: where each shot's figures begin, and the end.
    """

    numbers: Floats
    off: Floats
    covariance: Floats
    left: Floats
    by_number: Floats
    by_error: Floats
    weigh: Floats
    ends: tuple[int, ...]


class Shots:
    """The shots of a check, and how likely each is."""

    def __init__(self, left: Left, around: Around) -> None:
        self.left, self.around, self.ends = left, around, list(pairwise(around.ends))
        n, kinds = around.off.shape
        played = next(few for most, few in PLAYED if n <= most)
        self.base = _evenly(played, 2 * n, kinds).reshape(played, 2, n, kinds).swapaxes(0, 1)
        slopes = [around.by_error[a:b] * around.weigh[a:b, None] for a, b in self.ends]
        spread = np.stack([np.linalg.inv(np.eye(kinds) + j.T @ j) for j in slopes])
        self.back = [each @ j.T for each, j in zip(spread, slopes, strict=True)]
        self.root = ROOMIER * np.linalg.cholesky(spread)

    def likely(self, numbers: Floats, steady: Floats) -> Floats:
        """(m, n) the log of how likely each shot is under numbers (m, k) and steady offsets (m, 3)."""
        return self._likely(numbers, steady, self.base)

    def roughly(self, numbers: Floats, steady: Floats) -> Floats:
        """The same from a quarter of the plays."""
        return self._likely(numbers, steady, self.base[:, : self.base.shape[1] // 4])

    def _likely(self, numbers: Floats, steady: Floats, base: Floats) -> Floats:
        from scipy.special import logsumexp  # a fifth of a second, and only who fits a table waits for it

        offset = self._offsets(steady)
        best = self._likeliest(numbers, offset)[:, None]
        near = best + np.einsum("nij,snj->sni", self.root, base[1])[None]
        own = np.concatenate([np.broadcast_to(base[0], near.shape), np.clip(near, -FAR, FAR)], axis=1)
        apart = np.einsum("nij,msnj->msni", np.linalg.inv(self.root), own - best)
        close = -0.5 * (apart**2).sum(axis=3) - np.linalg.slogdet(self.root)[1]
        proposed = np.logaddexp(-0.5 * (own**2).sum(axis=3), close) - np.log(2.0)
        ratio = self._together(numbers, own, offset) - proposed
        return np.asarray(logsumexp(ratio, axis=1) - np.log(own.shape[1]), np.float64)

    def likeliest(self) -> Floats:
        """(n, 4) each shot's likeliest errors with the numbers as they are."""
        found: Floats = self._likeliest(self.around.numbers[None], np.zeros((1, self.around.off.shape[1])))[0]
        return found

    def _offsets(self, steady: Floats) -> Floats:
        offset = np.zeros((len(steady), self.around.off.shape[1]))
        offset[:, STEADY] = steady
        return offset

    def _together(self, numbers: Floats, own: Floats, offset: Floats) -> Floats:
        """The log of how likely figures and errors are together, (m, s, n)."""
        return self._weighed(self.left(numbers, own + offset[:, None, None]), own)

    def _weighed(self, left: Floats, own: Floats) -> Floats:
        left = left * self.around.weigh
        log = -0.5 * FADES**2 * np.log1p((left / FADES) ** 2)
        figures = np.stack([log[..., a:b].sum(axis=2) for a, b in self.ends], axis=2)
        return np.asarray(figures - 0.5 * (own**2).sum(axis=3), np.float64)

    def _likeliest(self, numbers: Floats, offset: Floats) -> Floats:
        """(m, n, 4) each shot's own errors: by the slopes about the fit, then by looking at the engine."""
        around = self.around
        left = around.left + (numbers - around.numbers) @ around.by_number.T
        guess = self._nearer(around.off - offset[:, None], left)
        own, best = guess, np.full(guess.shape[:2], -np.inf)
        for _ in range(LOOKS):
            left = self.left(numbers, (guess + offset[:, None])[:, None])[:, 0]
            together = self._weighed(left[:, None], guess[:, None])[:, 0]
            own, best = np.where((together > best)[..., None], guess, own), np.maximum(together, best)
            guess = self._nearer(guess, left)
        return own

    def _nearer(self, own: Floats, left: Floats) -> Floats:
        """A step of Gauss and Newton towards each shot's likeliest errors, with the slopes about the fit."""
        left, found = np.clip(left, -MOST_LEFT, MOST_LEFT) * self.around.weigh, np.empty_like(own)
        for s, (a, b) in enumerate(self.ends):
            slope = self.around.by_error[a:b] * self.around.weigh[a:b, None]
            found[:, s] = np.clip((own[:, s] @ slope.T - left[:, a:b]) @ self.back[s].T, -FAR, FAR)
        return found


def _evenly(m: int, columns: int, kinds: int) -> Floats:
    """(m, columns, kinds) standard normals that fill their space evenly (Sobol points, each column of its own)."""
    from scipy.stats import norm, qmc

    drawn = [norm.ppf(qmc.Sobol(kinds, seed=column).random(m)) for column in range(columns)]
    return np.stack(drawn, axis=1)


def _students(n: int, mean: Floats, spread: Floats, rng: np.random.Generator) -> Floats:
    """n draws from a Student t that fill its space evenly."""
    from scipy.stats import chi2, norm, qmc

    even = qmc.Sobol(len(mean) + 1, seed=rng).random(n)
    wide = np.sqrt(TAILS / chi2.ppf(even[:, -1:], TAILS))
    return np.asarray(mean + wide * (norm.ppf(even[:, :-1]) @ np.linalg.cholesky(spread).T), np.float64)


def posterior_steps(shots: Shots, *, free: bool = True, steady: bool = True) -> Steps[Posterior]:
    """Draws of what the shots say of the table's numbers, where these are free, and of the player's steady offsets.

    Numbers that are not free stay as they were.
    """
    space = Space.of(shots, free=free, steady=steady)
    if not space.unknown:
        nought = np.zeros((1, len(space.prior)))
        return space.said(nought, np.zeros(1), shots.likely(*space.split(nought)))
    mean, spread, rng = space.mean, space.spread, np.random.default_rng(0)
    for _ in range(STAGES):
        at, log, _ = yield from space.drawn(shots.roughly, (mean, spread), FEW, rng)
        heat = _heat(log)
        mean, spread = _moments(at[:, space.unknown], _weights(heat * log))
        if heat == 1.0:
            break
    parts = []
    for _ in range(ROUNDS):
        at, log, by_shot = yield from space.drawn(shots.likely, (mean, spread), DRAWN // ROUNDS, rng)
        parts.append((at, log, by_shot))
        mean, spread = _moments(at[:, space.unknown], _weights(_heat(log) * log))
    return space.said(*(np.concatenate(column) for column in zip(*parts, strict=True)))


class Space(NamedTuple):
    """What is unknown: places among numbers and steady offsets, the priors of all of these, where drawing begins."""

    unknown: list[int]
    prior: Floats
    mean: Floats
    spread: Floats

    @classmethod
    def of(cls, shots: Shots, *, free: bool, steady: bool) -> "Space":
        """The numbers are unknown, or the steady offsets, or both."""
        k = len(shots.around.numbers)
        prior = np.concatenate([np.ones(k), STEADY_SD])
        mean, spread = np.concatenate([shots.around.numbers, np.zeros(len(STEADY))]), np.diag(prior**2)
        spread[:k, :k] = 2.0 * shots.around.covariance
        unknown = [*(range(k) if free else ()), *(range(k, k + len(STEADY)) if steady else ())]
        return cls(unknown, prior, mean[unknown], spread[np.ix_(unknown, unknown)])

    def split(self, at: Floats) -> tuple[Floats, Floats]:
        """(numbers, steady offsets)."""
        k = len(self.prior) - len(STEADY)
        return at[:, :k], at[:, k:]

    def drawn(
        self, likely: Likely, around: tuple[Floats, Floats], n: int, rng: np.random.Generator
    ) -> Steps[tuple[Floats, Floats, Floats]]:
        """(draws from a Student t, the logs of their weights, how likely each shot is)."""
        from scipy.stats import multivariate_t, norm

        proposed = multivariate_t(*around, df=TAILS)
        free = _students(n, *around, rng)
        at = np.zeros((n, len(self.prior)))
        at[:, self.unknown] = free
        parts = []
        for some in np.array_split(at, max(n // AT_ONCE, 1)):
            parts.append(likely(*self.split(some)))
            yield
        by_shot = np.concatenate(parts)
        before = np.asarray(norm.logpdf(free, scale=self.prior[self.unknown]), np.float64).sum(axis=1)
        return at, by_shot.sum(axis=1) + before - np.asarray(proposed.logpdf(free), np.float64), by_shot

    def said(self, at: Floats, log: Floats, by_shot: Floats) -> Posterior:
        """The draws with their weights."""
        from scipy.special import logsumexp

        return Posterior(*self.split(at), _weights(log), by_shot, float(logsumexp(log) - np.log(len(log))))


def _moments(at: Floats, weights: Floats) -> tuple[Floats, Floats]:
    """(mean, a little more than the spread)."""
    mean = weights @ at
    return mean, WIDER * (weights[:, None] * (at - mean)).T @ (at - mean) + 1e-4 * np.eye(len(mean))


def _weights(log: Floats) -> Floats:
    found: Floats = np.exp(log - log.max())
    found /= found.sum()
    return found


def _heat(log: Floats) -> float:
    """The power of the weights, at most 1, at which so many draws count as are to stay alive."""

    def alive(heat: float) -> bool:
        return float(1.0 / (_weights(heat * log) ** 2).sum()) >= ALIVE * len(log)

    if alive(1.0):
        return 1.0
    low, high = 0.0, 1.0
    for _ in range(30):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if alive(middle) else (low, middle)
    return low
