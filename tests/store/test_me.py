"""Who plays here is made with the club, and nothing that is taken in is ever them."""

import io
import json
import sqlite3
from dataclasses import replace
from pathlib import Path

import pytest
from alembic import command
from sqlalchemy import create_engine
from tests.demo import demo_practice

from fandle.core.errors import BadInputError
from fandle.core.table.standards import standard_table
from fandle.formats.log import csv_parts, json_parts
from fandle.formats.tables import table_json
from fandle.store import club, log, practice
from fandle.store.database import FILE, Database
from fandle.store.errors import NameTakenError
from fandle.store.log_files import take_in
from fandle.store.migrations_config import config_of
from fandle.store.practice_files import take_in as take_results_in
from fandle.store.standing import my_nickname, name_me

TRY = {"uid": "t", "made_at": "2026-11-20T19:00:00+00:00", "drill": "freeze", "table": "any", "made": True}


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database.open(tmp_path)


def a_log(player: str | None, club: str = "", count: int = 3) -> io.BytesIO:
    rows = [replace(row, player=player) for row in demo_practice()[:count]]
    return io.BytesIO("".join(json_parts(rows, club)).encode())


def results(player: str) -> io.BytesIO:
    return io.BytesIO(json.dumps({"format": "fandle-practice/1", "player": player, "tries": [TRY]}).encode())


def players(database: Database) -> set[str | None]:
    return {row.player for row in log.attempts(database)}


def test_a_coach_who_takes_in_a_pupils_file_on_a_fresh_club_stays_who_they_are(database: Database) -> None:
    """The first row among the players was who plays here: the pupil, from then on."""
    assert take_in(database, a_log("Pepper"))["new"] == 3
    assert take_results_in(database, results("Moth")).player == "Moth"
    assert my_nickname(database) == "Me"
    log.note(database, replace(demo_practice()[5], player=None))
    assert players(database) == {"Pepper", "Me"}
    assert practice.tries(database) == []


@pytest.mark.parametrize("player", ["Me", "me", None])
def test_another_me_is_another_person(database: Database, player: str | None) -> None:
    take_in(database, a_log(player, "The Blue Chalk"))
    (name,) = players(database)
    assert name is not None
    assert name.casefold() == "me (the blue chalk)"
    take_in(database, a_log(player, "The Blue Chalk", 5))
    assert len(players(database)) == 1


@pytest.mark.parametrize("club", ["", "My club"])
def test_where_the_file_names_no_club_the_name_is_asked_for_and_nothing_kept_before(
    database: Database, club: str
) -> None:
    with pytest.raises(BadInputError, match="say what its player is to be called here") as asked:
        take_in(database, a_log("Me", club))
    assert (asked.value.code, log.attempts(database)) == ("whose", [])
    with pytest.raises(BadInputError, match="as yours is"):
        take_in(database, a_log("Me", club), "me")
    take_in(database, a_log("Me", club), "Anna")
    assert players(database) == {"Anna"}
    assert take_in(database, a_log("Me", club))["new"] == 0  # nothing new: nobody has to be named
    with pytest.raises(BadInputError, match="as yours is"):
        take_results_in(database, results("Me"))
    assert take_results_in(database, results("Me"), "Anna").player == "Anna"


def test_a_csv_names_its_club_too(database: Database) -> None:
    text = "".join(csv_parts([replace(row, player="Me") for row in demo_practice()[:2]], "The Blue Chalk"))
    assert take_in(database, io.BytesIO(text.encode()))["new"] == 2
    assert players(database) == {"Me (The Blue Chalk)"}


def test_a_csv_without_a_club_is_asked(database: Database) -> None:
    text = "".join(csv_parts([replace(row, player=None) for row in demo_practice()[:2]]))
    with pytest.raises(BadInputError, match="nobody's name"):
        take_in(database, io.BytesIO(text.encode()))
    assert take_in(database, io.BytesIO(text.encode()), "Anna")["new"] == 2


def test_i_may_be_called_what_nobody_else_is(database: Database) -> None:
    take_in(database, a_log("Pepper"))
    with pytest.raises(NameTakenError, match="somebody else here"):
        name_me(database, "Pepper")
    name_me(database, "Half-Ball")
    log.note(database, replace(demo_practice()[5], player=None))
    assert players(database) == {"Pepper", "Half-Ball"}
    take_in(database, a_log("Me", count=8))  # "Me" is a name like any other now
    assert players(database) == {"Pepper", "Half-Ball", "Me"}


def migrated(folder: Path, version: str) -> sqlite3.Connection:
    """A database of an earlier version."""
    engine = create_engine(f"sqlite:///{folder / FILE}")
    with engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA application_id = 1178684996")
        config = config_of()
        config.attributes["connection"] = connection
        command.upgrade(config, version)
        connection.commit()
    engine.dispose()
    return sqlite3.connect(folder / FILE)


def test_in_a_club_of_an_earlier_version_the_first_player_is_me(tmp_path: Path) -> None:
    with migrated(tmp_path, "0008") as old:
        old.execute("insert into club (id, name) values (1, 'The Tin Lantern')")
        old.executemany("insert into player (nickname, club_id) values (?, 1)", [("Pepper",), ("Moth",)])
    old.close()
    database = Database.open(tmp_path)
    assert my_nickname(database) == "Pepper"
    with database.read() as session:
        assert session.connection().exec_driver_sql("select count(*) from player where is_me").scalar() == 1


def test_a_table_whose_label_another_one_has_comes_to_stand_under_its_own_name(database: Database) -> None:
    """It was an error of the database: the whole file was refused with a sentence about the disk."""
    club.add_table(database, "Back-room nine-foot", table_json(standard_table("pool-7ft")))
    rows = [replace(row, player="Pepper") for row in demo_practice()[:3]]
    own = {**table_json(standard_table("pool-8ft")), "name": "From elsewhere"}
    rows.append(replace(rows[0], uid="elsewhere-1", layout={**rows[0].layout, "table": own}))
    assert take_in(database, io.BytesIO("".join(json_parts(rows)).encode()))["new"] == 4
    labels = [row.label for row in club.tables(database)]
    assert labels == ["Back-room nine-foot", "pool-9ft", "From elsewhere"]
