"""The room for error in figures, and the question turned round."""

from fandle.app.hold import hold_mark
from fandle.app.situation import Situation
from fandle.core.lines.solution import Refusal, Solution
from fandle.formats.answers import StrokeAnswer
from fandle.web import address
from fandle.web.table.replies import HeldModel


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


def held_stroke(asked: Situation, at: float, change: str) -> HeldModel:
    """The stroke for a held mark, for the page to take over; or why there is none."""
    found = hold_mark(address.rounded(asked), at, change)
    if isinstance(found, Refusal):
        return {"solved": False, "reason": found.reason}
    return {"solved": True, "stroke": StrokeAnswer.of(found.stroke).json_data()}
