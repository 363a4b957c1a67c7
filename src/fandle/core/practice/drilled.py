"""A drill as it lies on one table: its line, what that meets, where it ends."""

from dataclasses import dataclass

from fandle.core.layout.model import Layout
from fandle.core.practice.drill import Drill
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Contact


@dataclass(frozen=True)
class Circle:
    """Where the cue ball is to stop, diamonds; radius: mm."""

    x: float
    y: float
    radius_mm: float


@dataclass(frozen=True)
class Drilled:
    """A drill on a table: its line (stroke, direction of the cue in rad), what it meets, where it ends.

    route: contacts of the ball that goes over rails (the target's, of a bank). own_number: what to shoot in the
    system's numbers. why_not: "" or why it cannot be played here; then there is no line.
    into: the pocket its target drops into, None for none. then: the shots after the first one, of a pattern or a round,
    each a drill of its own.
    """

    drill: Drill
    layout: Layout | None = None
    stroke: Stroke | None = None
    direction: float = 0.0
    route: tuple[Contact, ...] = ()
    ends: Circle | None = None
    own_number: float | None = None
    why_not: str = ""
    into: str | None = None
    then: tuple["Drilled", ...] = ()
