"""Which tables and cues a name may stand for: the standard ones, the club's own, and guests that a link brought."""

import threading
from collections.abc import Callable
from dataclasses import dataclass
from itertools import islice

from fandle.app.club import Club, Standing
from fandle.app.tables import check
from fandle.core.errors import BadInputError
from fandle.core.shot.cue import Cue, find_cue
from fandle.core.table.model import Table, renamed
from fandle.core.table.standards import LABELS, STANDARDS, standard_table
from fandle.core.words.names import other_name

MOST_CHOICES = 60  # tables of the club in one list to choose from
MOST_VISITING = 64  # tables that came with links and are kept nowhere
VISITING = "from a link"
MOST_NAMED = 10  # and in a sentence


@dataclass(frozen=True)
class Known:
    """Tables and cues by name; raises BadInputError for a name nobody knows."""

    table: Callable[[str], Table] = standard_table
    cue: Callable[[str | None], Cue] = find_cue


STANDARD = Known()


class Library:
    """The club's tables and cues, read once and kept until something changes.

    A reading that began before a change is not kept after it: each change makes a new edition.
    """

    def __init__(self, club: Club) -> None:
        self.club = club
        self.known = Known(self.table, self.cue)
        self._lock = threading.Lock()
        self._edition = 0
        self._standing: list[Standing] | None = None
        self._cues: dict[str, Cue] | None = None
        self._visiting: dict[str, Table] = {}

    def visit(self, table: Table) -> Table:
        """A table that a link brings, known under a name for a while and kept nowhere: the club's own where the club
        has the same one, else under its own name with a word that tells it from the club's."""
        same = self.same(table)
        if same is not None:
            return same
        own = self.tables()
        for number in range(1, MOST_VISITING + 2):
            more = VISITING if number == 1 else f"{VISITING} {number}"
            guest = renamed(table, other_name(table.name, more))
            with self._lock:
                if self._visiting.get(guest.name, guest) == guest and guest.name not in own:
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
            self._standing = self._cues = None

    def standing(self) -> list[Standing]:
        """The club's tables, as they stand in it."""
        with self._lock:
            edition, found = self._edition, self._standing
        if found is None:
            found = self.club.tables()
            with self._lock:
                if edition == self._edition:
                    self._standing = found
        return found

    def tables(self) -> dict[str, Table]:
        """The club's home-made tables by name; those whose record cannot be read are left out."""
        return {row.label: row.table for row in self.standing() if row.standard is None and row.table is not None}

    def choices(self, chosen: str = "") -> list[tuple[str, str]]:
        """(name, what it is called) of tables to play on, the club's own first: so many, and the chosen one, be it of
        a link."""
        named = [(row.name, row.label) for row in self.standing()]
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
            found = {cue.name: cue for cue in self.club.cues()}
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
        mine, taken = self.tables(), {*STANDARDS, *self.club.names_taken()}
        for number in range(1, len(taken) + 2):
            name = table.name if number == 1 else f"{table.name} {number}"
            same = renamed(table, name)
            if mine.get(name) == same:
                return same
            if name not in taken:
                check(same)
                self.club.add_table(same)
                self.forget()
                return same
        raise BadInputError(f"too many tables are called {table.name!r}: rename it in the file", "table")
