"""The list of layouts to open: the player's own, the newest first, a screenful at a time; then the demo club's."""

from typing import Any, NamedTuple

from fastapi import Request
from typing_extensions import TypedDict

from fandle.core.errors import BadInputError
from fandle.formats.files import layout_of
from fandle.store.demo_data import demo_club
from fandle.store.queries import Saved, layouts, layouts_named
from fandle.web.known import Mine, mine_of
from fandle.web.noted import layout_href

AT_ONCE = 40  # of a club's thousands


class KeptModel(TypedDict):
    """A layout of the list: href is null where its record cannot be read; edition: which state of it this is."""

    id: int
    name: str
    note: str
    href: str | None
    demo: bool
    edition: str


class Kept(NamedTuple):
    """Layouts to open, and from which record older ones begin; None where there are none."""

    layouts: list[KeptModel]
    older: int | None


def listed(request: Request, find: str = "", before: int | None = None) -> Kept:
    """The next layouts of the list; find: a word that their names or notes hold."""
    database, mine = request.app.state.database, mine_of(request)
    shipped = {each["name"] for each in demo_club()["layouts"]}
    own = layouts(database, AT_ONCE + 1, before, find, shipped)
    shown, older = own[:AT_ONCE], own[AT_ONCE - 1].id if len(own) > AT_ONCE else None
    rows = [kept_model(saved, mine) for saved in shown]
    if older is None:
        word = find.casefold()
        demo = [s for s in layouts_named(database, shipped) if word in f"{s.name} {s.note}".casefold()]
        rows += [kept_model(saved, mine, demo=True) for saved in demo]
    return Kept(rows, older)


def kept_model(saved: Saved, mine: Mine, *, demo: bool = False) -> KeptModel:
    """A kept layout as the list has it."""
    return {
        "id": saved.id, "name": saved.name, "note": saved.note, "href": saved_href(saved.data, mine, saved.name),
        "demo": demo, "edition": saved.edition,
    }  # fmt: skip


def saved_href(data: Any, mine: Mine, name: str) -> str | None:
    """Where a named layout is opened; None where its record cannot be read."""
    try:
        return layout_href(layout_of(data), mine, name)
    except (BadInputError, ValueError, TypeError, ArithmeticError):
        return None
