"""The log: nothing twice, nothing half, deletions undone, old databases migrated."""

import shutil
import sqlite3
from dataclasses import replace
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config
from sqlalchemy import event

from fandle.store import log
from fandle.store.database import APPLICATION_ID, MIGRATIONS, Database, _engine
from fandle.store.demo_data import demo_club, demo_practice
from fandle.store.errors import NameTakenError, NotFoundError, StoreError
from fandle.store.queries import fill_demo, layouts, remove_layout, save_layout


def attempt(n: int = 0) -> log.Noted:
    """An attempt of no great interest."""
    return replace(demo_practice()[n], uid=f"test-{n:08d}")


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database.open(tmp_path)


def test_the_same_attempt_is_kept_once(database: Database) -> None:
    first = log.note(database, attempt())
    again = log.note(database, replace(attempt(), result="long"))
    assert again == first
    assert [row.uid for row in log.attempts(database)] == ["test-00000000"]


def test_amend_take_out_put_back(database: Database) -> None:
    log.note(database, attempt())
    log.amend(database, "test-00000000", result="short", off=-0.3, comment="thin")
    assert log.one(database, "test-00000000").off == -0.3
    log.take_out(database, "test-00000000")
    assert log.attempts(database) == []
    assert log.attempts(database, log.Filter(attempt().set_up)) == []
    log.put_back(database, "test-00000000")
    assert log.attempts(database, log.Filter(attempt().set_up, "short"))[0].comment == "thin"
    assert log.attempts(database, log.Filter(attempt().set_up, "hit")) == []
    with pytest.raises(NotFoundError, match="no attempt 'none'"):
        log.take_out(database, "none")


def test_named_layouts(database: Database) -> None:
    data = demo_club()["layouts"][0]["layout"]
    save_layout(database, "Mine", data, "why")
    with pytest.raises(NameTakenError, match="choose another name"):
        save_layout(database, "Mine", data)
    assert remove_layout(database, "Mine").note == "why"
    assert layouts(database) == []
    with pytest.raises(NotFoundError, match="no layout 'Mine'"):
        remove_layout(database, "Mine")


def test_preferences(database: Database) -> None:
    assert log.preference(database, "tip_mm", 13) == 13
    log.set_preference(database, "tip_mm", 11.5)
    log.set_preference(database, "tip_mm", 12)
    assert log.preference(database, "tip_mm", 13) == 12


def test_demo_practice_is_some_months_of_invented_attempts(tmp_path: Path) -> None:
    rows = demo_practice()
    assert rows == demo_practice()
    assert len({row.uid for row in rows}) == len(rows) > 80
    assert rows[0].made_at < "2026-09"
    assert rows[-1].made_at > "2026-11"
    database = Database.open(tmp_path)
    fill_demo(database, demo_club(), demo_practice)
    assert len(log.attempts(database)) == len(rows)


def test_a_database_of_the_former_migration_is_migrated(tmp_path: Path) -> None:
    path = tmp_path / "fandle.sqlite3"
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("path_separator", "os")
    with _engine(path, "rwc").connect() as connection:
        connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
        connection.exec_driver_sql("insert into named_layout (name, note, data) values ('old', 'kept', '{}')")
        connection.commit()
    database = Database.open(tmp_path)
    assert [saved.name for saved in layouts(database)] == ["old"]
    log.note(database, attempt())
    assert len(log.attempts(database)) == 1


def test_a_later_database_is_refused_and_left_alone(tmp_path: Path) -> None:
    Database.open(tmp_path).close()
    path = tmp_path / "fandle.sqlite3"
    connection = sqlite3.connect(path)
    connection.execute("update alembic_version set version_num = '9999'")
    connection.commit()
    connection.execute("pragma wal_checkpoint(truncate)")
    connection.close()
    before = path.read_bytes()
    with pytest.raises(StoreError, match="a newer Fandle"):
        Database.open(tmp_path)
    assert path.read_bytes() == before


@pytest.mark.parametrize("trouble", ["PRAGMA query_only = ON", "PRAGMA max_page_count = 1"])
def test_a_disk_that_refuses_is_a_sentence_and_keeps_what_was(database: Database, trouble: str) -> None:
    """Read-only and full, as SQLite reports them."""
    log.note(database, attempt(0))
    event.listen(database._writer, "connect", lambda connection, _: connection.execute(trouble))

    def fill() -> None:
        for n in range(1, 60):
            log.note(database, replace(attempt(1), uid=f"full-{n:08d}", comment="x" * 400))

    with pytest.raises(StoreError, match="nothing was saved"):
        fill()
    assert "test-00000000" in {row.uid for row in log.attempts(database)}


def test_a_copy_of_the_file_is_a_whole_log(database: Database, tmp_path: Path) -> None:
    log.note(database, attempt())
    database.close()
    (tmp_path / "copy").mkdir()
    for part in tmp_path.glob("fandle.sqlite3*"):
        shutil.copy(part, tmp_path / "copy" / part.name)
    assert len(log.attempts(Database.open(tmp_path / "copy"))) == 1
