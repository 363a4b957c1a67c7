"""Which tables and cues a name may stand for: the standard ones and the club's own."""

import threading
from collections.abc import Callable, Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import islice
from typing import Any, NamedTuple

from fastapi import Request

from fandle.app.situation import FAVOURITE
from fandle.app.tables import check
from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.errors import BadInputError
from fandle.core.player.body import ANYBODY, Body, body_of
from fandle.core.player.scatter import CLUB, Player
from fandle.core.shot.cue import CUE_LIMITS, CUES, HOUSE, Cue, find_cue, own_cue
from fandle.core.systems.catalogue import TITLES
from fandle.core.table.model import Table, renamed
from fandle.core.table.standards import DEFAULT, LABELS, STANDARDS, standard_table
from fandle.core.tablecheck.test_shot import MOST
from fandle.formats.base import validated
from fandle.formats.names import other_name
from fandle.formats.player import PlayerFile
from fandle.formats.tables import table_json, table_of_json
from fandle.store import club
from fandle.store.database import Database
from fandle.store.preferences import MY_CUE, PREFERRED, preferences


@dataclass(frozen=True)
class Known:
    """Tables and cues by name; raises BadInputError for a name nobody knows."""

    table: Callable[[str], Table] = standard_table
    cue: Callable[[str | None], Cue] = find_cue


STANDARD = Known()
MOST_CHOICES = 60  # tables of the club in one list to choose from
MOST_VISITING = 64  # tables that came with links and are kept nowhere
VISITING = "from a link"
MOST_NAMED = 10  # and in a sentence


class Shelf:
    """The club's tables and cues, read once and kept until something changes.

    A reading that began before a change is not kept after it: each change makes a new edition. A table whose record
    stayed as it was is not read again.
    """

    def __init__(self, database: Database) -> None:
        self.database = database
        self.known = Known(self.table, self.cue)
        self._lock = threading.Lock()
        self._edition = 0
        self._standing: list[club.Standing] | None = None
        self._read: dict[int, tuple[club.Standing, Table | None]] = {}
        self._tables: dict[str, Table] | None = None
        self._cues: dict[str, Cue] | None = None
        self._visiting: dict[str, Table] = {}

    def visit(self, table: Table) -> Table:
        """A table that a link brings, known under a name for a while and kept nowhere: the club's own where the club
        has the same one, else under its own name with a word that tells it from the club's."""
        same = self.same(table)
        if same is not None:
            return same
        for number in range(1, MOST_VISITING + 2):
            more = VISITING if number == 1 else f"{VISITING} {number}"
            guest = renamed(table, other_name(table.name, more))
            with self._lock:
                if self._visiting.get(guest.name, guest) == guest and guest.name not in (self._tables or {}):
                    self._visiting.pop(guest.name, None)  # the newest is forgotten last
                    self._visiting[guest.name] = guest
                    while len(self._visiting) > MOST_VISITING:
                        del self._visiting[next(iter(self._visiting))]
                    return guest
        raise BadInputError(f"too many tables are called {table.name!r}: rename it in the file", "table")

    def forget(self) -> None:
        """Something was changed: read it again."""
        with self._lock:
            self._edition += 1
            self._standing = self._tables = self._cues = None

    def standing(self) -> list[club.Standing]:
        """The club's tables, as they stand in it."""
        with self._lock:
            edition, found = self._edition, self._standing
        if found is None:
            found = club.tables(self.database)
            with self._lock:
                if edition == self._edition:
                    self._standing = found
        return found

    def tables(self) -> dict[str, Table]:
        """The club's home-made tables by name; those whose record cannot be read are left out."""
        with self._lock:
            edition, found, known = self._edition, self._tables, self._read
        if found is None:
            read = {row.id: self._of(row, known) for row in self.standing() if not isinstance(row.data, str)}
            found = {row.label: table for row, table in read.values() if table is not None}
            with self._lock:
                if edition == self._edition:
                    self._tables, self._read = found, read
        return found

    @staticmethod
    def _of(
        row: club.Standing, known: Mapping[int, tuple[club.Standing, Table | None]]
    ) -> tuple[club.Standing, Table | None]:
        before = known.get(row.id)
        return before if before is not None and before[0] == row else (row, readable(row.data))

    def choices(self, chosen: str = "") -> list[tuple[str, str]]:
        """(name, what it is called) of tables to play on, the club's own first: so many, and the chosen one, be it of
        a link."""
        named = [(row.data if isinstance(row.data, str) else row.label, row.label) for row in self.standing()]
        here = {name for name, _ in named}
        shown = named[:MOST_CHOICES]
        shown += [row for row in named[MOST_CHOICES:] if row[0] == chosen]
        shown += [(name, label) for name, label in LABELS.items() if name not in here]
        return shown if not chosen or chosen in dict(shown) else [(chosen, chosen), *shown]

    def cues(self) -> dict[str, Cue]:
        """The club's own cues by name; those whose record cannot be read are left out."""
        with self._lock:
            edition, found = self._edition, self._cues
        if found is None:
            found = {}
            for row in club.cues(self.database):
                with suppress(BadInputError, TypeError):
                    found[row.name] = own_cue(row.name, row.end_ratio, row.tip_mm / 1000)
            with self._lock:
                if edition == self._edition:
                    self._cues = found
        return found

    def table(self, name: str) -> Table:
        """A table by name."""
        if name in STANDARDS:
            return STANDARDS[name]
        if name not in self.tables():
            if name in self._visiting:
                return self._visiting[name]
            names = ", ".join((*STANDARDS, *islice(self.tables(), MOST_NAMED)))
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
SCATTER, TIP = "scatter", "tip_mm"  # the player's scatter, and the diameter of their tip
HABITS = ("reach", "hand", "plain")  # how the player stands and strokes, among the settings
TEST_SHOTS = "test_shots"  # what a test shot found of each table: diamonds longer at the mark, by its name


def settings_of(request: Request) -> Mapping[str, Any]:
    """What an answer needs of the player's settings, all read at once, as it was when this request first asked."""
    if not hasattr(request.state, "habits"):
        request.state.habits = preferences(
            request.app.state.database, (MY_CUE, PREFERRED, SCATTER, TIP, TEST_SHOTS, *HABITS)
        )
    said: Mapping[str, Any] = request.state.habits
    return said


def mine_of(request: Request) -> Mine:
    """The player's favourite system and cue; the house cue where none was chosen, or the chosen one is gone."""
    said = settings_of(request)
    try:
        cue = shelf_of(request).cue(str(said.get(MY_CUE, HOUSE.name)))
    except BadInputError:
        cue = HOUSE
    system = said.get(PREFERRED)
    return Mine(system if isinstance(system, str) and system in TITLES else FAVOURITE, cue)


def player_of(request: Request) -> Player:
    """The player's scatter as it was said, and their reach; a club player's where nothing was, or it cannot be read."""
    kept = settings_of(request).get(SCATTER)
    try:
        player = CLUB if kept is None else validated(PlayerFile, kept).player()
    except BadInputError:
        player = CLUB
    return replace(player, body=habits_of(request).body)


def carried_of(request: Request, table: Table) -> float:
    """What the test shot noted last found of a table, diamonds longer; 0 where none was, or it cannot be read."""
    kept = settings_of(request).get(TEST_SHOTS)
    shift = kept.get(table.name) if isinstance(kept, dict) else None
    return float(shift) if isinstance(shift, int | float) and abs(shift) <= MOST else 0.0


class Habits(NamedTuple):
    """How the player stands, and whether they play without side."""

    body: Body = ANYBODY
    plain: bool = False


def habits_of(request: Request) -> Habits:
    """The player's habits as they were said; anybody's where nothing was, or it cannot be read."""
    said = settings_of(request)
    try:
        body = body_of(str(said.get("reach", ANYBODY.build)), str(said.get("hand", ANYBODY.hand)))
    except BadInputError:
        body = ANYBODY
    return Habits(body, said.get("plain") is True)


def tip_of(request: Request, cue: Cue | None = None) -> float:
    """Diameter of the tip in metres: a club cue's own, else the player's setting."""
    if cue is not None and cue.name not in CUES:
        return cue.tip
    kept, (low, high) = settings_of(request).get(TIP), CUE_LIMITS["tip"]
    if isinstance(kept, float | int) and low <= kept / 1000 <= high:
        return kept / 1000
    return TIP_DIAMETER_M
