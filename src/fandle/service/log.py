"""Noting attempts: the line that was shot, what may be said of it, how far off it was."""

from dataclasses import dataclass

from fandle.core.layout.model import Layout
from fandle.core.lines.solution import Solution
from fandle.core.practice.record import Result, check_result, kind_of, off_by, set_up, shot_title
from fandle.service.lines import shot_line
from fandle.service.situation import Situation


@dataclass(frozen=True)
class Attempt:
    """An attempt at a line: what it is called, which set-up it belongs to, and what came of it."""

    situation: Situation
    best: Solution
    kind: str
    set_up: str
    title: str
    result: Result
    potted: bool | None


def attempt(asked: Situation, best: Solution, result: Result) -> Attempt:
    """An attempt at a line that is known. Refuses a result that a shot of its kind cannot have."""
    kind = kind_of(best.rails, best.pocket)
    check_result(result, kind)
    return Attempt(
        asked, best, kind, set_up(asked.layout, best.rails, best.pocket),
        shot_title(best.target, best.rails, best.pocket), result, result is Result.HIT if kind == "bank" else None,
    )  # fmt: skip


def landed(asked: Situation, at: float) -> float:
    """Signed diamonds by which the noted line landed long (+) or short, from where it crossed the target's line."""
    layout: Layout = asked.layout
    return off_by(layout, shot_line(asked), at)
