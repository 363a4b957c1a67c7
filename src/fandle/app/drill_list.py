"""The drills there are: those that ship with Fandle and those that players made.

A club may have thousands of the latter, so they are read by name, or a few at a time.
"""

from collections.abc import Iterable

from fandle.app.club import Club, KeptDrill
from fandle.core.practice.drill import Drill
from fandle.core.practice.drills import BY_NAME, drill_named

LISTED = 40  # of players' own drills on a page at once
PLANNED = 12  # of them, the newest, that a plan of the evening chooses among


def drill_called(club: Club, name: str) -> Drill:
    """A drill by its name, a deleted one too: its tries still count. Raises BadInputError."""
    if name in BY_NAME:
        return BY_NAME[name]
    return drill_named(name, own_called(club, [name]))


def own_called(club: Club, names: Iterable[str]) -> dict[str, Drill]:
    """Drills that players made, deleted ones too, by name; records that cannot be read are left out."""
    found = club.drills_named([name for name in names if name not in BY_NAME])
    return {name: row.drill for name, row in found.items() if row.drill is not None}


def titles(club: Club, names: Iterable[str]) -> dict[str, str]:
    """What drills are called, deleted ones too, by name; those nobody knows are left out."""
    wanted = set(names)
    own = {name: row.title for name, row in club.drills_named(wanted - set(BY_NAME)).items() if row.title}
    return own | {name: BY_NAME[name].title for name in wanted & set(BY_NAME)}


def own_listed(club: Club, most: int = LISTED, before: int | None = None) -> list[KeptDrill]:
    """Drills that players made and that are not deleted, the newest first: so many, older than one."""
    return [row for row in club.drills(most, before) if row.title]


def own_newest(club: Club, most: int = PLANNED) -> tuple[Drill, ...]:
    """The newest of them that can be read, ready to be set up."""
    return tuple(row.drill for row in club.drills(most) if row.drill is not None)
