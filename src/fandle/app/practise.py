"""Practice: a drill set up on a table, its line solved there, played, and found to do what the drill says."""

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache

from fandle.app.drill_made import fails, made, own_stroke
from fandle.app.lines import shot_line
from fandle.app.point_drills import at_first, point_line
from fandle.app.pot_drills import pot_return
from fandle.app.sequences import bank_round, pattern
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.practice.drill import Drill, layout_of
from fandle.core.practice.drilled import Circle, Drilled
from fandle.core.practice.drills import DRILLS
from fandle.core.practice.routes import CIRCLE, Route, return_route
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count
from fandle.core.systems.corner_numbers import METHOD as CORNER_NUMBERS
from fandle.core.systems.registry import count
from fandle.core.table.model import Table
from fandle.core.tablecheck.own_marks import tuned


@lru_cache(maxsize=512)
def drill(wanted: Drill, table: Table) -> Drilled:
    """A drill on a table."""
    try:
        layout = layout_of(wanted, table)
        found = _LINES[wanted.play](wanted, layout)
    except BadInputError as fault:
        return Drilled(wanted, why_not=str(fault))
    fault_said = next(filter(None, map(fails, (found, *found.then))), "")
    return found if not fault_said else Drilled(wanted, layout, why_not=fault_said)


def drills(table: Table, own: Iterable[Drill] = ()) -> list[Drilled]:
    """The player's own drills, then all others, on a table."""
    return [drill(each, table) for each in (*own, *DRILLS)]


def _route(wanted: Drill, layout: Layout) -> Drilled:
    table = layout.table
    found: Route | None = return_route(table, wanted.route)
    if found is None:
        raise BadInputError(f"no stroke comes back over {wanted.route} rails on this table", "table", code="no_route")
    stroke = Stroke(found.speed, found.side)
    direction = direction_to(table, found.rail, layout.metres(layout.cue), found.at, "nose")
    there = made(wanted, layout, stroke, direction)
    return replace(there, ends=Circle(*wanted.balls[0], 1000 * CIRCLE * table.diamond_x))


def _kick(wanted: Drill, layout: Layout) -> Drilled:
    asked = Situation(layout, own_stroke(wanted, layout.table), wanted.rails, hit=wanted.hit)
    return made(wanted, layout, asked.stroke, shot_line(asked).direction)


def _bank(wanted: Drill, layout: Layout) -> Drilled:
    asked = Situation(layout, own_stroke(wanted, layout.table), wanted.rails, "bank", wanted.pocket)
    return made(wanted, layout, asked.stroke, shot_line(asked).direction)


def _own_number(wanted: Drill, layout: Layout) -> Drilled:
    """A track by corner numbers, at the number that lands on this table."""
    found = count(CORNER_NUMBERS, layout, wanted.rails)
    if not isinstance(found, Count):
        raise BadInputError(found.reason, "table", code="no_line")
    own = tuned(layout, found)
    if own is None or own.own is None:
        raise BadInputError("no number of this track lands on this table", "table", code="no_line")
    direction = direction_to(layout.table, wanted.rails[0], layout.metres(layout.cue), own.at, found.frame)
    return made(wanted, layout, found.stroke, direction, own_number=own.own.number)


def _point(wanted: Drill, layout: Layout) -> Drilled:
    line = point_line(layout, own_stroke(wanted, layout.table), wanted.way)
    return made(wanted, at_first(layout, line), line.stroke, line.direction)


def _pot(wanted: Drill, layout: Layout) -> Drilled:
    asked = Situation(layout, own_stroke(wanted, layout.table), wanted.rails, pocket=wanted.pocket)
    return made(wanted, layout, asked.stroke, shot_line(asked).direction)


_LINES = {
    "route": _route, "kick": _kick, "bank": _bank, "pot": _pot, "pot-return": pot_return, "own-number": _own_number,
    "point": _point, "pattern": pattern, "round": bank_round,
}  # fmt: skip
