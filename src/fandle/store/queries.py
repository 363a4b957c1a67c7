"""What is asked of the database."""

from collections.abc import Callable, Collection
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fandle.store.database import Database
from fandle.store.edition import check_seen, edition_of
from fandle.store.errors import NameTakenError, NotFoundError
from fandle.store.log import Noted, note_all
from fandle.store.models import Club, ClubCue, ClubTable, NamedLayout, Player
from fandle.store.standing import club_id, me


@dataclass(frozen=True)
class Saved:
    """A named layout: `data` is a layout file, or what its malformed record holds."""

    id: int
    name: str
    note: str
    data: Any

    @property
    def edition(self) -> str:
        """The mark of its state."""
        return edition_of(self.name, self.note, self.data)


def first_layouts(database: Database, most: int) -> list[Saved]:
    """The named layouts that were added first, in that order."""
    with database.read() as session:
        return [_saved(row) for row in session.scalars(select(NamedLayout).order_by(NamedLayout.id).limit(most))]


def layouts(
    database: Database, most: int, before: int | None = None, find: str = "", but: Collection[str] = ()
) -> list[Saved]:
    """Named layouts, the newest first: so many, older than one, with a word in their name or note; but: names that are
    left out."""
    query = select(NamedLayout).order_by(NamedLayout.id.desc()).limit(most).where(NamedLayout.name.not_in(but))
    query = query if before is None else query.where(NamedLayout.id < before)
    if find:
        query = query.where(
            NamedLayout.name.icontains(find, autoescape=True) | NamedLayout.note.icontains(find, autoescape=True)
        )
    with database.read() as session:
        return [_saved(row) for row in session.scalars(query)]


def layouts_named(database: Database, names: Collection[str]) -> list[Saved]:
    """Named layouts of these names, in the order they were added."""
    query = select(NamedLayout).where(NamedLayout.name.in_(names)).order_by(NamedLayout.id)
    with database.read() as session:
        return [_saved(row) for row in session.scalars(query)]


def _saved(row: NamedLayout) -> Saved:
    return Saved(row.id, row.name, row.note, row.data)


def save_layout(database: Database, name: str, data: dict[str, Any], note: str = "") -> Saved:
    """Keep a layout under a new name."""
    with database.write() as session:
        _check_free(session, name)
        row = NamedLayout(name=name, note=note, data=data)
        session.add(row)
        session.flush()
        return _saved(row)


@dataclass(frozen=True)
class Renewal:
    """What changes of a named layout; None stays. was: the edition that was seen, None for who does not say."""

    name: str | None = None
    note: str | None = None
    data: dict[str, Any] | None = None
    was: str | None = None


def change_layout(database: Database, layout: int, new: Renewal) -> tuple[Saved, Saved]:
    """Change a named layout; (how it was, how it is)."""
    with database.write() as session:
        row = _kept(session.get(NamedLayout, layout))
        before = _saved(row)
        check_seen(f"the layout {before.name!r}", before.edition, new.was)
        if new.name not in (None, row.name):
            _check_free(session, new.name)
        row.name = new.name or row.name
        row.note = row.note if new.note is None else new.note
        row.data = row.data if new.data is None else new.data
        return before, _saved(row)


def remove_layout(database: Database, layout: int) -> Saved:
    """Let go of a named layout; what was kept is returned, so that it can be saved again."""
    with database.write() as session:
        row = _kept(session.get(NamedLayout, layout))
        session.delete(row)
        return _saved(row)


def _kept(row: NamedLayout | None) -> NamedLayout:
    if row is None:
        raise NotFoundError("that layout is not kept any more: look at the list again")
    return row


def _check_free(session: Session, name: str | None) -> None:
    if session.scalar(select(NamedLayout.id).where(NamedLayout.name == name)) is not None:
        raise NameTakenError(f"a layout called {name!r} is kept already: choose another name")


def fill_demo(database: Database, demo: dict[str, Any], practice: Callable[[], list[Noted]]) -> bool:
    """Put the demo club and its practice into an empty database; False (nothing done) if it is not empty."""
    with database.write() as session:
        if session.scalar(select(func.count()).select_from(NamedLayout)):
            return False
        club = session.get_one(Club, club_id(session))
        club.name = demo["club"]
        me(session)
        session.add_all(Player(nickname=name, club_id=club.id, is_me=False) for name in demo["players"])
        session.add_all(
            ClubTable(label=t["label"], data=t["table"], club_id=club.id, gone_at=None) for t in demo["tables"]
        )
        session.add_all(ClubCue(**cue) for cue in demo["cues"])
        session.add_all(NamedLayout(name=x["name"], note=x["note"], data=x["layout"]) for x in demo["layouts"])
    note_all(database, practice())
    return True
