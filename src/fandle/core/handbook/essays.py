"""The games in short, quarrels, cautions: words from `essays.toml`, the figures of the quarrels played on a table."""

import math
import tomllib
from dataclasses import dataclass, replace
from functools import cache
from pathlib import Path
from typing import Any

from fandle.core.handbook.corrections import CORRECTIONS, ONE, corrected
from fandle.core.handbook.page import Page, all_pages
from fandle.core.layout.edit import moved_to
from fandle.core.systems.base import Count, figure
from fandle.core.systems.registry import plain_count
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS

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
        rows = [corrected(each, table) for each in CORRECTIONS if each.title in ("Running side", SHORT_FIRST)]
        told = [f"{row.correction.title.lower()}: {_off(row.shift)}" for row in rows]
        return f"Played on this table: {'; '.join(told)}."
    if name == "snooker":
        new = _plain(conditioned(STANDARDS["snooker-12ft"], "new", "standard"))
        return f"One rail, plain, medium, against equal angles at the edge: {_off(new)} on new snooker cloth."
    return ""


SHORT_FIRST = "Running side, the short rail first"


def _plain(table: Table) -> float | None:
    """How far a plain ball arrives beyond the mirror's place, diamonds."""
    still = replace(next(each for each in CORRECTIONS if each.setup is ONE), change=lambda where, how: (where, how))
    leg = corrected(still, table).before
    ends = [q for q in leg if q.leg == 1]
    if not ends:
        return None
    for q in ends:
        if min(q.start[1], q.end[1]) <= 1.0 <= max(q.start[1], q.end[1]):
            share = (q.start[1] - 1.0) / (q.start[1] - q.end[1]) if q.start[1] != q.end[1] else 0.0
            return q.start[0] + share * (q.end[0] - q.start[0]) - 5.0
    return None


def _off(shift: float | None) -> str:
    if shift is None or not math.isfinite(shift):
        return "it never comes there"
    return f"{figure(abs(shift))} {'long' if shift > 0 else 'short'}"


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
