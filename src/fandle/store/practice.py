"""Practice as it is kept: tries at drills, answers in the quiz, the quiz's cards. All of the player who plays here."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from itertools import islice
from typing import Any

from sqlalchemy import Integer, case, func, select, type_coerce
from sqlalchemy.dialects.sqlite import insert as insert_or
from sqlalchemy.orm import Session

from fandle.store.database import Database
from fandle.store.errors import NotFoundError
from fandle.store.log import TOGETHER, now
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
    with database.write() as session:
        return keep_tries(session, tries)


def keep_tries(session: Session, tries: Iterable[Try]) -> int:
    """The same within what else is kept in one go."""
    players: dict[str | None, int] = {}
    new, rows = 0, iter(tries)
    while part := list(islice(rows, TOGETHER)):
        for each in part:
            if each.player not in players:
                players[each.player] = player_id(session, each.player)
        kept = [
            {
                "uid": each.uid, "made_at": each.made_at, "drill": each.drill, "table_label": each.table_label,
                "player_id": players[each.player], "made": each.made,
            }
            for each in part
        ]  # fmt: skip
        before = session.scalar(select(func.count()).select_from(DrillTry)) or 0
        session.execute(insert_or(DrillTry).on_conflict_do_nothing(index_elements=["uid"]), kept)
        new += (session.scalar(select(func.count()).select_from(DrillTry)) or 0) - before
    return new


def take_back(database: Database, uid: str) -> Try:
    """A try is taken back: it counts no more."""
    with database.write() as session:
        row = session.scalar(select(DrillTry).where(DrillTry.uid == uid))
        if row is None:
            raise NotFoundError(f"no try {uid!r} is noted: look at the drill again")
        row.deleted_at = now()
        return Try(row.uid, row.made_at, row.drill, row.table_label, row.made)


def tries(database: Database) -> list[Try]:
    """Tries of who plays here in order of time."""
    query = select(DrillTry, Player.nickname).join(Player, DrillTry.player_id == Player.id)
    query = query.where(DrillTry.deleted_at.is_(None), Player.is_me).order_by(DrillTry.made_at, DrillTry.id)
    with database.read() as session:
        return [Try(r.uid, r.made_at, r.drill, r.table_label, r.made, name) for r, name in session.execute(query)]


def made(database: Database, drill: str) -> list[bool]:
    """Whether each try of who plays here at a drill counted, in order of time."""
    query = select(DrillTry.made).join(Player, DrillTry.player_id == Player.id).order_by(DrillTry.made_at, DrillTry.id)
    with database.read() as session:
        return list(session.scalars(query.where(DrillTry.deleted_at.is_(None), DrillTry.drill == drill, Player.is_me)))


def counts(database: Database) -> dict[str, dict[str, tuple[int, int]]]:
    """(tries, how many counted) of every drill that was tried, by drill and by player."""
    sums = func.count(), func.sum(case((type_coerce(DrillTry.made, Integer) == 1, 1), else_=0))
    query = select(DrillTry.drill, Player.nickname, *sums).join(Player, DrillTry.player_id == Player.id)
    query = query.where(DrillTry.deleted_at.is_(None)).group_by(DrillTry.drill, Player.nickname)
    found: dict[str, dict[str, tuple[int, int]]] = {}
    with database.read() as session:
        for drill, who, tried, hits in session.execute(query.order_by(DrillTry.drill, Player.nickname)):
            found.setdefault(drill, {})[who] = tried, int(hits or 0)
    return found


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


def keep_titles(session: Session, made: Mapping[str, Any]) -> None:
    """Keep drills by name only so that tries at them have a title; those that are known stay as they are."""
    known = set(session.scalars(select(OwnDrill.name).where(OwnDrill.name.in_(list(made)))))
    session.add_all(
        OwnDrill(name=name, made_at=now(), data=data, deleted_at=now())
        for name, data in made.items()
        if name not in known
    )


def delete_drill(database: Database, name: str) -> None:
    """A drill is deleted; its tries stay in the record."""
    with database.write() as session:
        row = session.scalar(select(OwnDrill).where(OwnDrill.name == name, OwnDrill.deleted_at.is_(None)))
        if row is None:
            raise NotFoundError(f"no drill {name!r} of your own is kept: look at the list again")
        row.deleted_at = now()


def own_drills(database: Database, most: int, before: int | None = None) -> list[tuple[int, str, Any]]:
    """(id, name, data) of listed drills that players made, the newest first: so many, older than one."""
    query = select(OwnDrill.id, OwnDrill.name, OwnDrill.data).where(OwnDrill.deleted_at.is_(None))
    query = query if before is None else query.where(OwnDrill.id < before)
    with database.read() as session:
        return [(row[0], row[1], row[2]) for row in session.execute(query.order_by(OwnDrill.id.desc()).limit(most))]


def own_drills_named(database: Database, names: Iterable[str]) -> dict[str, Any]:
    """Data of drills that players made, deleted ones too, by name."""
    found: dict[str, Any] = {}
    with database.read() as session:
        for part in _parts(names):
            query = select(OwnDrill.name, OwnDrill.data).where(OwnDrill.name.in_(part))
            found |= {row[0]: row[1] for row in session.execute(query)}
    return found


def _parts(names: Iterable[str]) -> Iterator[list[str]]:
    rest = iter(names)
    while part := list(islice(rest, TOGETHER)):
        yield part


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
