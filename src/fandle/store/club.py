"""What the club plays with: its tables and cues, kept, changed and let go of."""

from dataclasses import dataclass
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from fandle.store.database import Database
from fandle.store.errors import NameTakenError, NotFoundError
from fandle.store.models import Club, ClubCue, ClubTable, NamedLayout

FIRST_CLUB = "My club"


@dataclass(frozen=True)
class Standing:
    """A table of the club: what it is called, and a standard table's name or a whole table object."""

    label: str
    data: str | dict[str, Any]


@dataclass(frozen=True)
class CueRow:
    """A cue of the club."""

    name: str
    end_ratio: float
    tip_mm: float


def tables(database: Database) -> list[Standing]:
    """The club's tables, in the order in which they came."""
    with database.read() as session:
        rows = session.scalars(select(ClubTable).order_by(ClubTable.id))
        return [Standing(row.label, cast(str | dict[str, Any], row.data)) for row in rows]


def table_label(database: Database, name: str) -> str | None:
    """What the club calls its table of this name; None if it has none."""
    labels = (s.label for s in tables(database) if name in (s.label, s.data))
    return next(labels, None)


def add_table(database: Database, name: str, data: dict[str, Any]) -> Standing:
    """Keep a home-made table under its name, which nothing else may have."""
    with database.write() as session:
        _free(session, name)
        session.add(ClubTable(label=name, data=data, club_id=_club(session)))
    return Standing(name, data)


def change_table(database: Database, old: str, name: str, data: dict[str, Any]) -> Standing:
    """Change a home-made table, its name too; named layouts on it are on the changed one from then on."""
    with database.write() as session:
        row = _own(session, old)
        if name != old:
            _free(session, name)
        row.label, row.data = name, data
        for kept in session.scalars(select(NamedLayout)):
            layout = cast(dict[str, Any], kept.data)
            table = layout["table"]
            if isinstance(table, dict) and table["name"] == old:
                kept.data = {**layout, "table": data}
    return Standing(name, data)


def remove_table(database: Database, name: str) -> Standing:
    """Let go of a home-made table; what was kept is returned, so that it can be kept again."""
    with database.write() as session:
        row = _own(session, name)
        session.delete(row)
        return Standing(row.label, cast(dict[str, Any], row.data))


def cues(database: Database) -> list[CueRow]:
    """The club's cues, in the order in which they came."""
    with database.read() as session:
        rows = session.scalars(select(ClubCue).order_by(ClubCue.id))
        return [CueRow(row.name, row.end_ratio, row.tip_mm) for row in rows]


def save_cue(database: Database, cue: CueRow, old: str | None = None) -> CueRow:
    """Keep a cue, or change the one called `old`."""
    with database.write() as session:
        row = None if old is None else session.scalar(select(ClubCue).where(ClubCue.name == old))
        if old is not None and row is None:
            raise NotFoundError(f"no cue {old!r} is kept: look at the list again")
        if cue.name != old and session.scalar(select(ClubCue).where(ClubCue.name == cue.name)) is not None:
            raise NameTakenError(f"a cue called {cue.name!r} is kept already: choose another name")
        if row is None:
            session.add(ClubCue(name=cue.name, end_ratio=cue.end_ratio, tip_mm=cue.tip_mm))
        else:
            row.name, row.end_ratio, row.tip_mm = cue.name, cue.end_ratio, cue.tip_mm
    return cue


def remove_cue(database: Database, name: str) -> CueRow:
    """Let go of a cue."""
    with database.write() as session:
        row = session.scalar(select(ClubCue).where(ClubCue.name == name))
        if row is None:
            raise NotFoundError(f"no cue {name!r} is kept: look at the list again")
        session.delete(row)
        return CueRow(row.name, row.end_ratio, row.tip_mm)


def _club(session: Session) -> int:
    club = session.scalar(select(Club).order_by(Club.id))
    if club is None:
        club = Club(name=FIRST_CLUB)
        session.add(club)
        session.flush()
    return club.id


def _own(session: Session, name: str) -> ClubTable:
    row = session.scalar(select(ClubTable).where(ClubTable.label == name))
    if row is None:
        raise NotFoundError(f"no table {name!r} stands in the club: look at the list again")
    if isinstance(row.data, str):
        raise NotFoundError(f"{name!r} is a standard table: duplicate it, then change the copy")
    return row


def _free(session: Session, name: str) -> None:
    for row in session.scalars(select(ClubTable)):
        if name in (row.label, row.data):
            raise NameTakenError(f"a table called {name!r} stands in the club already: choose another name")
