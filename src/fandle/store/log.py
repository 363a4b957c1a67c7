"""The log: attempts noted, changed, taken out and put back, listed a page at a time."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, fields
from datetime import UTC, datetime
from itertools import islice
from typing import Any, TypeVarTuple

from sqlalchemy import Select, func, insert, literal, select, tuple_
from sqlalchemy.dialects.sqlite import insert as insert_or
from sqlalchemy.orm import Session

from fandle.core.errors import BadInputError
from fandle.store.database import Database
from fandle.store.edition import check_seen, edition_of
from fandle.store.errors import NotFoundError
from fandle.store.models import Attempt, ClubTable, Player
from fandle.store.standing import player_id, stand

Columns = TypeVarTuple("Columns")
TOGETHER = 500  # attempts read or written in one go
SAID = (
    "result",
    "off",
    "side_hit",
    "comment",
    "potted",
    "in_off",
    "touched",
    "stopped_x",
    "stopped_y",
    "try_number",
    "left_safe",
)  # what may be said of an attempt once it is noted
MOST_TABLES = 500  # that attempts taken in at once may have been made on: each comes to stand in the club
Namer = Callable[[Session, str | None], str]  # who the player of a file is here


@dataclass(frozen=True)
class Noted:
    """One attempt as it is kept. `layout`, `stroke` and `aim` are JSON of their formats.

    The table is the one the layout names or holds; `table_label` is what the club calls it. A player of None is
    the one who plays here. touched: further contacts, [{rail, at}]. system: the one on screen, "" for none.
    """

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
    kind: str = "kick"
    pocket: str | None = None
    player: str | None = None
    potted: bool | None = None
    in_off: bool | None = None
    touched: list[dict[str, Any]] | None = None
    stopped_x: float | None = None
    stopped_y: float | None = None
    try_number: int = 1
    left_safe: bool | None = None
    system: str = ""

    @property
    def edition(self) -> str:
        """The mark of what was said of it so far."""
        return edition_of(*(getattr(self, name) for name in SAID))


@dataclass(frozen=True)
class Filter:
    """Which attempts: of one set-up, result, table or version of a table, made since a time (UTC).

    Nothing said: all that are not deleted.
    """

    set_up: str = ""
    result: str = ""
    table: int | None = None
    version: int | None = None
    since: str = ""

    def of(self, query: Select[*Columns]) -> Select[*Columns]:
        """The query with these conditions."""
        query = query.where(Attempt.deleted_at.is_(None))
        if self.set_up:
            query = query.where(Attempt.set_up == self.set_up)
        if self.since:
            query = query.where(Attempt.made_at >= self.since)
        if self.result:
            query = query.where(Attempt.result == self.result)
        if self.table is not None:
            query = query.where(Attempt.table_id == self.table)
        return query if self.version is None else query.where(Attempt.table_version_id == self.version)


EVERYTHING = Filter()
NAMES = tuple(f.name for f in fields(Noted) if f.name != "player")


def now() -> str:
    """The time, UTC, to the second."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def note(database: Database, attempt: Noted) -> Noted:
    """Keep an attempt; the same uid again, also at the same moment, changes nothing and returns what is kept."""
    with database.write() as session:
        if session.scalar(select(Attempt.id).where(Attempt.uid == attempt.uid)) is None:
            row = _row(session, attempt, _Standing())
            session.execute(insert_or(Attempt).values(row).on_conflict_do_nothing(index_elements=[Attempt.uid]))
    return one(database, attempt.uid)


def note_all(database: Database, noted: Iterable[Noted], name: Namer | None = None) -> int:
    """Keep many attempts, all of them or none; those whose uid is kept already are left as they are.

    name: who an attempt's player is here, asked for those that are new. Returns how many were new.
    """
    new, stands = 0, _Standing(name)
    with database.write() as session:
        for part in _parts(noted):
            known = set(session.scalars(select(Attempt.uid).where(Attempt.uid.in_([row.uid for row in part]))))
            fresh = {row.uid: row for row in part if row.uid not in known}
            if fresh:
                session.execute(insert(Attempt), [_row(session, row, stands) for row in fresh.values()])
            new += len(fresh)
    return new


def _parts(noted: Iterable[Noted]) -> Iterator[list[Noted]]:
    rows = iter(noted)
    while part := list(islice(rows, TOGETHER)):
        yield part


class _Standing:
    """Tables, versions and players by id, looked up once for many attempts."""

    def __init__(self, name: Namer | None = None) -> None:
        self._name = name
        self._tables: dict[str, tuple[int, int]] = {}
        self._players: dict[str | None, int] = {}

    def table(self, session: Session, attempt: Noted) -> tuple[int, int]:
        """(table, version) of an attempt."""
        key = repr((attempt.table_label, attempt.layout["table"]))
        if key not in self._tables:
            if len(self._tables) >= MOST_TABLES:
                raise BadInputError(
                    f"these attempts were made on more than {MOST_TABLES} tables: take the log in in parts", "table"
                )
            self._tables[key] = stand(session, attempt.table_label, attempt.layout["table"], attempt.made_at)
        return self._tables[key]

    def player(self, session: Session, attempt: Noted) -> int:
        """The player of an attempt."""
        if attempt.player not in self._players:
            who = attempt.player if self._name is None else self._name(session, attempt.player)
            self._players[attempt.player] = player_id(session, who)
        return self._players[attempt.player]


def _row(session: Session, attempt: Noted, stands: _Standing) -> dict[str, Any]:
    """An attempt as a record, with its table, version and player by id."""
    table, version = stands.table(session, attempt)
    owners = {"table_id": table, "table_version_id": version, "player_id": stands.player(session, attempt)}
    return {**{name: getattr(attempt, name) for name in NAMES}, **owners, "deleted_at": None}


def amend(database: Database, uid: str, was: str | None = None, **changes: Any) -> Noted:
    """Change what is said of an attempt: result, off, side_hit, comment and the like.

    was: the edition that was seen, None for who does not say.
    """
    with database.write() as session:
        kept = _find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid)
        check_seen("this attempt", edition_of(*(getattr(kept, name) for name in SAID)), was)
        for name, value in changes.items():
            setattr(kept, name, value)
    return one(database, uid)


def take_out(database: Database, uid: str) -> None:
    """Delete an attempt; it can be put back."""
    with database.write() as session:
        _find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid).deleted_at = now()


def put_back(database: Database, uid: str) -> None:
    """Undo a deletion."""
    with database.write() as session:
        _find(session.scalar(select(Attempt).where(Attempt.uid == uid)), uid).deleted_at = None


def one(database: Database, uid: str) -> Noted:
    """One attempt, deleted or not."""
    with database.read() as session:
        row = session.execute(with_owners().where(Attempt.uid == uid)).first()
        if row is None:
            raise _unknown(uid)
        return noted_of(row)[1]


def attempts(database: Database, wanted: Filter = EVERYTHING) -> list[Noted]:
    """Attempts, newest first: all of them at once, for short logs and tests."""
    return list(every(database, wanted))


def every(database: Database, wanted: Filter = EVERYTHING) -> Iterator[Noted]:
    """Attempts, newest first, read a few hundred at a time: for exports of any length."""
    before: int | None = None
    while True:
        found = page(database, wanted, TOGETHER, before)
        yield from (row for _, row in found)
        if len(found) < TOGETHER:
            return
        before = found[-1][0]


def page(database: Database, wanted: Filter, most: int, before: int | None = None) -> list[tuple[int, Noted]]:
    """(id, attempt), newest first, at most so many, older than the one of id `before`.

    By the time they were made: an imported log is not newer than what was noted here.
    """
    query = wanted.of(with_owners()).order_by(Attempt.made_at.desc(), Attempt.id.desc()).limit(most)
    if before is not None:
        made_at = select(Attempt.made_at).where(Attempt.id == before).scalar_subquery()
        query = query.where(tuple_(Attempt.made_at, Attempt.id) < tuple_(made_at, literal(before)))
    with database.read() as session:
        return [noted_of(row) for row in session.execute(query)]


def newest_results(database: Database, most: int) -> list[tuple[str, str, float | None]]:
    """(set-up, result, diamonds off) of the newest attempts, without their layouts."""
    query = select(Attempt.set_up, Attempt.result, Attempt.off).where(Attempt.deleted_at.is_(None))
    query = query.order_by(Attempt.made_at.desc(), Attempt.id.desc()).limit(most)
    with database.read() as session:
        return [(row[0], row[1], row[2]) for row in session.execute(query)]


def one_of_each(database: Database, set_ups: Sequence[str]) -> list[Noted]:
    """An attempt of each of these set-ups."""
    first = select(func.min(Attempt.id)).where(Attempt.deleted_at.is_(None), Attempt.set_up.in_(set_ups))
    query = with_owners().where(Attempt.id.in_(first.group_by(Attempt.set_up)))
    with database.read() as session:
        return [noted_of(row)[1] for row in session.execute(query)]


def with_owners() -> Select[Any]:
    """Attempts, column by column, with the table's label of today and the player's nickname: see `noted_of`."""
    columns = [getattr(Attempt, name) for name in NAMES]
    return (
        select(Attempt.id, ClubTable.label, Player.nickname, *columns)
        .outerjoin(ClubTable, Attempt.table_id == ClubTable.id)
        .outerjoin(Player, Attempt.player_id == Player.id)
    )


def noted_of(row: Sequence[Any]) -> tuple[int, Noted]:
    """(id, attempt) from a row of `with_owners`."""
    key, label, nickname, *values = row
    attempt = dict(zip(NAMES, values, strict=True))
    return key, Noted(**{**attempt, "table_label": label or attempt["table_label"]}, player=nickname)


def _unknown(uid: str) -> NotFoundError:
    return NotFoundError(f"no attempt {uid!r} is noted: look at the log again")


def _find(kept: Attempt | None, uid: str) -> Attempt:
    if kept is None:
        raise _unknown(uid)
    return kept
