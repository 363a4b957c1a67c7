"""Lists of lines for the Table room, and the question turned round, in words and figures."""

from fandle.core.lines.candidates import Line
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.steps import Steps
from fandle.formats.answers import StrokeAnswer
from fandle.service.hold import hold_mark
from fandle.service.lines import lines
from fandle.service.situation import Situation
from fandle.web import address
from fandle.web.figures import mark
from fandle.web.table.models import HeldModel, LineModel, LinesModel


def all_lines(asked: Situation) -> Steps[LinesModel]:
    """The list beside the drawing, in steps."""
    asked = address.rounded(asked)
    found = yield from lines(asked)
    return {"lines": [line_words(line, asked.frame) for line in found]}


def line_words(line: Line, frame: str) -> LineModel:
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


def held_stroke(asked: Situation, at: float, change: str) -> HeldModel:
    """The stroke for a held mark, for the page to take over; or why there is none."""
    found = hold_mark(address.rounded(asked), at, change)
    if isinstance(found, Refusal):
        return {"solved": False, "reason": found.reason}
    return {"solved": True, "stroke": StrokeAnswer.of(found.stroke).json_data()}
