"""The games in short, quarrels, cautions: words from `essays.toml`, the figures of the quarrels played on a table."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from fandle.core.handbook.corrections import CORRECTIONS, ONE, SHORT_FIRST, arrives, corrected
from fandle.core.handbook.page import Page, all_pages, laid
from fandle.core.layout.edit import moved_to
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, figure
from fandle.core.systems.contact import FULL_ON, Contact
from fandle.core.systems.registry import count, plain_count
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed, speed_of
from fandle.core.table.standards import STANDARDS
from fandle.core.techniques.base import Technique
from fandle.core.techniques.half_ball import third_contact
from fandle.core.techniques.registry import solved
from fandle.core.words.spoken import landing_word

OFF_THE_RAIL = (("frozen", 0.0), ("a third of a diamond off", 1 / 3), ("a diamond off", 1.0))
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
    played = {"frozen": _windows, "M23": _third_contacts, "span": _spans}.get(name)
    return "" if played is None else played(table)


def _laid(table: Table, cue: Point, ball: Point) -> Layout:
    """A cue ball and one ball that is on; a coordinate of nought lies frozen to the near rail."""
    return laid(table, {"cue": cue, "target": ball})


def _windows(table: Table) -> str:
    """How wide the window of a plain kick over one rail is, at medium, for a ball frozen, a third and a diamond off."""
    told = []
    for name, off in OFF_THE_RAIL:
        found = solve_kick(_laid(table, (2.0, 1.0), (5.0, off)), (Rail.FAR,), Stroke(default_speed(table)))
        if isinstance(found, Aim):
            told.append(f"{name} {found.best.window_mm:.0f} mm")
    return f"Room for error at the mark, one rail at medium: {', '.join(told)}."


def _third_contacts(table: Table) -> str:
    """Where M23's own stroke comes to the third rail, for a ball at one, two and three diamonds."""
    told = []
    for diamond in (1, 2, 3):
        found = solved("M23", _laid(table, (5.0 - diamond, 1.0), (8.0 - diamond, 1.0)), cue=HOUSE)
        there = third_contact(found.shot, Rail.FAR) if isinstance(found, Technique) else None
        if there is not None:
            told.append(f"{figure(there)} from diamond {diamond}")
    return (
        f"On this table it meets the third rail at {', '.join(told)}."
        if told
        else "On this table it does not come there."
    )


def _spans(table: Table) -> str:
    """The marks of M8 for a full hit and for a pot, and where each lands."""
    layout = _laid(table, (3.2, 1.6), (6.6, 0.6))
    pockets = () if table.pockets is None else ("foot-near",)
    told = []
    for name, contact in (("full", FULL_ON), *((f"into {pocket}", Contact(pocket=pocket)) for pocket in pockets)):
        found = count("M8", layout, (Rail.NEAR,), cue=HOUSE, contact=contact)
        if isinstance(found, Count):
            told.append(f"{name} {figure(found.aim.nose)}")
    return f"From (3.2, 1.6) over near at a ball on (6.6, 0.6) the marks are: {', '.join(told)}."


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
