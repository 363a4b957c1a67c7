"""Lines: the aim over one order of rails with its chain, guarded."""

from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.bank_chain import add_bank_chain
from fandle.core.lines.candidates import (
    Line,
    bank,
    kick,
    pot,
)
from fandle.core.lines.chain import add_chain
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.table.rails import Rail


def aim(asked: Situation) -> Aim | Refusal:
    """The aim over the rails asked for, with its chain, or why there is none."""
    if asked.kind == "bank":
        return solve_bank(asked.layout, _rails(asked), asked.stroke, pocket=asked.pocket)
    if asked.pocket is not None:
        return solve_pot(asked.layout, _rails(asked), asked.stroke, pocket=asked.pocket)
    return solve_kick(asked.layout, _rails(asked), asked.stroke, hit=asked.hit)


def one_line(asked: Situation) -> Line:
    """The line over the rails asked for, straight where none are."""
    layout, stroke, rails = asked.layout, asked.stroke, asked.rails or ()
    if asked.kind == "bank":
        return Line(rails, bank(layout, rails, stroke, pocket=asked.pocket), "")
    if asked.pocket is not None:
        return pot(layout, rails, stroke, asked.pocket)
    return Line(rails, kick(layout, rails, stroke, hit=asked.hit), "")


def with_chain(asked: Situation, found: Aim) -> Aim:
    """The same aim with the chain of its best solution."""
    if found.best.contact is not None:
        return add_bank_chain(asked.layout, asked.stroke, found)
    return add_chain(asked.layout, asked.stroke, found, found.best.hit)


def shot_line(asked: Situation) -> Solution:
    """The solution that a noted attempt was made with. Raises BadInputError where there is no such line."""
    if asked.rails is None:
        raise BadInputError("no rail is chosen: choose the line that was shot", "rails", code="missing")
    if asked.kind == "bank":
        answer = solve_bank(asked.layout, asked.rails, asked.stroke, pocket=asked.pocket, with_chain=False)
    elif asked.pocket is not None:
        answer = solve_pot(asked.layout, asked.rails, asked.stroke, pocket=asked.pocket, with_chain=False)
    else:
        answer = solve_kick(asked.layout, asked.rails, asked.stroke, hit=asked.hit, with_chain=False)
    if not isinstance(answer, Aim):
        raise BadInputError(f"there is no line to note ({answer.reason}): choose an open rail", "rails", code="no_line")
    return answer.best


def _rails(asked: Situation) -> tuple[Rail, ...]:
    if asked.rails is None:
        raise BadInputError("no rails: say which, in order, such as far", "rails", code="missing")
    return asked.rails
