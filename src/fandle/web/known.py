"""Which tables and cues a name may stand for: the standard ones and the club's own."""

import threading
from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

from fastapi import Request

from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.errors import BadInputError
from fandle.core.player.scatter import CLUB, Player
from fandle.core.shot.cue import CUES, HOUSE, Cue, find_cue
from fandle.core.table.model import Table, renamed
from fandle.core.table.standards import DEFAULT, STANDARDS, standard_table
from fandle.formats.base import validated
from fandle.formats.files import table_json, table_of_json
from fandle.formats.player import PlayerFile
from fandle.service.situation import FAVOURITE
from fandle.service.tables import check
from fandle.store import club
from fandle.store.database import Database
from fandle.store.log import MY_CUE, PREFERRED, preference


@dataclass(frozen=True)
class Known:
    """Tables and cues by name; raises BadInputError for a name nobody knows."""

    table: Callable[[str], Table] = standard_table
    cue: Callable[[str | None], Cue] = find_cue


STANDARD = Known()


class Shelf:
    """The club's tables and cues, read once and kept until something changes.

    A reading that began before a change is not kept after it: each change makes a new edition.
    """

    def __init__(self, database: Database) -> None:
        self.database = database
        self.known = Known(self.table, self.cue)
        self._lock = threading.Lock()
        self._edition = 0
        self._tables: dict[str, Table] | None = None
        self._cues: dict[str, Cue] | None = None

    def forget(self) -> None:
        """Something was changed: read it again."""
        with self._lock:
            self._edition += 1
            self._tables = self._cues = None

    def tables(self) -> dict[str, Table]:
        """The club's home-made tables by name; those whose record cannot be read are left out."""
        with self._lock:
            edition, found = self._edition, self._tables
        if found is None:
            found = {}
            for row in club.tables(self.database):
                table = None if isinstance(row.data, str) else readable(row.data)
                if table is not None:
                    found[row.label] = table
            with self._lock:
                if edition == self._edition:
                    self._tables = found
        return found

    def cues(self) -> dict[str, Cue]:
        """The club's own cues by name."""
        with self._lock:
            edition, found = self._edition, self._cues
        if found is None:
            rows = club.cues(self.database)
            found = {row.name: Cue(row.name, row.name, row.end_ratio, row.tip_mm / 1000) for row in rows}
            with self._lock:
                if edition == self._edition:
                    self._cues = found
        return found

    def table(self, name: str) -> Table:
        """A table by name."""
        if name in STANDARDS:
            return STANDARDS[name]
        if name not in self.tables():
            names = ", ".join((*STANDARDS, *self.tables()))
            raise BadInputError(
                f"unknown table {name!r}: use {names}, or bring its file in the Tables room", "table", code="unknown"
            )
        return self.tables()[name]

    def cue(self, name: str | None) -> Cue:
        """A cue by name."""
        own = None if name is None else self.cues().get(name)
        return find_cue(name) if own is None else own

    def same(self, table: Table) -> Table | None:
        """The table of these very numbers and this name, or that name with a number; None where there is none."""
        if STANDARDS.get(table.name) == table:
            return table
        mine = self.tables()
        for number in range(1, len(mine) + 2):
            name = table.name if number == 1 else f"{table.name} {number}"
            if mine.get(name) == renamed(table, name):
                return mine[name]
        return None

    def take_in(self, table: Table) -> Table:
        """A table that came with a file, known under a name from now on: its own, or that with a number."""
        if STANDARDS.get(table.name) == table or self.tables().get(table.name) == table:
            return table
        mine, taken = self.tables(), {*STANDARDS, *club.taken(self.database)}
        for number in range(1, len(taken) + 2):
            name = table.name if number == 1 else f"{table.name} {number}"
            same = renamed(table, name)
            if mine.get(name) == same:
                return same
            if name not in taken:
                check(same)
                club.add_table(self.database, name, table_json(same))
                self.forget()
                return same
        raise BadInputError(f"too many tables are called {table.name!r}: rename it in the file", "table")


def readable(data: object) -> Table | None:
    """A kept table; None where its record is malformed."""
    try:
        return table_of_json(data)
    except BadInputError:
        return None


def shelf_of(request: Request) -> Shelf:
    """The club's shelf."""
    shelf: Shelf = request.app.state.shelf
    return shelf


def linked_table(request: Request) -> tuple[Table, str, str]:
    """(the table a room's link names, its name, "" or why that could not be opened: then the default one)."""
    shelf, name = shelf_of(request), request.query_params.get("table", DEFAULT)
    try:
        return shelf.table(name), name, ""
    except BadInputError as error:
        return shelf.table(DEFAULT), DEFAULT, f"This link cannot be opened: {error}."


class Mine(NamedTuple):
    """What the player plays with by habit: the favourite system, and the cue."""

    system: str = FAVOURITE
    cue: Cue = HOUSE


NEWCOMER = Mine()
SCATTER = "scatter"  # the player's scatter among the settings


def mine_of(request: Request) -> Mine:
    """The player's favourite system and cue; the house cue where none was chosen, or the chosen one is gone."""
    database = request.app.state.database
    try:
        cue = shelf_of(request).cue(str(preference(database, MY_CUE, HOUSE.name)))
    except BadInputError:
        cue = HOUSE
    return Mine(str(preference(database, PREFERRED, FAVOURITE)), cue)


def player_of(request: Request) -> Player:
    """The player's scatter as it was said; a club player's where nothing was, or it cannot be read."""
    kept = preference(request.app.state.database, SCATTER, None)
    try:
        return CLUB if kept is None else validated(PlayerFile, kept).player()
    except BadInputError:
        return CLUB


def tip_of(request: Request, cue: Cue | None = None) -> float:
    """Diameter of the tip in metres: a club cue's own, else the player's setting."""
    if cue is not None and cue.name not in CUES:
        return cue.tip
    return float(preference(request.app.state.database, "tip_mm", TIP_DIAMETER_M * 1000)) / 1000
