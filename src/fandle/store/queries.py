"""What is asked of the database."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select

from fandle.store.database import Database
from fandle.store.errors import NameTakenError, NotFoundError
from fandle.store.log import Noted, note_all
from fandle.store.models import Club, ClubCue, ClubTable, NamedLayout, Player


@dataclass(frozen=True)
class Saved:
    """A named layout: `data` is a layout file, or what its malformed record holds."""

    id: int
    name: str
    note: str
    data: Any


def layouts(database: Database) -> list[Saved]:
    """All named layouts, in the order they were added."""
    with database.read() as session:
        rows = session.scalars(select(NamedLayout).order_by(NamedLayout.id)).all()
        return [Saved(r.id, r.name, r.note, r.data) for r in rows]


def save_layout(database: Database, name: str, data: dict[str, Any], note: str = "") -> Saved:
    """Keep a layout under a new name."""
    with database.write() as session:
        if session.scalar(select(NamedLayout).where(NamedLayout.name == name)) is not None:
            raise NameTakenError(f"a layout called {name!r} is kept already: choose another name")
        row = NamedLayout(name=name, note=note, data=data)
        session.add(row)
        session.flush()
        return Saved(row.id, name, note, data)


def change_layout(
    database: Database,
    name: str,
    *,
    new: str | None = None,
    note: str | None = None,
    data: dict[str, Any] | None = None,
) -> Saved:
    """Change what is kept under a name; returned is how it was before."""
    with database.write() as session:
        row = session.scalar(select(NamedLayout).where(NamedLayout.name == name))
        if row is None:
            raise NotFoundError(f"no layout {name!r} is kept: look at the list again")
        if new not in (None, name) and session.scalar(select(NamedLayout).where(NamedLayout.name == new)) is not None:
            raise NameTakenError(f"a layout called {new!r} is kept already: choose another name")
        before = Saved(row.id, row.name, row.note, row.data)
        row.name = new or row.name
        row.note = row.note if note is None else note
        row.data = row.data if data is None else data
        return before


def remove_layout(database: Database, name: str) -> Saved:
    """Let go of a named layout; what was kept is returned, so that it can be saved again."""
    with database.write() as session:
        row = session.scalar(select(NamedLayout).where(NamedLayout.name == name))
        if row is None:
            raise NotFoundError(f"no layout {name!r} is kept: look at the list again")
        session.delete(row)
        return Saved(row.id, row.name, row.note, row.data)


def fill_demo(database: Database, demo: dict[str, Any], practice: Callable[[], list[Noted]]) -> bool:
    """Put the demo club and its practice into an empty database; False (nothing done) if it is not empty."""
    with database.write() as session:
        if session.scalar(select(func.count()).select_from(NamedLayout)):
            return False
        club = Club(name=demo["club"])
        session.add(club)
        session.flush()
        session.add_all(Player(nickname=name, club_id=club.id) for name in demo["players"])
        session.add_all(
            ClubTable(label=t["label"], data=t["table"], club_id=club.id, gone_at=None) for t in demo["tables"]
        )
        session.add_all(ClubCue(**cue) for cue in demo["cues"])
        session.add_all(NamedLayout(name=x["name"], note=x["note"], data=x["layout"]) for x in demo["layouts"])
    note_all(database, practice())
    return True
