"""JSON of the log, of named layouts and of the player's settings."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Path, Request
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool

from fandle.core.errors import BadInputError
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim, Solution
from fandle.core.practice.record import Result, Thickness, check_result, kind_of, off_by, set_up, shot_title
from fandle.core.steps import at_once
from fandle.core.systems.registry import TITLES
from fandle.core.table.rails import Rail, rails_name
from fandle.core.words.spoken import landing_word
from fandle.formats.answers import marks_json, stroke_json
from fandle.formats.base import Number
from fandle.formats.files import layout_json
from fandle.store import log
from fandle.store.club import table_label
from fandle.store.database import Database
from fandle.store.figures import same_set_up
from fandle.store.queries import remove_layout, save_layout
from fandle.web import address
from fandle.web.address import State
from fandle.web.api import FAULTS, Fault, Question, Scene, scene_layout, state_of
from fandle.web.known import shelf_of
from fandle.web.noted import layout_href, noted_state
from fandle.web.work import works_of

router = APIRouter()
KEPT: dict[int | str, dict[str, Any]] = {
    **FAULTS,
    404: {"model": Fault, "description": "Nothing of that name is kept."},
    409: {"model": Fault, "description": "The name is in use."},
    503: {"model": Fault, "description": "The disk or the folder refuses; nothing was saved."},
}
Uid = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")]
UidPath = Annotated[str, Path(pattern=r"^[A-Za-z0-9-]{8,64}$")]


class NewAttempt(BaseModel):
    """An attempt just made: what was asked of the page, and what happened."""

    model_config = ConfigDict(extra="forbid")

    uid: Uid
    question: Question
    result: Result


class Touched(BaseModel):
    """A further contact with a rail, diamonds along it."""

    model_config = ConfigDict(extra="forbid")

    rail: Rail
    at: Number = Field(ge=-1, le=9)


class Amendment(BaseModel):
    """More about an attempt. `at`: where it crossed the target's line, diamonds along the last rail.

    touched: the second and third contacts. stopped_x, stopped_y: where the cue ball came to rest, diamonds.
    """

    model_config = ConfigDict(extra="forbid")

    result: Result | None = None
    at: Number | None = None
    side_hit: Thickness | Literal[""] | None = None
    comment: str | None = Field(default=None, max_length=400)
    potted: bool | None = None
    in_off: bool | None = None
    touched: list[Touched] | None = Field(default=None, max_length=6)
    stopped_x: Number | None = Field(default=None, ge=0, le=8)
    stopped_y: Number | None = Field(default=None, ge=0, le=4)
    try_number: int | None = Field(default=None, ge=1, le=99)


class NamedScene(BaseModel):
    """A layout to keep under a name."""

    model_config = ConfigDict(extra="forbid")

    name: str = Field(min_length=1, max_length=60)
    note: str = Field(default="", max_length=200)
    layout: Scene


class Preferences(BaseModel):
    """The player's settings."""

    model_config = ConfigDict(extra="forbid")

    tip_mm: Number | None = Field(default=None, ge=8, le=15)
    school: str | None = None


def best_line(state: State) -> Solution:
    """The aim a noted attempt was made with."""
    if state.rails is None:
        raise BadInputError("no rail is chosen: choose the line that was shot", "rails")
    if state.kind == "bank":
        answer = solve_bank(state.layout, state.rails, state.stroke, pocket=state.pocket, with_chain=False)
    else:
        answer = solve_kick(state.layout, state.rails, state.stroke, hit=state.hit, with_chain=False)
    if not isinstance(answer, Aim):
        raise BadInputError(f"there is no line to note ({answer.reason}): choose an open rail", "rails")
    return answer.best


def told(database: Database, noted: log.Noted) -> dict[str, Any]:
    """A noted attempt with the figures of its set-up."""
    f = same_set_up(database, noted.uid)
    return {"attempt": vars(noted), "figures": vars(f), "off_text": landing_word(noted.off)}


@router.post(address.ATTEMPTS, responses=KEPT)
async def post_attempt(new: NewAttempt, request: Request) -> dict[str, Any]:
    """Note an attempt. The same uid again is the same attempt: nothing is kept twice."""
    database: Database = request.app.state.database
    state = address.rounded(state_of(new.question, request))
    best = await works_of(request).run(request, at_once(lambda: best_line(state)))
    return await run_in_threadpool(keep, database, new, state, best)


def keep(database: Database, new: NewAttempt, state: State, best: Solution) -> dict[str, Any]:
    """Keep an attempt whose line is known."""
    layout, kind = state.layout, kind_of(best.rails, best.pocket)
    check_result(new.result, kind)
    noted = log.note(
        database,
        log.Noted(
            uid=new.uid,
            made_at=log.now(),
            set_up=set_up(layout, best.rails, best.pocket),
            title=shot_title(best.target, best.rails, best.pocket),
            table_label=table_label(database, layout.table.name) or layout.table.name,
            layout=layout_json(layout),
            kind=kind,
            rails=rails_name(best.rails),
            pocket=best.pocket,
            stroke={**stroke_json(state.stroke), **({"hit": state.hit} if state.hit else {})},
            aim=marks_json(best.corrected),
            result=new.result.value,
            potted=new.result is Result.HIT if kind == "bank" else None,
        ),
    )
    return told(database, noted)


@router.patch(address.ATTEMPTS + "/{uid}", responses=KEPT)
def patch_attempt(uid: UidPath, amendment: Amendment, request: Request) -> dict[str, Any]:
    """Say more about an attempt."""
    database: Database = request.app.state.database
    changes = amendment.model_dump(mode="json", exclude_none=True)
    if amendment.at is not None:
        state = noted_state(log.one(database, uid), shelf_of(request).known)
        best = best_line(state)
        changes.pop("at")
        changes["off"] = off_by(state.layout, best, amendment.at)
    if amendment.result is not None:
        check_result(amendment.result, log.one(database, uid).kind)
    return told(database, log.amend(database, uid, **changes))


@router.delete(address.ATTEMPTS + "/{uid}", responses=KEPT)
def delete_attempt(uid: UidPath, request: Request) -> dict[str, str]:
    """Take an attempt out of the log; it can be put back."""
    log.take_out(request.app.state.database, uid)
    return {"uid": uid}


@router.post(address.ATTEMPTS + "/{uid}/restore", responses=KEPT)
def restore_attempt(uid: UidPath, request: Request) -> dict[str, str]:
    """Put a deleted attempt back."""
    log.put_back(request.app.state.database, uid)
    return {"uid": uid}


@router.post(address.LAYOUTS, responses=KEPT)
def post_layout(named: NamedScene, request: Request) -> dict[str, Any]:
    """Keep a layout under a new name."""
    name = named.name.strip()
    if not name:
        raise BadInputError("a layout needs a name: type one", "name")
    layout = scene_layout(named.layout, request)
    saved = save_layout(request.app.state.database, name, layout_json(layout), named.note.strip())
    return {"name": saved.name, "note": saved.note, "href": layout_href(layout)}


@router.delete(address.LAYOUTS + "/{name:path}", responses=KEPT)
def delete_layout(name: str, request: Request) -> dict[str, Any]:
    """Let go of a named layout; the reply is what POST takes to keep it again."""
    saved = remove_layout(request.app.state.database, name)
    return {"name": saved.name, "note": saved.note, "layout": saved.data}


@router.put(address.PREFERENCES, responses=KEPT)
def put_preferences(preferences: Preferences, request: Request) -> dict[str, Any]:
    """Keep the player's settings."""
    database = request.app.state.database
    if preferences.school is not None:
        if preferences.school not in TITLES:
            raise BadInputError(f"unknown method {preferences.school!r}: use one of {', '.join(TITLES)}", "school")
        log.set_preference(database, "school", preferences.school)
    if preferences.tip_mm is not None:
        log.set_preference(database, "tip_mm", preferences.tip_mm)
    return preferences.model_dump()
