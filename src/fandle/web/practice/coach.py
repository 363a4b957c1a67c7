"""Coaching: a set of drills as a file to hand out, results as a file that comes back, players side by side."""

import json
from collections import defaultdict
from typing import Annotated

from fastapi import APIRouter, Body, Query, Request, Response
from typing_extensions import TypedDict

from fandle.core.practice.drills import BY_NAME
from fandle.core.practice.tonight import PARTS
from fandle.formats.practice import (
    DRILLS_FORMAT,
    AnswerFile,
    OwnDrillFile,
    ResultsFile,
    TryFile,
    file_text,
    read_results,
    read_set,
)
from fandle.store import practice
from fandle.store.practice import Try
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.practice.known_drills import known_drills, own_known, take_in
from fandle.web.practice.models import PartModel
from fandle.web.table.api import LARGEST_FILE

router = APIRouter(responses=FAULTS)
EACH_MINUTES = 20 // PARTS[20]


class SetModel(TypedDict):
    """A set of drills as a plan. sums: false where each is to be measured with hands and cue."""

    name: str
    note: str
    parts: list[PartModel]
    sums: bool


class TakenModel(TypedDict):
    """Whose results were taken in, and how many were new."""

    player: str
    new: int


class SideRow(TypedDict):
    """A drill, player by player: "6 of 9"; "" where there is nothing."""

    title: str
    made: list[str]


class SideModel(TypedDict):
    """Players side by side."""

    players: list[str]
    rows: list[SideRow]


def _file(name: str, text: str) -> Response:
    return Response(
        text, media_type="application/json", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )


@router.get(address.DRILL_SET, responses=FAULTS)
def get_set(
    request: Request, drills: Annotated[str, Query(max_length=2000)], name: str = "Drills", note: str = "",
    sums: bool = True,
) -> Response:  # fmt: skip
    """A set of drills as a file; drills: their names, with commas between; sums: false for hands and cue."""
    names, known = [each for each in drills.split(",") if each], own_known(request.app.state.database)
    made = {
        "format": DRILLS_FORMAT, "name": name[:80] or "Drills", "note": note[:400], "drills": names, "sums": sums,
        "own": [OwnDrillFile.of(known[each]).model_dump(mode="json") for each in names if each in known],
    }  # fmt: skip
    return _file("drills.fandle.json", file_text(read_set(json.dumps(made))))


@router.post(address.READ_SET, responses=FAULTS)
def post_set(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> SetModel:
    """A set of drills that was handed out, as a plan. Drills that somebody made are kept."""
    found = read_set(text)
    own = found.made()
    take_in(request.app.state.database, own)
    known = {**BY_NAME, **own}
    parts: list[PartModel] = [
        {
            "key": name, "title": known[name].title, "minutes": EACH_MINUTES, "why": "set",
            "say": f"from {found.name}", "pause": False, "swaps": [],
        }
        for name in found.drills
    ]  # fmt: skip
    return {"name": found.name, "note": found.note, "parts": parts, "sums": found.sums}


@router.get(address.RESULTS, responses=FAULTS)
def get_results(request: Request) -> Response:
    """The tries and answers of who plays here, as a file to hand back."""
    database = request.app.state.database
    tries, known = practice.tries(database), own_known(database)
    made = ResultsFile(
        format="fandle-practice/1", player=practice.first_player(database) or "me",
        tries=[
            TryFile(uid=t.uid, made_at=t.made_at, drill=t.drill, table=t.table_label, made=t.made)
            for t in tries
        ],
        own=[OwnDrillFile.of(known[name]) for name in sorted({t.drill for t in tries}) if name in known],
        answers=[
            AnswerFile(uid=a.uid, made_at=a.made_at, topic=a.topic, correct=a.correct, off=a.off, seconds=a.seconds)
            for a in practice.answers(database)
        ],
    )  # fmt: skip
    return _file("practice.fandle.json", file_text(made))


@router.post(address.READ_RESULTS, responses=KEPT)
def post_results(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> TakenModel:
    """A player's results, taken in: tries that are known already are left as they are."""
    found = read_results(text)
    rows = [Try(t.uid, t.made_at, t.drill, t.table, t.made, found.player) for t in found.tries]
    take_in(request.app.state.database, found.made(), listed=False)
    return {"player": found.player, "new": practice.note_tries(request.app.state.database, rows)}


@router.get(address.SIDE_BY_SIDE, responses=FAULTS)
def get_side_by_side(request: Request) -> SideModel:
    """Every drill that anybody has tried, player by player."""
    database = request.app.state.database
    names, known = practice.players(database), known_drills(database)
    made: dict[str, dict[str, list[bool]]] = defaultdict(lambda: defaultdict(list))
    for who in names:
        for each in practice.tries(database, player=who):
            made[each.drill][who].append(each.made)
    rows: list[SideRow] = [
        {"title": known[drill].title, "made": [_words(by[who]) for who in names]}
        for drill, by in made.items()
        if drill in known
    ]
    return {"players": names, "rows": rows}


def _words(made: list[bool]) -> str:
    return f"{sum(made)} of {len(made)}" if made else ""
