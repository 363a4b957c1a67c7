"""Steps with hands and cue as drawing data: what to write, and every thing as a path or a place in mm."""

from typing import Any

from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count
from fandle.core.systems.hands import Thing
from fandle.core.systems.registry import hands_of
from fandle.core.table.model import Table
from fandle.web.drawing import diamonds_mm


def hands(layout: Layout, found: Count) -> list[dict[str, Any]]:
    """The steps of a school that measures; empty for one that does not."""
    return [
        {"do": step.do, "keep": step.keep, "things": [_thing(layout.table, thing) for thing in step.things]}
        for step in hands_of(found, layout)
    ]


def _thing(table: Table, thing: Thing) -> dict[str, Any]:
    points = [diamonds_mm(table, point) for point in thing.points]
    drawn = "M" + "L".join(f"{x:g} {y:g}" for x, y in points) if len(points) > 1 else ""
    return {"kind": thing.kind, "d": drawn, "points": points}
