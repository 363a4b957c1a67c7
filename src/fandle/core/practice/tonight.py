"""Tonight's plan: what misses most (bias first, then scatter), what was not played for long, one thing new.

Figures come from the log, by kind of line; every part is a drill, with its reason and what it can be swapped for.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from fandle.core.errors import BadInputError
from fandle.core.player.share import wilson
from fandle.core.practice.drill import Drill
from fandle.core.practice.progress import Average, Made
from fandle.core.systems.base import figure

MINUTES = (20, 40, 60)
PARTS = {20: 3, 40: 5, 60: 7}
BREAK_AFTER = 20  # minutes: back, wrist and eyes
LONG_DAYS = 14.0  # not played for so long
FEW = 6  # attempts below which a kind of line says little
SWAPS = 3


@dataclass(frozen=True)
class Kind:
    """What the log tells of one kind of line. days: since it was last played; drills: that train it, the first best."""

    name: str
    made: Made
    landed: Average
    days: float
    drills: tuple[str, ...]


@dataclass(frozen=True)
class Part:
    """A part of the plan. why: code and words; swaps: drills it can be exchanged for."""

    drill: Drill
    minutes: int
    why: str
    say: str
    swaps: tuple[Drill, ...]


@dataclass(frozen=True)
class Tonight:
    """The parts in order, and after which of them a break is due (numbers of parts, from 1)."""

    minutes: int
    parts: tuple[Part, ...]
    breaks: tuple[int, ...]


def tonight(kinds: Sequence[Kind], played: Mapping[str, float], minutes: int, drills: Sequence[Drill]) -> Tonight:
    """A plan of so many minutes. played: days since each drill was last played; drills: those this table allows, the
    player's own first."""
    if minutes not in PARTS:
        raise BadInputError(f"{minutes} minutes: choose 20, 40 or 60", "minutes", code="out_of_range")
    wanted, each = PARTS[minutes], minutes // PARTS[minutes]
    known = {drill.name: drill for drill in drills}
    usable = list(known)
    chosen: dict[str, tuple[str, str]] = {}

    def take(name: str | None, why: str, say: str) -> None:
        if name is not None and name not in chosen and len(chosen) < wanted:
            chosen[name] = (why, say)

    misses = [kind for kind in kinds if kind.made.attempts >= FEW]
    biased = sorted((k for k in misses if k.landed.clearly_off > 0.0), key=lambda k: -k.landed.clearly_off)
    scattered = sorted((k for k in misses if k.made.hits < k.made.attempts), key=_range_above)
    for kind in biased[: wanted - 2]:
        take(_first(kind, usable, chosen), "bias", _bias_words(kind))
    for kind in scattered:
        if len(chosen) >= wanted - 2:
            break
        take(_first(kind, usable, chosen), "scatter", _scatter_words(kind))
    old = [name for name in usable if name not in chosen and played.get(name, 0.0) >= LONG_DAYS]
    if old:
        oldest = max(old, key=lambda name: played[name])
        take(oldest, "long ago", f"not played for {played[oldest]:.0f} days")
    fresh = [name for name in usable if name not in played]
    take(next((n for n in fresh if n not in chosen), None), "new", "new: you have not played it yet")
    for name in sorted(usable, key=lambda name: -played.get(name, math.inf)):
        take(name, "round", "to round the evening off")
    parts = tuple(
        Part(known[name], each, why, say, _swaps(known[name], drills, chosen)) for name, (why, say) in chosen.items()
    )
    breaks = tuple(k for k in range(1, len(parts)) if (k * each) % BREAK_AFTER < each and k * each >= BREAK_AFTER)
    return Tonight(minutes, parts, breaks)


def _range_above(kind: Kind) -> float:
    """Those first that miss surely: the upper end of the range of the hits."""
    return wilson(kind.made.hits, kind.made.attempts)[1]


def _first(kind: Kind, usable: Sequence[str], chosen: Mapping[str, object]) -> str | None:
    return next((name for name in kind.drills if name in usable and name not in chosen), None)


def _bias_words(kind: Kind) -> str:
    side = "long" if kind.landed.mean > 0 else "short"
    return f"{kind.name}: {figure(abs(kind.landed.mean))} {side} on average, and that is no accident"


def _scatter_words(kind: Kind) -> str:
    made = f"{kind.made.hits} of {kind.made.attempts}"
    spread = f", scattered ± {figure(kind.landed.sd)}" if kind.landed.count > 1 else ""
    return f"{kind.name}: {made}{spread}"


def _swaps(drill: Drill, drills: Sequence[Drill], chosen: Mapping[str, object]) -> tuple[Drill, ...]:
    """Drills of the same family first, then others, none of which is in the plan."""
    free = [each for each in drills if each.name not in chosen]
    return tuple(sorted(free, key=lambda each: each.family != drill.family)[:SWAPS])
