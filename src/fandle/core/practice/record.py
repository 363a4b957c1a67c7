"""Attempts on the real table: what is noted, and honest figures from them."""

import math
import statistics
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import over
from fandle.core.lines.solution import Solution
from fandle.core.player import share
from fandle.core.shot.travel import crosses
from fandle.core.table.pocket import Point, mouths
from fandle.core.table.rails import Rail, rails_name
from fandle.core.words.balls import spoken


class Result(StrEnum):
    """What happened. A ball that missed the rail never got to the question of short or long.

    Of a bank a hit is a pot. A straight shot that misses passes left or right of the ball.
    """

    HIT = "hit"
    SHORT = "short"
    LONG = "long"
    RAIL = "missed the rail"
    LEFT = "left of it"
    RIGHT = "right of it"


STRAIGHT_RESULTS = (Result.HIT, Result.LEFT, Result.RIGHT)
RAIL_RESULTS = (Result.HIT, Result.SHORT, Result.LONG, Result.RAIL)


def check_result(result: Result, kind: str) -> None:
    """Refuse a result that a shot of this kind cannot have."""
    possible = STRAIGHT_RESULTS if kind == "straight" else RAIL_RESULTS
    if result not in possible:
        raise BadInputError(f"a {kind} shot is not {result.value!r}: say {', '.join(possible)}", "result")


class Thickness(StrEnum):
    """Which side of the target was met, as the shooter saw it along the last leg."""

    LEFT = "left"
    FULL = "full"
    RIGHT = "right"


@dataclass(frozen=True)
class Tried:
    """One attempt, as far as figures need it. off: diamonds from the target, + long; None if not marked."""

    result: Result
    off: float | None = None


@dataclass(frozen=True)
class Figures:
    """Attempts and hits, the share with its 95 % interval, and bias apart from scatter (diamonds, + long)."""

    attempts: int
    hits: int
    share: float | None
    low: float | None
    high: float | None
    marked: int
    bias: float | None
    scatter: float | None


def figures(tried: Iterable[Tried]) -> Figures:
    """Honest figures: Wilson's score interval for the share (Wilson 1927, from memory);
    mean and sample standard deviation of the marked landings."""
    rows = list(tried)
    hits = sum(row.result == Result.HIT for row in rows)
    offs = [row.off for row in rows if row.off is not None]
    low, high = wilson(hits, len(rows))
    return Figures(
        attempts=len(rows),
        hits=hits,
        share=hits / len(rows) if rows else None,
        low=low,
        high=high,
        marked=len(offs),
        bias=statistics.fmean(offs) if offs else None,
        scatter=statistics.stdev(offs) if len(offs) > 1 else None,
    )


def figures_from(attempts: int, hits: int | None, marked: int, total: float | None, squares: float | None) -> Figures:
    """The same from sums: of the marked landings (diamonds) and of their squares; None where there are none."""
    low, high = wilson(hits or 0, attempts)
    mean = None if total is None or marked == 0 else total / marked
    spread = None
    if mean is not None and squares is not None and marked > 1:
        spread = math.sqrt(max(squares - marked * mean * mean, 0.0) / (marked - 1))
    return Figures(
        attempts=attempts,
        hits=hits or 0,
        share=(hits or 0) / attempts if attempts else None,
        low=low,
        high=high,
        marked=marked,
        bias=mean,
        scatter=spread,
    )


def wilson(hits: int, attempts: int) -> tuple[float | None, float | None]:
    """95 % score interval of a share; (None, None) without attempts."""
    return share.wilson(hits, attempts) if attempts else (None, None)


def off_by(layout: Layout, best: Solution, at: float) -> float:
    """Signed diamonds by which a ball that crossed the line of what it was meant for at `at` was long (+) or short (−).

    The line runs through the target, of a bank through the middle of the pocket's mouth, parallel to the last
    rail; long is further in the direction of travel of the shot as it was meant.
    """
    if not math.isfinite(at) or not -8.0 <= at <= 16.0:
        raise BadInputError(f"a crossing at {at} is not on this table: mark it along the target's line", "at")
    if not best.rails:
        raise BadInputError("a straight shot has no line to cross: say on which side it passed", "at")
    last, goal = best.rails[-1], meant_for(layout, best)
    run = best.shot if best.object_run is None else best.object_run
    met = crosses(run, last, len(best.rails), last.across(*goal))
    travel = 1.0 if met is None else met[1]
    return (at - last.along(*goal)) * travel


def meant_for(layout: Layout, best: Solution) -> Point:
    """What a line runs to, in diamonds: the target, or the middle of the mouth a bank goes into."""
    if best.pocket is None:
        target = layout.ball(best.target)
        return target.x, target.y
    x, y = next(mouth.middle for mouth in mouths(layout.table) if mouth.name == best.pocket)
    return x / layout.table.diamond_x, y / layout.table.diamond_y


@dataclass(frozen=True)
class Meant:
    """What a shot was meant to do. kind: kick, bank or straight; pocket: where the ball was to go, None for a hit."""

    rails: tuple[Rail, ...]
    kind: str
    pocket: str | None = None


def shot_title(target: str, shot: Meant) -> str:
    """What was shot, in words: "the 7 over the far rail", "bank the 7 over the far rail into side-near"."""
    way = f"{spoken(target)} {over(shot.rails)}"
    if shot.pocket is None:
        return way
    return f"{'bank' if shot.kind == 'bank' else 'pot'} {way} into {shot.pocket}"


def meant_by(best: Solution) -> Meant:
    """What a solved line is meant to do."""
    if best.pocket is not None:
        return Meant(best.rails, "bank", best.pocket)
    return Meant(best.rails, "kick" if best.rails else "straight", None if best.pot is None else best.pot.pocket)


def set_up(layout: Layout, shot: Meant) -> str:
    """A name that two attempts share if balls, target, rails and pocket are the same (to a hundredth).

    The table is not in it: an attempt names its table by id.
    """
    balls = ";".join(f"{b.id}:{b.x:.2f},{b.y:.2f}" for b in sorted(layout.balls, key=lambda b: b.id))
    word = "bank" if shot.kind == "bank" else "pot"
    way = rails_name(shot.rails) if shot.pocket is None else f"{word} {rails_name(shot.rails)} {shot.pocket}"
    return f"{layout.target}|{way}|{balls}"
