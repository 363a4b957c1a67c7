"""The games in short, quarrels, cautions: words from `essays.toml`, the figures of the quarrels played on a table."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from fandle.core.handbook.corrections import CORRECTIONS, ONE, SHORT_FIRST, arrives, corrected
from fandle.core.handbook.page import Page, all_pages
from fandle.core.layout.edit import moved_to
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, figure
from fandle.core.systems.registry import plain_count
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import STANDARDS
from fandle.core.words.spoken import landing_word

MIRRORED = 5.0  # where the mirror in the edge sends the cue ball of ONE, diamonds
CLOTHS = ("new", "standard", "damp")


@dataclass(frozen=True)
class Essay:
    """A piece of text with its title. key: what it is called, figure: what is played beside it; "" for none."""

    title: str
    text: str
    key: str = ""
    figure: str = ""


@dataclass(frozen=True)
class Quarrel:
    """Where a system's followers disagree, and how its own example lands on this table with each cloth, in words; "–"
    where it does not count there."""

    method: str
    title: str
    text: str
    lands: tuple[str, ...]


@cache
def _text() -> dict[str, list[dict[str, Any]]]:
    return tomllib.loads((Path(__file__).parent / "essays.toml").read_text(encoding="utf-8"))


def games() -> list[Essay]:
    """The games in short."""
    return [Essay(each["title"], each["text"], each["name"]) for each in _text()["games"]]


def cautions() -> list[Essay]:
    """What can hurt people or things."""
    return [Essay(each["title"], each["text"], each["key"]) for each in _text()["cautions"]]


def caution(key: str) -> str:
    """One caution's text; KeyError for one nobody knows."""
    return {each.key: each.text for each in cautions()}[key]


def disputes(table: Table) -> list[Essay]:
    """The quarrels that belong to no single system, each with its figure on a table."""
    return [Essay(each["title"], each["text"], figure=_figure(each["figure"], table)) for each in _text()["disputes"]]


def _figure(name: str, table: Table) -> str:
    if name == "frames":
        if table.sight_setback is None:
            return "This table has no diamonds: there is only the edge."
        apart = table.sight_setback / table.diamond_x
        return f"At 45° the two are {figure(apart)} diamond apart on this table."
    if name == "short-first":
        rows = [
            corrected(each, table) for each in CORRECTIONS if each.setup is SHORT_FIRST or each.title == "Running side"
        ]
        both = [f"{row.correction.title.lower()}: {_off(row.shift)}" for row in rows]
        return f"Played on this table: {'; '.join(both)}."
    if name == "snooker":
        new = conditioned(STANDARDS["snooker-12ft"], "new", "standard")
        at, _ = arrives(ONE, new, Stroke(speed_of(new, ONE.lengths)))
        told = _off(None if at is None else at - MIRRORED)
        return f"One rail, plain, medium, against equal angles at the edge: {told} on new snooker cloth."
    return ""


def _off(shift: float | None) -> str:
    return "it never comes there" if shift is None else landing_word(shift)


def quarrels(table: Table) -> list[Quarrel]:
    """Every system's own quarrel, with its own example played on a table with new, standard and damp cloth."""
    return [_quarrel(page, table) for page in all_pages()]


def _quarrel(page: Page, table: Table) -> Quarrel:
    lands = []
    for cloth in CLOTHS:
        layout = moved_to(page.example, conditioned(table, cloth, "own numbers"))
        found = plain_count(page.method, layout, page.rails)
        lands.append(found.lands.where if isinstance(found, Count) else "–")
    return Quarrel(page.method, page.title, page.dispute, tuple(lands))
