"""Kept things as the Table room shows them: their state and their address."""

from dataclasses import dataclass
from urllib.parse import quote

from fandle.app.library import Known
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import CUES, IDEAL
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import tips_of
from fandle.core.table.speeds import default_speed, lengths_of
from fandle.core.words.spoken import plural_lengths, side_name, tips_word
from fandle.store.log import Noted
from fandle.store.noting import noted_situation
from fandle.web import address
from fandle.web.known import NEWCOMER, Mine


def href(asked: Situation) -> str:
    """Where the Table room shows a situation."""
    return address.TABLE_ROOM + "?" + address.write(asked)


def plain(layout: Layout, mine: Mine = NEWCOMER) -> Situation:
    """A layout, plain at medium speed with the player's own cue and system."""
    return Situation(layout, Stroke(default_speed(layout.table), cue=mine.cue), system=mine.system)


def layout_href(layout: Layout, mine: Mine, name: str = "") -> str:
    """Where a kept layout is reopened; name: the one it is kept under."""
    return href(plain(layout, mine)) + (f"&name={quote(name)}" if name else "")


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
