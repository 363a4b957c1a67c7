"""The exported log, `fandle-log/1`."""

from collections.abc import Iterable
from typing import Any, Literal

from fandle.core.record import Result, Thickness
from fandle.formats.answers import MarksAnswer, StrokeAnswer
from fandle.formats.base import Number, Strict
from fandle.formats.files import LayoutFile

LOG_FORMAT = "fandle-log/1"


class NotedStroke(StrokeAnswer):
    """A stroke with the thickness asked of it, ball diameters right of full."""

    hit: Number = 0.0


class AttemptFile(Strict):
    """One attempt: what was on the table, what was played, what happened. off: diamonds, + long."""

    uid: str
    made_at: str
    set_up: str
    title: str
    table_label: str
    layout: LayoutFile
    rails: str
    stroke: NotedStroke
    aim: MarksAnswer
    result: Result
    off: Number | None
    side_hit: Thickness | Literal[""]
    comment: str


class LogFile(Strict):
    """Every attempt that is not deleted, newest first."""

    format: Literal["fandle-log/1"]
    attempts: list[AttemptFile]


def log_json_of(attempts: Iterable[Any]) -> dict[str, Any]:
    """Attempts, as the store keeps them, as a log file."""
    names = tuple(AttemptFile.model_fields)
    rows = [{name: getattr(attempt, name) for name in names} for attempt in attempts]
    return {"format": LOG_FORMAT, "attempts": rows}
