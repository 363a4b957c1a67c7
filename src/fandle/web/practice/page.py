"""The Practice room: what should I work on tonight? Its page, the plan, the drills and their tries."""

import json
from collections.abc import Iterator
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from fandle.core.errors import BadInputError
from fandle.core.practice.drills import drill_named
from fandle.core.practice.record import Result, Tried
from fandle.core.practice.tonight import MINUTES
from fandle.core.steps import at_once
from fandle.core.table.model import Table
from fandle.service.evening import Shot, tonight
from fandle.service.own_drills import hands
from fandle.service.practise import drill, drills
from fandle.store import log, practice
from fandle.store.practice import Try
from fandle.web import address
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import Known, linked_table, shelf_of
from fandle.web.noted import noted_situation
from fandle.web.practice.known_drills import known_drills, own_listed
from fandle.web.practice.models import DrillModel, EntryModel, PracticeQuestion, RecordModel, TonightModel, TryNote
from fandle.web.practice.present import drill_model, record, tonight_model
from fandle.web.speech import said, screen_of
from fandle.web.table.page import table_choices
from fandle.web.work import works_of

router = APIRouter(responses=FAULTS)
NEWEST = 400  # attempts of the log that a plan is made from
DAY_S = 86400.0


@router.get(address.PRACTICE_ROOM, response_class=HTMLResponse)
async def practice_room(request: Request) -> HTMLResponse:
    """Tonight's plan, the drills, the quiz and the progress on one table."""
    shelf = shelf_of(request)
    table, name, fault = linked_table(request)
    choices = table_choices(shelf)
    entries = await works_of(request).run(request, at_once(lambda: _entries(request, table)), quick=False)
    context = {
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "fault": fault,
        "name": name,
        "tables": choices,
        "minutes": MINUTES,
        "state": json.dumps(said(entries, screen_of(request, table, turns=False)), allow_nan=False),
        "urls": {
            "tonight": address.TONIGHT, "drill": address.DRILL, "tries": address.TRIES, "ask": address.ASK,
            "reply": address.REPLY, "progress": address.PROGRESS, "room": address.PRACTICE_ROOM,
            "set": address.DRILL_SET, "own": address.OWN_DRILLS,
            "readSet": address.READ_SET, "results": address.RESULTS, "readResults": address.READ_RESULTS,
            "side": address.SIDE_BY_SIDE,
        },
    }  # fmt: skip
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "practice.html", context)
    return response


def _entries(request: Request, table: Table) -> list[EntryModel]:
    database = request.app.state.database
    tries = practice.tries(database)
    made = {name: [t.made for t in tries if t.drill == name] for name in {t.drill for t in tries}}
    return [
        {
            "key": found.drill.name, "title": found.drill.title, "family": found.drill.family,
            "why_not": found.why_not,
            "made": f"{sum(hits)} of {len(hits)}" if (hits := made.get(found.drill.name, [])) else "",
        }
        for found in drills(table, own_listed(database))
    ]  # fmt: skip


@router.post(address.TONIGHT, responses=FAULTS)
async def post_tonight(question: PracticeQuestion, request: Request) -> TonightModel:
    """A plan of so many minutes, from the log and from what was drilled."""
    shelf, database = shelf_of(request), request.app.state.database
    table, now = shelf.table(question.table), datetime.now(UTC)
    rows, own = [row for _, row in log.page(database, log.EVERYTHING, NEWEST)], own_listed(database)
    played = {
        name: (now - datetime.fromisoformat(when)).total_seconds() / DAY_S
        for name, when in practice.last_played(database).items()
    }

    def made() -> TonightModel:
        return tonight_model(tonight(shots_of(rows, shelf.known, now), played, question.minutes, table, own))

    found = await works_of(request).run(request, at_once(made), quick=False)
    return said(found, screen_of(request, table, turns=False))


def shots_of(rows: list[log.Noted], known: Known, now: datetime) -> Iterator[Shot]:
    """The log's attempts as situations; records that cannot be read are left out."""
    for row in rows:
        try:
            asked = noted_situation(row, known)
            days = (now - datetime.fromisoformat(row.made_at)).total_seconds() / DAY_S
            yield Shot(
                asked, float(row.aim["nose"]), Tried(Result(row.result), row.off), days, row.table_label, row.system
            )
        except (BadInputError, ValueError, TypeError, KeyError):
            continue


@router.post(address.DRILL, responses=FAULTS)
async def post_drill(question: PracticeQuestion, request: Request) -> DrillModel:
    """One drill set up on the table, with its line and its record."""
    database, table = request.app.state.database, shelf_of(request).table(question.table)
    wanted = drill_named(question.drill, known_drills(database))
    tries = practice.tries(database, wanted.name)

    def made() -> DrillModel:
        found = drill(wanted, table)
        return drill_model(found, tries, () if question.sums else hands(found))

    found = await works_of(request).run(request, at_once(made), quick=False)
    return said(found, screen_of(request, table, turns=False))


@router.post(address.TRIES, responses=KEPT)
def post_try(note: TryNote, request: Request) -> RecordModel:
    """Note a try; the same uid again changes nothing."""
    database = request.app.state.database
    wanted = drill_named(note.drill, known_drills(database))
    shelf_of(request).table(note.table)
    practice.note_tries(database, [Try(note.uid, log.now(), wanted.name, note.table, note.made)])
    return record(wanted, practice.tries(database, wanted.name))


@router.delete(address.TRIES + "/{uid}", responses=KEPT)
def delete_try(uid: str, request: Request) -> RecordModel:
    """Take a try back."""
    database = request.app.state.database
    gone = practice.take_back(database, uid)
    return record(drill_named(gone.drill, known_drills(database)), practice.tries(database, gone.drill))
