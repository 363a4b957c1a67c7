"""What is said of a chosen line besides its mark: the system's own number, the back sight, the further contacts."""

from fandle.core.lines.helps import AHEAD_M, BackSight
from fandle.core.lines.marks import from_pocket, inches
from fandle.core.lines.solution import Solution
from fandle.core.systems.base import Count
from fandle.core.systems.own import own_in_words, own_of
from fandle.core.table.model import Table
from fandle.service.answer import Answer, Played
from fandle.service.situation import Situation
from fandle.web.table.help_models import Help, OwnMark


def helps(asked: Situation, played: Played) -> list[Help]:
    """Where the shaft crosses the rail behind, the spot just ahead, and the contacts to watch for."""
    table, told = asked.table, played.helps
    x, y = told.ahead
    found: list[Help] = [
        {"kind": "back", "name": f"shaft over the {told.back.rail} rail", "text": _behind(table, told.back)},
        {"kind": "ahead", "name": f"{AHEAD_M * 100:.0f} cm ahead, the line passes", "text": f"{x:.2f}, {y:.2f}"},
    ]
    words = ("second", "third", "fourth")
    contacts = zip(words, told.contacts, strict=False)
    for word, (rail, at) in contacts:
        found.append({"kind": "contact", "name": f"{word} contact, {rail} rail", "text": f"{at:.2f}"})
    return found


def _behind(table: Table, back: BackSight) -> str:
    if table.has_diamonds:
        return f"{back.mark.say} ({back.at:.2f})"
    away, pocket = from_pocket(table, back.rail, back.at)
    return f"{away * 1000:.0f} mm ({inches(away)}) from the {pocket}"


def own_number(asked: Situation, best: Solution, found: Answer) -> OwnMark | None:
    """The chosen aim in the numbers of the system that counts it; None where that has none."""
    count = None if found.counted is None else found.counted.found
    if not isinstance(count, Count) or best.contact is not None:
        return None
    own = own_of(count, best.corrected)
    return None if own is None else {"system": count.title, "say": own_in_words(own, asked.table, best.mark_rail)}
