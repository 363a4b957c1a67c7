"""Lines: the aim over one order of rails with its chain, and the lists of candidates."""

from fandle.core.errors import BadInputError
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.bank_chain import add_bank_chain
from fandle.core.lines.candidates import (
    Line,
    bank,
    bank_line_steps,
    best_among,
    candidate_steps,
    kick,
    kick_line_steps,
    open_straight,
    pot,
    pot_line_steps,
)
from fandle.core.lines.chain import add_chain
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.steps import Steps
from fandle.core.table.rails import Rail
from fandle.service.situation import Situation


def aim(asked: Situation) -> Aim | Refusal:
    """The aim over the rails asked for, with its chain, or why there is none."""
    if asked.kind == "bank":
        return solve_bank(asked.layout, _rails(asked), asked.stroke, pocket=asked.pocket)
    if asked.pocket is not None:
        return solve_pot(asked.layout, _rails(asked), asked.stroke, pocket=asked.pocket)
    return solve_kick(asked.layout, _rails(asked), asked.stroke, hit=asked.hit)


def lines(asked: Situation) -> Steps[list[Line]]:
    """Every line over as many rails as asked for, best first, without chains, in steps."""
    layout, stroke = asked.layout, asked.stroke
    if asked.layout.target is None:
        return []
    if asked.kind == "bank":
        found = yield from bank_line_steps(layout, stroke, asked.over, asked.pocket)
    elif asked.pocket is not None:
        found = yield from pot_line_steps(layout, stroke, asked.over, asked.pocket)
    elif asked.over == (1,):
        found = yield from candidate_steps(layout, stroke, hit=asked.hit)
    else:
        found = yield from kick_line_steps(layout, stroke, asked.over, hit=asked.hit)
        if asked.many == "all":
            found = [*open_straight(layout, stroke, hit=asked.hit), *found]
    return found


def one_line(asked: Situation) -> Line | None:
    """The line over the rails asked for; where none are, the best of the few that will do, None if none is open."""
    layout, stroke = asked.layout, asked.stroke
    if asked.rails is None:
        return best_among(layout, stroke, asked.among, asked.hit)
    if asked.kind == "bank":
        return Line(asked.rails, bank(layout, asked.rails, stroke, pocket=asked.pocket), "")
    if asked.pocket is not None:
        return pot(layout, asked.rails, stroke, asked.pocket)
    return Line(asked.rails, kick(layout, asked.rails, stroke, hit=asked.hit), "")


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
