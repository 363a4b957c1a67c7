"""Sums over the log, made by the database: no attempt is read for them."""

from dataclasses import dataclass
from typing import Any

from sqlalchemy import case, func, select
from sqlalchemy.orm import Session

from fandle.core.practice.record import Figures, Result, figures_from
from fandle.store.database import Database
from fandle.store.log import EVERYTHING, Filter, Noted, noted_of, with_owners
from fandle.store.models import Attempt, ClubTable, TableVersion

_SUMS: tuple[Any, ...] = (
    func.count(),
    func.sum(case((Attempt.result == Result.HIT.value, 1), else_=0)),
    func.count(Attempt.off),
    func.sum(Attempt.off),
    func.sum(Attempt.off * Attempt.off),
)


@dataclass(frozen=True)
class Group:
    """One set-up on one table as it was: its last attempt, its figures, its newest landings (diamonds).

    later: the table's numbers were changed since, so that these attempts were made on another table, so to speak.
    """

    last: Noted
    table: int | None
    version: int | None
    since: str
    later: bool
    figures: Figures
    landings: tuple[float, ...]


def figures_of(database: Database, wanted: Filter = EVERYTHING) -> Figures:
    """Figures of all attempts that are wanted."""
    with database.read() as session:
        return figures_from(*session.execute(wanted.of(select(*_SUMS))).one())


def same_set_up(database: Database, uid: str) -> Figures:
    """Figures of an attempt's own set-up, on its own table with the numbers it had."""
    with database.read() as session:
        query = select(Attempt.set_up, Attempt.table_id, Attempt.table_version_id).where(Attempt.uid == uid)
        set_up, table, version = session.execute(query).one()
    return figures_of(database, Filter(set_up=set_up, table=table, version=version))


def of_set_up(database: Database, set_up: str, table_label: str) -> Figures:
    """Figures of a set-up on a table that is called so in the club now, with the numbers it has now."""
    with database.read() as session:
        table = session.scalar(select(ClubTable.id).where(ClubTable.label == table_label, ClubTable.gone_at.is_(None)))
        newest = select(func.max(TableVersion.id)).where(TableVersion.table_id == table)
        version = session.scalar(newest)
    if table is None:
        return figures_from(0, 0, 0, None, None)
    return figures_of(database, Filter(set_up=set_up, table=table, version=version))


def how_many_groups(database: Database) -> int:
    """How many set-ups there are."""
    keys = select(Attempt.id).where(Attempt.deleted_at.is_(None))
    keys = keys.group_by(Attempt.table_id, Attempt.table_version_id, Attempt.set_up)
    with database.read() as session:
        return session.scalar(select(func.count()).select_from(keys.subquery())) or 0


def groups(database: Database, most: int, skip: int, landings: int) -> list[Group]:
    """Set-ups, the one last played first: so many, after so many; each with its newest landings."""
    key = (Attempt.table_id, Attempt.table_version_id, Attempt.set_up)
    newest = func.max(Attempt.id)
    query = select(*key, newest, *_SUMS).where(Attempt.deleted_at.is_(None)).group_by(*key)
    query = query.order_by(newest.desc()).limit(most).offset(skip)
    with database.read() as session:
        rows = session.execute(query).all()
        ids = [row[3] for row in rows]
        last = dict(noted_of(found) for found in session.execute(with_owners().where(Attempt.id.in_(ids))))
        numbers = {v.id: v.since for v in session.scalars(select(TableVersion))}
        latest = set(session.scalars(select(func.max(TableVersion.id)).group_by(TableVersion.table_id)))
        return [
            Group(
                last=last[newest_id],
                table=table,
                version=version,
                since=numbers.get(version, ""),
                later=version is not None and version not in latest,
                figures=figures_from(*sums),
                landings=_landings(session, (table, version, set_up), landings),
            )
            for table, version, set_up, newest_id, *sums in rows
        ]


def _landings(session: Session, key: tuple[int | None, int | None, str], most: int) -> tuple[float, ...]:
    """The newest landings of one set-up, diamonds."""
    table, version, set_up = key
    mine = select(Attempt.off).where(
        Attempt.deleted_at.is_(None), Attempt.set_up == set_up, Attempt.table_id.is_(table),
        Attempt.table_version_id.is_(version), Attempt.off.is_not(None),
    ).order_by(Attempt.id.desc()).limit(most)  # fmt: skip
    return tuple(off for off in session.scalars(mine) if off is not None)
