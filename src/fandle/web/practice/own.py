"""A drill of one's own over HTTP: made of the layout last looked at, deleted again."""

from dataclasses import replace
from urllib.parse import parse_qsl

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool

from fandle.app.own_drills import drill_of
from fandle.app.situation import Situation
from fandle.core.practice.own import MOST_SAY, MOST_TRIES, Counts
from fandle.formats.names import Name
from fandle.formats.practice import OwnDrillFile
from fandle.store import practice
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import library_of, player_of
from fandle.web.practice.models import MadeModel
from fandle.web.speech import said, screen_of
from fandle.web.table.link import known_with
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)


class OwnNote(BaseModel):
    """A drill to be made. query: the address of the Table room that shows it."""

    model_config = ConfigDict(extra="forbid")

    query: str = Field(max_length=8000)
    title: Name
    say: str = Field(default="", max_length=MOST_SAY)
    stop: bool = False
    wanted_hits: int = Field(default=7, ge=1, le=MOST_TRIES)
    out_of: int = Field(default=10, ge=1, le=MOST_TRIES)


@router.post(address.OWN_DRILLS, responses=FAULTS)
async def post_own(note: OwnNote, request: Request) -> MadeModel:
    """Make a drill of a layout's line; where the line cannot be drilled, the reason is told and nothing is kept."""
    asked = await run_in_threadpool(_asked, note, request)
    counts = Counts(note.stop, note.wanted_hits, note.out_of)
    made = await solve(request, drill_of(asked, note.title, note.say, counts), quick=False)
    data = OwnDrillFile.of(made).model_dump(mode="json")
    new = await run_in_threadpool(practice.keep_drill, request.app.state.database, made.name, data)
    shown: MadeModel = {
        "key": made.name, "title": made.title, "family": made.family, "why_not": "", "made": "",
        "on": asked.table.name, "new": new,
    }  # fmt: skip
    return said(shown, screen_of(request, asked.table, turns=False))


def _asked(note: OwnNote, request: Request) -> Situation:
    query = dict(parse_qsl(note.query.removeprefix("?")))
    return replace(address.read(query, known_with(library_of(request), query)), player=player_of(request))


@router.delete(address.OWN_DRILLS + "/{name}", responses=KEPT)
def delete_own(name: str, request: Request) -> dict[str, str]:
    """Delete a drill of one's own; its tries stay in the record."""
    practice.delete_drill(request.app.state.database, name)
    return {"key": name}
