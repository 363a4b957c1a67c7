"""What the opponent gets, draw by draw: which balls are on for them, and how good their best pot is."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field
from fandle.core.choice.freezes import ON_RAIL_M, off_rail
from fandle.core.choice.leave import Best, best_pot, sees
from fandle.core.choice.rules import EIGHT
from fandle.core.layout.games import SNOOKER_COLOURS
from fandle.core.layout.state import RED

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
SAFE_BELOW = 0.25  # a best pot less likely than that leaves the opponent nothing


@dataclass(frozen=True)
class Leave:
    """What a line leaves where it is legal and the turn passes, shares of these draws.

    hooked: no ball on is seen straight; hider: what mostly lies before the nearest one, None where nothing does as a
    rule. target, pocket: of the pot they have most often, p: how likely their best one is on average; None where they
    have none in any draw. away: to the nearest ball on, the mean, m. on_rail: the cue ball is within half a ball of a
    rail.
    """

    hooked: float
    hider: str | None
    target: str | None
    pocket: int
    p: float
    away: float
    on_rail: float


def safe(field: Field, legal: Bools, rests: Floats, direction_deg: float) -> tuple[Bools, Best]:
    """(in which draws the shot is safe, the opponent's best pot): legal, nothing of ours down, no pot of 0.25 left.

    The opponent shoots as straight as the player. Where there is a point to make, a legal shot makes it, and the turn
    does not pass.
    """
    passes = legal & ~_ours(field, rests) & (field.court.rules.counts != "point")
    best = Best.none(len(legal))
    rows = np.flatnonzero(passes)
    if rows.size:
        best.put(rows, best_pot(field.layout.table, rests[rows], theirs(field, rests[rows]), direction_deg))
    return passes & (best.p < SAFE_BELOW), best


def leave_of(field: Field, legal: Bools, rests: Floats, best: Best) -> Leave | None:
    """What is left over the draws that pass the turn; None where none does."""
    rows = np.flatnonzero(legal & ~_ours(field, rests))
    if not rows.size:
        return None
    sight = sees(field.layout.table, rests[rows], theirs(field, rests[rows]))
    hider = int(np.bincount(sight.hider).argmax())
    away = sight.near[np.isfinite(sight.near)]
    target, pocket = best.commonest(rows)
    return Leave(
        1.0 - float(sight.seen.mean()),
        field.name(hider) if hider > 0 else None,
        field.name(target) if target > 0 else None,
        pocket,
        float(best.p[rows].mean()),
        float(away.mean()) if away.size else 0.0,
        float((off_rail(field, rests[rows, 0]) <= ON_RAIL_M).mean()),
    )


def theirs(field: Field, rests: Floats) -> Bools:
    """Which balls are on for the opponent, (n, m + 1): of those that are still there."""
    ours = field.layout.state.group
    return on_for(field, rests, {"low": "high", "high": "low"}.get(ours or ""))


def on_for(field: Field, rests: Floats, group: str | None) -> Bools:
    """Which balls are on for whoever shoots, (n, m + 1). group: theirs in eight-ball, None while the table is open."""
    there = still_there(rests)
    order, names = field.court.rules.order, ("", *field.names)
    if order == "lowest":
        return first_of(there, sorted(range(1, len(names)), key=lambda k: int(names[k])))
    if order == "group":
        return group_of(there, names, group)
    if order == "snooker":
        reds = there & np.array([name.startswith(RED) for name in names])
        colours = [names.index(name) for name in SNOOKER_COLOURS if name in names]
        return np.asarray(np.where(reds.any(axis=1)[:, None], reds, first_of(there, colours)), np.bool_)
    return there


def still_there(rests: Floats) -> Bools:
    """Which object balls still lie on the bed, (n, m + 1)."""
    there = ~np.isnan(rests[..., 0])
    there[:, 0] = False
    return np.asarray(there, np.bool_)


def group_of(there: Bools, names: Sequence[str], group: str | None) -> Bools:
    """A group of eight-ball that is still there, the 8 once it is gone; None: any but the 8."""
    numbers = np.array([0, *(int(name) for name in names[1:])])
    eight = int(EIGHT)
    wanted = {"low": (numbers > 0) & (numbers < eight), "high": numbers > eight, None: numbers != eight}[group]
    own = there & wanted
    return np.asarray(np.where(own.any(axis=1)[:, None], own, there & (numbers == eight)), np.bool_)


def first_of(there: Bools, order: list[int]) -> Bools:
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
