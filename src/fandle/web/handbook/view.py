"""The Handbook's figures as a page shows them: index groups, other systems on the same layout, curves, map dots."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import NotRequired

from typing_extensions import TypedDict

from fandle.core.handbook.holds import Curve, Spot
from fandle.core.handbook.page import Page
from fandle.core.lines.marks import over
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, NoCount
from fandle.core.table.model import Table
from fandle.core.table.speeds import default_speed
from fandle.service.explore import own_example
from fandle.service.situation import Situation
from fandle.web import address
from fandle.web.counting import sum_of, verdict
from fandle.web.drawing import diamonds_mm, path
from fandle.web.figures import FRAME_WORDS, mark

SpotModel = tuple[float, float, float | None, float]


class CurveModel(TypedDict):
    """A curve: (place, diamonds off, a hit or not) dot by dot, and its worst in words."""

    name: str
    dots: list[tuple[float, float, bool]]
    worst: str


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


@dataclass(frozen=True)
class Entry:
    """A system in the index: its page, its own example drawn small."""

    page: Page
    short: str
    length: float
    width: float
    radius: float
    shot: str
    cue: tuple[float, float]
    target: tuple[float, float]


def index(pages: list[Page]) -> list[tuple[str, list[Entry]]]:
    """The systems grouped by how many rails their example goes over."""
    groups: dict[str, list[Entry]] = {name: [] for name in GROUPS}
    for page in pages:
        groups[GROUPS[min(len(page.rails), 3) - 1]].append(_entry(page))
    return list(groups.items())


def _entry(page: Page) -> Entry:
    layout, table = page.example, page.example.table
    found = own_example(page)
    target, short = layout.require_target(), page.line.partition(": ")[2].capitalize()
    return Entry(
        page, short, table.length * 1000, table.width * 1000, table.ball_radius * 1000,
        path(table, found.shot.pieces) if isinstance(found, Count) else "",
        diamonds_mm(table, (layout.cue.x, layout.cue.y)), diamonds_mm(table, (target.x, target.y)),
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


def spots_json(table: Table, spots: Iterable[Spot]) -> list[SpotModel]:
    """(x mm, y mm, diamonds off or null, ball diameters off)."""
    return [(*diamonds_mm(table, (s.x, s.y)), s.off, round(s.off_balls, 3)) for s in spots]
