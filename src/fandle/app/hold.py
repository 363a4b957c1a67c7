"""The question turned round: hold a mark that is easy to aim at, get the stroke that makes it right."""

from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.lines.held import Instead, solve_instead
from fandle.core.lines.marks import direction_to
from fandle.core.lines.solution import Refusal


def hold(asked: Situation, direction: float, change: str) -> Instead | Refusal:
    """The stroke with which the line `direction` (rad) is right; everything but `change` is kept."""
    if asked.kind == "bank" or asked.pocket is not None:
        raise BadInputError(
            "only the mark of a hit can be held: leave --hold or the pocket out", "hold", code="not_with_banks"
        )
    return solve_instead(asked.layout, asked.rails or (), direction, asked.stroke, change, hit=asked.hit)


def hold_mark(asked: Situation, at: float, change: str) -> Instead | Refusal:
    """The same for a mark on the first rail, diamonds in the situation's frame."""
    if asked.kind == "bank" or not asked.rails:
        raise BadInputError("hold the mark of a kick: choose a line over a rail first", "rails", code="not_with_banks")
    layout = asked.layout
    direction = direction_to(layout.table, asked.rails[0], layout.metres(layout.cue), at, asked.frame)
    return hold(asked, direction, change)
