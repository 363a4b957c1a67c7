"""The club as its database keeps it, in values of the core."""

from collections.abc import Collection, Sequence
from contextlib import suppress
from typing import Any

from fandle.app.club import KeptDrill, KeptLayout, Standing
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.practice.drill import Drill
from fandle.core.shot.cue import Cue, own_cue
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.formats.base import validated
from fandle.formats.files import layout_of
from fandle.formats.practice import OwnDrillFile
from fandle.formats.tables import table_json, table_of_json
from fandle.store import club, practice, queries
from fandle.store.database import Database


class StoredClub:
    """A club in a database. A table whose record stayed as it was is not read again."""

    def __init__(self, database: Database) -> None:
        self.database = database
        self._read: dict[int, tuple[club.TableRow, Standing]] = {}

    def tables(self) -> list[Standing]:
        """Its tables, in the order in which they came."""
        known = self._read
        self._read = {row.id: (row, _standing(row, known.get(row.id))) for row in club.tables(self.database)}
        return [standing for _, standing in self._read.values()]

    def names_taken(self) -> Collection[str]:
        """Every name that one of its tables has."""
        return club.taken(self.database)

    def add_table(self, table: Table) -> Standing:
        """A home-made table comes to stand in it."""
        return _standing(club.add_table(self.database, table.name, table_json(table)))

    def cues(self) -> Sequence[Cue]:
        """Its own cues; those whose record cannot be read are left out."""
        found = []
        for row in club.cues(self.database):
            with suppress(BadInputError, TypeError):
                found.append(own_cue(row.name, row.end_ratio, row.tip_mm / 1000))
        return found

    def layouts(self, most: int, before: int | None = None, find: str = "") -> list[KeptLayout]:
        """Named layouts, the newest first."""
        return [_layout(row) for row in queries.layouts(self.database, most, before, find)]

    def layouts_named(self, names: Collection[str]) -> list[KeptLayout]:
        """Named layouts of these names, in the order in which they came."""
        return [_layout(row) for row in queries.layouts_named(self.database, names)]

    def drills(self, most: int, before: int | None = None) -> list[KeptDrill]:
        """Drills that players made, the newest first."""
        return [_drill(key, name, data) for key, name, data in practice.own_drills(self.database, most, before)]

    def drills_named(self, names: Collection[str]) -> dict[str, KeptDrill]:
        """Drills that players made, deleted ones too, by name."""
        return {name: _drill(0, name, data) for name, data in practice.own_drills_named(self.database, names).items()}


def readable_table(data: object) -> Table | None:
    """A kept table; None where its record is malformed."""
    try:
        return table_of_json(data)
    except BadInputError:
        return None


def readable_layout(data: object) -> Layout | None:
    """A kept layout; None where its record is malformed."""
    try:
        return layout_of(data)
    except BadInputError:
        return None


def _standing(row: club.TableRow, known: tuple[club.TableRow, Standing] | None = None) -> Standing:
    if known is not None and known[0] == row:
        return known[1]
    if isinstance(row.data, str):
        return Standing(row.id, row.label, row.data, STANDARDS.get(row.data), row.edition)
    return Standing(row.id, row.label, None, readable_table(row.data), row.edition)


def _layout(row: queries.Saved) -> KeptLayout:
    return KeptLayout(row.id, row.name, row.note, readable_layout(row.data))


def _drill(key: int, name: str, data: Any) -> KeptDrill:
    return KeptDrill(key, name, _title(data), _readable_drill(data))


def _readable_drill(data: Any) -> Drill | None:
    try:
        return validated(OwnDrillFile, data).drill()
    except BadInputError:  # a record this version cannot read
        return None


def _title(data: Any) -> str:
    """A record's title; "" where it cannot be read."""
    title = data.get("title") if isinstance(data, dict) else None
    return title if isinstance(title, str) else ""
