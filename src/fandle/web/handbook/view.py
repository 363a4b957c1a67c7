"""The Handbook's figures as a page shows them: index groups, other systems, curves, own numbers."""

import math
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import NotRequired

import numpy as np
from numpy.typing import NDArray
from typing_extensions import TypedDict

from fandle.app.explore import own_example, technique_example
from fandle.app.situation import Situation
from fandle.core.handbook.close_work import TechniquePage, technique_pages
from fandle.core.handbook.holds import Curve
from fandle.core.handbook.page import Page, all_pages
from fandle.core.lines.marks import over
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, NoCount, figure
from fandle.core.table.speeds import default_speed
from fandle.core.tablecheck.own_marks import KINDS, OwnMarks
from fandle.core.techniques.base import Technique
from fandle.core.words.balls import CUE
from fandle.web import address
from fandle.web.counting import sum_of, verdict
from fandle.web.drawing import diamonds_mm, path
from fandle.web.figures import FRAME_WORDS, mark


class CurveModel(TypedDict):
    """A curve: (place, diamonds off, a hit or not) dot by dot, and its worst in words."""

    name: str
    dots: list[tuple[float, float, bool]]
    worst: str


class OwnModel(TypedDict):
    """The table's own numbers: what to shoot from each start (rows) for each target (columns), in words; "–" for none.

    sums: what the system's sum says there, beside it.
    """

    start: str
    goal: str
    goals: list[str]
    starts: list[str]
    cells: list[list[str]]
    sums: list[list[str]]


class RivalModel(TypedDict):
    """What another system says of the same layout."""

    method: str
    title: str
    href: str
    applies: bool
    reason: NotRequired[str]
    sum: NotRequired[str]
    mark: NotRequired[str]
    nose: NotRequired[str]
    way: NotRequired[str]
    where: NotRequired[str]
    what: NotRequired[str]


GROUPS = ("Over one rail", "Over two rails", "Over three rails and more")
CLOSE = "Close work"


@dataclass(frozen=True)
class Entry:
    """A method in the index: its number, its own example drawn small."""

    method: str
    title: str
    short: str
    length: float
    width: float
    radius: float
    shot: str
    cue: tuple[float, float]
    target: tuple[float, float]


def index(wanted: Collection[str]) -> list[tuple[str, list[Entry]]]:
    """The methods wanted, the systems grouped by how many rails their example goes over; groups with none left out."""
    groups: dict[str, list[Entry]] = {name: [] for name in (*GROUPS, CLOSE)}
    for page in all_pages():
        if page.method in wanted:
            found = own_example(page)
            shot = path(page.example.table, found.shot.pieces) if isinstance(found, Count) else ""
            groups[GROUPS[min(len(page.rails), 3) - 1]].append(_entry(page, shot))
    for close in technique_pages():
        if close.method in wanted:
            solution = technique_example(close)
            ways = solution.shot.paths if isinstance(solution, Technique) else {}
            drawn = [path(close.example.table, ways.get(ball, ())) for ball in (CUE, close.example.require_target().id)]
            groups[CLOSE].append(_entry(close, "".join(drawn)))
    return [(name, entries) for name, entries in groups.items() if entries]


def _entry(page: Page | TechniquePage, shot: str) -> Entry:
    layout, table = page.example, page.example.table
    target, short = layout.require_target(), page.line.partition(": ")[2]
    return Entry(
        page.method, page.title, short[:1].upper() + short[1:], table.length * 1000, table.width * 1000,
        table.ball_radius * 1000, shot, diamonds_mm(table, (layout.cue.x, layout.cue.y)),
        diamonds_mm(table, (target.x, target.y)),
    )  # fmt: skip


def bank_href(page: Page) -> str:
    """Where a system's bank is looked at in the Table room; "" for one that counts none."""
    if page.bank is None:
        return ""
    layout = page.bank.layout
    stroke = Stroke(default_speed(layout.table))
    asked = Situation(layout, stroke, page.bank.rails, "bank", page.bank.pocket, system=page.method)
    return f"{address.TABLE_ROOM}?{address.write(asked)}"


def rival(found: Count | NoCount) -> RivalModel:
    """What a rival says of the same layout."""
    head: RivalModel = {
        "method": found.method,
        "title": found.title,
        "href": f"{address.HANDBOOK}/{found.method}",
        "applies": False,
    }
    if isinstance(found, NoCount):
        return {**head, "reason": found.reason}
    lead, result = sum_of(found)
    return {
        **head,
        "applies": True,
        "sum": f"{lead}{result}",
        "mark": f"{mark(found.aim, found.frame)} {FRAME_WORDS[found.frame]}",
        "nose": f"{found.aim.nose:.2f}".replace("-", "−"),
        "way": over(found.rails),
        **verdict(found),
    }


def curves_json(curves: Iterable[Curve]) -> list[CurveModel]:
    """Curves with their dots (place, diamonds off, a hit or not) and the worst of each in words."""
    return [
        {
            "name": curve.name,
            "dots": [(round(dot.at, 3), round(dot.off, 4), dot.hit) for dot in curve.dots],
            "worst": f"{curve.worst:.2f}" if curve.dots else "",
        }
        for curve in curves
    ]


def own_json(own: OwnMarks) -> OwnModel:
    """A table's own numbers as the page shows them."""
    kind = KINDS[own.method]
    digits = 2 if np.isnan(own.own).all() else 1
    numbers = np.where(np.isnan(own.own), own.counted + own.shift, own.own + own.shift / own.unit)
    sums = np.where(np.isnan(own.own), own.counted, own.own)

    def texts(values: NDArray[np.float64]) -> list[list[str]]:
        shown = np.where(np.isnan(own.shift), np.nan, values)
        return [["–" if math.isnan(v) else figure(v, digits) for v in row] for row in shown.tolist()]

    return {
        "start": kind.start_word,
        "goal": kind.goal_word,
        "goals": [figure(kind.goal_name(goal)) for goal in kind.goals],
        "starts": [figure(kind.start_name(start)) for start in kind.starts],
        "cells": texts(numbers),
        "sums": texts(sums),
    }
