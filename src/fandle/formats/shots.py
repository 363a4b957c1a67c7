"""The answer of simulate: every event of a shot in order, and where all balls rest."""

from typing import Literal

from fandle.core.shot.path import Event
from fandle.core.shot.play import Shot
from fandle.formats.base import Number
from fandle.formats.parts import Answer, PlaceAnswer


class EventAnswer(Answer):
    """One contact, or the end of the shot."""

    t: Number
    kind: Literal["rail", "ball", "jaw", "pocket", "stop"]
    ball: str
    rail: str | None = None
    other: str | None = None
    pocket: str | None = None
    x: Number
    y: Number
    speed: Number
    speed_after: Number | None

    @classmethod
    def of(cls, event: Event) -> "EventAnswer":
        """From an event."""
        named = {"rail": event.rail, "other": event.other, "pocket": event.pocket}
        return cls(
            t=event.t, kind=event.kind, ball=event.ball, x=event.x, y=event.y, speed=event.speed,
            speed_after=event.speed_after, **{name: str(value) for name, value in named.items() if value is not None},
        )  # fmt: skip


class ShotAnswer(Answer):
    """A shot as played."""

    events: list[EventAnswer]
    rest: dict[str, PlaceAnswer | None]

    @classmethod
    def of(cls, shot: Shot) -> "ShotAnswer":
        """From a shot."""
        rest = {name: None if at is None else PlaceAnswer(x=at[0], y=at[1]) for name, at in shot.rest.items()}
        return cls(events=[EventAnswer.of(event) for event in shot.events], rest=rest)
