"""The exported log, `fandle-log/1`, as JSON and as CSV: written and read an attempt at a time, whatever its length."""

import csv
import json
from collections.abc import Iterable, Iterator
from io import TextIOWrapper
from typing import Any, BinaryIO, Literal

import ijson
from pydantic import Field

from fandle.core.errors import BadInputError
from fandle.core.practice.record import Result, Thickness
from fandle.formats.answers import StrokeAnswer
from fandle.formats.base import Number, Strict, check_writable, read_json, validated
from fandle.formats.files import LayoutFile
from fandle.formats.parts import MarksAnswer
from fandle.formats.spreadsheet import from_cell, to_cell

LOG_FORMAT = "fandle-log/1"
COLUMNS = (
    "uid", "made_at", "set_up", "title", "table", "player", "kind", "rails", "pocket", "aim_nose", "aim_sight",
    "aim_centre", "speed", "side", "up", "elevation", "cue", "hit", "result", "off_diamonds", "side_hit", "potted",
    "in_off", "touched", "stopped_x", "stopped_y", "try_number", "comment", "layout", "left_safe",
    "system",
)  # fmt: skip
LATER = ("left_safe", "system")  # columns that exports of earlier versions lack
AS_WRITTEN = ("uid", "made_at", "set_up", "title", "rails", "result", "side_hit", "comment", "system")
NUMBERS = ("speed", "side", "up", "elevation", "hit")  # of the stroke


class NotedStroke(StrokeAnswer):
    """A stroke with the thickness asked of it, ball diameters right of full."""

    hit: Number = 0.0


class TouchedFile(Strict):
    """A further contact with a rail, diamonds along it."""

    rail: Literal["near", "far", "head", "foot"]
    at: Number


class AttemptFile(Strict):
    """One attempt: what was on the table, what was played, what happened. off: diamonds, + long.

    kind: kick, bank or straight; pocket: where the ball was to go; touched: further contacts; stopped_x, stopped_y:
    where the cue ball came to rest, diamonds; try_number: 2 where the shot was tried again; left_safe: whether the
    opponent was left nothing; system: the way of counting on screen then, "" for none.
    """

    uid: str = Field(pattern=r"^[A-Za-z0-9-]{8,64}$")
    made_at: str = Field(max_length=40)
    set_up: str = Field(max_length=2000)
    title: str = Field(max_length=200)
    table_label: str = Field(max_length=60)
    layout: LayoutFile
    rails: str = Field(max_length=60)
    stroke: NotedStroke
    aim: MarksAnswer
    result: Result
    off: Number | None
    side_hit: Thickness | Literal[""]
    comment: str = Field(max_length=400)
    kind: Literal["kick", "bank", "straight"] = "kick"
    pocket: str | None = None
    player: str | None = Field(default=None, max_length=60)
    potted: bool | None = None
    in_off: bool | None = None
    touched: list[TouchedFile] | None = Field(default=None, max_length=6)
    stopped_x: Number | None = None
    stopped_y: Number | None = None
    try_number: int = Field(default=1, ge=1, le=99)
    left_safe: bool | None = None
    system: str = Field(default="", max_length=12)


class LogFile(Strict):
    """Every attempt that is not deleted, newest first."""

    format: Literal["fandle-log/1"]
    attempts: list[AttemptFile]


NAMES = tuple(AttemptFile.model_fields)


def json_parts(attempts: Iterable[Any]) -> Iterator[str]:
    """A log file as text, an attempt at a time. Attempts: whatever has the names of AttemptFile."""
    yield f'{{"format": "{LOG_FORMAT}", "attempts": ['
    for number, attempt in enumerate(attempts):
        row = {name: getattr(attempt, name) for name in NAMES}
        yield (",\n" if number else "\n") + json.dumps(row, allow_nan=False, default=_unreadable)
    yield "\n]}\n"


def _unreadable(_: Any) -> None:
    """A part of a record that could not be read is exported as null."""


def csv_parts(attempts: Iterable[Any]) -> Iterator[str]:
    """The same as CSV, a line at a time: UTF-8, decimal points, empty where nothing is known."""
    line = _Line()
    writer = csv.writer(line)
    writer.writerow(COLUMNS)
    yield line.take()
    for attempt in attempts:
        writer.writerow([to_cell(value) for value in _flat(attempt)])
        yield line.take()


class _Line:
    """What csv writes one line into."""

    def __init__(self) -> None:
        self.text = ""

    def write(self, text: str) -> None:
        self.text += text

    def take(self) -> str:
        text, self.text = self.text, ""
        return text


def _flat(a: Any) -> tuple[Any, ...]:
    aim = a.aim if isinstance(a.aim, dict) else {}
    stroke = a.stroke if isinstance(a.stroke, dict) else {}
    touched = "" if a.touched is None else json.dumps(a.touched)
    return (
        a.uid, a.made_at, a.set_up, a.title, a.table_label, a.player, a.kind, a.rails, a.pocket, aim.get("nose"),
        aim.get("sight"), aim.get("centre"), *(stroke.get(n) for n in NUMBERS[:4]), stroke.get("cue"),
        stroke.get("hit"), a.result, a.off, a.side_hit, a.potted, a.in_off, touched, a.stopped_x, a.stopped_y,
        a.try_number, a.comment, json.dumps(a.layout, default=_unreadable), a.left_safe, a.system,
    )  # fmt: skip


def read_log(file: BinaryIO) -> Iterator[AttemptFile]:
    """The attempts of a log file, JSON or CSV, one at a time. Raises BadInputError, naming the attempt at fault."""
    first = file.read(64).lstrip(b"\xef\xbb\xbf \r\n\t")[:1]
    file.seek(0)
    rows = _json_rows(file) if first == b"{" else _csv_rows(file)
    for number, row in enumerate(rows, 1):
        check_writable(row)
        yield validated(AttemptFile, row, f"attempt {number}: ")


def _json_rows(file: BinaryIO) -> Iterator[Any]:
    try:
        found = next(ijson.items(file, "format"), None)
        if found != LOG_FORMAT:
            raise BadInputError(f"format {found!r} is not a log: this version reads {LOG_FORMAT!r}", "format")
        file.seek(0)
        yield from ijson.items(file, "attempts.item", use_float=True)
    except (ijson.JSONError, UnicodeDecodeError) as fault:
        raise BadInputError(f"this is not a whole JSON file ({fault}): export the log again", code="bad_file") from None


def _csv_rows(file: BinaryIO) -> Iterator[dict[str, Any]]:
    text = TextIOWrapper(file, "utf-8-sig", newline="")
    try:
        reader = csv.DictReader(text)
        missing = [name for name in COLUMNS if name not in (*(reader.fieldnames or ()), *LATER)]
        if missing:
            raise BadInputError(
                f"this is no exported log: the column {missing[0]!r} is missing", "file", code="bad_file"
            )
        for row in reader:
            yield _unflat({name: from_cell(row.get(name) or "") for name in COLUMNS})
    except (UnicodeDecodeError, csv.Error) as fault:
        raise BadInputError(
            f"this is not a CSV file in UTF-8 ({fault}): export the log again", code="bad_file"
        ) from None
    finally:
        text.detach()


def _unflat(row: dict[str, str]) -> dict[str, Any]:
    """A line of CSV as the attempt it was."""

    def number(name: str) -> float | str | None:
        try:
            return float(row[name]) if row[name] else None
        except ValueError:
            return row[name]  # refused by name when it is checked

    truth = {"": None, "True": True, "False": False}
    return {
        **{name: row[name] for name in AS_WRITTEN},
        "table_label": row["table"],
        "kind": row["kind"] or "kick",
        "pocket": row["pocket"] or None,
        "player": row["player"] or None,
        "aim": {frame: number(f"aim_{frame}") for frame in ("nose", "sight", "centre")},
        "stroke": {**{name: number(name) for name in NUMBERS if row[name]}, "cue": row["cue"]},
        "off": number("off_diamonds"),
        "potted": truth.get(row["potted"], row["potted"]),
        "in_off": truth.get(row["in_off"], row["in_off"]),
        "left_safe": truth.get(row["left_safe"], row["left_safe"]),
        "touched": read_json(row["touched"]) if row["touched"] else None,
        "stopped_x": number("stopped_x"),
        "stopped_y": number("stopped_y"),
        "try_number": int(row["try_number"]) if row["try_number"].isdigit() else row["try_number"],
        "layout": read_json(row["layout"]),
    }
