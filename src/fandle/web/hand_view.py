"""Steps with hands and cue as drawing data: what to write, and every thing as a path or a place in mm."""

from collections.abc import Sequence

from typing_extensions import TypedDict

from fandle.core.systems.hands import HandStep, Thing
from fandle.core.table.model import Table
from fandle.web.drawing import diamonds_mm


class ThingModel(TypedDict):
    """A finger, a shaft, a point: its path, or its places."""

    kind: str
    d: str
    points: list[tuple[float, float]]


class HandModel(TypedDict):
    """One step: what to do, what to keep, what lies where."""

    do: str
    keep: str
    things: list[ThingModel]


def hands(table: Table, steps: Sequence[HandStep]) -> list[HandModel]:
    """The steps of a system that measures; empty for one that does not."""
    return [{"do": s.do, "keep": s.keep, "things": [_thing(table, thing) for thing in s.things]} for s in steps]


def _thing(table: Table, thing: Thing) -> ThingModel:
    points = [diamonds_mm(table, point) for point in thing.points]
    drawn = "M" + "L".join(f"{x:g} {y:g}" for x, y in points) if len(points) > 1 else ""
    return {"kind": thing.kind, "d": drawn, "points": points}
