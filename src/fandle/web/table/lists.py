"""Lists of lines for the Table room, and the question turned round, in words and figures."""

from collections.abc import Sequence

from fandle.core.lines.candidates import Line
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.steps import Steps
from fandle.formats.answers import StrokeAnswer
from fandle.service.hold import hold_mark
from fandle.service.lines import lines
from fandle.service.situation import Situation
from fandle.web import address
from fandle.web.drawing import path
from fandle.web.figures import mark
from fandle.web.table.models import LineModel, LinesModel
from fandle.web.table.replies import HeldModel


def all_lines(asked: Situation) -> Steps[LinesModel]:
    """The list beside the drawing, in steps."""
    asked = address.rounded(asked)
    found = yield from lines(asked)
    return {"lines": line_rows(asked, found)}


def line_rows(asked: Situation, found: Sequence[Line]) -> list[LineModel]:
    """The list in words, the best first; its room for error drawn against the widest."""
    widest = max((line.window_deg for line in found), default=0.0)
    return [_row(asked, line, line.window_deg / widest if widest else 0.0) for line in found]


def _row(asked: Situation, line: Line, room: float) -> LineModel:
    best = line.answer.best if isinstance(line.answer, Aim) else None
    return {
        "rails": line.name,
        "name": line_name(line),
        "why": line.why if best is None or best.pocket is None else f"into {best.pocket}",
        "mark": "" if best is None else mark(best.corrected, asked.frame),
        "solved": best is not None,
        "room": round(room, 3),
        "window": "" if best is None else room_for_error(best),
        "path": "" if best is None else path(asked.table, best.shot.pieces),
    }


def room_for_error(best: Solution) -> str:
    """How wide the window is in all, of a pot that of the pot, short: "64 mm"; straight degrees of the cue."""
    if best.pot is not None:
        return short_mm(best.pot.less_mm + best.pot.more_mm) if best.rails else f"{best.pot.window_deg:.2f}°"
    if not best.rails:
        return f"{best.window_deg:.1f}°"
    return f"{best.window_mm:.0f} mm"


def short_mm(mm: float) -> str:
    """A length in whole millimetres, a very small one in tenths."""
    return f"{mm:.0f} mm" if mm >= 2 else f"{mm:.1f} mm"


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
