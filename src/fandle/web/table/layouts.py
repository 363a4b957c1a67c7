"""JSON of the layouts kept under a name: save, save again, rename, delete."""

from typing import Any

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.core.errors import BadInputError
from fandle.formats.files import layout_json, layout_of
from fandle.store.database import Database
from fandle.store.queries import change_layout, remove_layout, save_layout
from fandle.web import address
from fandle.web.faults import KEPT
from fandle.web.known import mine_of, shelf_of
from fandle.web.noted import layout_href
from fandle.web.table.api import Scene, scene_layout

router = APIRouter()
LONGEST_NAME, LONGEST_NOTE = 60, 200  # characters


class NamedScene(BaseModel):
    """A layout to keep under a name."""

    model_config = ConfigDict(extra="forbid")

    name: str = Field(min_length=1, max_length=LONGEST_NAME)
    note: str = Field(default="", max_length=LONGEST_NOTE)
    layout: Scene


class Renewed(BaseModel):
    """What changes of a kept layout; what is left out stays."""

    model_config = ConfigDict(extra="forbid")

    name: str | None = Field(default=None, min_length=1, max_length=LONGEST_NAME)
    note: str | None = Field(default=None, max_length=LONGEST_NOTE)
    layout: Scene | None = None


class LayoutKept(TypedDict):
    """A layout that is kept, and where it is opened."""

    name: str
    note: str
    href: str


class LayoutGone(TypedDict):
    """A layout that was let go of: what POST takes to keep it again."""

    name: str
    note: str
    layout: Any


class LayoutRenewed(LayoutKept):
    """A layout that was changed: how it is now, and how it was before."""

    before: LayoutGone


def _named(name: str) -> str:
    """The name without blanks around it."""
    if not name.strip():
        raise BadInputError("a layout needs a name: type one", "name", code="no_name")
    return name.strip()


@router.post(address.LAYOUTS, responses=KEPT)
def post_layout(named: NamedScene, request: Request) -> LayoutKept:
    """Keep a layout under a new name."""
    layout = scene_layout(named.layout, request)
    saved = save_layout(request.app.state.database, _named(named.name), layout_json(layout), named.note.strip())
    return {"name": saved.name, "note": saved.note, "href": layout_href(layout, mine_of(request), saved.name)}


@router.patch(address.LAYOUTS + "/{name:path}", responses=KEPT)
def patch_layout(name: str, renewed: Renewed, request: Request) -> LayoutRenewed:
    """Save a kept layout again, or rename it."""
    database: Database = request.app.state.database
    data = None if renewed.layout is None else layout_json(scene_layout(renewed.layout, request))
    new = None if renewed.name is None else _named(renewed.name)
    before = change_layout(database, name, new=new, note=renewed.note, data=data)
    now = new or before.name
    kept = before.data if data is None else data
    return {
        "name": now,
        "note": before.note if renewed.note is None else renewed.note,
        "href": _href(kept, now, request),
        "before": {"name": before.name, "note": before.note, "layout": before.data},
    }


def _href(kept: Any, name: str, request: Request) -> str:
    """Where a kept layout is opened; nowhere where its record cannot be read."""
    try:
        return layout_href(layout_of(kept, shelf_of(request).table), mine_of(request), name)
    except BadInputError:
        return ""


@router.delete(address.LAYOUTS + "/{name:path}", responses=KEPT)
def delete_layout(name: str, request: Request) -> LayoutGone:
    """Let go of a named layout; the reply is what POST takes to keep it again."""
    saved = remove_layout(request.app.state.database, name)
    return {"name": saved.name, "note": saved.note, "layout": saved.data}
