"""The Handbook's finder: which methods suit what is asked for, and a search through all pages."""

from dataclasses import dataclass
from functools import cache
from typing import Literal, cast, get_args

from fastapi import Request

from fandle.core.handbook.close_work import technique_pages
from fandle.core.handbook.corrections import CORRECTIONS
from fandle.core.handbook.essays import cautions, games
from fandle.core.handbook.finder import FITS, Use, Wish, fits, found_in
from fandle.core.handbook.page import all_pages
from fandle.web import address

Options = list[tuple[str, str]]
CHOICES: list[tuple[str, str, Options]] = [
    ("rails", "How many rails", [("", "any number of rails"), ("0", "straight"), ("1", "one rail"), ("2", "two rails"),
                                ("3", "three rails"), ("4", "four rails")]),
    ("ball", "Where the ball lies", [("", "the ball anywhere"), ("rail", "near a rail"), ("open", "in the open")]),
    ("sums", "Sums or none", [("", "with sums or without"), ("no", "without sums")]),
    ("table", "The table", [("", "any table"), ("strange", "a table I don't know")]),
    ("use", "What for", [("", "for anything"), ("kick", "a kick"), ("bank", "a bank"), ("position", "position"),
                         ("point", "a carom point")]),
]  # fmt: skip
ESSAYS = (
    ("corrections", "What moves the mark?", "Speed, side, cloth, rubber: each played on your table, with its figure."),
    ("disputes", "Where players disagree", "The quarrels on one page, with figures on your table."),
    ("games", "The games in short", "Who must be hit first, what counts, what a foul costs; and what can hurt."),
)


@dataclass(frozen=True)
class Search:
    """What is asked of the Handbook; what it does not know is as good as not asked."""

    q: str = ""
    rails: str = ""
    ball: str = ""
    sums: str = ""
    table: str = ""
    use: str = ""

    @classmethod
    def of(cls, request: Request) -> "Search":
        """From an address."""
        query = request.query_params
        known = {name: {value for value, _ in options} for name, _, options in CHOICES}
        chosen = {name: query.get(name, "") for name in known if query.get(name, "") in known[name]}
        return cls(q=query.get("q", "")[:80].strip(), **chosen)

    @property
    def wish(self) -> Wish:
        """What the method is to be like."""
        lie = cast(Literal["rail", "open"] | None, self.ball or None)
        use = cast(Use, self.use) if self.use in get_args(Use) else None
        sums, known = (False if self.sums else None), (False if self.table else None)
        return Wish(int(self.rails) if self.rails else None, lie, sums, known, use)

    @property
    def anything(self) -> bool:
        """Is anything asked?"""
        return bool(self.q) or self.wish.anything

    def choices(self) -> list[tuple[str, str, Options]]:
        """What can be chosen: name, label, options."""
        return CHOICES

    def chosen(self, name: str) -> str:
        """What is chosen of one of them."""
        return str(getattr(self, name))

    def methods(self) -> list[str]:
        """The methods that suit."""
        texts = _texts()
        return [
            name for name in FITS if fits(name, self.wish) and (not self.q or found_in(self.q, *texts[name]))
        ]  # fmt: skip

    def pages(self) -> list[tuple[str, str, str]]:
        """(address, title, a sentence) of the other pages; of those that answer a search where there is one."""
        if self.wish.anything and not self.q:
            return []
        found = [each for each in ESSAYS if not self.q or found_in(self.q, each[1], (each[2], *_essay(each[0])))]
        return [(f"{address.HANDBOOK}/{name}", title, short) for name, title, short in found]

    def told(self) -> str:
        """How many answers there are, in words."""
        count = len(self.methods())
        if not count:
            return "No method suits all of that: leave something open."
        return "One method suits." if count == 1 else f"{count} methods suit."


@cache
def _texts() -> dict[str, tuple[str, tuple[str, ...]]]:
    """(title, all its words) of every method."""
    found: dict[str, tuple[str, tuple[str, ...]]] = {}
    for page in all_pages():
        words = (page.method, page.line, page.who, page.rule, page.by_eye, page.sums, page.exact, page.drifts)
        found[page.method] = page.title, (*words, page.dispute, page.caution)
    for close in technique_pages():
        words = (
            close.method,
            close.line,
            close.who,
            close.rule,
            close.works,
            close.fails,
            close.dispute,
            close.caution,
        )
        found[close.method] = close.title, words
    return found


@cache
def _essay(name: str) -> tuple[str, ...]:
    if name == "corrections":
        return tuple(f"{each.title} {each.why} {each.remedy}" for each in CORRECTIONS)
    return tuple(f"{each.title} {each.text}" for each in (*games(), *cautions())) if name == "games" else ()
