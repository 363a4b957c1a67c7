"""What the lines of the three goals risk, side by side, and one sentence that says which goal they serve."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from fandle.core.choice.reasons import tenths
from fandle.core.choice.told import Line
from fandle.core.choice.wish import Goal
from fandle.core.lines.marks import over
from fandle.core.words.balls import spoken

SURE = 2.0  # standard errors
SEEN = 0.02  # lines whose shares differ by less are told as alike
NAMES: dict[Goal, str] = {"hit": "Hit", "pot": "Pot", "safe": "Safe"}


@dataclass(frozen=True)
class Risk:
    """What becomes of a line, shares of its draws that add up to 1: potted, left safe, left open, a foul.

    in_off: of the fouls those with the cue ball down.
    """

    potted: float
    safe: float
    left_open: float
    foul: float
    in_off: float

    @property
    def well(self) -> float:
        """The share that turns out well: we go on, or they have nothing."""
        return self.potted + self.safe


def risk_of(line: Line) -> Risk:
    """From the draws of a line."""
    told = line.chance.verdicts
    potted, safe, foul = (float(each.mean()) for each in (told.pot, line.chance.safe, ~told.legal))
    return Risk(potted, safe, max(1.0 - potted - safe - foul, 0.0), foul, float(told.in_off.mean()))


def points_away(foul: float, cost: int) -> float:
    """Snooker, where a miss may be called and replayed: the points given away on average until the ball on is hit.

    Each try fails with the chance `foul`, so cost · foul / (1 − foul) (geometric law); infinite where none succeeds.
    """
    return math.inf if foul >= 1.0 else cost * foul / (1.0 - foul)


def advice(best: Mapping[Goal, Line]) -> str:
    """Which goal the lines serve, by the share that turns out well, potted or left safe. The player decides."""
    if not best:
        return "No goal has a line here."
    order = sorted(best, key=lambda goal: -risk_of(best[goal]).well)
    first = best[order[0]]
    risk = risk_of(first)
    said = f"{NAMES[order[0]]} is served best: {way_of(first)} pots or leaves nothing {tenths(risk.well)}"
    alike = [goal for goal in order[1:] if not _clearly(first, best[goal]) and not _same(first, best[goal])]
    if alike:
        come = "comes" if len(alike) == 1 else "come"
        said += f"; {' and '.join(NAMES[goal] for goal in alike)} {come} out about alike"
    elif len(order) > 1:
        rest = ", ".join(f"{NAMES[goal]} {tenths(risk_of(best[goal]).well)}" for goal in order[1:])
        said += f" ({rest})"
    likely = max(best.values(), key=lambda line: line.chance.share("legal").p)
    if likely.chance.share("legal").p > first.chance.share("legal").p + SEEN:
        said += f". Surest to be legal: {way_of(likely)}, {tenths(likely.chance.share('legal').p)}"
    return said + ". You decide."


def _clearly(one: Line, other: Line) -> bool:
    """Does one turn out well more often, beyond two standard errors? Both are played with the same draws."""
    off = _well(one) - _well(other)
    error = float(off.std(ddof=1)) / math.sqrt(len(off)) if len(off) > 1 else 1.0
    return float(off.mean()) > SURE * error


def _same(one: Line, other: Line) -> bool:
    return (one.kind, one.target, one.rails, one.pocket) == (other.kind, other.target, other.rails, other.pocket)


def _well(line: Line) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    return np.asarray(line.chance.verdicts.pot | line.chance.safe, np.float64)


def way_of(line: Line) -> str:
    """A line in a few words: "the 3 over the far rail", "the 7 straight into foot-far"."""
    into = f" into {line.pocket}" if line.pocket else ""
    kind = "banked " if line.kind == "bank" else ""
    way = over(line.rails) if line.rails else "straight" if line.kind == "straight" else f"by {line.kind}"
    return f"{spoken(line.target)} {kind}{way}{into}"
