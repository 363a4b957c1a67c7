"""Coaching: a set of drills as a file to hand out, results as a file that comes back, players side by side."""

import json
from collections import Counter
from itertools import islice
from typing import IO, Annotated

from fastapi import APIRouter, Body, Query, Request, Response
from fastapi.responses import StreamingResponse
from typing_extensions import TypedDict

from fandle.app.drill_list import own_called, titles
from fandle.core.practice.drills import BY_NAME
from fandle.core.practice.tonight import PARTS
from fandle.formats.practice import DRILLS_FORMAT, OwnDrillFile, file_text, read_set
from fandle.formats.results import MOST_OWN, AnswerFile, TryFile, results_parts
from fandle.store import practice
from fandle.store.practice_files import take_in
from fandle.store.standing import my_nickname
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.files import download, received
from fandle.web.known import club_of
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


MOST_BESIDE, MOST_DRILLS = 40, 100  # players, drills in one table


class SideRow(TypedDict):
    """A drill, player by player: "6 of 9"; "" where there is nothing."""

    title: str
    made: list[str]


class SideModel(TypedDict):
    """Players side by side. more: how many others tried something, too."""

    players: list[str]
    rows: list[SideRow]
    more: int


def _file(name: str, text: str) -> Response:
    return Response(
        text, media_type="application/json", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )


@router.get(address.DRILL_SET, responses=FAULTS)
def get_set(
    request: Request, drills: Annotated[str, Query(max_length=2000)], name: str = "Drills", note: str = "",
    *, sums: bool = True,
) -> Response:  # fmt: skip
    """A set of drills as a file; drills: their names, with commas between; sums: false for hands and cue."""
    names = [each for each in drills.split(",") if each]
    known = own_called(club_of(request), names)
    made = {
        "format": DRILLS_FORMAT, "name": name[:60] or "Drills", "note": note[:400], "drills": names, "sums": sums,
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
    for each in own.values():
        practice.keep_drill(request.app.state.database, each.name, OwnDrillFile.of(each).model_dump(mode="json"))
    known = {**BY_NAME, **own}
    parts: list[PartModel] = [
        {
            "key": name, "title": known[name].title, "minutes": EACH_MINUTES, "why": "set",
            "say": f"from {found.name}", "pause": False, "swaps": [],
        }
        for name in found.drills
    ]  # fmt: skip
    return {"name": found.name, "note": found.note, "parts": parts, "sums": found.sums}


@router.get(address.RESULTS, responses=FAULTS, response_class=StreamingResponse)
def get_results(request: Request) -> StreamingResponse:
    """The tries and answers of who plays here, as a file to hand back."""
    database = request.app.state.database
    tries, played = practice.tries(database), practice.last_played(database)
    parts = results_parts(
        my_nickname(database),
        (OwnDrillFile.of(drill) for drill in islice(own_called(club_of(request), sorted(played)).values(), MOST_OWN)),
        (TryFile.model_construct(uid=t.uid, made_at=t.made_at, drill=t.drill, table=t.table_label, made=t.made)
         for t in tries),
        (AnswerFile.model_construct(uid=a.uid, made_at=a.made_at, topic=a.topic, correct=a.correct, off=a.off,
                                    seconds=a.seconds) for a in practice.answers(database)),
    )  # fmt: skip
    return download(parts, "application/json", "practice.fandle.json")


@router.post(address.READ_RESULTS, responses=KEPT)
async def post_results(request: Request, player: str = "") -> TakenModel:
    """A player's results, taken in: all or nothing; tries that are known already are left as they are.

    player: what they are to be called here, where their own name is mine.
    """
    return await received(request, lambda file: _taken(request, file, player))


def _taken(request: Request, file: IO[bytes], player: str) -> TakenModel:
    done = take_in(request.app.state.database, file, player)
    return {"player": done.player, "new": done.new}


@router.get(address.SIDE_BY_SIDE, responses=FAULTS)
def get_side_by_side(request: Request) -> SideModel:
    """The drills that were tried most, player by player: those who tried most."""
    counts = practice.counts(request.app.state.database)
    tries: Counter[str] = Counter()
    for by in counts.values():
        tries.update({who: n for who, (n, _) in by.items()})
    names = sorted(who for who, _ in tries.most_common(MOST_BESIDE))
    busiest = sorted(counts, key=lambda drill: -sum(n for n, _ in counts[drill].values()))[:MOST_DRILLS]
    shown = {drill: by for drill, by in counts.items() if drill in set(busiest)}
    called = titles(club_of(request), shown)
    rows: list[SideRow] = [
        {"title": called[drill], "made": [f"{by[who][1]} of {by[who][0]}" if who in by else "" for who in names]}
        for drill, by in shown.items()
        if drill in called and any(who in by for who in names)
    ]
    return {"players": names, "rows": rows, "more": len(tries) - len(names)}
