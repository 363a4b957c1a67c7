"""What answers are made of: marks, windows, cushions, places, pots."""

import math
from typing import Any, Literal

from fandle.core.lines.marks import Marks, degrees
from fandle.core.lines.solution import ObjectContact, Part, Pot
from fandle.formats.base import Number, Strict


class Answer(Strict):
    """What is said in answer."""

    def json_data(self) -> dict[str, Any]:
        """Its JSON, without what does not belong to it."""
        return self.model_dump(mode="json", exclude_unset=True)


class MarksAnswer(Answer):
    """An aim in three frames, diamonds along the first rail; null where a line is parallel to it."""

    nose: Number | None
    sight: Number | None
    centre: Number | None

    @classmethod
    def of(cls, marks: Marks | None) -> "MarksAnswer":
        """From marks; all null where the aim is told by a thing."""
        if marks is None:
            return cls(nose=None, sight=None, centre=None)
        return cls(nose=_finite(marks.nose), sight=_finite(marks.sight), centre=_finite(marks.centre))


class LinkAnswer(Answer):
    """One link of the chain: diamonds at the first rail's nose."""

    link: str
    shift: Number


class WindowAnswer(Answer):
    """How far the mark at the nose may be wrong either way and still hit, mm."""

    less: Number
    more: Number


class CushionAnswer(Answer):
    """A contact with a rail, centre frame; angles from the rail, 90 = straight in."""

    rail: str
    at: Number
    in_deg: Number
    out_deg: Number


class PlaceAnswer(Answer):
    """A ball's centre, diamonds."""

    x: Number
    y: Number


class ObjectContactAnswer(Answer):
    """How a banked ball is met: the cut, and the cue ball's centre then."""

    cut_deg: Number
    ghost: PlaceAnswer

    @classmethod
    def of(cls, contact: ObjectContact) -> "ObjectContactAnswer":
        """From a contact."""
        x, y = contact.ghost
        return cls(cut_deg=contact.cut_deg, ghost=PlaceAnswer(x=x, y=y))


class PartAnswer(Answer):
    """A part of a hanging ball's window: met "direct", off a rail or off a "jaw"; directions from and to, degrees."""

    off: str
    low: Number
    high: Number
    mm: Number

    @classmethod
    def of(cls, part: Part) -> "PartAnswer":
        """From a part."""
        return cls(off=part.off, low=degrees(part.low), high=degrees(part.high), mm=part.mm)


class MarkAnswer(Answer):
    """The mark at the nose as a player remembers it, and how easily it is seen."""

    say: str
    grade: Literal["diamond", "half", "quarter", "between"]


class OwnAnswer(Answer):
    """The aim in a system's own numbers. say: to the nearest half, with what that leaves over."""

    rail: str
    number: Number
    say: str


class PotAnswer(Answer):
    """A pot: where, what it forgives, whether the cue ball drops as well, and the balls met on the way to it."""

    pocket: str
    window_mm: WindowAnswer
    window_deg: Number
    in_off: bool
    through: list[str]
    ball: str

    @classmethod
    def of(cls, pot: Pot) -> "PotAnswer":
        """From a pot."""
        return cls(
            pocket=pot.pocket, window_mm=WindowAnswer(less=pot.less_mm, more=pot.more_mm), window_deg=pot.window_deg,
            in_off=pot.in_off, through=list(pot.through), ball=pot.ball,
        )  # fmt: skip


def _finite(value: float | None) -> float | None:
    return None if value is None or not math.isfinite(value) else value
