"""The chance of a line: its stroke played with the player's errors, the same draws for every line."""

from collections.abc import Sequence
from dataclasses import dataclass
from dataclasses import field as field_of
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.error import Marked, Rows, scattered
from fandle.core.choice.field import Field
from fandle.core.choice.judge import Verdicts, judge, pocket_number
from fandle.core.choice.leave import Best
from fandle.core.choice.opponent import safe
from fandle.core.choice.position import EASIEST, Next, next_pot
from fandle.core.choice.reach import reach_of
from fandle.core.constants import WITH_THE_REST
from fandle.core.physics.batch import Outcomes
from fandle.core.player.draws import Draws
from fandle.core.player.scatter import Player
from fandle.core.player.share import spread_range, sure_as
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps


@dataclass(frozen=True)
class Share:
    """A relative frequency: hits of n standardised draws, with its 95 % range. A hit may count in part.

    told: what came of each; drawn: the errors that they were played with.
    """

    hits: float
    n: int
    told: NDArray[np.float64] = field_of(repr=False, compare=False)
    drawn: Draws = field_of(repr=False, compare=False)

    @classmethod
    def of(cls, values: NDArray[np.float64] | NDArray[np.bool_], drawn: Draws) -> "Share":
        """Of what came of every draw, 0 to 1."""
        told = np.asarray(values, np.float64)
        return cls(float(told.sum()), len(told), told, drawn)

    @property
    def p(self) -> float:
        """The share."""
        return self.hits / self.n

    @property
    def sure(self) -> float:
        """How many independent draws it is as sure as; worked out only where the range is wanted."""
        return sure_as(self.told, self.drawn.basis)

    @property
    def range(self) -> tuple[float, float]:
        """Its 95 % range."""
        return spread_range(self.hits, self.n, self.sure)


@dataclass(frozen=True)
class Chance:
    """What came of the draws: verdicts draw by draw, where balls stopped, and the shares.

    What is left is worked out when it is asked for, once. target: the ball called; direction_deg: how straight both
    players shoot; then: the ball that is to be potted next; drawn: the errors it was played with.
    """

    field: Field
    verdicts: Verdicts
    rests: NDArray[np.float64]
    again: NDArray[np.bool_]
    target: str
    direction_deg: float
    then: Next
    drawn: Draws

    @cached_property
    def _left(self) -> tuple[NDArray[np.bool_], Best]:
        return safe(self.field, self.verdicts.legal, self.rests, self.direction_deg)

    @property
    def safe(self) -> NDArray[np.bool_]:
        """Is the opponent left without a pot?"""
        return self._left[0]

    @property
    def theirs(self) -> Best:
        """The opponent's best pot, where the turn passes."""
        return self._left[1]

    @cached_property
    def ahead(self) -> Best:
        """Our next pot, where this shot pots."""
        return next_pot(self.field, self.verdicts.pot, self.rests, self.then, self.target, self.direction_deg)

    def share(self, name: str) -> Share:
        """Of "hit", "legal", "pot", "in_off" or "safe"."""
        found = self.safe if name == "safe" else getattr(self.verdicts, name)
        return Share.of(found, self.drawn)


def scatter_of(field: Field, player: Player, direction: float) -> float:
    """Times the player's own scatter with which a direction is shot: more out of reach, with the rest."""
    return 1.0 if reach_of(field.layout, direction, player.body).by_hand else WITH_THE_REST


def shooter(field: Field, player: Player, direction: float) -> Player:
    """The player who shoots along a direction."""
    times = scatter_of(field, player, direction)
    return player if times == 1.0 else player.times(times)


def chances(
    field: Field, every: Sequence[Aimed], player: Player, drawn: Draws, then: Next = EASIEST
) -> Steps[list[Chance]]:
    """The chance of each line, in steps. then: the ball that is to be potted next."""
    if not every:
        return []
    n = len(drawn.direction)
    rows = [
        scattered(field, a.direction, a.stretch.tried.stroke, a.marked, shooter(field, player, a.direction), drawn)
        for a in every
    ]
    out = yield from field.played(*_together(rows))
    found = []
    for k, (a, row) in enumerate(zip(every, rows, strict=True)):
        found.append(_chance(field, a, row, out.rows(k * n, (k + 1) * n), player, then, drawn))
        yield
    return found


def _together(rows: Sequence[Rows]) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64] | None]:
    tables = [row.tables for row in rows if row.tables is not None]
    return (
        np.concatenate([row.at for row in rows]), np.concatenate([row.strokes for row in rows]),
        np.concatenate(tables) if tables else None,
    )  # fmt: skip


def _chance(field: Field, a: Aimed, row: Rows, out: Outcomes, player: Player, then: Next, drawn: Draws) -> Chance:
    key = a.stretch.key
    target = field.number(key.target) if key.pocket is not None else -1
    told = judge(field.court, out, target, pocket_number(key.pocket))
    clean = Verdicts(*[each & ~row.miscue for each in told])
    rests = out.rests.copy()
    rests[row.miscue] = [field.start, *field.balls.tolist()]  # nothing was moved
    again = np.asarray(out.again > 0, np.bool_) & ~row.miscue
    return Chance(field, clean, rests, again, key.target, player.direction_deg, then, drawn)


def hit_shares(
    field: Field, aims: Sequence[tuple[float, Stroke, Marked]], target: str, player: Player, drawn: Draws
) -> Steps[list[Share]]:
    """How often each of several aims (direction, stroke, mark) meets the target first, in steps."""
    if not aims:
        return []
    rows = [scattered(field, at, s, mark, shooter(field, player, at), drawn) for at, s, mark in aims]
    at, strokes, tables = _together(rows)
    out = yield from field.met(at, strokes, tables)
    met = (out.first == field.number(target)) & ~np.concatenate([row.miscue for row in rows])
    return [Share.of(part, drawn) for part in np.split(met, len(aims))]
