"""JSON of the layouts kept under a name: list, save, save again, rename, delete; each is known by its record's id."""

from typing import Annotated, Any

from fastapi import APIRouter, Path, Query, Request
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.formats.files import layout_json
from fandle.formats.names import Name
from fandle.store.queries import Renewal, change_layout, remove_layout, save_layout
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import mine_of
from fandle.web.table.api import Scene, scene_layout
from fandle.web.table.kept import KeptModel, kept_model, listed

router = APIRouter()
LONGEST_NOTE = 200  # characters
Id = Annotated[int, Path(ge=1, le=2**53)]


class NamedScene(BaseModel):
    """A layout to keep under a name."""

    model_config = ConfigDict(extra="forbid")

    name: Name
    note: str = Field(default="", max_length=LONGEST_NOTE)
    layout: Scene


class Renewed(BaseModel):
    """What changes of a kept layout; what is left out stays. was: the edition of it that was seen."""

    model_config = ConfigDict(extra="forbid")

    name: Name | None = None
    note: str | None = Field(default=None, max_length=LONGEST_NOTE)
    layout: Scene | None = None
    was: str | None = Field(default=None, max_length=40)


class LayoutsModel(TypedDict):
    """Layouts to open; older: from which record older ones begin, null where there are none."""

    layouts: list[KeptModel]
    older: int | None


class LayoutGone(TypedDict):
    """A layout that was let go of: what POST takes to keep it again."""

    name: str
    note: str
    layout: Any


class LayoutRenewed(KeptModel):
    """A layout that was changed: how it is now, and how it was before."""

    before: LayoutGone


@router.get(address.LAYOUTS, responses=FAULTS)
def get_layouts(
    request: Request, find: Annotated[str, Query(max_length=60)] = "",
    before: Annotated[int | None, Query(ge=1, le=2**53)] = None,
) -> LayoutsModel:  # fmt: skip
    """Layouts kept under a name, the newest first, a screenful at a time; find: a word in their name or note."""
    found = listed(request, find.strip(), before)
    return {"layouts": found.layouts, "older": found.older}


@router.post(address.LAYOUTS, responses=KEPT)
def post_layout(named: NamedScene, request: Request) -> KeptModel:
    """Keep a layout under a new name."""
    layout = scene_layout(named.layout, request)
    saved = save_layout(request.app.state.database, named.name, layout_json(layout), named.note.strip())
    return kept_model(saved, mine_of(request))


@router.patch(address.LAYOUTS + "/{layout}", responses=KEPT)
def patch_layout(layout: Id, renewed: Renewed, request: Request) -> LayoutRenewed:
    """Save a kept layout again, or rename it; refused where it was changed since it was seen."""
    data = None if renewed.layout is None else layout_json(scene_layout(renewed.layout, request))
    new = Renewal(renewed.name, renewed.note, data, renewed.was)
    before, now = change_layout(request.app.state.database, layout, new)
    gone: LayoutGone = {"name": before.name, "note": before.note, "layout": before.data}
    return {**kept_model(now, mine_of(request)), "before": gone}


@router.delete(address.LAYOUTS + "/{layout}", responses=KEPT)
def delete_layout(layout: Id, request: Request) -> LayoutGone:
    """Let go of a named layout; the reply is what POST takes to keep it again."""
    saved = remove_layout(request.app.state.database, layout)
    return {"name": saved.name, "note": saved.note, "layout": saved.data}
