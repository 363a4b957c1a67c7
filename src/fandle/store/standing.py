"""Which table, version and player an attempt belongs to."""

import json
from itertools import chain
from typing import Any, cast

from sqlalchemy import Text, func, select, type_coerce
from sqlalchemy.orm import Session

from fandle.core.errors import BadInputError
from fandle.core.words.names import other_name
from fandle.store.database import Database
from fandle.store.errors import NameTakenError
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


def me(session: Session) -> Player:
    """Who plays here: made with the club, and nothing that comes from elsewhere is ever taken for them."""
    found = session.scalar(select(Player).where(Player.is_me).limit(1))
    if found is None:
        taken = session.scalar(select(Player.id).where(Player.nickname == FIRST_PLAYER)) is not None
        found = Player(nickname=f"{FIRST_PLAYER} here" if taken else FIRST_PLAYER, club_id=club_id(session), is_me=True)
        session.add(found)
        session.flush()
    return found


def my_nickname(database: Database) -> str:
    """What who plays here is called."""
    with database.read() as session:
        return session.scalar(select(Player.nickname).where(Player.is_me)) or FIRST_PLAYER


def my_club(database: Database) -> str:
    """What the club is called; "" where nobody has named it."""
    with database.read() as session:
        name = session.scalar(select(Club.name).order_by(Club.id).limit(1)) or ""
    return "" if name == FIRST_CLUB else name


def name_me(database: Database, nickname: str) -> None:
    """From now on who plays here is called so. Raises NameTakenError where somebody else is."""
    with database.write() as session:
        mine, other = me(session), session.scalar(select(Player).where(Player.nickname == nickname))
        if other is not None and other.id != mine.id:
            raise NameTakenError(f"somebody else here is called {nickname!r}: choose another nickname")
        mine.nickname = nickname


def player_id(session: Session, nickname: str | None = None) -> int:
    """The player of that nickname, made where there is none yet; None: who plays here."""
    if nickname is None:
        return me(session).id
    player = session.scalar(select(Player).where(Player.nickname == nickname))
    if player is None:
        player = Player(nickname=nickname, club_id=club_id(session), is_me=False)
        session.add(player)
        session.flush()
    return player.id


def guest(session: Session, nickname: str | None, club: str, called: str) -> str:
    """What a player from elsewhere is entered as.

    nickname: in their file, None where it has none; club: whose file it is, "" where it does not say so; called: as
    they were asked to be called here, "" where nobody was asked. Raises BadInputError, code "whose", where a name has
    to be asked for.
    """
    mine = me(session).nickname.casefold()
    if nickname is not None and nickname.casefold() != mine:
        return nickname
    if called and called.casefold() != mine:
        return called
    if club and club != FIRST_CLUB:
        return other_name(nickname or FIRST_PLAYER, club)
    told = "nobody's name" if nickname is None else f"the name {nickname!r}, as yours is"
    raise BadInputError(f"the file has {told}: say what its player is to be called here", "player", code="whose")


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
        called = _free_label(session, (label, name) if isinstance(data, str) else (name,))
        row = ClubTable(label=called, data=data, club_id=club_id(session), gone_at=None)
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


def _free_label(session: Session, wanted: tuple[str, ...]) -> str:
    """The first of these that no table of the club is called, else the last with a number."""
    taken = set(session.scalars(select(ClubTable.label).where(ClubTable.gone_at.is_(None))))
    numbered = (f"{wanted[-1]} {number}" for number in range(2, len(taken) + 3))
    return next(name for name in chain(wanted, numbered) if name and name not in taken)


def _alike(one: object, other: object) -> bool:
    """The same numbers, whatever the table was called; files of the first versions wrote gravity, too."""
    if isinstance(one, dict) and isinstance(other, dict):
        aside = {"name": "", "gravity": None}
        return {**one, **aside} == {**cast(dict[str, Any], other), **aside}
    return one == other
