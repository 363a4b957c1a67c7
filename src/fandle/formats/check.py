"""The files and answers of a table check and of a diagnosis."""

import math
from typing import Any, Literal

from pydantic import Field

from fandle.core.errors import BadInputError
from fandle.core.lines.marks import degrees
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Contact, Rail, parse_rails
from fandle.core.tablecheck.evidence import Seen, own_shot
from fandle.core.tablecheck.fit import Number as TableNumber
from fandle.core.tablecheck.next_aim import Advice
from fandle.core.tablecheck.outcome import Check
from fandle.core.tablecheck.report import Told
from fandle.core.tablecheck.shots import Reference, Setup, reference_shot
from fandle.formats.answers import StrokeAnswer
from fandle.formats.base import Number, Strict, read_json, validated
from fandle.formats.files import LayoutFile, layout_json, layout_of
from fandle.formats.parts import Answer, MarksAnswer, PlaceAnswer
from fandle.formats.tables import TableFile, table_json

CHECK_FORMAT = "fandle-check/1"


class ContactFile(Strict):
    """Where a rail was met, diamonds along it, where the ball's centre turns; of a ball that dropped the corner."""

    rail: Literal["near", "far", "head", "foot"]
    at: Number


class StrokeOfShot(Strict):
    """A stroke: m/s, fractions of the radius."""

    speed: Number
    side: Number = 0.0
    up: Number = 0.0
    elevation: Number = 0.0


class OwnShot(Strict):
    """A shot of one's own: where all lies, how it is struck, along which direction (degrees from +x to +y)."""

    layout: LayoutFile
    stroke: StrokeOfShot
    direction: Number


class ShotFile(Strict):
    """A shot as it was played: a reference shot by its id, or one of one's own."""

    shot: str | OwnShot
    landed: list[ContactFile] = Field(max_length=8)
    rest: PlaceAnswer | None = None


class CheckFile(Strict):
    """`fandle-check/1`: the shots of a check, each as often as it was played."""

    format: Literal["fandle-check/1"]
    table: str | TableFile
    shots: list[ShotFile] = Field(max_length=60)


def read_check(text: str | bytes, table: Table) -> list[Seen]:
    """The shots in a check's file, on a table."""
    file = validated(CheckFile, read_json(text))
    return [_seen(shot, table) for shot in file.shots]


def _seen(shot: ShotFile, table: Table) -> Seen:
    landed = tuple(Contact(parse_rails(each.rail)[0], each.at) for each in shot.landed)
    rest = None if shot.rest is None else (shot.rest.x, shot.rest.y)
    if isinstance(shot.shot, str):
        return Seen(reference_shot(table, shot.shot), landed, rest)
    own, given = shot.shot, shot.shot.stroke
    layout = layout_of({**own.layout.model_dump(mode="json"), "table": table_json(table)})
    stroke = Stroke(given.speed, given.side, given.up, given.elevation)
    return own_shot(layout, stroke, math.radians(own.direction), landed, rest)


class ReferenceAnswer(Answer):
    """A reference shot: where the cue ball lies, how it is struck, which rails are watched."""

    id: str
    say: str
    kind: str
    layout: dict[str, Any]
    stroke: dict[str, Any]
    watch: list[str]
    stops: bool

    @classmethod
    def of(cls, shot: Reference, setup: Setup) -> "ReferenceAnswer":
        """From a shot on its table."""
        s = setup.stroke
        stroke = {"direction": degrees(setup.direction), "speed": s.speed, "side": s.side, "up": s.up}
        return cls(
            id=shot.id, say=shot.say, kind=shot.kind, layout=layout_json(setup.layout, by_name=False), stroke=stroke,
            watch=[str(rail) for rail in shot.watch], stops=shot.stops,
        )  # fmt: skip


class ParameterAnswer(Answer):
    """A number of the table, fitted and before; learned: 0 to 1."""

    name: str
    value: Number
    sd: Number
    prior: Number
    prior_sd: Number
    learned: Number

    @classmethod
    def of(cls, n: TableNumber) -> "ParameterAnswer":
        """From a fitted number."""
        return cls(name=n.name, value=n.value, sd=n.sd, prior=n.prior, prior_sd=n.prior_sd, learned=n.learned)


class SystemAnswer(Answer):
    """By how much a system's aim changes, in its own numbers where it has any, else in diamonds."""

    method: str
    change: Number
    say: str


class PlaysAnswer(Answer):
    """A kind of shot: diamonds longer (+) than on the table as it was."""

    kind: str
    off_diamonds: Number
    sd: Number
    say: str


class ToldAnswer(Answer):
    """A shot: contacts in order, then where it stopped (x, y) if told; predicted before, after; as read. Diamonds."""

    shot: str
    predicted_before: list[Number | None]
    predicted_after: list[Number | None]
    landed: list[Number]

    @classmethod
    def of(cls, t: Told) -> "ToldAnswer":
        """From a shot."""
        return cls(
            shot=t.id, predicted_before=_finite(t.before), predicted_after=_finite(t.after), landed=list(t.landed)
        )


class VerdictAnswer(Answer):
    """Me or the table?"""

    who: Literal["table", "you", "neither", "not yet"]
    say: str


class CheckAnswer(Answer):
    """A table check."""

    table: dict[str, Any]
    parameters: list[ParameterAnswer]
    systems: list[SystemAnswer]
    plays: list[PlaysAnswer]
    shots: list[ToldAnswer]
    verdict: VerdictAnswer
    like: str
    notes: list[str]

    @classmethod
    def of(cls, found: Check) -> "CheckAnswer":
        """From a check."""
        return cls(
            table=table_json(found.table),
            parameters=[ParameterAnswer.of(number) for number in found.fitting.numbers],
            systems=[SystemAnswer(method=s.method, change=s.change, say=s.say) for s in found.systems],
            plays=[PlaysAnswer(kind=p.kind, off_diamonds=p.off, sd=p.sd, say=p.say) for p in found.plays],
            shots=[ToldAnswer.of(shot) for shot in found.shots],
            verdict=VerdictAnswer(who=found.verdict.who, say=found.verdict.say),
            like=found.like,
            notes=list(found.notes),
        )  # fmt: skip


def _finite(values: tuple[float, ...]) -> list[float | None]:
    return [value if math.isfinite(value) else None for value in values]


class SuspectAnswer(Answer):
    """A cause of a miss: its share, and how large it was in its own unit."""

    cause: Literal["mark", "speed", "side", "height", "table"]
    share: Number
    size: Number
    say: str


class NextAnswer(Answer):
    """What to change for the next attempt, what it becomes, the aim and the stroke then."""

    change: Literal["none", "mark", "speed", "side", "height"]
    value: Number
    aim: MarksAnswer
    stroke: StrokeAnswer
    say: str


class DiagnosisAnswer(Answer):
    """What was the miss? Shares add up to 1. scatter: this player's own, diamonds."""

    causes: list[SuspectAnswer]
    next: list[NextAnswer]
    scatter: Number

    @classmethod
    def of(cls, found: Advice) -> "DiagnosisAnswer":
        """From an advice."""
        causes = [SuspectAnswer(cause=s.cause, share=s.share, size=s.size, say=s.say) for s in found.diagnosis.suspects]
        steps = [
            NextAnswer(
                change=n.change, value=n.value, aim=MarksAnswer.of(n.aim), stroke=StrokeAnswer.of(n.stroke), say=n.say
            )
            for n in found.next
        ]
        return cls(causes=causes, next=steps, scatter=found.diagnosis.scatter)


def read_contacts(text: str) -> tuple[Contact, ...]:
    """Contacts written far:3.1,foot:2.2. Raises BadInputError."""
    found = []
    for part in text.split(","):
        rail, _, at = part.strip().partition(":")
        try:
            found.append(Contact(Rail(rail), float(at)))
        except ValueError:
            raise BadInputError(
                f"contact {part!r} is not understood: write rail:diamonds, like far:3.1",
                "touched",
                code="not_understood",
            ) from None
    return tuple(found)
