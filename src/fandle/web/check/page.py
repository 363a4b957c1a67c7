"""How does this table play? The shots to play, what they come to, and the simulated shooter."""

import json
from datetime import UTC, datetime
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from starlette.concurrency import run_in_threadpool

from fandle.app.check import check_steps, reference_shots, shoot
from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.player.scatter import CLUB
from fandle.core.shot.approach import approach
from fandle.core.steps import Steps, at_once
from fandle.core.table.model import Table
from fandle.core.table.parameters import TABLE
from fandle.core.table.rails import Contact, parse_rails
from fandle.core.table.speeds import speed_word
from fandle.core.table.standards import standard_twin
from fandle.core.tablecheck.evidence import Seen
from fandle.core.tablecheck.fit import Number
from fandle.core.tablecheck.outcome import Check
from fandle.core.tablecheck.report import nearest
from fandle.core.tablecheck.shots import Reference, Setup, reference_shot
from fandle.core.words.spoken import mixed
from fandle.formats.tables import table_json
from fandle.store import club
from fandle.store.database import Database
from fandle.web import address
from fandle.web.check.models import (
    CheckQuestion,
    LearnedRow,
    PlayedModel,
    ReadModel,
    ResultModel,
    ShooterQuestion,
    ShotModel,
)
from fandle.web.drawing import drawing, path
from fandle.web.faults import FAULTS
from fandle.web.known import library_of, linked_table, player_of
from fandle.web.speech import said, screen_of
from fandle.web.table.stroke_words import stroke_words
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)


@router.get(address.CHECK_ROOM, response_class=HTMLResponse)
async def check_room(request: Request) -> HTMLResponse:
    """The reference shots of one table, to be played and entered one by one."""
    context = await solve(request, at_once(lambda: _room(request)), quick=False)
    return await run_in_threadpool(request.app.state.templates.TemplateResponse, request, "check.html", context)


def _room(request: Request) -> dict[str, Any]:
    library = library_of(request)
    table, name, fault = linked_table(request)
    choices = library.choices(name)
    return {
        "drawing": drawing(table),
        "diamond": (table.diamond_x * 1000, table.diamond_y * 1000),
        "fault": fault,
        "name": name,
        "label": dict(choices).get(name, name),
        "own": name in library.tables(),
        "record": next((row for row in library.standing() if row.label == name), None),
        "tables": choices,
        "earlier": _earlier(request.app.state.database, name),
        "state": json.dumps(said(shots_of(table), screen_of(request, table, turns=False)), allow_nan=False),
        "urls": {
            "check": address.CHECK, "shooter": address.SHOOTER, "tables": address.CLUB_TABLES,
            "move": address.MOVE_TO, "room": address.CHECK_ROOM,
        },
    }  # fmt: skip


def _earlier(database: Database, name: str) -> list[dict[str, object]]:
    """The numbers that the table had before, each with the day of its check or since when it was so."""
    found: list[dict[str, object]] = []
    for version in club.versions(database, name):
        fitted = version.data.get("fitted")
        day = fitted.get("date") if isinstance(fitted, dict) else None
        found.append(
            {"number": version.number, "day": day or version.since[:10], "checked": bool(day), "data": version.data}
        )
    return found


def shots_of(table: Table) -> list[ShotModel]:
    """The shots with where they should land on this table."""
    return [_shot(table, shot, made) for shot, made in reference_shots(table)]


def _shot(table: Table, shot: Reference, made: Setup) -> ShotModel:
    way = approach(made.layout, made.stroke, made.direction)
    rails = [event for event in way.events if event.kind == "rail" and event.rail is not None][: len(shot.watch)]
    last, words = way.events[-1], stroke_words(table, made.stroke, TIP_DIAMETER_M)
    speed = f"{speed_word(shot.lengths)}, {mixed(shot.lengths)} table lengths"
    x, y = shot.place
    away = x * table.diamond_x * 1000, y * table.diamond_y * 1000
    mm = f"{away[0]:.0f} mm from the head rail, {away[1]:.0f} mm from the near rail"
    aim = "straight along the table" if shot.aim is None else f"aim at {shot.aim[1]:g} on the {shot.aim[0]} rail"
    side = "" if not made.stroke.side else f", {words['side_text']}"
    height = "" if not made.stroke.up else f", {words['height_text']}"
    return {
        "id": shot.id,
        "say": shot.say,
        "place": {"x": x, "y": y},
        "where": mm,
        "aim": aim,
        "stroke": f"{speed}{side}{height}",
        "path": path(table, way.pieces),
        "marks": [{"rail": str(ev.rail), "at": ev.rail.along(ev.x, ev.y)} for ev in rails if ev.rail is not None],
        "stop": {"x": last.x, "y": last.y} if shot.stops else None,
        "compares": bool(shot.like),
    }


@router.post(address.CHECK, responses=FAULTS)
async def post_check(question: CheckQuestion, request: Request) -> ResultModel:
    """What the shots so far come to."""
    library = library_of(request)

    def checked() -> Steps[ResultModel]:
        table = library.table(question.table)
        before = standard_twin(table) if question.hidden else table
        seen = [_seen(shot, before) for shot in question.shots]
        found = yield from check_steps(before, seen, player_of(request), datetime.now(UTC).date())
        others = {name: each for name, each in library.tables().items() if name != question.table}
        return said(_result(found, nearest(found.fitting, before, others)), screen_of(request, table, turns=False))

    return await solve(request, checked(), quick=False)


def _seen(shot: PlayedModel, table: Table) -> Seen:
    landed = tuple(Contact(parse_rails(each.rail)[0], each.at) for each in shot.landed)
    return Seen(reference_shot(table, shot.shot), landed, None if shot.rest is None else (shot.rest.x, shot.rest.y))


def _result(found: Check, near: str | None) -> ResultModel:
    changed = [each.say for each in found.systems if each.tells]
    return {
        "verdict": found.verdict.say,
        "who": found.verdict.who,
        "like": found.like if near is None else f"{found.like}; nearest to {near}",
        "plays": [{"kind": p.kind, "off": p.off, "sd": p.sd, "say": p.say} for p in found.plays],
        "learned": [_learned(number) for number in found.fitting.numbers],
        "says": [*found.notes, *changed],
        "wild": list(found.fitting.wild),
        "table": table_json(found.table),
    }


def _learned(number: Number) -> LearnedRow:
    shown = TABLE[number.name].shown
    if shown is None:
        raise ValueError(f"{number.name} has no label")
    before, now, sd = (f"{value * shown.scale:.{shown.places}f}" for value in (number.prior, number.value, number.sd))
    return {
        "label": shown.label,
        "before": before,
        "now": "no table plays so: measure again" if number.beyond else f"{now} ± {sd} {shown.unit}".rstrip(),
        "learned": number.learned,
    }


@router.post(address.SHOOTER, responses=FAULTS)
def post_shooter(question: ShooterQuestion, request: Request) -> ReadModel:
    """The simulated shooter plays one shot on the club's own numbers, as a club player would, and reads it by eye."""
    table = library_of(request).table(question.table)
    one = shoot(table, standard_twin(table), question.shot, CLUB, question.turn)
    rest = one.rest
    return {
        "landed": [{"rail": str(contact.rail), "at": round(contact.at, 2)} for contact in one.landed],
        "rest": None if rest is None else {"x": round(rest[0], 2), "y": round(rest[1], 2)},
    }
