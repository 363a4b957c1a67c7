"""JSON of the Club room: tables and cues kept, changed, exported, taken in."""

from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Body, Request
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field

from fandle.core.errors import BadInputError
from fandle.core.shot.cue import own_cue
from fandle.core.steps import at_once
from fandle.core.table.condition import condition_of, conditioned
from fandle.core.table.figures import shown, with_shown
from fandle.core.table.model import Table, renamed
from fandle.core.table.standards import STANDARDS
from fandle.core.tablecheck.response import check_playable
from fandle.formats.base import Number
from fandle.formats.files import TableFile, read_table, table_json, table_of
from fandle.store import club
from fandle.web import address
from fandle.web.api import FAULTS, LARGEST_FILE
from fandle.web.api_log import KEPT
from fandle.web.club_view import play_href, preview
from fandle.web.known import shelf_of
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
        made = with_shown(base, self.values)
        if self.cloth is not None or self.rubber is not None:
            cloth, rubber = condition_of(made)
            made = conditioned(made, self.cloth or cloth, self.rubber or rubber)
        return made if self.name is None else renamed(made, self.name.strip())


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


@router.post(address.CLUB_PREVIEW, responses=FAULTS)
async def post_preview(form: TableForm, request: Request) -> dict[str, Any]:
    """What a table would do, before it is kept; its figures after words were chosen."""
    table = form.table(shelf_of(request).table(form.base))
    return await works_of(request).run(request, at_once(lambda: seen(table)))


def seen(table: Table) -> dict[str, Any]:
    """A table's preview, its figures as the form has them, and its condition in words."""
    cloth, rubber = condition_of(table)
    look = preview(table)
    look.pop("drawing")
    return {**look, "values": shown(table), "cloth": cloth, "rubber": rubber}


@router.post(address.CLUB_TABLES, responses=KEPT)
def post_table(form: TableForm, request: Request) -> dict[str, str]:
    """Keep a new table, made from another one."""
    shelf = shelf_of(request)
    if form.name is None:
        raise BadInputError("a table needs a name: type one", "name")
    table = form.table(shelf.table(form.base))
    _may_be_called(table.name)
    check_playable(table)
    club.add_table(shelf.database, table.name, table_json(table))
    shelf.forget()
    return {"name": table.name}


@router.put(address.CLUB_TABLES + "/{name:path}", responses=KEPT)
def put_table(name: str, form: TableForm, request: Request) -> dict[str, Any]:
    """Change a home-made table. `before` is what it was, for the same call to take the change back."""
    shelf = shelf_of(request)
    before = shelf.tables().get(name)
    table = form.table(shelf.table(form.base))
    _may_be_called(table.name)
    check_playable(table)
    club.change_table(shelf.database, name, table.name, table_json(table))
    shelf.forget()
    old = None if before is None else table_json(before)
    return {"name": table.name, "before": old, "play": play_href(table), **seen(table)}


@router.delete(address.CLUB_TABLES + "/{name:path}", responses=KEPT)
def delete_table(name: str, request: Request) -> dict[str, Any]:
    """Let go of a home-made table; its log stays, and its id brings it back."""
    shelf = shelf_of(request)
    gone = club.remove_table(shelf.database, name)
    shelf.forget()
    return {"name": gone.label, "id": gone.id}


@router.post(address.CLUB_BACK, responses=KEPT)
def post_bring_back(back: BringBack, request: Request) -> dict[str, str]:
    """A table that was let go of stands in the club again."""
    shelf = shelf_of(request)
    name = club.bring_back(shelf.database, back.id).label
    shelf.forget()
    return {"name": name}


@router.post(address.READ_TABLE, responses=KEPT)
def post_read_table(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> dict[str, str]:
    """A table file, checked, standing in the club from now on."""
    return {"name": shelf_of(request).take_in(read_table(text)).name}


@router.get(address.SAVE_TABLE, responses=FAULTS)
def get_table_file(name: str, request: Request) -> JSONResponse:
    """A table as a file to keep, every number the engine uses."""
    headers = {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name, safe='')}.table.json"}
    return JSONResponse(table_json(shelf_of(request).table(name)), headers=headers)


@router.post(address.CLUB_CUES, responses=KEPT)
def post_cue(form: CueForm, request: Request) -> dict[str, str]:
    """Keep a new cue."""
    return _keep_cue(form, request, None)


@router.put(address.CLUB_CUES + "/{name:path}", responses=KEPT)
def put_cue(name: str, form: CueForm, request: Request) -> dict[str, str]:
    """Change a cue."""
    return _keep_cue(form, request, name)


@router.delete(address.CLUB_CUES + "/{name:path}", responses=KEPT)
def delete_cue(name: str, request: Request) -> dict[str, Any]:
    """Let go of a cue; the reply is what POST takes to keep it again."""
    shelf = shelf_of(request)
    gone = club.remove_cue(shelf.database, name)
    shelf.forget()
    return {"name": gone.name, "end_ratio": gone.end_ratio, "tip_mm": gone.tip_mm}


def _keep_cue(form: CueForm, request: Request, old: str | None) -> dict[str, str]:
    shelf = shelf_of(request)
    cue = own_cue(form.name.strip(), form.end_ratio, form.tip_mm / 1000)
    club.save_cue(shelf.database, club.CueRow(cue.name, form.end_ratio, form.tip_mm), old)
    shelf.forget()
    return {"name": cue.name}


def _may_be_called(name: str) -> None:
    if not name:
        raise BadInputError("a table needs a name: type one", "name")
    if name in STANDARDS:
        raise BadInputError(f"{name!r} is a standard table: choose another name", "name")
