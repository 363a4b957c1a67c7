"""What the opponent gets, draw by draw: which balls are on for them, and how good their best pot is."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field
from fandle.core.choice.leave import Best, best_pot, sees
from fandle.core.choice.rules import EIGHT
from fandle.core.layout.games import SNOOKER_COLOURS
from fandle.core.layout.state import RED

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
SAFE_BELOW = 0.25  # a best pot less likely than that leaves the opponent nothing


@dataclass(frozen=True)
class Leave:
    """What a line leaves where it is legal. hooked: the share of these draws in which no ball on is seen straight.

    target, pocket: of the pot they have most often, p: how likely their best one is on average; None where they have
    none in any draw.
    """

    hooked: float
    target: str | None
    pocket: int
    p: float


def safe(field: Field, legal: Bools, rests: Floats, direction_deg: float) -> tuple[Bools, Best]:
    """(in which draws the shot is safe, the opponent's best pot): legal, nothing of ours down, no pot of 0.25 left.

    The opponent shoots as straight as the player.
    """
    passes = legal & ~_ours(field, rests)
    best = Best(np.zeros(len(legal)), np.zeros(len(legal), np.int64), np.full(len(legal), -1))
    rows = np.flatnonzero(passes)
    if rows.size:
        found = best_pot(field.layout.table, rests[rows], theirs(field, rests[rows]), direction_deg)
        for all_, some in zip(best, found, strict=True):
            all_[rows] = some
    return passes & (best.p < SAFE_BELOW), best


def leave_of(field: Field, legal: Bools, rests: Floats, best: Best) -> Leave | None:
    """What is left over the draws that pass the turn; None where none does."""
    rows = np.flatnonzero(legal & ~_ours(field, rests))
    if not rows.size:
        return None
    hooked = 1.0 - float(sees(field.layout.table, rests[rows], theirs(field, rests[rows])).mean())
    pots = best.ball[rows] * 10 + best.pocket[rows]
    pots = pots[best.p[rows] > 0.0]
    if not pots.size:
        return Leave(hooked, None, -1, 0.0)
    ball, pocket = divmod(int(np.bincount(pots).argmax()), 10)
    return Leave(hooked, field.name(ball), pocket, float(best.p[rows].mean()))


def theirs(field: Field, rests: Floats) -> Bools:
    """Which balls are on for the opponent, (n, m + 1): of those that are still there."""
    there = ~np.isnan(rests[..., 0])
    there[:, 0] = False
    order, names = field.court.rules.order, ("", *field.names)
    if order == "lowest":
        return _first_of(there, sorted(range(1, len(names)), key=lambda k: int(names[k])))
    if order == "group":
        return _their_group(field, there, names)
    if order == "snooker":
        reds = there & np.array([name.startswith(RED) for name in names])
        colours = [names.index(name) for name in SNOOKER_COLOURS if name in names]
        return np.asarray(np.where(reds.any(axis=1)[:, None], reds, _first_of(there, colours)), np.bool_)
    return there


def _their_group(field: Field, there: Bools, names: tuple[str, ...]) -> Bools:
    """The other group of eight-ball, the 8 once it is gone; any but the 8 on an open table."""
    numbers = np.array([0, *(int(name) for name in names[1:])])
    ours = field.layout.state.group
    eight = int(EIGHT)
    group = {"low": numbers > eight, "high": (numbers > 0) & (numbers < eight), None: numbers != eight}[ours]
    own = there & group
    return np.asarray(np.where(own.any(axis=1)[:, None], own, there & (numbers == eight)), np.bool_)


def _first_of(there: Bools, order: list[int]) -> Bools:
    """Of each row the first ball in this order that is still there."""
    found = np.zeros_like(there)
    left = np.ones(len(there), np.bool_)
    for ball in order:
        found[:, ball] = left & there[:, ball]
        left &= ~there[:, ball]
    return found


def _ours(field: Field, rests: Floats) -> Bools:
    """Did a ball go down that keeps the turn with us? Of eight-ball one of ours, else any."""
    down = np.isnan(rests[:, 1:, 0])
    if field.court.rules.order == "group":
        return np.asarray(down[:, field.court.on - 1].any(axis=1), np.bool_)
    return np.asarray(down.any(axis=1), np.bool_)
