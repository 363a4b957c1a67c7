"""What the club plays with: its tables and cues, kept, changed and let go of."""

from dataclasses import dataclass
from typing import Any, cast

from sqlalchemy import ColumnElement, case, func, select
from sqlalchemy.orm import Session

from fandle.store.database import Database
from fandle.store.edition import check_seen, edition_of
from fandle.store.errors import NameTakenError, NotFoundError
from fandle.store.log import now
from fandle.store.models import ClubCue, ClubTable, NamedLayout, TableVersion
from fandle.store.standing import club_id, names_taken, stand, table_called

_ON_TABLE: ColumnElement[Any] = case(
    (func.json_valid(NamedLayout.data) == 1, func.json_extract(NamedLayout.data, "$.table.name"))
)  # of a named layout: what its table is called, where it holds one


@dataclass(frozen=True)
class TableRow:
    """A table of the club: its id, what it is called, and a standard table's name or a whole table object."""

    id: int
    label: str
    data: Any

    @property
    def edition(self) -> str:
        """The mark of its state."""
        return edition_of(self.label, self.data)


@dataclass(frozen=True)
class CueRow:
    """A cue of the club. id: of its record, 0 for one that has none yet."""

    name: str
    end_ratio: float
    tip_mm: float
    id: int = 0

    @property
    def edition(self) -> str:
        """The mark of its state."""
        return edition_of(self.name, self.end_ratio, self.tip_mm)


def tables(database: Database) -> list[TableRow]:
    """The club's tables, in the order in which they came."""
    with database.read() as session:
        rows = session.scalars(select(ClubTable).where(ClubTable.gone_at.is_(None)).order_by(ClubTable.id))
        return [_standing(row) for row in rows]


def table_label(database: Database, name: str) -> str | None:
    """What the club calls its table of this name; None if it has none."""
    with database.read() as session:
        row = table_called(session, name)
        return None if row is None else row.label


def taken(database: Database) -> set[str]:
    """Every name that a table of the club has."""
    with database.read() as session:
        return names_taken(session)


def add_table(database: Database, name: str, data: dict[str, Any]) -> TableRow:
    """Keep a home-made table under its name, which nothing else may have."""
    with database.write() as session:
        _free(session, name)
        row = ClubTable(label=name, data=data, club_id=club_id(session), gone_at=None)
        session.add(row)
        session.flush()
        return _standing(row)


def change_table(database: Database, table: int, name: str, data: dict[str, Any], was: str | None = None) -> TableRow:
    """Change a home-made table, its name too; named layouts on it are on the changed one from then on.

    was: the edition that was seen, None for who does not say.
    """
    with database.write() as session:
        row = _own(session, table)
        old = row.label
        check_seen(f"the table {old!r}", _standing(row).edition, was)
        if name != old:
            _free(session, name)
        stand(session, old, cast(dict[str, Any], row.data), now())  # what it was stays among its versions
        row.label, row.data = name, data
        for kept in session.scalars(select(NamedLayout).where(_ON_TABLE.in_([old]))):
            layout = kept.data
            if isinstance(layout, dict):
                kept.data = {**layout, "table": data}
        return _standing(row)


@dataclass(frozen=True)
class Version:
    """Numbers that a table of the club had; since: when they were written down."""

    number: int
    since: str
    data: dict[str, Any]


def versions(database: Database, name: str) -> list[Version]:
    """The numbers that a home-made table had before those it has now, the newest first."""
    with database.read() as session:
        row = table_called(session, name)
        if row is None:
            return []
        kept = select(TableVersion).where(TableVersion.table_id == row.id).order_by(TableVersion.number.desc())
        return [
            Version(each.number, each.since, each.data)
            for each in session.scalars(kept)
            if isinstance(each.data, dict) and each.data != row.data
        ]


def remove_table(database: Database, table: int) -> TableRow:
    """Let go of a home-made table. Its log is kept, and it can be brought back by its id."""
    with database.write() as session:
        row = _own(session, table)
        row.gone_at = now()
        return _standing(row)


def bring_back(database: Database, table: int) -> TableRow:
    """A table that was let go of stands in the club again, under its own name."""
    with database.write() as session:
        row = session.get(ClubTable, table)
        if row is None or row.gone_at is None:
            raise NotFoundError("that table was not taken off: look at the list again")
        _free(session, row.label)
        row.gone_at = None
        return _standing(row)


def cues(database: Database) -> list[CueRow]:
    """The club's cues, in the order in which they came; figures that cannot be read are NaN."""
    with database.read() as session:
        rows = session.scalars(select(ClubCue).order_by(ClubCue.id))
        return [_cue(row) for row in rows]


def save_cue(database: Database, cue: CueRow, was: str | None = None) -> CueRow:
    """Keep a cue, or change the one of this id. was: the edition that was seen, None for who does not say."""
    with database.write() as session:
        row = session.get(ClubCue, cue.id) if cue.id else None
        if cue.id and row is None:
            raise NotFoundError("that cue is not kept any more: look at the list again")
        if row is not None:
            check_seen(f"the cue {row.name!r}", _cue(row).edition, was)
        other = session.scalar(select(ClubCue.id).where(ClubCue.name == cue.name))
        if other not in (None, cue.id):
            raise NameTakenError(f"a cue called {cue.name!r} is kept already: choose another name")
        if row is None:
            row = ClubCue(name=cue.name, end_ratio=cue.end_ratio, tip_mm=cue.tip_mm)
            session.add(row)
        else:
            row.name, row.end_ratio, row.tip_mm = cue.name, cue.end_ratio, cue.tip_mm
        session.flush()
        return _cue(row)


def remove_cue(database: Database, cue: int) -> CueRow:
    """Let go of a cue."""
    with database.write() as session:
        row = session.get(ClubCue, cue)
        if row is None:
            raise NotFoundError("that cue is not kept any more: look at the list again")
        session.delete(row)
        return _cue(row)


def _cue(row: ClubCue) -> CueRow:
    return CueRow(row.name, row.end_ratio, row.tip_mm, row.id)


def _standing(row: ClubTable) -> TableRow:
    return TableRow(row.id, row.label, row.data)


def _own(session: Session, table: int) -> ClubTable:
    row = session.get(ClubTable, table)
    if row is None or row.gone_at is not None:
        raise NotFoundError("that table does not stand in the club any more: look at the list again")
    if isinstance(row.data, str):
        raise NotFoundError(f"{row.label!r} is a standard table: duplicate it, then change the copy")
    return row


def _free(session: Session, name: str) -> None:
    if name in names_taken(session):
        raise NameTakenError(f"a table called {name!r} stands in the club already: choose another name")
