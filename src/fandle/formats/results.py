"""A player's results, `fandle-practice/1`: read and written a try at a time, so that ten years of them are no more work
than an evening."""

import json
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, BinaryIO, Literal

from pydantic import Field, StrictBool

from fandle.core.errors import BadInputError
from fandle.core.practice.drill import Drill
from fandle.core.practice.drills import BY_NAME
from fandle.core.words.names import clean_name
from fandle.formats.base import Number, Strict, Time, check_writable, validated
from fandle.formats.names import Name
from fandle.formats.practice import OwnDrillFile
from fandle.formats.streams import head_of, items_of, writable

RESULTS_FORMAT = "fandle-practice/1"
MOST_OWN = 400  # drills of a player's own in one file
AGAIN = "ask for the file again"


class TryFile(Strict):
    """One try at a drill; made_at: UTC, ISO 8601."""

    uid: str = Field(min_length=1, max_length=80)
    made_at: Time
    drill: str = Field(min_length=1, max_length=80)
    table: str = Field(max_length=80)
    made: StrictBool


class AnswerFile(Strict):
    """One answer in the quiz; off: diamonds beside the right mark, where one was asked for."""

    uid: str = Field(min_length=1, max_length=80)
    made_at: Time
    topic: str = Field(max_length=40)
    correct: StrictBool
    off: Number | None = Field(default=None, ge=-100, le=100)
    seconds: Number = Field(ge=0, le=1e6)


class ResultsFile(Strict):
    """`fandle-practice/1`: a player's tries and answers; own: the drills among them that the player made."""

    format: Literal["fandle-practice/1"]
    player: Name
    own: list[OwnDrillFile] = Field(default=[], max_length=MOST_OWN)
    tries: list[TryFile]
    answers: list[AnswerFile] = Field(default=[])


@dataclass(frozen=True)
class Results:
    """A results file that is read as far as it is asked for."""

    player: str
    own: Mapping[str, Drill]
    file: BinaryIO

    def tries(self) -> Iterator[TryFile]:
        """Every try. Raises BadInputError, naming the one at fault, for a drill nobody knows or a time that is none."""
        for number, row in enumerate(items_of(self.file, "tries", AGAIN), 1):
            found = validated(TryFile, _checked(row), f"try {number}: ")
            if found.drill not in BY_NAME and found.drill not in self.own:
                raise BadInputError(
                    f"unknown drill {found.drill!r} in the results: ask for a newer file", "tries.drill"
                )
            yield found

    def answers(self) -> Iterator[AnswerFile]:
        """Every answer in the quiz."""
        for number, row in enumerate(items_of(self.file, "answers", AGAIN), 1):
            yield validated(AnswerFile, _checked(row), f"answer {number}: ")


def read_results(file: BinaryIO) -> Results:
    """A player's results. Raises BadInputError where the file is none."""
    head = head_of(file, ("format", "player"))
    if head.get("format") != RESULTS_FORMAT:
        raise BadInputError(
            f"format {head.get('format')!r} is not a player's results: this version reads {RESULTS_FORMAT!r}", "format",
            code="bad_file",
        )  # fmt: skip
    player = head.get("player")
    if not isinstance(player, str):
        raise BadInputError(f"the results name no player: {AGAIN}", "player", code="missing")
    own: dict[str, Drill] = {}
    for number, row in enumerate(items_of(file, "own", AGAIN), 1):
        if number > MOST_OWN:
            raise BadInputError(f"the results hold more than {MOST_OWN} drills of the player's own", "own")
        drill = validated(OwnDrillFile, _checked(row), f"drill {number}: ").drill()
        own[drill.name] = drill
    return Results(clean_name(player, "player"), own, file)


def _checked(row: Any) -> Any:
    check_writable(row)
    return row


def results_parts(
    player: str, own: Iterable[OwnDrillFile], tries: Iterable[TryFile], answers: Iterable[AnswerFile]
) -> Iterator[str]:
    """A results file as text, a part at a time."""
    yield f'{{"format": "{RESULTS_FORMAT}", "player": {json.dumps(player)}'
    for name, rows in (("own", own), ("tries", tries), ("answers", answers)):
        yield f',\n"{name}": ['
        for number, row in enumerate(rows):
            yield (",\n" if number else "\n") + json.dumps(writable(row.model_dump(mode="json")), allow_nan=False)
        yield "]"
    yield "}\n"
