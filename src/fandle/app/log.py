"""Noting attempts: the line that was shot, what may be said of it, how far off it was."""

from dataclasses import dataclass

from fandle.app.lines import shot_line
from fandle.app.situation import Situation
from fandle.core.layout.model import Layout
from fandle.core.lines.solution import Solution
from fandle.core.practice.record import Meant, Result, check_result, meant_by, off_by, set_up, shot_title


@dataclass(frozen=True)
class Attempt:
    """An attempt at a line: what it is called, which set-up it belongs to, and what came of it."""

    situation: Situation
    best: Solution
    shot: Meant
    set_up: str
    title: str
    result: Result
    potted: bool | None


def attempt(asked: Situation, best: Solution, result: Result, *, potted: bool | None = None) -> Attempt:
    """An attempt at a line that is known. Refuses a result that a shot of its kind cannot have.

    potted: whether the ball went down, None where it is not said; of a bank a hit is a pot.
    """
    shot = meant_by(best)
    check_result(result, shot.kind)
    ball = best.target if best.pot is None else best.pot.ball
    return Attempt(
        asked, best, shot, set_up(asked.layout, shot), shot_title(ball, shot), result,
        result is Result.HIT if shot.kind == "bank" else potted,
    )  # fmt: skip


def landed(asked: Situation, at: float) -> float:
    """Signed diamonds by which the noted line landed long (+) or short, from where it crossed the target's line."""
    layout: Layout = asked.layout
    return off_by(layout, shot_line(asked), at)
