"""What is said of a chosen line besides its mark: the system's own number, the back sight, the further contacts."""

from fandle.app.answer import Answer, Played
from fandle.app.situation import Situation
from fandle.core.lines.helps import AHEAD_M, BackSight
from fandle.core.lines.marks import from_pocket, inches
from fandle.core.lines.pocket_sights import PocketSight, back_of_side, beside_jaw
from fandle.core.lines.solution import Solution
from fandle.core.systems.base import Count
from fandle.core.systems.own import own_in_words, own_of
from fandle.core.table.model import Table
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
    return found + _pockets(asked, played)


def _pockets(asked: Situation, played: Played) -> list[Help]:
    """The back of the side pocket and the edge of a jaw, where the line is aimed by them."""
    best, table = played.best, asked.table
    if best.contact is not None or not best.rails:
        return []
    found: list[Help] = []
    back = back_of_side(table, best.mark_rail, asked.layout.metres(asked.layout.cue), best.direction)
    if back is not None:
        found.append(
            {"kind": "pocket", "name": f"the back of the {back.pocket} pocket", "text": _off(back, "its middle")}
        )
    jaw = beside_jaw(table, best.mark_rail, best.corrected.nose)
    if jaw is not None:
        found.append({"kind": "jaw", "name": f"the edge of the {jaw.pocket} jaw", "text": _off(jaw, "it")})
    return found


def _off(seen: PocketSight, of: str) -> str:
    if abs(seen.off_mm) < 1.0:
        return f"at {of}"
    return f"{abs(seen.off_mm):.0f} mm {'to the foot side' if seen.off_mm > 0 else 'to the head side'} of {of}"


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
