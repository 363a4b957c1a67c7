"""JSON of the Club room: tables and cues kept, changed, exported, taken in."""

from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Body, Path, Request
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.app.tables import check, make
from fandle.core.errors import BadInputError
from fandle.core.shot.cue import own_cue
from fandle.core.steps import at_once
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.formats.base import Number
from fandle.formats.names import Name
from fandle.formats.tables import TableFile, read_table, table_json, table_of
from fandle.store import club
from fandle.web import address
from fandle.web.club.view import SeenModel, play_href, seen
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import library_of, mine_of
from fandle.web.table.api import LARGEST_FILE
from fandle.web.tasks import solve

router = APIRouter()
Id = Annotated[int, Path(ge=1, le=2**53)]
Base = Annotated[str, Field(min_length=1, max_length=60)]
Was = Annotated[str | None, Field(max_length=40)]  # the edition that was seen


class TableForm(BaseModel):
    """A table as the form has it: made from `base`, with figures as shown, or cloth and rubber in words."""

    model_config = ConfigDict(extra="forbid")

    base: Base
    name: Name | None = None
    values: dict[str, Number] = Field(default_factory=dict, max_length=60)
    cloth: str | None = None
    rubber: str | None = None
    whole: TableFile | None = None  # takes the place of all that: a table as it was before a change
    was: Was = None

    def table(self, base: Table) -> Table:
        """The table it describes, checked."""
        if self.whole is not None:
            return table_of(self.whole)
        return make(base, self.values, self.cloth, self.rubber, self.name)


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
    was: Was = None


class NameModel(TypedDict):
    """What something is called from now on, its record's id, and the edition of what was kept."""

    name: str
    id: int
    edition: str


class TakenModel(TypedDict):
    """What a table that was taken in is called."""

    name: str


class GoneModel(TypedDict):
    """A table that was let go of; its id brings it back."""

    name: str
    id: int


class CueGone(TypedDict):
    """A cue that was let go of: what POST takes to keep it again; figures that could not be read are null."""

    name: str
    end_ratio: float | None
    tip_mm: float | None


class ChangedModel(SeenModel):
    """A changed table as it is now, where it is played on, and what it was: whole, to take the change back."""

    name: str
    id: int
    edition: str
    before: dict[str, Any] | None
    play: str


@router.post(address.CLUB_PREVIEW, responses=FAULTS)
async def post_preview(form: TableForm, request: Request) -> SeenModel:
    """What a table would do, before it is kept; its figures after words were chosen."""
    library = library_of(request)
    return await solve(request, at_once(lambda: seen(form.table(library.table(form.base)))))


@router.post(address.CLUB_TABLES, responses=KEPT)
def post_table(form: TableForm, request: Request) -> NameModel:
    """Keep a new table, made from another one."""
    library = library_of(request)
    if form.name is None:
        raise BadInputError("a table needs a name: type one", "name", code="no_name")
    table = form.table(library.table(form.base))
    _may_be_called(table.name)
    check(table)
    kept = club.add_table(request.app.state.database, table.name, table_json(table))
    library.forget()
    return {"name": table.name, "id": kept.id, "edition": kept.edition}


@router.put(address.CLUB_TABLES + "/{table}", responses=KEPT)
def put_table(table: Id, form: TableForm, request: Request) -> ChangedModel:
    """Change a home-made table; refused where it was changed since it was seen. `before` is what it was, for the same
    call to take the change back."""
    library = library_of(request)
    called = next((row.label for row in library.standing() if row.id == table), "")
    before = library.tables().get(called)
    made = form.table(library.table(form.base) if before is None else before)
    _may_be_called(made.name)
    check(made)
    kept = club.change_table(request.app.state.database, table, made.name, table_json(made), form.was)
    library.forget()
    return {
        "name": made.name, "id": kept.id, "edition": kept.edition, "play": play_href(made, mine_of(request)),
        "before": None if before is None else table_json(before), **seen(made),
    }  # fmt: skip


@router.delete(address.CLUB_TABLES + "/{table}", responses=KEPT)
def delete_table(table: Id, request: Request) -> GoneModel:
    """Let go of a home-made table; its log stays, and its id brings it back."""
    library = library_of(request)
    gone = club.remove_table(request.app.state.database, table)
    library.forget()
    return {"name": gone.label, "id": gone.id}


@router.post(address.CLUB_BACK, responses=KEPT)
def post_bring_back(back: BringBack, request: Request) -> NameModel:
    """A table that was let go of stands in the club again."""
    library = library_of(request)
    kept = club.bring_back(request.app.state.database, back.id)
    library.forget()
    return {"name": kept.label, "id": kept.id, "edition": kept.edition}


@router.post(address.READ_TABLE, responses=KEPT)
def post_read_table(
    text: Annotated[str, Body(media_type="text/plain", max_length=LARGEST_FILE)], request: Request
) -> TakenModel:
    """A table file, checked, standing in the club from now on."""
    return {"name": library_of(request).take_in(read_table(text)).name}


@router.get(address.SAVE_TABLE, responses=FAULTS)
def get_table_file(name: str, request: Request) -> JSONResponse:
    """A table as a file to keep, every number the engine uses."""
    headers = {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name, safe='')}.table.json"}
    return JSONResponse(table_json(library_of(request).table(name)), headers=headers)


@router.post(address.CLUB_CUES, responses=KEPT)
def post_cue(form: CueForm, request: Request) -> NameModel:
    """Keep a new cue."""
    return _keep_cue(form, request, 0)


@router.put(address.CLUB_CUES + "/{cue}", responses=KEPT)
def put_cue(cue: Id, form: CueForm, request: Request) -> NameModel:
    """Change a cue; refused where it was changed since it was seen."""
    return _keep_cue(form, request, cue)


@router.delete(address.CLUB_CUES + "/{cue}", responses=KEPT)
def delete_cue(cue: Id, request: Request) -> CueGone:
    """Let go of a cue; the reply is what POST takes to keep it again."""
    library = library_of(request)
    gone = club.remove_cue(request.app.state.database, cue)
    library.forget()
    return {"name": gone.name, "end_ratio": gone.end_ratio, "tip_mm": gone.tip_mm}


def _keep_cue(form: CueForm, request: Request, cue: int) -> NameModel:
    library = library_of(request)
    made = own_cue(form.name, form.end_ratio, form.tip_mm / 1000)
    kept = club.save_cue(request.app.state.database, club.CueRow(made.name, form.end_ratio, form.tip_mm, cue), form.was)
    library.forget()
    return {"name": kept.name, "id": kept.id, "edition": kept.edition}


def _may_be_called(name: str) -> None:
    if name in STANDARDS:
        raise BadInputError(f"{name!r} is a standard table: choose another name", "name", code="taken")
