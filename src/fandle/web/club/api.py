"""JSON of the Club room: tables and cues kept, changed, exported, taken in."""

from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Body, Request
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.core.errors import BadInputError
from fandle.core.shot.cue import own_cue
from fandle.core.steps import at_once
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.formats.base import Number
from fandle.formats.files import TableFile, read_table, table_json, table_of
from fandle.service.tables import check, make
from fandle.store import club
from fandle.web import address
from fandle.web.club.view import SeenModel, play_href, seen
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import mine_of, shelf_of
from fandle.web.table.api import LARGEST_FILE
from fandle.web.work import works_of

router = APIRouter()
Name = Annotated[str, Field(min_length=1, max_length=60)]


class TableForm(BaseModel):
    """A table as the form has it: made from `base`, with figures as shown, or cloth and rubber in words."""

    model_config = ConfigDict(extra="forbid")

    base: Name
    name: Name | None = None
    values: dict[str, Number] = Field(default_factory=dict, max_length=60)
    cloth: str | None = None
    rubber: str | None = None
    whole: TableFile | None = None  # takes the place of all that: a table as it was before a change

    def table(self, base: Table) -> Table:
        """The table it describes, checked."""
        if self.whole is not None:
            return table_of(self.whole)
        name = None if self.name is None else self.name.strip()
        return make(base, self.values, self.cloth, self.rubber, name)


class BringBack(BaseModel):
    """A table that was let go of."""

    model_config = ConfigDict(extra="forbid")

    id: int = Field(ge=1, le=2**31)


class CueForm(BaseModel):
    """A cue as the form has it."""

    model_config = ConfigDict(extra="forbid")

    name: Name
    end_ratio: Number
    tip_mm: Number


class NameModel(TypedDict):
    """What something is called from now on."""

    name: str


class GoneModel(TypedDict):
    """A table that was let go of; its id brings it back."""

    name: str
    id: int


class ChangedModel(SeenModel):
    """A changed table as it is now, where it is played on, and what it was: whole, to take the change back."""

    name: str
    before: dict[str, Any] | None
    play: str


@router.post(address.CLUB_PREVIEW, responses=FAULTS)
async def post_preview(form: TableForm, request: Request) -> SeenModel:
    """What a table would do, before it is kept; its figures after words were chosen."""
    table = form.table(shelf_of(request).table(form.base))
    return await works_of(request).run(request, at_once(lambda: seen(table)))


@router.post(address.CLUB_TABLES, responses=KEPT)
def post_table(form: TableForm, request: Request) -> NameModel:
    """Keep a new table, made from another one."""
    shelf = shelf_of(request)
    if form.name is None:
        raise BadInputError("a table needs a name: type one", "name", code="no_name")
    table = form.table(shelf.table(form.base))
    _may_be_called(table.name)
    check(table)
    club.add_table(shelf.database, table.name, table_json(table))
    shelf.forget()
    return {"name": table.name}


@router.put(address.CLUB_TABLES + "/{name:path}", responses=KEPT)
def put_table(name: str, form: TableForm, request: Request) -> ChangedModel:
    """Change a home-made table. `before` is what it was, for the same call to take the change back."""
    shelf = shelf_of(request)
    before = shelf.tables().get(name)
    table = form.table(shelf.table(form.base))
    _may_be_called(table.name)
    check(table)
    club.change_table(shelf.database, name, table.name, table_json(table))
    shelf.forget()
    old = None if before is None else table_json(before)
    return {"name": table.name, "before": old, "play": play_href(table, mine_of(request)), **seen(table)}


@router.delete(address.CLUB_TABLES + "/{name:path}", responses=KEPT)
def delete_table(name: str, request: Request) -> GoneModel:
    """Let go of a home-made table; its log stays, and its id brings it back."""
    shelf = shelf_of(request)
    gone = club.remove_table(shelf.database, name)
    shelf.forget()
    return {"name": gone.label, "id": gone.id}


@router.post(address.CLUB_BACK, responses=KEPT)
def post_bring_back(back: BringBack, request: Request) -> NameModel:
    """A table that was let go of stands in the club again."""
    shelf = shelf_of(request)
    name = club.bring_back(shelf.database, back.id).label
    shelf.forget()
    return {"name": name}


@router.post(address.READ_TABLE, responses=KEPT)
def post_read_table(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> NameModel:
    """A table file, checked, standing in the club from now on."""
    return {"name": shelf_of(request).take_in(read_table(text)).name}


@router.get(address.SAVE_TABLE, responses=FAULTS)
def get_table_file(name: str, request: Request) -> JSONResponse:
    """A table as a file to keep, every number the engine uses."""
    headers = {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name, safe='')}.table.json"}
    return JSONResponse(table_json(shelf_of(request).table(name)), headers=headers)


@router.post(address.CLUB_CUES, responses=KEPT)
def post_cue(form: CueForm, request: Request) -> NameModel:
    """Keep a new cue."""
    return _keep_cue(form, request, None)


@router.put(address.CLUB_CUES + "/{name:path}", responses=KEPT)
def put_cue(name: str, form: CueForm, request: Request) -> NameModel:
    """Change a cue."""
    return _keep_cue(form, request, name)


@router.delete(address.CLUB_CUES + "/{name:path}", responses=KEPT)
def delete_cue(name: str, request: Request) -> CueForm:
    """Let go of a cue; the reply is what POST takes to keep it again."""
    shelf = shelf_of(request)
    gone = club.remove_cue(shelf.database, name)
    shelf.forget()
    return CueForm(name=gone.name, end_ratio=gone.end_ratio, tip_mm=gone.tip_mm)


def _keep_cue(form: CueForm, request: Request, old: str | None) -> NameModel:
    shelf = shelf_of(request)
    cue = own_cue(form.name.strip(), form.end_ratio, form.tip_mm / 1000)
    club.save_cue(shelf.database, club.CueRow(cue.name, form.end_ratio, form.tip_mm), old)
    shelf.forget()
    return {"name": cue.name}


def _may_be_called(name: str) -> None:
    if not name:
        raise BadInputError("a table needs a name: type one", "name", code="no_name")
    if name in STANDARDS:
        raise BadInputError(f"{name!r} is a standard table: choose another name", "name", code="taken")
