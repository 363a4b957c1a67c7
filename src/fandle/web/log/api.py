"""JSON of the log and of the player's settings."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Path, Request
from pydantic import AliasChoices, BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool
from typing_extensions import TypedDict

from fandle.app.lines import shot_line
from fandle.app.log import attempt, landed
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.lines.solution import Solution
from fandle.core.player.body import Build, Hand
from fandle.core.practice.record import Result, Thickness, check_result, meant_by, set_up
from fandle.core.steps import at_once
from fandle.core.systems.catalogue import TITLES
from fandle.core.table.rails import Rail
from fandle.core.words.spoken import landing_word
from fandle.formats.base import Number
from fandle.store import log
from fandle.store.club import table_label
from fandle.store.database import Database
from fandle.store.figures import of_set_up, same_set_up
from fandle.store.noting import noted_attempt, noted_situation
from fandle.store.preferences import MY_CUE, PREFERRED, set_preference
from fandle.web import address
from fandle.web.faults import KEPT
from fandle.web.known import HABITS, TIP, library_of
from fandle.web.table.api import Question, situation
from fandle.web.tasks import solve, works_of

router = APIRouter()
Uid = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")]
UidPath = Annotated[str, Path(pattern=r"^[A-Za-z0-9-]{8,64}$")]


class NewAttempt(BaseModel):
    """An attempt just made: what was asked of the page, and what happened."""

    model_config = ConfigDict(extra="forbid")

    uid: Uid
    question: Question
    result: Result
    potted: bool | None = None


class Touched(BaseModel):
    """A further contact with a rail, diamonds along it."""

    model_config = ConfigDict(extra="forbid")

    rail: Rail
    at: Number = Field(ge=-1, le=9)


class Amendment(BaseModel):
    """More about an attempt. `at`: where it crossed the target's line, diamonds along the last rail.

    potted, in_off: whether the ball, the cue ball went down; left_safe: whether the opponent was left nothing.
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
    left_safe: bool | None = None
    was: str | None = Field(default=None, max_length=40)  # the edition that was seen


class Preferences(BaseModel):
    """The player's settings."""

    model_config = ConfigDict(extra="forbid")

    tip_mm: Number | None = Field(default=None, ge=8, le=15)
    system: str | None = Field(
        default=None, validation_alias=AliasChoices("system", "school")
    )  # as it was called first
    cue: str | None = None
    reach: Build | None = None
    hand: Hand | None = None
    plain: bool | None = None


class Told(TypedDict):
    """A noted attempt with the figures of its set-up. off_text: how far off it landed, in words; edition: which state
    of what was said of it this is."""

    attempt: dict[str, Any]
    edition: str
    figures: dict[str, Any]
    off_text: str


class UidModel(TypedDict):
    """Which attempt it was."""

    uid: str


def told(database: Database, noted: log.Noted) -> Told:
    """A noted attempt with the figures of its set-up."""
    f = same_set_up(database, noted.uid)
    return {"attempt": vars(noted), "edition": noted.edition, "figures": vars(f), "off_text": landing_word(noted.off)}


@router.post(address.ATTEMPTS, responses=KEPT)
async def post_attempt(new: NewAttempt, request: Request) -> Told:
    """Note an attempt. The same uid again is the same attempt: nothing is kept twice."""
    database: Database = request.app.state.database
    asked = address.rounded(await works_of(request).read(situation, new.question, request))
    best = await solve(request, at_once(lambda: shot_line(asked)))
    return await run_in_threadpool(keep, database, new, asked, best)


class HereModel(TypedDict):
    """This very shot's own record."""

    attempts: int
    hits: int


@router.post(address.ATTEMPTS_HERE, responses=KEPT)
async def post_here(question: Question, request: Request) -> HereModel:
    """What was made of this very shot before: same balls, same rails, on this table as it is."""
    database: Database = request.app.state.database
    asked = address.rounded(await works_of(request).read(situation, question, request))
    best = await solve(request, at_once(lambda: shot_line(asked)))
    return await run_in_threadpool(_here, database, asked, best)


def _here(database: Database, asked: Situation, best: Solution) -> HereModel:
    label = table_label(database, asked.table.name) or asked.table.name
    found = of_set_up(database, set_up(asked.layout, meant_by(best)), label)
    return {"attempts": found.attempts, "hits": found.hits}


def keep(database: Database, new: NewAttempt, asked: Situation, best: Solution) -> Told:
    """Keep an attempt whose line is known."""
    table = asked.table.name
    made = attempt(asked, best, new.result, potted=new.potted)
    row = noted_attempt(made, new.uid, log.now(), table_label(database, table) or table)
    return told(database, log.note(database, row))


@router.patch(address.ATTEMPTS + "/{uid}", responses=KEPT)
def patch_attempt(uid: UidPath, amendment: Amendment, request: Request) -> Told:
    """Say more about an attempt."""
    database: Database = request.app.state.database
    changes = amendment.model_dump(mode="json", exclude_none=True, exclude={"was"})
    if amendment.at is not None:
        changes.pop("at")
        changes["off"] = landed(noted_situation(log.one(database, uid), library_of(request).known), amendment.at)
    if amendment.result is not None:
        check_result(amendment.result, log.one(database, uid).kind)
    return told(database, log.amend(database, uid, amendment.was, **changes))


@router.delete(address.ATTEMPTS + "/{uid}", responses=KEPT)
def delete_attempt(uid: UidPath, request: Request) -> UidModel:
    """Take an attempt out of the log; it can be put back."""
    log.take_out(request.app.state.database, uid)
    return {"uid": uid}


@router.post(address.ATTEMPTS + "/{uid}/restore", responses=KEPT)
def restore_attempt(uid: UidPath, request: Request) -> UidModel:
    """Put a deleted attempt back."""
    log.put_back(request.app.state.database, uid)
    return {"uid": uid}


@router.put(address.PREFERENCES, responses=KEPT)
def put_preferences(preferences: Preferences, request: Request) -> Preferences:
    """Keep the player's settings."""
    database = request.app.state.database
    if preferences.system is not None:
        if preferences.system not in TITLES:
            raise BadInputError(
                f"unknown method {preferences.system!r}: use one of {', '.join(TITLES)}", "system", code="unknown"
            )
        set_preference(database, PREFERRED, preferences.system)
    if preferences.cue is not None:
        set_preference(database, MY_CUE, library_of(request).cue(preferences.cue).name)
    for name in (TIP, *HABITS):
        value = getattr(preferences, name)
        if value is not None:
            set_preference(database, name, value)
    return preferences
