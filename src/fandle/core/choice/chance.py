"""The chance of a line: its stroke played with the player's errors, the same draws for every line."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.error import Marked, Rows, scattered
from fandle.core.choice.field import Field
from fandle.core.choice.judge import Verdicts, judge, pocket_number
from fandle.core.choice.leave import Best
from fandle.core.choice.opponent import safe
from fandle.core.choice.reach import reach_of
from fandle.core.constants import MECHANICAL_BRIDGE
from fandle.core.physics.batch import Outcomes
from fandle.core.player.draws import Draws
from fandle.core.player.scatter import Player
from fandle.core.player.share import wilson
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps


@dataclass(frozen=True)
class Share:
    """A relative frequency: hits of n draws, with the 95 % Wilson range."""

    hits: int
    n: int

    @property
    def p(self) -> float:
        """The share."""
        return self.hits / self.n

    @property
    def range(self) -> tuple[float, float]:
        """Its 95 % range."""
        return wilson(self.hits, self.n)


@dataclass(frozen=True)
class Chance:
    """What came of the draws: verdicts draw by draw, where balls stopped, and the shares.

    safe, best: is the opponent left without a pot, and their best one; None where that was not looked at.
    """

    verdicts: Verdicts
    rests: NDArray[np.float64]
    again: NDArray[np.bool_]
    safe: NDArray[np.bool_] | None = None
    best: Best | None = None

    def share(self, name: str) -> Share:
        """Of "hit", "legal", "pot" or "in_off"; of "safe" where that was asked for."""
        found = self.safe if name == "safe" else getattr(self.verdicts, name)
        if found is None:
            raise ValueError("what is left was not looked at")
        return Share(int(found.sum()), len(found))


def shooter(field: Field, player: Player, direction: float) -> Player:
    """The player who shoots along a direction: out of reach, the same with a mechanical bridge."""
    return player if reach_of(field.layout, direction).by_hand else player.times(MECHANICAL_BRIDGE)


def chances(
    field: Field, every: Sequence[Aimed], player: Player, drawn: Draws, leaves: bool = False
) -> Steps[list[Chance]]:
    """The chance of each line, in steps. leaves: what the opponent gets is looked at, too."""
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
        chance = _chance(field, a, row, out.rows(k * n, (k + 1) * n))
        if leaves:
            safe_, best = safe(field, chance.verdicts.legal, chance.rests, player.direction_deg)
            chance = replace(chance, safe=safe_, best=best)
            yield
        found.append(chance)
    return found


def _together(rows: Sequence[Rows]) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64] | None]:
    tables = [row.tables for row in rows if row.tables is not None]
    return (
        np.concatenate([row.at for row in rows]), np.concatenate([row.strokes for row in rows]),
        np.concatenate(tables) if tables else None,
    )  # fmt: skip


def _chance(field: Field, a: Aimed, row: Rows, out: Outcomes) -> Chance:
    key = a.stretch.key
    target = field.number(key.target) if key.pocket is not None else -1
    told = judge(field.court, out, target, pocket_number(key.pocket))
    clean = Verdicts(*[each & ~row.miscue for each in told])
    rests = out.rests.copy()
    rests[row.miscue] = [field.start, *field.balls.tolist()]  # nothing was moved
    return Chance(clean, rests, np.asarray(out.again > 0, np.bool_) & ~row.miscue)


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
    return [Share(int(part.sum()), len(part)) for part in np.split(met, len(aims))]
