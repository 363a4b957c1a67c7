"""The Handbook's figures as a page shows them: index groups, other schools on the same layout, curves, map dots."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from fandle.core.handbook.holds import Curve, Spot
from fandle.core.handbook.page import Page
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import over
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.registry import best_count, count, orders_of
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.web import address
from fandle.web.count_view import sum_of, verdict
from fandle.web.drawing import diamonds_mm, path
from fandle.web.figures import FRAME_WORDS, mark

GROUPS = ("Over one rail", "Over two rails", "Over three rails and more")


@dataclass(frozen=True)
class Entry:
    """A school in the index: its page, its own example drawn small."""

    page: Page
    short: str
    length: float
    width: float
    radius: float
    shot: str
    cue: tuple[float, float]
    target: tuple[float, float]


def index(pages: list[Page]) -> list[tuple[str, list[Entry]]]:
    """The schools grouped by how many rails their example goes over."""
    groups: dict[str, list[Entry]] = {name: [] for name in GROUPS}
    for page in pages:
        groups[GROUPS[min(len(page.rails), 3) - 1]].append(_entry(page))
    return list(groups.items())


def _entry(page: Page) -> Entry:
    layout, table = page.example, page.example.table
    found = count(page.method, layout, page.rails)
    target, short = layout.require_target(), page.line.partition(": ")[2].capitalize()
    return Entry(
        page, short, table.length * 1000, table.width * 1000, table.ball_radius * 1000,
        path(table, found.shot.pieces) if isinstance(found, Count) else "",
        diamonds_mm(table, (layout.cue.x, layout.cue.y)), diamonds_mm(table, (target.x, target.y)),
    )  # fmt: skip


def bank_href(page: Page) -> str:
    """Where a school's bank is looked at in the Table room; "" for a school that counts none."""
    if page.bank is None:
        return ""
    layout = page.bank.layout
    stroke = Stroke(default_speed(layout.table))
    state = address.State(layout, stroke, page.bank.rails, page.method, kind="bank", pocket=page.bank.pocket)
    return f"{address.TABLE_ROOM}?{address.write(state)}"


def rivals(page: Page, layout: Layout, rails: tuple[Rail, ...]) -> Steps[list[dict[str, Any]]]:
    """What the schools this one quarrels with say of the same layout, over the same rails where they can; in steps."""
    found = []
    for method in page.rivals:
        same = rails in orders_of(method)
        found.append(_rival(count(method, layout, rails) if same else best_count(method, layout)))
        yield
    return found


def _rival(found: Count | NoCount) -> dict[str, Any]:
    head = {"method": found.method, "title": found.title, "href": f"{address.HANDBOOK}/{found.method}"}
    if isinstance(found, NoCount):
        return {**head, "applies": False, "reason": found.reason}
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


def curves_json(curves: Iterable[Curve]) -> list[dict[str, Any]]:
    """Curves with their dots (place, diamonds off, a hit or not) and the worst of each in words."""
    return [
        {
            "name": curve.name,
            "dots": [[round(dot.at, 3), round(dot.off, 4), dot.hit] for dot in curve.dots],
            "worst": f"{curve.worst:.2f}" if curve.dots else "",
        }
        for curve in curves
    ]


def spots_json(table: Table, spots: Iterable[Spot]) -> list[list[Any]]:
    """[x mm, y mm, diamonds off or null, ball diameters off]."""
    return [[*diamonds_mm(table, (s.x, s.y)), s.off, round(s.off_balls, 3)] for s in spots]
