"""How a table answers: a few plain shots that show what its numbers do, beside the same table as it should be."""

import math
from dataclasses import dataclass, replace

from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.approach import approach
from fandle.core.shot.path import Event
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.table.model import Table
from fandle.core.table.parameters import TABLE
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import standard_twin, usual_game

START, AIM = (1.0, 1.0), 3.0  # the plain one-rail shot of a table check: far 3, back to (5, 1)
ANGLE_RAD = math.pi / 4  # from the rail
LEAST, MOST, STEP = 1.0, 5.0, 0.25  # table lengths
SUSPECTS = [name for name, known in reversed(TABLE.items()) if known.slot is not None]  # cloth and rubber first


@dataclass(frozen=True)
class Rebound:
    """One plain ball off a long rail: speed in table lengths, angle out (degrees), how far it sank in (m)."""

    lengths: float
    out_deg: float
    depth: float


def depth(table: Table, event: Event) -> float:
    """How far a ball sinks into the rail it meets, m: its speed into it times √(m/k)."""
    into = event.speed * math.sin(math.radians(event.in_deg or 0.0))
    return into * table.cushion_compression


def rigid(table: Table) -> Table:
    """The table with cushions that do not give."""
    return replace(table, cushion_compression=0.0)


def standard(table: Table) -> Table:
    """The table's make in standard condition, rigid."""
    return rigid(standard_twin(table))


def rebounds(table: Table) -> list[Rebound]:
    """A plain ball sent at 45° from the middle of the bed on to the far rail, from soft to a break."""
    found = []
    steps = round((MOST - LEAST) / STEP)
    layout = Layout(table, usual_game(table), (Ball("cue", 2.5, 2.0),))
    for i in range(steps + 1):
        lengths = LEAST + i * STEP
        shot = approach(layout, Stroke(min(speed_of(standard(table), lengths), 12.0)), ANGLE_RAD, most_rails=2)
        event = next(
            (ev for ev in shot.events if ev.rail is Rail.FAR and ev.in_deg is not None and ev.out_deg is not None), None
        )
        if event is not None and event.in_deg is not None and event.out_deg is not None:
            found.append(Rebound(lengths, event.out_deg, depth(table, event)))
    return found


def plain_landing(table: Table, lengths: float) -> float | None:
    """Where the plain one-rail shot of a table check comes back to its own level, diamonds; None if it stops short."""
    layout = Layout(table, usual_game(table), (Ball("cue", *START),))
    direction = direction_to(table, Rail.FAR, layout.metres(layout.cue), AIM, "nose")
    shot = approach(layout, Stroke(min(speed_of(standard(table), lengths), 12.0)), direction, most_rails=2)
    found = crosses(shot, Rail.FAR, 1, START[1])
    return None if found is None else found[0]


def check_playable(table: Table) -> None:
    """Refuse a table on which the plain shots of a table check cannot be played, naming the number that does it.

    Every number may be within its limits and the whole still be no table: each suspect is set back to the
    standard table's in turn, and the first that mends it is named.
    """
    fault = _unplayable(table)
    if fault is None:
        return
    norm = standard_twin(table)
    for name in SUSPECTS:
        if getattr(table, name) != getattr(norm, name) and _unplayable(_set_back(table, norm, name)) is None:
            raise BadInputError(
                f"table {table.name!r} cannot be played on with a {name} of {getattr(table, name):g}: {fault}",
                f"table.{name}",
                code="unplayable",
            )
    raise BadInputError(f"table {table.name!r} cannot be played on: {fault}", "table", code="unplayable")


def _set_back(table: Table, norm: Table, name: str) -> Table:
    try:
        return replace(table, **{name: getattr(norm, name)})
    except BadInputError:
        return table


def _unplayable(table: Table) -> str | None:
    """Why the plain shots cannot be played; None where they can."""
    try:
        speed_of(table, MOST)
        rebounds(table)
        plain_landing(table, 2.5)
    except FandleError as fault:
        return str(fault)
    return None
