"""What the other routes of the Table room answer: held marks, changed and read layouts, links, the server's health."""

from typing import Any, NotRequired

from typing_extensions import TypedDict

from fandle.web.table.models import SceneModel


class HeldModel(TypedDict):
    """The stroke for a held mark, or why there is none."""

    solved: bool
    reason: NotRequired[str]
    stroke: NotRequired[dict[str, Any]]


class EditedModel(TypedDict):
    """A layout changed as a whole, with the side, thickness and rails that turned with it."""

    layout: SceneModel
    side: float
    hit: float
    rails: str | None


class ReadModel(TypedDict):
    """A layout file as it was read. table: the whole table that came with it and that the club has not, else null."""

    layout: SceneModel
    href: str | None
    table: dict[str, Any] | None


class HrefModel(TypedDict):
    """Where something is opened."""

    href: str


class HealthModel(TypedDict):
    """Is the server up? done: how far the engine is compiled, 0 to 1."""

    status: str
    done: float
