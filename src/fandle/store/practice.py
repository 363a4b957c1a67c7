"""Practice as it is kept: tries at drills, answers in the quiz, the quiz's cards. All of the player who plays here."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.dialects.sqlite import insert as insert_or

from fandle.store.database import Database
from fandle.store.errors import NotFoundError
from fandle.store.log import now
from fandle.store.models import DrillTry, OwnDrill, Player, QuizTry
from fandle.store.standing import player_id


@dataclass(frozen=True)
class Try:
    """One try at a drill on a table of the club. player: a nickname, None for who plays here."""

    uid: str
    made_at: str
    drill: str
    table_label: str
    made: bool
    player: str | None = None


@dataclass(frozen=True)
class Answered:
    """One answer in the quiz. off: diamonds beside the right mark, None where none was asked for."""

    uid: str
    made_at: str
    topic: str
    correct: bool
    off: float | None
    seconds: float


def note_tries(database: Database, tries: Iterable[Try]) -> int:
    """Keep tries; those whose uid is kept already are left as they are. Returns how many are new."""
    new = 0
    with database.write() as session:
        for each in tries:
            row = {
                "uid": each.uid, "made_at": each.made_at, "drill": each.drill, "table_label": each.table_label,
                "player_id": player_id(session, each.player), "made": each.made,
            }  # fmt: skip
            done: Any = session.execute(insert_or(DrillTry).values(row).on_conflict_do_nothing(index_elements=["uid"]))
            new += done.rowcount
    return new


def take_back(database: Database, uid: str) -> Try:
    """A try is taken back: it counts no more."""
    with database.write() as session:
        row = session.scalar(select(DrillTry).where(DrillTry.uid == uid))
        if row is None:
            raise NotFoundError(f"no try {uid!r} is noted: look at the drill again")
        row.deleted_at = now()
        return Try(row.uid, row.made_at, row.drill, row.table_label, row.made)


def tries(database: Database, drill: str | None = None, player: str | None = None) -> list[Try]:
    """Tries in order of time, of one drill or of all, of one player or of who plays here."""
    with database.read() as session:
        query = (
            select(DrillTry, Player.nickname).outerjoin(Player, DrillTry.player_id == Player.id)
            .where(DrillTry.deleted_at.is_(None)).order_by(DrillTry.made_at, DrillTry.id)
        )  # fmt: skip
        who = first_player(database) if player is None else player
        query = query.where(Player.nickname == who)
        query = query if drill is None else query.where(DrillTry.drill == drill)
        return [Try(r.uid, r.made_at, r.drill, r.table_label, r.made, name) for r, name in session.execute(query)]


def first_player(database: Database) -> str:
    """The nickname of who plays here; "" before anybody did."""
    with database.read() as session:
        return session.scalar(select(Player.nickname).order_by(Player.id).limit(1)) or ""


def players(database: Database) -> list[str]:
    """Everybody who has tried a drill, by nickname."""
    with database.read() as session:
        found = select(Player.nickname).join(DrillTry, DrillTry.player_id == Player.id)
        return sorted(set(session.scalars(found.where(DrillTry.deleted_at.is_(None)))))


def last_played(database: Database) -> dict[str, str]:
    """When each drill was last tried, UTC."""
    with database.read() as session:
        query = select(DrillTry.drill, func.max(DrillTry.made_at)).where(DrillTry.deleted_at.is_(None))
        return {row[0]: row[1] for row in session.execute(query.group_by(DrillTry.drill))}


def keep_drill(database: Database, name: str, data: Any) -> bool:
    """Keep a drill that a player made; one kept before, or deleted, is there again. Returns whether it is new."""
    with database.write() as session:
        row = session.scalar(select(OwnDrill).where(OwnDrill.name == name))
        new = row is None or row.deleted_at is not None
        if row is None:
            session.add(OwnDrill(name=name, made_at=now(), data=data, deleted_at=None))
        else:
            row.deleted_at = None
        return new


def delete_drill(database: Database, name: str) -> None:
    """A drill is deleted; its tries stay in the record."""
    with database.write() as session:
        row = session.scalar(select(OwnDrill).where(OwnDrill.name == name, OwnDrill.deleted_at.is_(None)))
        if row is None:
            raise NotFoundError(f"no drill {name!r} of your own is kept: look at the list again")
        row.deleted_at = now()


def own_drills(database: Database) -> list[tuple[Any, bool]]:
    """(data, is it still listed?) of every drill a player made, the newest first."""
    with database.read() as session:
        rows = session.scalars(select(OwnDrill).order_by(OwnDrill.id.desc()))
        return [(row.data, row.deleted_at is None) for row in rows]


def note_answer(database: Database, answer: Answered) -> None:
    """Keep an answer; the same uid again changes nothing."""
    with database.write() as session:
        row = {
            "uid": answer.uid, "made_at": answer.made_at, "topic": answer.topic, "correct": answer.correct,
            "off": answer.off, "seconds": answer.seconds, "player_id": player_id(session, None),
        }  # fmt: skip
        session.execute(insert_or(QuizTry).values(row).on_conflict_do_nothing(index_elements=["uid"]))


def answers(database: Database) -> list[Answered]:
    """Answers in order of time."""
    with database.read() as session:
        rows = session.scalars(select(QuizTry).order_by(QuizTry.made_at, QuizTry.id))
        return [Answered(r.uid, r.made_at, r.topic, r.correct, r.off, r.seconds) for r in rows]
