"""One page a system: words from `pages/*.toml`, a layout to try it on. Common practice, no published source."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count, RailNumber
from fandle.core.systems.catalogue import METHODS, PAGES, TITLES, known
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail, parse_rails
from fandle.core.table.standards import standard_table, usual_game
from fandle.core.words.glossary import WORDS

HERE = Path(__file__).parent / "pages"
TARGETS = {"snooker": "red1", "three-cushion": "red"}  # any other game: the 7


@dataclass(frozen=True)
class BankExample:
    """A layout on which the system counts a bank."""

    layout: Layout
    rails: tuple[Rail, ...]
    pocket: str


@dataclass(frozen=True)
class Trusted:
    """Where a system can be trusted, and the share of its own aims that hit there.

    say: where, in words that go on from "it hits at least … times in 100"; angle: degrees from the first rail at which
    that is met; number: what is counted at the cue ball; close: counted along one rail, the cue ball at most so many
    diamonds off it; None where it does not matter. The share is our own figure, over the standard tables it counts on,
    with a house cue (`bench/shares.py`), rounded down to a twentieth.
    """

    say: str
    share: float
    angle: tuple[float, float] = (0.0, 90.0)
    number: tuple[float, float] | None = None
    close: float | None = None

    def covers(self, found: Count) -> bool:
        """Does a count lie where its system can be trusted?"""
        met = found.shot.events[0].in_deg
        if met is None or not self.angle[0] <= met <= self.angle[1]:
            return False
        counted = next((n for n in found.numbers if n.role == "cue"), None)
        if self.number is not None and not (counted and self.number[0] <= float(counted.label) <= self.number[1]):
            return False
        return self.close is None or (counted is not None and _along_one_rail(found, counted, self.close))


def _along_one_rail(found: Count, counted: RailNumber, close: float) -> bool:
    """Is it counted along one rail, and does the cue ball lie close to that?"""
    rail, zero = counted.rail, next(n for n in found.numbers if n.role == "zero")
    across = rail.across(*found.shot.pieces[0].start)
    off = rail.diamonds_across - across if rail.at_end else across
    return zero.rail is rail and off <= close


@dataclass(frozen=True)
class Page:
    """A system's page. line: in one sentence; by_eye: without sums; sums: the shortcut; axis: of its sweep.

    counted: the axis is the number counted, not the cue ball's place.
    """

    method: str
    title: str
    line: str
    who: str
    rule: str
    by_eye: str
    sums: str
    exact: str
    drifts: str
    dispute: str
    caution: str
    rivals: tuple[str, ...]
    axis: str
    counted: bool
    example: Layout
    rails: tuple[Rail, ...]
    sweep: tuple[Point, Point]
    bank: BankExample | None
    trusted: Trusted


@cache
def page_of(method: str) -> Page:
    """A system's page; BadInputError for a system nobody knows."""
    name = known(method)
    data = tomllib.loads((HERE / f"{PAGES[name]}.toml").read_text(encoding="utf-8"))
    example, bank, trusted = data.pop("example"), data.pop("bank", None), data.pop("trusted")
    words = {**data, "rivals": tuple(data["rivals"])}
    table = standard_table(example["table"])
    a, b = example["sweep"]
    return Page(
        method=name,
        title=TITLES[name],
        line=WORDS[name],
        example=laid(table, example),
        bank=None if bank is None else BankExample(laid(table, bank), parse_rails(bank["rails"]), bank["pocket"]),
        rails=parse_rails(example["rails"]),
        sweep=((a[0], a[1]), (b[0], b[1])),
        counted=words.pop("counted", False),
        trusted=_trusted(trusted),
        **words,
    )


def _trusted(told: dict[str, Any]) -> Trusted:
    low, high = told.get("angle", (0.0, 90.0))
    number = told.get("number")
    counted = None if number is None else (number[0], number[1])
    return Trusted(told["say"], told["share"], (low, high), counted, told.get("close"))


def laid(table: Table, places: dict[str, Any]) -> Layout:
    """A cue ball and a target laid on a table; a coordinate of nought lies on the rail."""
    game = usual_game(table)
    target = TARGETS.get(game, "7")
    x, y = places["target"]
    return Layout(
        table, game, (Ball("cue", *places["cue"]), Ball(target, x, y or table.ball_radius / table.diamond_y)), target
    )


def all_pages() -> list[Page]:
    """Every system's page, in the order of their numbers."""
    return [page_of(name) for name in METHODS]
