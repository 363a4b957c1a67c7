"""The database: migrations, demo data, foreign and damaged files, readers that cannot write."""

import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import text
from sqlalchemy.exc import OperationalError
from tests.demo import demo_practice

from fandle.core.choice.rules import balls_on
from fandle.formats.files import layout_of
from fandle.store.club import table_label
from fandle.store.database import FILE, Database, check_file, connect
from fandle.store.demo_data import demo_club
from fandle.store.errors import StoreError
from fandle.store.models import Base, Club
from fandle.store.queries import fill_demo, first_layouts


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


def test_what_a_stopped_program_left_half_written_is_taken_back_at_the_next_start(tmp_path: Path) -> None:
    """A journal beside the file, as a restore leaves it that is killed while it changes the file in place: whoever may
    only read is refused by SQLite, so that no start would ever have come through."""
    before, after = tmp_path / "before", tmp_path / "after"
    Database.open(before).close()
    after.mkdir()
    writer = sqlite3.connect(before / FILE, isolation_level=None)
    writer.execute("PRAGMA journal_mode = DELETE")
    writer.execute("insert into preference (name, value) values ('kept', '1')")
    writer.execute("PRAGMA cache_size = 2")
    writer.execute("BEGIN IMMEDIATE")
    writer.executemany(
        "insert into preference (name, value) values (?, '2')", [(f"half {'x' * 200} {k}",) for k in range(2000)]
    )
    for end in ("", "-journal"):
        shutil.copy(before / f"{FILE}{end}", after / f"{FILE}{end}")  # as the disk has it at this moment
    writer.execute("ROLLBACK")
    writer.close()
    with pytest.raises(sqlite3.OperationalError, match="readonly"), closing(connect(after / FILE, "ro")) as reader:
        reader.execute("select count(*) from preference").fetchone()
    database = Database.open(after)
    with database.read() as session:
        assert [row.name for row in session.execute(text("select name from preference"))] == ["kept"]
    database.close()


def test_a_journal_beside_what_is_not_ours_is_left_alone(tmp_path: Path) -> None:
    path, journal = tmp_path / FILE, tmp_path / f"{FILE}-journal"
    path.write_bytes(b"no database at all" * 20)
    journal.write_bytes(b"and no journal")
    with pytest.raises(StoreError, match="cannot read"):
        check_file(path)
    assert (path.read_bytes(), journal.read_bytes()) == (b"no database at all" * 20, b"and no journal")
