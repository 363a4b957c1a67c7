"""How this browser is spoken to: American or British English, and rails named as its drawing lies.

Both are kept in cookies by the page; without them the language the browser asks for decides, and the table lies.
"""

from collections.abc import Mapping
from typing import Any, TypeVar, cast

from fastapi import Request

from fandle.core.table.model import Table
from fandle.core.words.screen import English, Screen

ENGLISH, UPRIGHT = "fandle-english", "fandle-upright"  # cookies
BRITISH = ("en-gb", "en-ie", "en-au", "en-nz", "en-za", "en-in")  # languages of browsers whose players say cushion
# fields of an answer that hold words for people; all others (ids, rails, drawing data) are left as they are
SAID = frozenset(
    ("adjust", "advice", "after", "aim", "aim_at", "beside", "big_words", "contact", "counted_from", "cushions", "do",
     "frame_words", "gain", "give", "height_text", "hit_text", "how", "in_off", "in_the_way", "keep", "label", "lead",
     "measured", "moved", "name", "reason", "played", "remember", "remembered", "risk", "say", "says", "seen",
     "side_text", "squirt", "steps", "strike", "stroke", "stroke_name", "text", "verdict", "thickness", "told", "twin",
     "wanted", "way", "what", "where", "why", "window")
)  # fmt: skip
# what is long and holds no words
DRAWN = frozenset(("answer", "films", "layout", "line", "mark", "path", "rests", "shot"))
WORDLESS = (bool, int, float, type(None))
# words that stand in the templates: (American, British)
LABELS = {
    "side": ("English", "Side"),
    "rail": ("rail", "cushion"),
    "rails": ("rails", "cushions"),
}
T = TypeVar("T")


def english_of(request: Request) -> English:
    """The English this browser is spoken to in."""
    chosen = request.cookies.get(ENGLISH)
    if chosen in ("us", "uk"):
        return cast(English, chosen)
    first = request.headers.get("accept-language", "").split(",")[0].split(";")[0].strip().lower()
    return "uk" if first.startswith(BRITISH) else "us"


def screen_of(request: Request, table: Table, *, turns: bool = True) -> Screen:
    """How the page speaks of this table. turns: in this room the drawing stands on an upright phone."""
    upright = turns and request.cookies.get(UPRIGHT) == "1"
    return Screen(upright, english_of(request), table.d_radius is not None)


def labels(english: English) -> Mapping[str, str]:
    """The words of the templates."""
    return {name: pair[english == "uk"] for name, pair in LABELS.items()}


def words_of(request: Request) -> dict[str, Any]:
    """What every page is given: its English and the words that go with it."""
    english = english_of(request)
    return {"english": english, "t": labels(english)}


def said(data: T, screen: Screen, field: str = "") -> T:
    """An answer with everything that is meant for people said as this screen says it."""
    found: Any = data
    if isinstance(found, str):
        found = screen.say(found) if field in SAID else found
    elif isinstance(found, dict):
        found = {
            key: value if key in DRAWN or type(value) in WORDLESS else said(value, screen, key)
            for key, value in found.items()
        }
    elif isinstance(found, list | tuple):
        found = type(found)(said(value, screen, field) for value in found)
    return cast(T, found)
