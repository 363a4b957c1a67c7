"""What a club keeps, whoever keeps it: a database behind a server and the command line, memory behind a notebook."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass, field
from typing import Protocol

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.practice.drill import Drill
from fandle.core.shot.cue import Cue
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS


@dataclass(frozen=True)
class Standing:
    """A table that stands in the club. id: of its record; label: what it is called there.

    standard: the name of the standard table that it is, None for a home-made one; table: its numbers, None where the
    record cannot be read; edition: the mark of its state.
    """

    id: int
    label: str
    standard: str | None
    table: Table | None
    edition: str = ""

    @property
    def name(self) -> str:
        """What it is asked for by."""
        return self.standard or self.label


@dataclass(frozen=True)
class KeptLayout:
    """A layout under its name. layout: None where the record cannot be read."""

    id: int
    name: str
    note: str
    layout: Layout | None


@dataclass(frozen=True)
class KeptDrill:
    """A drill that a player made. drill: None where the record cannot be read, `title` where it can be told all the
    same, else ""."""

    id: int
    name: str
    title: str
    drill: Drill | None


class Club(Protocol):
    """A club's tables, cues, layouts and drills. Names are given once."""

    def tables(self) -> list[Standing]:
        """Its tables, in the order in which they came."""

    def names_taken(self) -> Collection[str]:
        """Every name that one of its tables has."""

    def add_table(self, table: Table) -> Standing:
        """A home-made table comes to stand in it. Raises FandleError where the name is taken."""

    def cues(self) -> Sequence[Cue]:
        """Its own cues that can be read, in the order in which they came."""

    def layouts(self, most: int, before: int | None = None, find: str = "") -> list[KeptLayout]:
        """Named layouts, the newest first: so many, older than one, with a word in their name or note."""

    def layouts_named(self, names: Collection[str]) -> list[KeptLayout]:
        """Named layouts of these names, in the order in which they came."""

    def drills(self, most: int, before: int | None = None) -> list[KeptDrill]:
        """Drills that players made, the newest first, those that were deleted left out."""

    def drills_named(self, names: Collection[str]) -> dict[str, KeptDrill]:
        """Drills that players made, deleted ones too, by name: their tries still count."""


@dataclass
class MemoryClub:
    """A club that is kept nowhere: for notebooks and tests. It has the standard tables from the start."""

    kept_tables: list[Standing] = field(
        default_factory=lambda: [Standing(k, name, name, table) for k, (name, table) in enumerate(STANDARDS.items(), 1)]
    )
    kept_cues: list[Cue] = field(default_factory=list)
    kept_layouts: list[KeptLayout] = field(default_factory=list)
    kept_drills: list[KeptDrill] = field(default_factory=list)

    def tables(self) -> list[Standing]:
        """Its tables, in the order in which they came."""
        return list(self.kept_tables)

    def names_taken(self) -> Collection[str]:
        """Every name that one of its tables has."""
        return {name for row in self.kept_tables for name in (row.name, row.label)}

    def add_table(self, table: Table) -> Standing:
        """A home-made table comes to stand in it."""
        if table.name in self.names_taken():
            raise BadInputError(
                f"a table called {table.name!r} stands in the club already: choose another name", "name", code="taken"
            )
        row = Standing(len(self.kept_tables) + 1, table.name, None, table)
        self.kept_tables.append(row)
        return row

    def cues(self) -> Sequence[Cue]:
        """Its own cues."""
        return tuple(self.kept_cues)

    def layouts(self, most: int, before: int | None = None, find: str = "") -> list[KeptLayout]:
        """Named layouts, the newest first."""
        wanted = find.casefold()
        found = [
            row
            for row in reversed(self.kept_layouts)
            if (before is None or row.id < before) and wanted in f"{row.name}\n{row.note}".casefold()
        ]
        return found[:most]

    def layouts_named(self, names: Collection[str]) -> list[KeptLayout]:
        """Layouts by name."""
        return [row for row in self.kept_layouts if row.name in names]

    def drills(self, most: int, before: int | None = None) -> list[KeptDrill]:
        """Drills that players made, the newest first."""
        return [row for row in reversed(self.kept_drills) if before is None or row.id < before][:most]

    def drills_named(self, names: Collection[str]) -> dict[str, KeptDrill]:
        """Drills by name."""
        return {row.name: row for row in self.kept_drills if row.name in names}
