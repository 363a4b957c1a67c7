"""The drills there are: those that ship with Fandle and those that players made."""

from collections.abc import Mapping

from fandle.core.errors import BadInputError
from fandle.core.practice.drills import BY_NAME, Drill
from fandle.formats.base import validated
from fandle.formats.practice import OwnDrillFile
from fandle.store import practice
from fandle.store.database import Database


def own_known(database: Database, listed: bool = False) -> dict[str, Drill]:
    """Drills that players made, by name, the newest first. listed: without those that were deleted."""
    found = {}
    for data, there in practice.own_drills(database):
        try:
            drill = validated(OwnDrillFile, data).drill()
        except BadInputError:  # a record this version cannot read
            continue
        if there or not listed:
            found[drill.name] = drill
    return found


def own_listed(database: Database) -> tuple[Drill, ...]:
    """Drills that players made and that are not deleted, the newest first."""
    return tuple(own_known(database, listed=True).values())


def known_drills(database: Database) -> dict[str, Drill]:
    """Every drill by name, deleted ones too: their tries still count."""
    return {**own_known(database), **BY_NAME}


def take_in(database: Database, made: Mapping[str, Drill], listed: bool = True) -> None:
    """Keep drills that came with a file. listed: or only so that their tries have a title."""
    known = own_known(database)
    for name, drill in made.items():
        if listed or name not in known:
            practice.keep_drill(database, name, OwnDrillFile.of(drill).model_dump(mode="json"))
        if not listed and name not in known:
            practice.delete_drill(database, name)
