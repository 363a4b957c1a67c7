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


class DrillShot(Answer):
    """One shot of a drill: how the balls lie, the stroke, its contacts, its end. into: the pocket its target goes
    into; null where there is none."""

    layout: dict[str, Any]
    stroke: DrillStroke
    route: list[DrillContact]
    ends: DrillCircle | None
    into: str | None

    @classmethod
    def of(cls, found: Drilled) -> "DrillShot | None":
        """From a drill on a table; None where it cannot be played there."""
        s, e = found.stroke, found.ends
        if found.layout is None or s is None:
            return None
        return cls(
            layout=layout_json(found.layout, by_name=False),
            stroke=DrillStroke(direction=degrees(found.direction), speed=s.speed, side=s.side, up=s.up),
            route=[DrillContact(rail=str(contact.rail), at=contact.at) for contact in found.route],
            ends=None if e is None else DrillCircle(x=e.x, y=e.y, radius_mm=e.radius_mm), into=found.into,
        )  # fmt: skip


class DrillAnswer(Answer):
    """A drill on a table. stroke, ends, into: null where there is none; why_not: why it cannot be played there,
    else "".

    then: the shots after the first one, of a pattern or a round of banks."""

    name: str
    title: str
    family: str
    table: str
    layout: dict[str, Any] | None
    stroke: DrillStroke | None
    route: list[DrillContact]
    ends: DrillCircle | None
    into: str | None
    then: list[DrillShot]
    own_number: Number | None
    wanted: str
    say: str
    goal: str
    why_not: str

    @classmethod
    def of(cls, found: Drilled, table: str) -> "DrillAnswer":
        """From a drill on a table of that name."""
        d, first = found.drill, DrillShot.of(found)
        return cls(
            name=d.name, title=d.title, family=d.family, table=table,
            layout=None if found.layout is None else layout_json(found.layout, by_name=False),
            stroke=None if first is None else first.stroke, route=[] if first is None else first.route,
            ends=None if first is None else first.ends, into=None if first is None else first.into,
            then=[shot for each in found.then if (shot := DrillShot.of(each)) is not None],
            own_number=found.own_number, wanted=d.wanted, say=d.say, goal=d.goal, why_not=found.why_not,
        )  # fmt: skip
