"""The drills there are: those that ship with Fandle and those that players made. A club may have thousands of the
latter, so they are read by name, or a few at a time."""

from collections.abc import Iterable
from typing import Any, NamedTuple

from fandle.core.errors import BadInputError
from fandle.core.practice.drill import Drill
from fandle.core.practice.drills import BY_NAME, drill_named
from fandle.formats.base import validated
from fandle.formats.practice import OwnDrillFile
from fandle.store import practice
from fandle.store.database import Database

LISTED = 40  # of players' own drills on the page at once
PLANNED = 12  # of them, the newest, that a plan of the evening chooses among


class Listed(NamedTuple):
    """A drill that a player made, as it stands in a list: its record's id, its name, its title."""

    id: int
    name: str
    title: str


def _readable(data: Any) -> Drill | None:
    try:
        return validated(OwnDrillFile, data).drill()
    except BadInputError:  # a record this version cannot read
        return None


def drill_called(database: Database, name: str) -> Drill:
    """A drill by its name, a deleted one too: its tries still count. Raises BadInputError."""
    if name in BY_NAME:
        return BY_NAME[name]
    return drill_named(name, own_called(database, [name]))


def own_called(database: Database, names: Iterable[str]) -> dict[str, Drill]:
    """Drills that players made, deleted ones too, by name; records that cannot be read are left out."""
    found = practice.own_drills_named(database, (name for name in names if name not in BY_NAME))
    return {name: drill for name, data in found.items() if (drill := _readable(data)) is not None}


def titles(database: Database, names: Iterable[str]) -> dict[str, str]:
    """What drills are called, deleted ones too, by name; those nobody knows are left out."""
    wanted = set(names)
    own = practice.own_drills_named(database, wanted - set(BY_NAME))
    found = {name: _title(data) for name, data in own.items()}
    return {name: title for name, title in found.items() if title} | {
        name: BY_NAME[name].title for name in wanted & set(BY_NAME)
    }


def own_listed(database: Database, most: int = LISTED, before: int | None = None) -> list[Listed]:
    """Drills that players made and that are not deleted, the newest first: so many, older than one. None is solved."""
    rows = practice.own_drills(database, most, before)
    return [Listed(key, name, _title(data)) for key, name, data in rows if _title(data)]


def own_newest(database: Database) -> tuple[Drill, ...]:
    """The newest of them that can be read, ready to be set up."""
    read = [_readable(data) for _, _, data in practice.own_drills(database, PLANNED)]
    return tuple(drill for drill in read if drill is not None)


def _title(data: Any) -> str:
    """A record's title; "" where it cannot be read."""
    title = data.get("title") if isinstance(data, dict) else None
    return title if isinstance(title, str) else ""
