"""Kept things as the Table room shows them: their state and their address."""

import math
from dataclasses import dataclass
from typing import Any
from urllib.parse import quote

from fandle.app.log import Attempt
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.practice.record import Result, Tried
from fandle.core.shot.cue import CUES, IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import tips_of
from fandle.core.systems.catalogue import systems_over
from fandle.core.table.rails import parse_rails, rails_name
from fandle.core.table.speeds import default_speed, lengths_of
from fandle.core.words.spoken import plural_lengths, side_name, tips_word
from fandle.formats.answers import StrokeAnswer
from fandle.formats.files import layout_json, layout_of
from fandle.formats.parts import MarksAnswer
from fandle.store.log import Noted
from fandle.web import address
from fandle.web.known import NEWCOMER, STANDARD, Known, Mine


def noted_situation(row: Noted, known: Known = STANDARD) -> Situation:
    """The Table room as it stood when an attempt was made, on the table as it was then.

    Raises BadInputError where the record is not what this version writes.
    """
    s = row.stroke
    try:
        stroke = Stroke(s["speed"], s["side"], s["up"], cue=_cue(s["cue"], known))
        hit = s.get("hit", 0.0)
    except (TypeError, KeyError, AttributeError):
        raise BadInputError(f"the record of attempt {row.uid} cannot be read", "stroke") from None
    return Situation(
        layout_of(row.layout), stroke, parse_rails(row.rails), "bank" if row.kind == "bank" else "kick", row.pocket, hit
    )


def tried_of(row: Noted) -> Tried:
    """What came of an attempt. Raises ValueError where the record says no such thing."""
    off = row.off if isinstance(row.off, float) and math.isfinite(row.off) else None
    return Tried(Result(row.result), off)


def _cue(name: str, known: Known) -> Cue:
    """The cue it was played with; the ideal one where that has been let go of."""
    try:
        return known.cue(name)
    except BadInputError:
        return IDEAL


def href(asked: Situation) -> str:
    """Where the Table room shows a situation."""
    return address.TABLE_ROOM + "?" + address.write(asked)


def plain(layout: Layout, mine: Mine = NEWCOMER) -> Situation:
    """A layout, plain at medium speed with the player's own cue and system."""
    return Situation(layout, Stroke(default_speed(layout.table), cue=mine.cue), system=mine.system)


def layout_href(layout: Layout, mine: Mine, name: str = "") -> str:
    """Where a kept layout is reopened; name: the one it is kept under."""
    return href(plain(layout, mine)) + (f"&name={quote(name)}" if name else "")


def noted_attempt(made: Attempt, uid: str, made_at: str, table_label: str, **more: Any) -> Noted:
    """An attempt as it is kept; more: what is said of it besides."""
    asked, best = made.situation, made.best
    hit = {"hit": asked.hit} if asked.hit else {}
    return Noted(
        uid=uid, made_at=made_at, set_up=made.set_up, title=made.title, table_label=table_label,
        layout=layout_json(asked.layout), kind=made.shot.kind, rails=rails_name(best.rails), pocket=made.shot.pocket,
        stroke={**StrokeAnswer.of(asked.stroke).json_data(), **hit}, aim=MarksAnswer.of(best.corrected).json_data(),
        result=made.result.value,
        potted=made.potted, system=system_shown(asked, made.shot.kind), **more,
    )  # fmt: skip


def system_shown(asked: Situation, kind: str) -> str:
    """The player's system where it counts this line, else ""."""
    rails = asked.rails or ()
    return asked.system if rails and asked.system in systems_over(rails, kind) else ""


@dataclass(frozen=True)
class NotedShot:
    """What an attempt's record says of its shot: words, the mark, where it is reopened; malformed, only that."""

    words: str = "this record cannot be read"
    mark: str = "–"
    href: str | None = None


class NotedShots:
    """Shots in words; attempts at one set-up mostly share a record, which is then read once."""

    def __init__(self, tip: float, known: Known) -> None:
        self.tip, self.known = tip, known
        self._read: dict[str, NotedShot] = {}

    def of(self, row: Noted) -> NotedShot:
        """The shot of an attempt."""
        key = repr((row.layout, row.stroke, row.aim, row.rails, row.kind, row.pocket))
        if key not in self._read:
            try:
                self._read[key] = self._shot(row)
            except (BadInputError, TypeError, KeyError, AttributeError):
                self._read[key] = NotedShot()
        return self._read[key]

    def _shot(self, row: Noted) -> NotedShot:
        asked = noted_situation(row, self.known)
        table, stroke = asked.table, asked.stroke
        tips = tips_of(stroke.side, table, self.tip)
        side = "no side" if abs(tips) < 0.02 else f"{tips_word(tips)} {side_name(tips)}"
        name = str(row.stroke["cue"])
        cue = "" if name == IDEAL.name else f", {_cue_label(name)}"
        words = f"{plural_lengths(lengths_of(table, stroke.speed))}, {side}{cue}"
        return NotedShot(words, f"{row.aim['nose']:.2f}", href(asked))


def _cue_label(name: str) -> str:
    return CUES[name].label if name in CUES else name
