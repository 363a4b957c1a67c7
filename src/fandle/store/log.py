"""The log: attempts noted, changed, taken out and put back."""

from collections.abc import Iterable
from dataclasses import dataclass, fields
from datetime import UTC, datetime
from typing import Any, cast

from sqlalchemy import select

from fandle.store.database import Database
from fandle.store.errors import NotFoundError
from fandle.store.models import Attempt, Preference


@dataclass(frozen=True)
class Noted:
    """One attempt as it is kept. `layout`, `stroke` and `aim` are JSON of their formats."""

    uid: str
    made_at: str
    set_up: str
    title: str
    table_label: str
    layout: dict[str, Any]
    rails: str
    stroke: dict[str, Any]
    aim: dict[str, Any]
    result: str
    off: float | None = None
    side_hit: str = ""
    comment: str = ""


NAMES = tuple(f.name for f in fields(Noted))


def now() -> str:
    """The time, UTC, to the second."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def note(database: Database, attempt: Noted) -> Noted:
    """Keep an attempt; the same uid again changes nothing and returns what is kept."""
    with database.write() as session:
        kept = session.scalar(select(Attempt).where(Attempt.uid == attempt.uid))
        if kept is None:
            session.add(Attempt(**{name: getattr(attempt, name) for name in NAMES}, deleted_at=None))
            return attempt
        return _noted(kept)


def note_all(database: Database, noted: Iterable[Noted]) -> None:
    """Keep many attempts at once, for demo data."""
    with database.write() as session:
        session.add_all(Attempt(**{name: getattr(row, name) for name in NAMES}, deleted_at=None) for row in noted)


def amend(database: Database, uid: str, **changes: Any) -> Noted:
    """Change what is said of an attempt: result, off, side_hit, comment."""
    with database.write() as session:
        kept = _find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid)
        for name, value in changes.items():
            setattr(kept, name, value)
        return _noted(kept)


def take_out(database: Database, uid: str) -> None:
    """Delete an attempt; it can be put back."""
    with database.write() as session:
        _find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid).deleted_at = now()


def put_back(database: Database, uid: str) -> None:
    """Undo a deletion."""
    with database.write() as session:
        _find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid).deleted_at = None


def attempts(database: Database, set_up: str = "", result: str = "") -> list[Noted]:
    """Attempts that are not deleted, newest first, of one set-up and result if given."""
    query = select(Attempt).where(Attempt.deleted_at.is_(None)).order_by(Attempt.id.desc())
    if set_up:
        query = query.where(Attempt.set_up == set_up)
    if result:
        query = query.where(Attempt.result == result)
    with database.read() as session:
        return [_noted(row) for row in session.scalars(query)]


def one(database: Database, uid: str) -> Noted:
    """One attempt, deleted or not."""
    with database.read() as session:
        return _noted(_find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid))


def preference(database: Database, name: str, default: Any) -> Any:
    """One of the player's settings."""
    with database.read() as session:
        kept = session.get(Preference, name)
        return default if kept is None else kept.value


def set_preference(database: Database, name: str, value: Any) -> None:
    """Keep a setting."""
    with database.write() as session:
        session.merge(Preference(name=name, value=value))


def _find(kept: Attempt | None, uid: str) -> Attempt:
    if kept is None:
        raise NotFoundError(f"no attempt {uid!r} is noted: look at the log again")
    return kept


def _noted(row: Attempt) -> Noted:
    return Noted(**cast(dict[str, Any], {name: getattr(row, name) for name in NAMES}))
