"""The exported log, `fandle-log/1`, as JSON and as CSV: written and read an attempt at a time, whatever its length."""

import csv
import json
from collections.abc import Iterable, Iterator
from io import TextIOWrapper
from typing import Annotated, Any, BinaryIO, Literal, cast

from pydantic import Field

from fandle.core.errors import BadInputError
from fandle.core.practice.record import Result, Thickness
from fandle.core.words.names import clean_name
from fandle.formats.base import Number, Strict, Time, check_writable, read_json, validated
from fandle.formats.depth import Measured
from fandle.formats.files import LayoutFile
from fandle.formats.names import Name
from fandle.formats.spreadsheet import from_cell, to_cell
from fandle.formats.streams import head_of, items_of, writable

LOG_FORMAT = "fandle-log/1"
COLUMNS = (
    "uid", "made_at", "set_up", "title", "table", "player", "kind", "rails", "pocket", "aim_nose", "aim_sight",
    "aim_centre", "speed", "side", "up", "elevation", "cue", "hit", "result", "off_diamonds", "side_hit", "potted",
    "in_off", "touched", "stopped_x", "stopped_y", "try_number", "comment", "layout", "left_safe",
    "system", "club",
)  # fmt: skip
LATER = ("left_safe", "system", "club")  # columns that exports of earlier versions lack
AS_WRITTEN = ("uid", "made_at", "set_up", "title", "rails", "result", "side_hit", "comment", "system")
NUMBERS = ("speed", "side", "up", "elevation", "hit")  # of the stroke
TRIES = {str(number) for number in range(1, 100)}
MOST_SPEED = 12.0  # m/s: what the engine takes
Mark = Annotated[Number, Field(ge=-100, le=100)]  # diamonds: far beyond any rail


class NotedStroke(Strict):
    """A stroke as it was noted, with the thickness asked of it, ball diameters right of full."""

    speed: Number = Field(ge=0, le=MOST_SPEED)
    side: Number = Field(ge=-1, le=1)
    up: Number = Field(ge=-1, le=1)
    elevation: Number = Field(ge=0, le=90)
    cue: str = Field(max_length=60)
    hit: Number = Field(default=0.0, ge=-1, le=1)


class NotedMarks(Strict):
    """An aim in three frames, diamonds along the first rail; null where a line is parallel to it."""

    nose: Mark | None
    sight: Mark | None
    centre: Mark | None


class TouchedFile(Strict):
    """A further contact with a rail, diamonds along it."""

    rail: Literal["near", "far", "head", "foot"]
    at: Number = Field(ge=-1, le=9)


class AttemptFile(Strict):
    """One attempt: what was on the table, what was played, what happened. off: diamonds, + long.

    kind: kick, bank or straight; pocket: where the ball was to go; touched: further contacts; stopped_x, stopped_y:
    where the cue ball came to rest, diamonds; try_number: 2 where the shot was tried again; left_safe: whether the
    opponent was left nothing; system: the way of counting on screen then, "" for none.
    """

    uid: str = Field(pattern=r"^[A-Za-z0-9-]{8,64}$")
    made_at: Time
    set_up: str = Field(max_length=2000)
    title: str = Field(max_length=200)
    table_label: Name
    layout: LayoutFile
    rails: str = Field(max_length=60)
    stroke: NotedStroke
    aim: NotedMarks
    result: Result
    off: Mark | None
    side_hit: Thickness | Literal[""]
    comment: str = Field(max_length=400)
    kind: Literal["kick", "bank", "straight"] = "kick"
    pocket: str | None = Field(default=None, max_length=20)
    player: Name | None = None
    potted: bool | None = None
    in_off: bool | None = None
    touched: list[TouchedFile] | None = Field(default=None, max_length=6)
    stopped_x: Number | None = Field(default=None, ge=-1, le=9)
    stopped_y: Number | None = Field(default=None, ge=-1, le=5)
    try_number: int = Field(default=1, ge=1, le=99)
    left_safe: bool | None = None
    system: str = Field(default="", max_length=12)


class LogFile(Strict):
    """Every attempt that is not deleted, newest first. club: whose log it is, so that players of one name are told
    apart."""

    format: Literal["fandle-log/1"]
    club: Name | None = None
    attempts: list[AttemptFile]


NAMES = tuple(AttemptFile.model_fields)


def json_parts(attempts: Iterable[Any], club: str = "") -> Iterator[str]:
    """A log file as text, an attempt at a time. Attempts: whatever has the names of AttemptFile; club: whose log."""
    named = f'"club": {json.dumps(club)}, ' if club else ""
    yield f'{{"format": "{LOG_FORMAT}", {named}"attempts": ['
    for number, attempt in enumerate(attempts):
        yield (",\n" if number else "\n") + json.dumps(attempt_json(attempt), allow_nan=False)
    yield "\n]}\n"


def attempt_json(attempt: Any) -> Any:
    """An attempt as it stands in a log file."""
    return writable({name: getattr(attempt, name) for name in NAMES})


def csv_parts(attempts: Iterable[Any], club: str = "") -> Iterator[str]:
    """The same as CSV, a line at a time: UTF-8, decimal points, empty where nothing is known."""
    line = _Line()
    writer = csv.writer(line)
    writer.writerow(COLUMNS)
    yield line.take()
    for attempt in attempts:
        writer.writerow([to_cell(value) for value in (*_flat(attempt), club)])
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
    touched = "" if a.touched is None else json.dumps(writable(a.touched))
    return (
        a.uid, a.made_at, a.set_up, a.title, a.table_label, a.player, a.kind, a.rails, a.pocket, aim.get("nose"),
        aim.get("sight"), aim.get("centre"), *(stroke.get(n) for n in NUMBERS[:4]), stroke.get("cue"),
        stroke.get("hit"), a.result, a.off, a.side_hit, a.potted, a.in_off, touched, a.stopped_x, a.stopped_y,
        a.try_number, a.comment, json.dumps(writable(a.layout)), a.left_safe, a.system,
    )  # fmt: skip


def read_log(file: BinaryIO) -> Iterator[AttemptFile]:
    """The attempts of a log file, JSON or CSV, one at a time. Raises BadInputError, naming the attempt at fault."""
    rows = _json_rows(file) if _is_json(file) else _csv_rows(file)
    for number, row in enumerate(rows, 1):
        check_writable(row)
        yield validated(AttemptFile, row, f"attempt {number}: ")


def _is_json(file: BinaryIO) -> bool:
    file.seek(0)
    first = file.read(64).lstrip(b"\xef\xbb\xbf \r\n\t")[:1]
    file.seek(0)
    return first == b"{"


def club_of(file: BinaryIO) -> str:
    """Whose log a file is; "" where it does not say so. Raises BadInputError where it is no log."""
    head = head_of(file, ("format", "club"), "attempts") if _is_json(file) else next(_csv_lines(file), {})
    file.seek(0)
    club = head.get("club")
    return clean_name(club, "club") if isinstance(club, str) and club else ""


def _json_rows(file: BinaryIO) -> Iterator[Any]:
    found = head_of(file, ("format",), "attempts").get("format")
    if found != LOG_FORMAT:
        raise BadInputError(f"format {found!r} is not a log: this version reads {LOG_FORMAT!r}", "format")
    yield from items_of(file, "attempts", "export the log again")


def _csv_rows(file: BinaryIO) -> Iterator[dict[str, Any]]:
    yield from map(_unflat, _csv_lines(file))


def _csv_lines(file: BinaryIO) -> Iterator[dict[str, str]]:
    """The lines of a CSV file, cell by cell."""
    text = TextIOWrapper(cast(Any, Measured(file, lines=True)), "utf-8-sig", newline="")
    try:
        reader = csv.DictReader(text)
        missing = [name for name in COLUMNS if name not in (*(reader.fieldnames or ()), *LATER)]
        if missing:
            raise BadInputError(
                f"this is no exported log: the column {missing[0]!r} is missing", "file", code="bad_file"
            )
        for row in reader:
            yield {name: from_cell(row.get(name) or "") for name in COLUMNS}
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
        "try_number": int(row["try_number"]) if row["try_number"] in TRIES else row["try_number"],
        "layout": read_json(row["layout"]),
    }
