"""A school on a layout as the Compare room and the Handbook show it: its sum, its twins, its path, its hands."""

from typing import Any

from fandle.core.lines.marks import over
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.twin import twin_of
from fandle.core.table.rails import rails_name
from fandle.core.words.spoken import plural_lengths
from fandle.formats.answers import count_json
from fandle.web import address
from fandle.web.address import State
from fandle.web.count_view import played_how, sum_of, verdict
from fandle.web.drawing import path
from fandle.web.figures import FRAME_WORDS, mark
from fandle.web.hand_view import hands


def told(state: State, count: Count | NoCount) -> dict[str, Any]:
    """Everything a page says of one school."""
    return _open(state, count) if isinstance(count, Count) else _shut(count)


def _shut(count: NoCount) -> dict[str, Any]:
    return {"method": count.method, "title": count.title, "applies": False, "reason": count.reason}


def _open(state: State, count: Count) -> dict[str, Any]:
    layout = state.layout
    lead, result = sum_of(count)
    chosen = address.write(
        State(layout, count.stroke, count.rails, count.method, count.frame, count=str(len(count.rails)))
    )
    return {
        **count_json(count),
        "way": over(count.rails),
        "open": count.open,
        "rails_text": rails_name(count.rails),
        "lead": lead,
        "result": result,
        "mark": mark(count.aim, count.frame),
        "frame_words": FRAME_WORDS[count.frame],
        "played": f"{played_how(count, layout.table)} at {plural_lengths(count.lengths)}",
        "verdict": verdict(count),
        "twin": _twin(state, count),
        "shot": path(layout.table, count.shot.pieces),
        "href": f"{address.TABLE_ROOM}?{chosen}",
        "page": f"{address.HANDBOOK}/{count.method}?{chosen}",
        "hands": hands(layout, count),
    }


def _twin(state: State, count: Count) -> str:
    """One plain sentence for the difference between the sum, the mirror and the played line."""
    twin = twin_of(state.layout, count)
    if twin is None:
        return "No line over these rails meets it full with this stroke."
    counted, mirror = f"{twin.counted:.2f}", f"{twin.mirror:.2f}"
    told = (
        f"The count says {counted}, the mirror {mirror}"
        if counted != mirror
        else f"Count and mirror both say {counted}"
    )
    if twin.played is None:
        return f"{told}; full, the table has no such line with this stroke."
    played = f"{twin.played:.2f}"
    if played == counted:
        return f"{told}; played with this stroke it is just right."
    return f"{told}; with this stroke the table wants {played}."
