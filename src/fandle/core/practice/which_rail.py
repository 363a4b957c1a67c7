"""Which rail? A ball shuts one of two ways; the other is open."""

from dataclasses import dataclass, replace

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.practice.quiz import Question
from fandle.core.table.rails import Rail

PARTS = (0.5, 0.35, 0.65)  # of the way to the rail: where the ball that shuts it is tried


@dataclass(frozen=True)
class Shut:
    """The question's layout with the ball in the way; the way that is open, the one that is shut, and by which ball."""

    base: Question
    open: Rail
    shut: Rail
    ball: str


def shut_one(base: Question) -> Shut | None:
    """Shut another one-rail way of a question; None where there is none, or its own would be shut, too."""
    for rail in Rail:
        if rail is base.rails[0]:
            continue
        answer = solve_kick(base.layout, (rail,), base.stroke, with_chain=False)
        if isinstance(answer, Aim):
            found = _with_ball(base, rail, answer.best.corrected.centre)
            if found is not None:
                return found
    return None


def _with_ball(base: Question, rail: Rail, at: float) -> Shut | None:
    """A ball on the way to a rail's mark, where it shuts that way and leaves the question's own."""
    layout, cue = base.layout, base.layout.cue
    name = id_order(layout.game)[1]
    x, y = rail.point(at, float(rail.diamonds_across) if rail.at_end else 0.0)
    for part in PARTS:
        blocker = Ball(name, round(cue.x + part * (x - cue.x), 2), round(cue.y + part * (y - cue.y), 2))
        try:
            there = Layout(layout.table, layout.game, (*layout.balls, blocker), layout.target)
        except BadInputError:
            continue
        shut = solve_kick(there, (rail,), base.stroke, with_chain=False)
        still = solve_kick(there, base.rails, base.stroke, with_chain=False)
        if isinstance(shut, Refusal) and shut.reason_code == "blocked" and isinstance(still, Aim):
            return Shut(replace(base, layout=there), base.rails[0], rail, name)
    return None
