"""Which table, version and player an attempt belongs to."""

import json
from typing import Any, cast

from sqlalchemy import Text, func, select, type_coerce
from sqlalchemy.orm import Session

from fandle.store.models import Club, ClubTable, Player, TableVersion

FIRST_CLUB, FIRST_PLAYER = "My club", "Me"


def club_id(session: Session) -> int:
    """The club, made where there is none yet."""
    club = session.scalar(select(Club).order_by(Club.id))
    if club is None:
        club = Club(name=FIRST_CLUB)
        session.add(club)
        session.flush()
    return club.id


def player_id(session: Session, nickname: str | None = None) -> int:
    """The player of that nickname, else the first one; made where there is none yet."""
    query = select(Player).order_by(Player.id).limit(1)
    player = session.scalar(query if nickname is None else query.where(Player.nickname == nickname))
    if player is None:
        player = Player(nickname=nickname or FIRST_PLAYER, club_id=club_id(session))
        session.add(player)
        session.flush()
    return player.id


def table_called(session: Session, name: str) -> ClubTable | None:
    """The table that stands in the club under this label or as this standard table."""
    standing = select(ClubTable).where(ClubTable.gone_at.is_(None)).order_by(ClubTable.id).limit(1)
    return session.scalar(standing.where(ClubTable.label == name)) or session.scalar(
        standing.where(type_coerce(ClubTable.data, Text) == json.dumps(name))
    )


def names_taken(session: Session) -> set[str]:
    """Every label and standard name in use."""
    rows = session.execute(select(ClubTable.label, ClubTable.data).where(ClubTable.gone_at.is_(None)))
    return {name for label, data in rows for name in (label, data) if isinstance(name, str)}


def stand(session: Session, label: str, data: str | dict[str, Any], since: str) -> tuple[int, int]:
    """(table, version) by id of a table with these numbers; one the club does not have yet comes to stand in it.

    A version is written down when the first attempt is made on those numbers.
    """
    name = data if isinstance(data, str) else str(data["name"])
    row = table_called(session, name)
    if row is None:
        row = ClubTable(label=label or name, data=data, club_id=club_id(session), gone_at=None)
        session.add(row)
        session.flush()
    versions = session.scalars(select(TableVersion).where(TableVersion.table_id == row.id)).all()
    same = next((v for v in versions if _alike(v.data, data)), None)
    if same is None:
        most = session.scalar(select(func.max(TableVersion.number)).where(TableVersion.table_id == row.id))
        same = TableVersion(table_id=row.id, number=(most or 0) + 1, since=since, data=data)
        session.add(same)
        session.flush()
    return row.id, same.id


def _alike(one: object, other: object) -> bool:
    """The same numbers, whatever the table was called; files of the first versions wrote gravity, too."""
    if isinstance(one, dict) and isinstance(other, dict):
        aside = {"name": "", "gravity": None}
        return {**one, **aside} == {**cast(dict[str, Any], other), **aside}
    return one == other
