"""The log: nothing twice, nothing half, deletions undone, old databases migrated."""

import csv
import io
import json
import re
import shutil
import sqlite3
import threading
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from alembic import command
from alembic.config import Config
from sqlalchemy import event, select
from tests.demo import demo_practice

from fandle.core.errors import BadInputError
from fandle.core.practice.record import Result, Tried, figures
from fandle.core.table.standards import standard_table
from fandle.formats.log import csv_parts, json_parts
from fandle.formats.tables import table_json
from fandle.store import club, log
from fandle.store.database import APPLICATION_ID, Database, _engine
from fandle.store.demo_data import demo_club
from fandle.store.errors import NameTakenError, NotFoundError, StoreError
from fandle.store.figures import figures_of, groups, how_many_groups
from fandle.store.log_files import take_in
from fandle.store.migrations_config import MIGRATIONS
from fandle.store.models import Attempt, ClubTable
from fandle.store.preferences import preference, set_preference
from fandle.store.queries import fill_demo, first_layouts, remove_layout, save_layout


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
    mine = save_layout(database, "Mine", data, "why")
    with pytest.raises(NameTakenError, match="choose another name"):
        save_layout(database, "Mine", data)
    assert remove_layout(database, mine.id).note == "why"
    assert first_layouts(database, 99) == []
    with pytest.raises(NotFoundError, match="not kept any more"):
        remove_layout(database, mine.id)


def test_preferences(database: Database) -> None:
    assert preference(database, "tip_mm", 13) == 13
    set_preference(database, "tip_mm", 11.5)
    set_preference(database, "tip_mm", 12)
    assert preference(database, "tip_mm", 13) == 12


def test_demo_practice_is_some_months_of_invented_attempts(tmp_path: Path) -> None:
    rows = demo_practice()
    assert rows == demo_practice()
    assert len({row.uid for row in rows}) == len(rows) > 80
    assert rows[0].made_at < "2026-09"
    assert rows[-1].made_at > "2026-11"
    database = Database.open(tmp_path)
    fill_demo(database, demo_club(), demo_practice)
    assert len(log.attempts(database)) == len(rows)


def at_version(folder: Path, version: str) -> sqlite3.Connection:
    """A database as a former version left it."""
    path = folder / "fandle.sqlite3"
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("path_separator", "os")
    with _engine(path, "rwc").connect() as connection:
        connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
        config.attributes["connection"] = connection
        command.upgrade(config, version)
        connection.commit()
    return sqlite3.connect(path)


def test_a_database_of_the_first_migration_is_migrated(tmp_path: Path) -> None:
    old = at_version(tmp_path, "0001")
    old.execute("insert into named_layout (name, note, data) values ('old', 'kept', '{}')")
    old.commit()
    old.close()
    database = Database.open(tmp_path)
    assert [saved.name for saved in first_layouts(database, 99)] == ["old"]
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


def test_attempts_made_before_are_given_their_table_version_and_player(tmp_path: Path) -> None:
    """Of a standard table, of one that stands there still, of one whose numbers changed, of one that is gone."""
    old = at_version(tmp_path, "0003")
    own = table_json(standard_table("pool-7ft")) | {"name": "Bar box"}
    changed, gone = own | {"cloth_rolling": 0.02}, own | {"name": "Sold"}
    old.execute("insert into club (id, name) values (1, 'Club')")
    old.execute("insert into player (id, nickname, club_id) values (4, 'Moth', 1)")
    old.execute("insert into club_table (label, club_id, data) values ('Back room', 1, '\"pool-9ft\"')")
    old.execute("insert into club_table (label, club_id, data) values ('Bar box', 1, ?)", (json.dumps(changed),))
    rows: list[tuple[str, Any, str]] = [("a", "pool-9ft", "Back room"), ("b", own, "Bar box"), ("c", changed, "Bar box"), ("d", gone, "Sold"),
            ("e", "pool-8ft", "pool-8ft"), ("f", changed, "Bar box")]  # fmt: skip
    for uid, table, label in rows:
        name = table if isinstance(table, str) else table["name"]
        old.execute(
            "insert into attempt (uid, made_at, set_up, title, table_label, layout, rails, stroke, aim, result, side_hit,"
            " comment) values (?, '2026-09-01T10:00:00+00:00', ?, 't', ?, ?, 'far', '{}', '{}', 'hit', '', '')",
            (uid, f"{name}|7|far|cue:1,1", label, json.dumps({"table": table})),
        )
    old.commit()
    old.close()
    database = Database.open(tmp_path)
    with database.read() as session:
        kept = {row.uid: row for row in session.scalars(select(Attempt))}
        labels = {row.id: (row.label, row.gone_at is None) for row in session.scalars(select(ClubTable))}
    tables = {uid: labels[row.table_id or 0] for uid, row in kept.items()}
    assert tables == {
        "a": ("Back room", True), "b": ("Bar box", True), "c": ("Bar box", True), "d": ("Sold", False),
        "e": ("pool-8ft", True), "f": ("Bar box", True),
    }  # fmt: skip
    assert kept["b"].table_version_id != kept["c"].table_version_id == kept["f"].table_version_id
    assert {row.player_id for row in kept.values()} == {4}
    assert {row.set_up for row in kept.values()} == {"7|far|cue:1,1"}
    (copy,) = (tmp_path / "backups").iterdir()
    assert sqlite3.connect(copy).execute("select count(*) from attempt").fetchone() == (6,)
    assert [(g.last.table_label, g.later) for g in groups(database, 9, 0, 9)] == [
        ("Bar box", False), ("pool-8ft", False), ("Sold", False), ("Bar box", True), ("Back room", False),
    ]  # fmt: skip


def test_renaming_a_table_does_not_split_its_log_and_changing_it_does_not_mix_it(database: Database) -> None:
    own = table_json(standard_table("pool-7ft")) | {"name": "Bar box"}
    made = attempt()

    def shoot(uid: str, table: dict[str, object]) -> None:
        log.note(
            database, replace(made, uid=uid, table_label=str(table["name"]), layout={**made.layout, "table": table})
        )

    box = club.add_table(database, "Bar box", own).id
    shoot("renamed-1", own)
    renamed = own | {"name": "By the door"}
    club.change_table(database, box, "By the door", renamed)
    shoot("renamed-2", renamed)
    (one_log,) = groups(database, 9, 0, 9)
    assert (one_log.figures.attempts, one_log.last.table_label) == (2, "By the door")
    assert {row.table_label for row in log.attempts(database)} == {"By the door"}
    slower = renamed | {"cloth_rolling": 0.02}
    club.change_table(database, box, "By the door", slower)
    shoot("changed-1", slower)
    now, before = groups(database, 9, 0, 9)
    assert [(g.figures.attempts, g.later) for g in (now, before)] == [(1, False), (2, True)]
    gone = club.remove_table(database, box)
    assert len(log.attempts(database)) == 3
    assert club.bring_back(database, gone.id).label == "By the door"
    shoot("again-1", slower)
    assert groups(database, 9, 0, 9)[0].figures.attempts == 2


def test_the_same_uid_at_the_same_moment_is_one_attempt(tmp_path: Path) -> None:
    """From threads of one server, and from another process on the same file."""
    databases = [Database.open(tmp_path) for _ in range(3)]
    results, barrier = [], threading.Barrier(12)

    def send(n: int) -> None:
        barrier.wait()
        results.append(log.note(databases[n % 3], replace(attempt(), result=("hit", "long")[n % 2])))

    threads = [threading.Thread(target=send, args=(n,)) for n in range(12)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(results) == 12
    assert len({row.result for row in results}) == 1
    assert len(log.attempts(databases[0])) == 1


def test_sums_of_the_database_are_those_of_the_attempts(tmp_path: Path) -> None:
    database = Database.open(tmp_path)
    fill_demo(database, demo_club(), demo_practice)
    every = log.attempts(database)
    by_hand, summed = figures(Tried(Result(row.result), row.off) for row in every), figures_of(database)
    for name, value in vars(by_hand).items():
        assert getattr(summed, name) == pytest.approx(value, rel=1e-12), name
    found = groups(database, 99, 0, 40)
    assert how_many_groups(database) == len(found) == 3
    assert sum(g.figures.attempts for g in found) == len(every)
    newest = [row.off for row in every if row.set_up == found[0].last.set_up and row.off is not None][:40]
    assert list(found[0].landings) == newest
    pages, before = [], None
    while part := log.page(database, log.Filter(), 30, before):
        pages += [row for _, row in part]
        before = part[-1][0]
    assert pages == every


def test_an_exported_log_comes_back_as_it_was(tmp_path: Path) -> None:
    """As JSON and as CSV, words that a spreadsheet would run among them; twice is once."""
    first = Database.open(tmp_path / "first")
    fill_demo(first, demo_club(), demo_practice)
    nasty = ["=1+1", "+SUM(A1)", "-2", "@x", "\tx", "'=quoted", "'plain", 'a "b", c\nd', "ü", ""]
    for n, word in enumerate(nasty):
        log.note(
            first,
            replace(
                attempt(n), uid=f"nasty-{n:04d}", comment=word, touched=[{"rail": "foot", "at": 1.5}], in_off=False
            ),
        )
    every = log.attempts(first)
    for name, parts in (("json", json_parts), ("csv", csv_parts)):
        text = "".join(parts(log.every(first)))
        if name == "csv":
            cells = [row["comment"] for row in csv.DictReader(io.StringIO(text))]
            assert not [cell for cell in cells if cell.startswith(("=", "+", "-", "@", "\t"))]
        second = Database.open(tmp_path / name)
        done = take_in(second, io.BytesIO(text.encode()), "Pepper")  # "Me" there is somebody else here
        assert done == {"attempts": len(every), "new": len(every)}
        there = {row.uid: row for row in log.attempts(second)}
        assert there == {row.uid: replace(row, player="Pepper") for row in every}
        assert take_in(second, io.BytesIO(text.encode()))["new"] == 0


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ("", "the column 'uid' is missing"),
        ("a,b\n1,2\n", "the column 'uid' is missing"),
        ("{", "not a whole JSON file"),
        ('{"format": "fandle-log/9", "attempts": []}', "format 'fandle-log/9' is not a log"),
        ('{"format": "fandle-log/1", "attempts": []}', "holds no attempt"),
        ('{"format": "fandle-log/1", "attempts": [{"uid": "x"}]}', "attempt 1: "),
    ],
)
def test_a_file_that_is_no_log_is_a_sentence_and_nothing_is_taken_in(
    database: Database, text: str, sentence: str
) -> None:
    with pytest.raises(BadInputError, match=re.escape(sentence)):
        take_in(database, io.BytesIO(text.encode()))
    assert log.attempts(database) == []


def test_one_bad_attempt_keeps_all_of_the_file_out(database: Database) -> None:
    good = "".join(json_parts(demo_practice()))
    bad = good.replace('"result": "hit"', '"result": "sunk"', 1)
    with pytest.raises(BadInputError, match=r"attempt \d+: result"):
        take_in(database, io.BytesIO(bad.encode()))
    assert log.attempts(database) == []
