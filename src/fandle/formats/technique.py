"""A technique's answer: what `count` says of the methods M20 to M26."""

import math
from typing import Literal

from fandle.core.layout.model import Layout
from fandle.core.lines.marks import degrees
from fandle.core.shot.moment import Moment
from fandle.core.techniques.base import NoTechnique, Technique, Way
from fandle.formats.answers import LandsAnswer, NoCountAnswer, NumberAnswer, StrokeAnswer
from fandle.formats.base import Number
from fandle.formats.parts import Answer, MarkAnswer, MarksAnswer, PlaceAnswer, WindowAnswer


class WayAnswer(Answer):
    """One way of striking it that was tried: how wide its window is (0: it does not do it), and what it does."""

    name: str
    stroke: StrokeAnswer
    window_deg: Number
    says: str

    @classmethod
    def of(cls, way: Way) -> "WayAnswer":
        """From a way."""
        return cls(name=way.name, stroke=StrokeAnswer.of(way.stroke), window_deg=way.window_deg, says=way.says)


class MomentAnswer(Answer):
    """The moment of contact: centres in diamonds, headings in degrees from +x towards +y; hit: ball diameters right of
    full; cut_deg: between the way in and the line of centres; rail: the last one met before, with the centre there."""

    cue: PlaceAnswer
    ball: PlaceAnswer
    comes: Number
    goes: Number | None
    driven: Number | None
    hit: Number
    fullness: Number
    cut_deg: Number
    rail: str | None
    at_rail: PlaceAnswer | None

    @classmethod
    def of(cls, moment: Moment, layout: Layout) -> "MomentAnswer":
        """From a moment on a layout."""
        table = layout.table

        def place(point: tuple[float, float]) -> PlaceAnswer:
            return PlaceAnswer(x=point[0] / table.diamond_x, y=point[1] / table.diamond_y)

        def way(heading: float | None) -> float | None:
            return None if heading is None else math.degrees(heading)

        return cls(
            cue=place(moment.cue), ball=place(moment.ball), comes=math.degrees(moment.comes), goes=way(moment.goes),
            driven=way(moment.driven), hit=moment.hit, fullness=moment.fullness, cut_deg=moment.cut_deg,
            rail=None if moment.rail is None else moment.rail[0].value,
            at_rail=None if moment.rail is None else place(moment.rail[1]),
        )  # fmt: skip


class TechniqueAnswer(Answer):
    """A technique that works here, as a count has it: its aim and stroke, and what comes of them when they are played.

    lands: off_balls is how far off full the ball is met. window_deg, window_mm: what the direction, the mark forgives.
    """

    method: str
    title: str
    applies: Literal[True]
    rails: list[str]
    numbers: list[NumberAnswer]
    steps: list[str]
    say: str
    adjust: str
    frame: str
    aim: MarksAnswer
    direction: Number
    stroke: StrokeAnswer
    lands: LandsAnswer
    mark: MarkAnswer
    mark_rail: str
    pocket: str | None
    in_off: str | None
    window_deg: Number
    window_mm: WindowAnswer
    ways: list[WayAnswer]
    moment: MomentAnswer


def technique_answer(found: Technique | NoTechnique, layout: Layout) -> TechniqueAnswer | NoCountAnswer:
    """The answer of `count` for a technique."""
    if isinstance(found, NoTechnique):
        return NoCountAnswer(method=found.method, title=found.title, applies=False, rails=[], reason=found.reason)
    hit = found.moment.hit
    met: Literal["left", "right", "full"] = "full" if abs(hit) < 0.02 else "right" if hit > 0.0 else "left"
    return TechniqueAnswer(
        method=found.method, title=found.title, applies=True, rails=[rail.value for rail in found.rails],
        numbers=[NumberAnswer(rail=n.rail.value, at=n.at, label=n.label, role=n.role) for n in found.numbers],
        steps=list(found.steps), say=found.say, adjust=found.adjust, frame="nose", aim=MarksAnswer.of(found.aim),
        direction=degrees(found.direction), stroke=StrokeAnswer.of(found.way.stroke),
        lands=LandsAnswer(
            off_diamonds=0.0, off_balls=abs(hit), side="on", met=met, hits=True, full=hit, pots=found.pocket
        ),
        mark=MarkAnswer(say=found.mark.say, grade=found.mark.grade), mark_rail=found.mark_rail.value,
        pocket=found.pocket, in_off=found.in_off, window_deg=found.way.window_deg,
        window_mm=WindowAnswer(less=found.room_mm[0], more=found.room_mm[1]),
        ways=[WayAnswer.of(way) for way in found.ways], moment=MomentAnswer.of(found.moment, layout),
    )  # fmt: skip
