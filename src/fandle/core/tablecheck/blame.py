"""The table, or a player who is steadily off? Which of them predicts each shot best from the others."""

from dataclasses import dataclass

from fandle.core.player.scatter import Player
from fandle.core.steps import Steps
from fandle.core.tablecheck.evidence import KINDS, off_words
from fandle.core.tablecheck.fit import Fitting, unmoved
from fandle.core.tablecheck.posterior import STEADY, posterior_steps


@dataclass(frozen=True)
class Steady:
    """By how much a player is off shot after shot, were the table as it was: in the player's standard deviations.

    kind: by `KINDS`; sd: how sure it is.
    """

    kind: int
    off: float
    sd: float


@dataclass(frozen=True)
class Blame:
    """gain: by how much better (in logs) the numbers found predict each shot from the others than the table as it was.

    you: the log of the odds that only the player is off, steadily, against the table being another; steady: by how
    much then.
    """

    gain: float
    you: float
    steady: tuple[Steady, ...]

    @property
    def worst(self) -> Steady:
        """The offset that is surest."""
        return max(self.steady, key=lambda each: abs(each.off) / each.sd)


def blame_steps(fitting: Fitting) -> Steps[Blame]:
    """Weigh the table's numbers against the player's steady offsets."""
    shots = unmoved(fitting.problem, fitting.off)
    nothing = yield from posterior_steps(shots, free=False, steady=False)
    offset = yield from posterior_steps(shots, free=False)
    mean, sd = offset.offsets()
    steady = tuple(Steady(kind, float(off), float(by)) for kind, off, by in zip(STEADY, mean, sd, strict=True))
    return Blame(fitting.said.ahead() - nothing.ahead(), offset.evidence - fitting.said.evidence, steady)


def named(steady: Steady, player: Player) -> str:
    """In words: "the tip 1.6 mm to the right"."""
    if steady.kind != KINDS.direction:
        return off_words(steady.kind, steady.off, player)
    return f"the aim {'to the left' if steady.off > 0 else 'to the right'} of the mark"
