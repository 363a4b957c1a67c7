"""A system's count in words: its sum, its stroke and its landing."""

from dataclasses import replace
from typing import Any, cast

from fandle.app.answer import Answer
from fandle.app.situation import Situation
from fandle.core.shot.side import running
from fandle.core.shot.tips import tips_of
from fandle.core.systems.base import Count, NoCount, figure
from fandle.core.systems.catalogue import TITLES
from fandle.core.systems.verdict import room_said, verdict_of
from fandle.core.table.model import Table
from fandle.core.tablecheck.own_marks import Tuned
from fandle.core.tablecheck.test_shot import carried_words
from fandle.core.words.spoken import plural_lengths, tips_word
from fandle.formats.answers import count_answer
from fandle.web import address
from fandle.web.figures import FRAME_WORDS
from fandle.web.table.models import CountModel, MethodModel, Verdict


def counted(asked: Situation, answer: Answer) -> CountModel:
    """What the favourite system says of the chosen line, or the one that stands in for it."""
    shown = asked.system if answer.counted is None else answer.counted.found.method
    methods: list[MethodModel] = [
        {"method": name, "title": title, "chosen": name == shown} for name, title in TITLES.items()
    ]
    if answer.counted is None or answer.chosen is None:
        return {"applies": False, "reason": "a straight shot needs no count", "methods": methods}
    found, favourite, own = answer.counted.found, answer.counted.favourite, answer.counted.tuned
    page = f"{address.HANDBOOK}/{shown}?{address.write(replace(asked, rails=answer.chosen.rails, system=shown))}"
    data = cast(CountModel, {**count_json(found, own), "methods": methods, "page": page})
    if not isinstance(found, Count):
        return data
    data["verdict"] = verdict(found)
    data["played"] = {
        "how": played_how(found, asked.table),
        "speed": plural_lengths(found.lengths),
        "frame_words": FRAME_WORDS[found.frame],
    }
    data["lead"], data["result"] = sum_of(found)
    if favourite is not None:
        data["stands_in"] = {"title": favourite.title, "reason": favourite.reason}
    return data


def count_json(found: Count | NoCount, own: Tuned | None) -> dict[str, Any]:
    """The answer of `fandle count`, with the table's own mark among its numbers and in its words."""
    data = count_answer(found, tuned=own).json_data()
    if own is None or not isinstance(found, Count):
        return data
    number = figure(own.at) if own.own is None else figure(own.own.number, 1)
    what = "mark" if own.own is None else "number"
    data["numbers"].append({"rail": found.rails[0].value, "at": own.at, "label": f"here {number}", "role": "table"})
    by = f", {carried_words(own.carried)} than by its numbers" if own.carried else f": it lands {own.lands.where}"
    data["say"] += f" This table's own {what} for it is {number}{by}."
    return data


def played_how(found: Count, table: Table) -> str:
    """The stroke a system means, in words: "plain", "with ¾ tip running and ½ tip follow"."""
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


def verdict(found: Count) -> Verdict:
    """What happens when a count is played, and how exactly."""
    if found.contact is not None:
        return {"where": "drops" if found.potted else "does not drop", "what": f"lands {found.lands.where}"}
    return {"where": verdict_of(found.lands), "what": room_said(found.lands, found.pocket)}
