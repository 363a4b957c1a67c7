"""A drill's answer: `fandle drill`, the practice room, and a set of drills to hand out."""

from typing import Any

from fandle.core.lines.marks import degrees
from fandle.core.practice.drilled import Drilled
from fandle.formats.base import Number
from fandle.formats.files import layout_json
from fandle.formats.parts import Answer


class DrillContact(Answer):
    """A contact with a rail, diamonds along it, where the ball's centre turns."""

    rail: str
    at: Number


class DrillCircle(Answer):
    """Where the cue ball is to stop, diamonds; the radius in mm."""

    x: Number
    y: Number
    radius_mm: Number


class DrillStroke(Answer):
    """A line of a strokes file: the cue's direction in degrees, m/s, radii."""

    direction: Number
    speed: Number
    side: Number
    up: Number


class DrillAnswer(Answer):
    """A drill on a table. stroke, ends: null where there is none; why_not: why it cannot be played there, else ""."""

    name: str
    title: str
    family: str
    table: str
    layout: dict[str, Any] | None
    stroke: DrillStroke | None
    route: list[DrillContact]
    ends: DrillCircle | None
    own_number: Number | None
    wanted: str
    say: str
    goal: str
    why_not: str

    @classmethod
    def of(cls, found: Drilled, table: str) -> "DrillAnswer":
        """From a drill on a table of that name."""
        d, s, e = found.drill, found.stroke, found.ends
        return cls(
            name=d.name, title=d.title, family=d.family, table=table,
            layout=None if found.layout is None else layout_json(found.layout, by_name=False),
            stroke=None if s is None else DrillStroke(
                direction=degrees(found.direction), speed=s.speed, side=s.side, up=s.up
            ),
            route=[DrillContact(rail=str(contact.rail), at=contact.at) for contact in found.route],
            ends=None if e is None else DrillCircle(x=e.x, y=e.y, radius_mm=e.radius_mm), own_number=found.own_number,
            wanted=d.wanted, say=d.say, goal=d.goal, why_not=found.why_not,
        )  # fmt: skip
