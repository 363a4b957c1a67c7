"""Lists of lines for the Table room, and the question turned round, in words and figures."""

from typing import Any

from fandle.core.errors import BadInputError
from fandle.core.lines.candidates import Line, bank_line_steps, candidate_steps, kick_line_steps
from fandle.core.lines.held import solve_instead
from fandle.core.lines.marks import direction_to
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.steps import Steps
from fandle.formats.answers import stroke_json
from fandle.web import address
from fandle.web.address import State
from fandle.web.figures import mark


def found_lines(state: State) -> Steps[list[Line]]:
    """The candidates a state asks for, best first, in steps."""
    layout, stroke = state.layout, state.stroke
    if state.kind == "bank":
        return bank_line_steps(layout, stroke, state.counts, state.pocket)
    if state.count == "1":
        return candidate_steps(layout, stroke, hit=state.hit)
    return kick_line_steps(layout, stroke, state.counts, hit=state.hit)


def all_lines(state: State) -> Steps[list[dict[str, Any]]]:
    """The list beside the drawing, in steps."""
    state = address.rounded(state)
    if state.layout.target is None:
        return []
    found = yield from found_lines(state)
    return [line_words(line, state.frame) for line in found]


def line_words(line: Line, frame: str) -> dict[str, Any]:
    """One line of the list."""
    best = line.answer.best if isinstance(line.answer, Aim) else None
    return {
        "rails": line.name,
        "name": line_name(line),
        "why": line.why,
        "mark": "no" if best is None else mark(best.corrected, frame),
        "solved": best is not None,
    }


def line_name(line: Line) -> str:
    """The rails as a player says them."""
    if not line.rails:
        return "Straight"
    names = ", ".join(line.rails).capitalize()
    return f"{names} rail" if len(line.rails) == 1 else names


def held_stroke(state: State, at: float, change: str) -> dict[str, Any]:
    """The stroke for a held mark, for the page to take over; or why there is none."""
    state = address.rounded(state)
    if state.kind == "bank" or not state.rails:
        raise BadInputError("hold the mark of a kick: choose a line over a rail first", "rails")
    layout = state.layout
    direction = direction_to(layout.table, state.rails[0], layout.metres(layout.cue), at, state.frame)
    answer = solve_instead(layout, state.rails, direction, state.stroke, change, hit=state.hit)
    if isinstance(answer, Refusal):
        return {"solved": False, "reason": answer.reason}
    return {"solved": True, "stroke": stroke_json(answer.stroke)}
