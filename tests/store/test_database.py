"""The database: migrations, demo data, foreign and damaged files, readers that cannot write."""

import sqlite3
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy.exc import OperationalError

from fandle.core.choice.rules import balls_on
from fandle.formats.files import layout_of
from fandle.store.club import table_label
from fandle.store.database import Database
from fandle.store.demo_data import demo_club
from fandle.store.errors import StoreError
from fandle.store.models import Base, Club
from fandle.store.queries import fill_demo, first_layouts
from fandle.web.demo import demo_practice


def test_demo_club_is_filled_once(tmp_path: Path) -> None:
    database = Database.open(tmp_path)
    assert fill_demo(database, demo_club(), demo_practice)
    assert not fill_demo(database, demo_club(), demo_practice)
    assert len(first_layouts(database, 99)) == 13
    assert table_label(database, "pool-9ft") == "Back-room nine-foot"
    assert table_label(database, "Damp nine-foot") == "Damp nine-foot"
    assert table_label(database, "pool-8ft") is None
    database.close()


def test_every_demo_layout_is_possible_and_has_a_target() -> None:
    for entry in demo_club()["layouts"]:
        assert layout_of(entry["layout"]).target
        assert entry["note"].endswith((".", "?"))


def test_opening_again_keeps_everything(tmp_path: Path) -> None:
    first = Database.open(tmp_path)
    fill_demo(first, demo_club(), demo_practice)
    first.close()
    again = Database.open(tmp_path)
    assert [s.name for s in first_layouts(again, 99)] == [x["name"] for x in demo_club()["layouts"]]
    again.close()


def test_migrations_and_models_agree(tmp_path: Path) -> None:
    database = Database.open(tmp_path)
    with database._writer.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
    database.close()


def test_readers_cannot_write(tmp_path: Path) -> None:
    database = Database.open(tmp_path)
    with database.read() as session:
        session.add(Club(name="x"))
        with pytest.raises(OperationalError, match="readonly"):
            session.commit()
    database.close()


def test_a_failed_write_leaves_nothing(tmp_path: Path) -> None:
    database = Database.open(tmp_path)

    def half() -> None:
        with database.write() as session:
            session.add(Club(name="half"))
            session.flush()
            raise RuntimeError("stop")

    with pytest.raises(RuntimeError, match="stop"):
        half()
    with database.read() as session:
        assert [club.name for club in session.query(Club)] == ["My club"]
    database.close()


def test_a_foreign_database_is_refused_and_left_alone(tmp_path: Path) -> None:
    path = tmp_path / "fandle.sqlite3"
    connection = sqlite3.connect(path)
    connection.execute("create table t (x)")
    connection.commit()
    connection.close()
    before = path.read_bytes()
    with pytest.raises(StoreError, match="not a Fandle database"):
        Database.open(tmp_path)
    assert path.read_bytes() == before


def test_a_damaged_file_is_refused_and_left_alone(tmp_path: Path) -> None:
    path = tmp_path / "fandle.sqlite3"
    path.write_bytes(b"this is not a database at all, only some text" * 50)
    with pytest.raises(StoreError, match="not a readable database"):
        Database.open(tmp_path)
    assert path.read_bytes().startswith(b"this is not")


def test_a_folder_that_cannot_be_made_is_a_sentence(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    with pytest.raises(StoreError, match="set FANDLE_HOME"):
        Database.open(tmp_path / "file" / "home")


def test_demo_layouts_are_legal_positions_of_their_games() -> None:
    """The lowest ball on is the target and the money ball is up; the 8 is up; reds with the colours. Rules of the games."""
    for each in demo_club()["layouts"]:
        layout, name = each["layout"], each["name"]
        ids = {ball["id"] for ball in layout["balls"]} - {"cue"}
        if layout["game"] in ("nine-ball", "ten-ball"):
            money = {"nine-ball": "9", "ten-ball": "10"}[layout["game"]]
            assert money in ids, name
            assert int(layout["target"]) == min(map(int, ids)), name
            assert max(map(int, ids)) == int(money), name
        elif layout["game"] == "eight-ball":
            assert "8" in ids, name
            assert layout["target"] != "8", name
        elif layout["game"] == "snooker":
            assert layout["target"].startswith("red"), name
            assert {"yellow", "green", "brown", "blue", "pink", "black"} <= ids, name
        else:
            assert ids == {"white", "red"}, name
        assert layout["target"] in balls_on(layout_of(layout)), name
