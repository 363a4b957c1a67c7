"""The Practice room: what should I work on tonight? Its page, the plan, the drills and their tries."""

import json
import math
from collections.abc import Iterator, Mapping
from datetime import UTC, datetime
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from fastapi.responses import HTMLResponse
from starlette.concurrency import run_in_threadpool

from fandle.app.club import KeptDrill
from fandle.app.drill_list import LISTED, drill_called, own_listed, own_newest
from fandle.app.evening import Shot, tonight
from fandle.app.library import Known
from fandle.app.own_drills import hands
from fandle.app.practise import drill, drills
from fandle.core.errors import BadInputError
from fandle.core.practice.own import FAMILY
from fandle.core.practice.tonight import MINUTES
from fandle.core.steps import at_once
from fandle.core.table.model import Table
from fandle.store import log, practice
from fandle.store.database import Database
from fandle.store.noting import noted_situation, tried_of
from fandle.store.practice import Try
from fandle.store.standing import my_nickname
from fandle.web import address
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import club_of, library_of, linked_table
from fandle.web.me import me_url
from fandle.web.practice.models import (
    DrillModel,
    EntryModel,
    OwnListModel,
    PracticeQuestion,
    RecordModel,
    TonightModel,
    TryNote,
)
from fandle.web.practice.present import drill_model, record, tonight_model
from fandle.web.speech import said, screen_of
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)
NEWEST = 400  # attempts of the log that a plan is made from
DAY_S = 86400.0


@router.get(address.PRACTICE_ROOM, response_class=HTMLResponse)
async def practice_room(request: Request) -> HTMLResponse:
    """Tonight's plan, the drills, the quiz and the progress on one table."""
    table, name, fault = await run_in_threadpool(linked_table, request)
    context = await solve(request, at_once(lambda: _context(request, table, name, fault)), quick=False)
    return await run_in_threadpool(request.app.state.templates.TemplateResponse, request, "practice.html", context)


def _context(request: Request, table: Table, name: str, fault: str) -> dict[str, Any]:
    return {
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "fault": fault,
        "name": name,
        "tables": library_of(request).choices(name),
        "minutes": MINUTES,
        "me_url": me_url(request),
        "older": older_than(own_listed(club_of(request), LISTED + 1)),
        "state": json.dumps(said(_entries(request, table), screen_of(request, table, turns=False)), allow_nan=False),
        "urls": {
            "tonight": address.TONIGHT, "drill": address.DRILL, "tries": address.TRIES, "ask": address.ASK,
            "reply": address.REPLY, "progress": address.PROGRESS, "room": address.PRACTICE_ROOM,
            "set": address.DRILL_SET, "own": address.OWN_DRILLS,
            "readSet": address.READ_SET, "results": address.RESULTS, "readResults": address.READ_RESULTS,
            "side": address.SIDE_BY_SIDE,
        },
    }  # fmt: skip


def _entries(request: Request, table: Table) -> list[EntryModel]:
    """The newest of the players' own drills, then all others. Whether an own one can be on this table is found when it
    is opened: a club may have thousands."""
    database = request.app.state.database
    made = _made(database)
    shipped: list[EntryModel] = [
        {
            "key": found.drill.name, "title": found.drill.title, "family": found.drill.family,
            "why_not": found.why_not, "made": made.get(found.drill.name, ""),
        }
        for found in drills(table)
    ]  # fmt: skip
    return own_entries(own_listed(club_of(request)), made) + shipped


def own_entries(listed: list[KeptDrill], made: Mapping[str, str]) -> list[EntryModel]:
    """Drills that players made as the list has them; made: what was made of each, in words."""
    return [
        {"key": each.name, "title": each.title, "family": FAMILY, "why_not": "", "made": made.get(each.name, "")}
        for each in listed
    ]


def _made(database: Database) -> dict[str, str]:
    """What who plays here made of each drill: "6 of 9"."""
    mine = my_nickname(database)
    return {drill: f"{by[mine][1]} of {by[mine][0]}" for drill, by in practice.counts(database).items() if mine in by}


@router.get(address.OWN_DRILLS, responses=FAULTS)
def get_own(request: Request, before: Annotated[int | None, Query(ge=1, le=2**53)] = None) -> OwnListModel:
    """More of the drills that players made, older than the one of this record's id; older: whether there are more."""
    database = request.app.state.database
    found = own_listed(club_of(request), LISTED + 1, before)
    return {"entries": own_entries(found[:LISTED], _made(database)), "older": older_than(found)}


def older_than(found: list[KeptDrill]) -> int | None:
    """The record from which still older drills begin, where more were found than are listed at once."""
    return found[LISTED - 1].id if len(found) > LISTED else None


@router.post(address.TONIGHT, responses=FAULTS)
async def post_tonight(question: PracticeQuestion, request: Request) -> TonightModel:
    """A plan of so many minutes, from the log and from what was drilled."""
    library, database = library_of(request), request.app.state.database

    def made() -> TonightModel:
        table, now = library.table(question.table), datetime.now(UTC)
        rows, own = [row for _, row in log.page(database, log.EVERYTHING, NEWEST)], own_newest(library.club)
        days = {name: days_since(when, now) for name, when in practice.last_played(database).items()}
        played = {name: ago for name, ago in days.items() if ago is not None}
        plan = tonight_model(tonight(shots_of(rows, library.known, now), played, question.minutes, table, own))
        return said(plan, screen_of(request, table, turns=False))

    return await solve(request, at_once(made), quick=False)


def days_since(text: str, now: datetime) -> float | None:
    """Days from a time in a record until now, none below 0 where the clock went back; None where it is no time."""
    try:
        return max((now - datetime.fromisoformat(text)).total_seconds() / DAY_S, 0.0)
    except (ValueError, TypeError, OverflowError):
        return None


def shots_of(rows: list[log.Noted], known: Known, now: datetime) -> Iterator[Shot]:
    """The log's attempts as situations; records that cannot be read are left out."""
    for row in rows:
        days = days_since(row.made_at, now)
        try:
            asked, nose, tried = noted_situation(row, known), float(row.aim["nose"]), tried_of(row)
        except (BadInputError, ValueError, TypeError, KeyError):
            continue
        if days is not None and math.isfinite(nose):
            yield Shot(asked, nose, tried, days, row.table_label, row.system)


@router.post(address.DRILL, responses=FAULTS)
async def post_drill(question: PracticeQuestion, request: Request) -> DrillModel:
    """One drill set up on the table, with its line and its record."""
    database, library = request.app.state.database, library_of(request)

    def made() -> DrillModel:
        table, wanted = library.table(question.table), drill_called(library.club, question.drill)
        found = drill(wanted, table)
        told = drill_model(found, practice.made(database, wanted.name), () if question.sums else hands(found))
        return said(told, screen_of(request, table, turns=False))

    return await solve(request, at_once(made), quick=False)


@router.post(address.TRIES, responses=KEPT)
def post_try(note: TryNote, request: Request) -> RecordModel:
    """Note a try; the same uid again changes nothing."""
    database = request.app.state.database
    wanted = drill_called(club_of(request), note.drill)
    library_of(request).table(note.table)
    practice.note_tries(database, [Try(note.uid, log.now(), wanted.name, note.table, note.made)])
    return record(wanted, practice.made(database, wanted.name))


@router.delete(address.TRIES + "/{uid}", responses=KEPT)
def delete_try(uid: str, request: Request) -> RecordModel:
    """Take a try back."""
    database = request.app.state.database
    gone = practice.take_back(database, uid)
    return record(drill_called(club_of(request), gone.drill), practice.made(database, gone.drill))
