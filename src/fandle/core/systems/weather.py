"""What cloth and weather do to a count: its own aim played on this table, on a standard one, and on other cloth.

A table's own correction is another thing: it is found by one test shot and carried to the other lines.
"""

from dataclasses import replace

from fandle.core.layout.model import Layout
from fandle.core.shot.approach import approach
from fandle.core.systems.base import Count, figure
from fandle.core.systems.played import landing
from fandle.core.table.condition import OWN, conditioned
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.standards import standard_twin

CLOTHS = (("new cloth", "new"), ("damp cloth", "damp"))
FELT = 0.005  # diamonds: less is nothing


def weather(layout: Layout, found: Count, goal: Point) -> str:
    """Where the count's own aim lands on a standard table and on new and damp cloth against this one; "" if nowhere."""
    twin, parts, told = standard_twin(layout.table), list[str](), list[str]()
    before = None if twin == layout.table else _off(layout, found, goal, twin)
    if before is not None:
        parts.append(f"against a standard table this one plays it {_by(found.lands.off - before)}")
    for name, cloth in CLOTHS:
        off = _off(layout, found, goal, conditioned(layout.table, cloth, OWN))
        if off is not None:
            told.append(f"{_by(off - found.lands.off)} on {name}")
    if told:
        parts.append(f"the same aim lands {', '.join(told)}")
    said = "; ".join(parts)
    return f"{said[:1].upper()}{said[1:]}." if said else ""


def _off(layout: Layout, found: Count, goal: Point, table: Table) -> float | None:
    """Diamonds off, long positive, on another table; None where it does not come there."""
    there = replace(layout, table=table)
    shot = approach(there, found.stroke, found.direction, most_rails=len(found.rails) + 1, ignore_balls=True)
    lands = landing(there, found.rails, goal, shot)
    return None if lands is None else lands.off


def _by(more: float) -> str:
    return "alike" if abs(more) < FELT else f"{figure(abs(more))} {'longer' if more > 0 else 'shorter'}"
