"""Files of practice: a set of drills to hand out, and the results that come back."""

import json
from datetime import datetime
from typing import Literal

from pydantic import Field

from fandle.core.errors import BadInputError
from fandle.core.practice.drills import BY_NAME, drill_named
from fandle.formats.base import Number, Strict, read_json, validated

DRILLS_FORMAT = "fandle-drills/1"
MOST_TRIES = 20_000


class DrillSetFile(Strict):
    """`fandle-drills/1`: drills by name, in the order to play them, with a word from who hands them out."""

    format: Literal["fandle-drills/1"]
    name: str = Field(min_length=1, max_length=80)
    note: str = Field(default="", max_length=400)
    drills: list[str] = Field(min_length=1, max_length=40)


class TryFile(Strict):
    """One try at a drill; made_at: UTC, ISO 8601."""

    uid: str = Field(min_length=1, max_length=80)
    made_at: str
    drill: str
    table: str = Field(max_length=80)
    made: bool


class AnswerFile(Strict):
    """One answer in the quiz; off: diamonds beside the right mark, where one was asked for."""

    uid: str = Field(min_length=1, max_length=80)
    made_at: str
    topic: str
    correct: bool
    off: Number | None = None
    seconds: Number


class ResultsFile(Strict):
    """`fandle-practice/1`: a player's tries and answers."""

    format: Literal["fandle-practice/1"]
    player: str = Field(min_length=1, max_length=60)
    tries: list[TryFile] = Field(max_length=MOST_TRIES)
    answers: list[AnswerFile] = Field(default=[], max_length=MOST_TRIES)


def read_set(text: str | bytes) -> DrillSetFile:
    """A set of drills, every one of which this version knows."""
    found = validated(DrillSetFile, read_json(text))
    for name in found.drills:
        drill_named(name)
    return found


def read_results(text: str | bytes) -> ResultsFile:
    """A player's results. Raises BadInputError for a drill nobody knows, or a time that is none."""
    found = validated(ResultsFile, read_json(text))
    for row in found.tries:
        if row.drill not in BY_NAME:
            raise BadInputError(f"unknown drill {row.drill!r} in the results: ask for a newer file", "tries.drill")
    for when in [*(row.made_at for row in found.tries), *(row.made_at for row in found.answers)]:
        _check_time(when)
    return found


def _check_time(text: str) -> None:
    try:
        aware = datetime.fromisoformat(text).tzinfo is not None
    except ValueError:
        aware = False
    if not aware:
        raise BadInputError(f"{text!r} is no time: write it like 2026-11-26T20:00:00+00:00", "made_at")


def file_text(data: Strict) -> str:
    """A file as it is written."""
    return json.dumps(data.model_dump(mode="json"), indent=1, ensure_ascii=False) + "\n"
