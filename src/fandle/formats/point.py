"""A carom point as JSON: part of a line of `fandle plan`."""

from fandle.core.choice.carom import CaromPoint
from fandle.formats.base import Number
from fandle.formats.parts import Answer


class KissAnswer(Answer):
    """How near two balls come to each other before the point: when (s), the air between them (mm; 0: they touch)."""

    balls: list[str]
    t: Number
    gap_mm: Number


class StepAnswer(Answer):
    """A contact on the way to the point: when (s), of which ball, with which rail (at: diamonds along it) or ball."""

    t: Number
    ball: str
    what: str
    at: Number | None


class PointAnswer(Answer):
    """A carom point: its way as players call it, when it is made, the nearest that balls come to each other before, who
    is where when, and how far apart the balls lie at the end (mm, the longest distance between two)."""

    called: str
    t: Number
    kiss: KissAnswer | None
    steps: list[StepAnswer]
    together_mm: Number

    @classmethod
    def of(cls, point: CaromPoint) -> "PointAnswer":
        """From a point."""
        k = point.kiss
        return cls(
            called=point.called, t=point.t, together_mm=point.together_mm,
            kiss=None if k is None else KissAnswer(balls=list(k.balls), t=k.t, gap_mm=k.gap_mm),
            steps=[StepAnswer(t=step.t, ball=step.ball, what=step.what, at=step.at) for step in point.steps],
        )  # fmt: skip
