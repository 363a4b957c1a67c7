"""The count of the Table room: a school's sum, its stroke and its landing, in words."""

from dataclasses import replace
from typing import Any

from fandle.core.shot.side import running
from fandle.core.shot.tips import tips_of
from fandle.core.systems.base import Count, figure
from fandle.core.systems.registry import TITLES, schools_over
from fandle.core.systems.registry import counted as count_over
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.words.spoken import plural_lengths, tips_word
from fandle.formats.answers import count_json
from fandle.web import address
from fandle.web.address import State
from fandle.web.figures import FRAME_WORDS


def counted(state: State, rails: tuple[Rail, ...], pocket: str | None = None) -> dict[str, Any]:
    """What the chosen school says of a line over these rails, of a bank into `pocket`."""
    methods = [{"method": m, "title": title, "chosen": m == state.method} for m, title in TITLES.items()]
    if not rails:
        return {"applies": False, "reason": "a straight shot needs no count", "methods": methods}
    pocket = pocket if state.kind == "bank" else None
    found = count_over(state.method, state.layout, rails, kind=state.kind, pocket=pocket)
    page = f"{address.HANDBOOK}/{state.method}?{address.write(replace(state, rails=rails))}"
    data: dict[str, Any] = {**count_json(found), "methods": methods, "page": page}
    if not isinstance(found, Count):
        data["instead"] = [m for m in schools_over(rails, state.kind) if m != state.method]
    if isinstance(found, Count):
        data["verdict"] = verdict(found)
        data["played"] = {
            "how": played_how(found, state.layout.table),
            "speed": plural_lengths(found.lengths),
            "frame": FRAME_WORDS[found.frame],
        }
        data["lead"], data["result"] = sum_of(found)
    return data


def played_how(found: Count, table: Table) -> str:
    """The stroke a school means, in words: "plain", "with ¾ tip running and ½ tip follow"."""
    side, up = tips_of(found.stroke.side, table), tips_of(found.stroke.up, table)
    parts = []
    if abs(side) >= 0.02:
        parts.append(f"{tips_word(side)} {running(found.stroke.side, found.rails[0], found.direction)}")
    if abs(up) >= 0.02:
        parts.append(f"{tips_word(up)} {'follow' if up > 0 else 'draw'}")
    return "with " + " and ".join(parts) if parts else "plain"


def sum_of(found: Count) -> tuple[str, str]:
    """The last step cut at its equals sign, so that the result can stand out."""
    lead, equals, result = found.steps[-1].rpartition("= ")
    return lead + equals, result


def verdict(found: Count) -> dict[str, str]:
    """Where a count lands, and what that means."""
    lands = found.lands
    where = lands.where
    if found.pocket is not None:
        return {"where": where, "what": "it drops" if found.potted else "it does not drop"}
    if lands.off_balls < 1.0:
        side = "" if lands.met == "full" else f", on its {lands.met}"
        return {"where": where, "what": f"a hit, {1 - lands.off_balls:.0%} full{side}"}
    return {"where": where, "what": f"a miss by {figure(lands.off_balls - 1, 1)} ball widths, past its {lands.met}"}
