"""What is said on a screen: rails and pockets by how the drawing lies, in American or British English.

Inside, in files and on the command line rails are called near, far, head and foot, pockets side-far, foot-near and so
on. On a screen a player reads top, right, left side pocket. The drawing lies (head at the left) or stands (head at the
bottom). Snooker keeps its own words: baulk and top cushion, yellow, green and black pockets, middle pockets.
"""

import re
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Literal

English = Literal["us", "uk"]

_RAIL = "near|far|head|foot"
_LYING = {"near": "bottom", "far": "top", "head": "left", "foot": "right"}
_STANDING = {"near": "right", "far": "left", "head": "bottom", "foot": "top"}
_SNOOKER_LYING = {"near": "lower", "far": "upper", "head": "baulk", "foot": "top"}
_SNOOKER_STANDING = {"near": "right", "far": "left", "head": "baulk", "foot": "top"}
_SNOOKER_POCKETS = {"head-near": "yellow", "head-far": "green"}

# a rail by itself or several in order; what makes it sure that rails are meant stands before or after them
_RAILS = re.compile(
    rf"(?P<before>\bover |\bto the |^)?\b(?P<list>(?:{_RAIL})(?:(?:, ?|; | and | and the )(?:{_RAIL})\b)*)"
    r"(?P<noun> rails?\b| end\b)?(?P<after>:)?",
    re.IGNORECASE,
)
_ONE = re.compile(rf"\b(?:{_RAIL})\b", re.IGNORECASE)
_POCKET = re.compile(r"(?P<the>\bthe )?\b(?P<end>head|side|foot)-(?P<side>near|far)\b(?P<noun> pocket| corner| jaw)?")
_AMERICAN = (
    (r"\bcentre", "center"),
    (r"\bCentre", "Center"),
    (r"\bcolour", "color"),
    (r"\bpotted\b", "pocketed"),
    (r"\bPotted\b", "Pocketed"),
    (r"\bin-off\b", "scratch"),
    (
        r"\b([Rr]unning|[Rr]everse|[Nn]o|[Mm]uch|[Ff]ull|[Oo]rdinary|[Oo]f|[Ww]ith|[Ww]ithout|[Bb]y|[Mm]ore|[Ll]ess|[Ii]nside|[Oo]utside)"
        r" side\b(?!-| of| pocket)",
        r"\1 English",
    ),
    (r"^Side\b(?! pocket)", "English"),
)
_BRITISH = (
    (r"\brails\b", "cushions"),
    (r"\bRails\b", "Cushions"),
    (r"\brail\b(?!-)", "cushion"),
    (r"\bRail\b(?!-)", "Cushion"),
    (r"\bside pocket", "middle pocket"),
    (r"\bscratch", "in-off"),
)
_US = [(re.compile(before), after) for before, after in _AMERICAN]
_UK = [(re.compile(before), after) for before, after in _BRITISH]
REMEMBERED = 4096  # sentences: the same ones come back with every answer of a drag


@dataclass(frozen=True)
class Screen:
    """How one screen speaks. upright: the table stands, its head at the bottom; snooker keeps its own words."""

    upright: bool = False
    english: English = "us"
    snooker: bool = False

    @cached_property
    def _names(self) -> dict[str, str]:
        if self.snooker:
            return _SNOOKER_STANDING if self.upright else _SNOOKER_LYING
        return _STANDING if self.upright else _LYING

    def rail(self, name: str, *, noun: bool = True) -> str:
        """A rail: "top rail"; "left side cushion" on a snooker table."""
        said = self._names[name]
        if self.snooker and name in ("near", "far"):
            said += " side"
        return f"{said} {self.rail_word}" if noun else said

    @property
    def rail_word(self) -> str:
        """What a rail is called: cushion in Britain, and on every snooker table."""
        return "cushion" if self.snooker or self.english == "uk" else "rail"

    def pocket(self, name: str, noun: str = "") -> str:
        """A pocket: "top-right corner", "top side pocket"; "green pocket" on a snooker table."""
        end, _, side = name.partition("-")
        across = self._names[side]
        if end == "side":
            middle = "middle" if self.snooker or self.english == "uk" else "side"
            return f"{across} {middle} {noun or 'pocket'}"
        if self.snooker:
            said = _SNOOKER_POCKETS.get(name, f"{across} black")
            return f"{said} {noun or 'pocket'}"
        along = self._names[end]
        said = f"{along}-{across}" if self.upright else f"{across}-{along}"
        return f"{said} {noun or 'corner'}"

    def say(self, text: str) -> str:
        """A sentence of the core, as this screen says it."""
        return _said(self, text)

    def dialect(self, text: str) -> str:
        """The same words, rails named as they are, in American or British English."""
        british = self.snooker or self.english == "uk"
        for before, after in _UK if british else ():
            text = before.sub(after, text)
        for before, after in () if self.english == "uk" else _US:
            text = before.sub(after, text)
        return text

    def _pocket(self, found: re.Match[str]) -> str:
        name = f"{found['end']}-{found['side']}"
        if found["noun"] == " jaw":
            return f"the jaw of the {self.pocket(name)}"
        return f"the {self.pocket(name, 'pocket' if found['noun'] == ' pocket' else '')}"

    def _rails(self, found: re.Match[str]) -> str:
        several = len(_ONE.findall(found["list"])) > 1
        begins = found["before"] == ""
        sure = found["noun"] or found["before"] or (several and not begins) or found["after"]
        if not sure and not (begins and found.end() == len(found.string)):
            return found[0]
        noun = found["noun"] or ""
        if noun == " end" and not (self.snooker and found["list"].lower() in ("head", "foot")):
            noun = ""  # "from the left" says as much

        def one(rail: re.Match[str]) -> str:
            said = self.rail(rail[0].lower(), noun=False)
            return said[:1].upper() + said[1:] if rail[0][0].isupper() else said

        return (found["before"] or "") + _ONE.sub(one, found["list"]) + noun + (found["after"] or "")


@lru_cache(REMEMBERED)
def _said(screen: Screen, text: str) -> str:
    text = _POCKET.sub(screen._pocket, text)
    return screen.dialect(_RAILS.sub(screen._rails, text))
