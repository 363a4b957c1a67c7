"""One page a system: words from `pages/*.toml`, a layout to try it on. Common practice, no published source."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
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


@cache
def page_of(method: str) -> Page:
    """A system's page; BadInputError for a system nobody knows."""
    name = known(method)
    data = tomllib.loads((HERE / f"{PAGES[name]}.toml").read_text(encoding="utf-8"))
    example, bank = data.pop("example"), data.pop("bank", None)
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
        **words,
    )


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
