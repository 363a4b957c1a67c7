"""A system on a layout as the Compare room and the Handbook show it: its sum, its twins, its path, its hands."""

from typing import NotRequired, cast

from pydantic import ConfigDict, with_config
from typing_extensions import TypedDict

from fandle.app.compare import Beside
from fandle.app.situation import Situation
from fandle.core.lines.marks import over
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.twin import Twin
from fandle.core.table.rails import rails_name
from fandle.core.words.spoken import plural_lengths
from fandle.web import address
from fandle.web.counting import count_json, played_how, sum_of, verdict
from fandle.web.drawing import path
from fandle.web.figures import FRAME_WORDS, mark
from fandle.web.hand_view import HandModel, hands
from fandle.web.table.models import Verdict


@with_config(ConfigDict(extra="allow"))
class SystemModel(TypedDict):
    """A system on a layout: the answer of `fandle count`, and how it is said and drawn."""

    method: str
    title: str
    applies: bool
    reason: NotRequired[str]
    way: NotRequired[str]
    label: NotRequired[str]
    open: NotRequired[bool]
    rails_text: NotRequired[str]
    lead: NotRequired[str]
    result: NotRequired[str]
    mark: NotRequired[str]
    frame_words: NotRequired[str]
    played: NotRequired[str]
    verdict: NotRequired[Verdict]
    chance: NotRequired[str]
    twin: NotRequired[str]
    shot: NotRequired[str]
    href: NotRequired[str]
    page: NotRequired[str]
    hands: NotRequired[list[HandModel]]


def told(asked: Situation, found: Beside) -> SystemModel:
    """Everything a page says of one system."""
    count = found.count
    return _shut(count) if isinstance(count, NoCount) else _open(asked, count, found)


def _shut(count: NoCount) -> SystemModel:
    return {"method": count.method, "title": count.title, "applies": False, "reason": count.reason}


def _open(asked: Situation, count: Count, found: Beside) -> SystemModel:
    layout = asked.layout
    lead, result = sum_of(count)
    chosen = address.write(Situation(layout, count.stroke, count.rails, system=count.method, frame=count.frame))
    said: SystemModel = {
        "method": count.method,
        "title": count.title,
        "applies": True,
        "way": over(count.rails),
        "label": f"{count.rails[0]} rail",
        "open": count.open,
        "rails_text": rails_name(count.rails),
        "lead": lead,
        "result": result,
        "mark": mark(count.aim, count.frame),
        "frame_words": FRAME_WORDS[count.frame],
        "played": f"{played_how(count, layout.table)} at {plural_lengths(count.lengths)}",
        "verdict": verdict(count),
        "chance": "" if found.chance is None else f"hits {found.chance.p:.0%}",
        "twin": _twin(found.twin),
        "shot": path(layout.table, count.shot.pieces),
        "href": f"{address.TABLE_ROOM}?{chosen}",
        "page": f"{address.HANDBOOK}/{count.method}?{chosen}",
        "hands": hands(layout.table, found.hands),
    }
    return cast(SystemModel, {**count_json(count, found.tuned), **said})


def _twin(twin: Twin | None) -> str:
    """One plain sentence for the difference between the sum, the mirror and the played line."""
    if twin is None:
        return "No line over these rails hits it full with this stroke."
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
    return f"{told}; with this stroke it needs {played}."
