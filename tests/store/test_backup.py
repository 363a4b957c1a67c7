"""Copies, restored; folders of any name; one server a folder; sentences that fit their cause."""

import os
import sqlite3
import threading
from dataclasses import replace
from pathlib import Path

import pytest

from fandle.store import log
from fandle.store.backup import backup, last_backup, restore
from fandle.store.database import FILE, Database
from fandle.store.demo_data import demo_club
from fandle.store.errors import StoreError
from fandle.store.queries import fill_demo, first_layouts, remove_layout
from fandle.store.serving import held_by, serving
from fandle.web.demo import demo_practice


def filled(folder: Path) -> Database:
    database = Database.open(folder)
    fill_demo(database, demo_club(), demo_practice)
    return database


def test_a_copy_is_whole_and_comes_back(tmp_path: Path) -> None:
    database = filled(tmp_path / "home")
    assert last_backup(database) is None
    made = backup(tmp_path / "home", tmp_path / "evening.sqlite3")
    assert last_backup(database) == made
    saved = first_layouts(database, 99)
    names = [each.name for each in saved]
    for each in saved:
        remove_layout(database, each.id)
    database.close()
    kept = restore(tmp_path / "home", tmp_path / "evening.sqlite3")
    database = Database.open(tmp_path / "home")
    assert [saved.name for saved in first_layouts(database, 99)] == names
    assert kept is not None
    assert sqlite3.connect(kept).execute("select count(*) from named_layout").fetchone() == (0,)
    assert len(log.attempts(database)) == len(demo_practice())


def test_a_copy_made_while_notes_are_written_is_whole(tmp_path: Path) -> None:
    database, going, first = filled(tmp_path), True, demo_practice()[0]
    noted: list[str] = []

    def write() -> None:
        while going:
            row = log.note(database, replace(first, uid=f"while-{len(noted):06d}"))
            noted.append(row.uid)

    writer = threading.Thread(target=write)
    writer.start()
    try:
        for n in range(3):
            before = list(noted)
            backup(tmp_path, tmp_path / f"copies/{n}.sqlite3")
            copy = Database(tmp_path / f"copies/{n}.sqlite3")
            assert set(before) <= {row.uid for row in log.attempts(copy)}
            copy.close()
    finally:
        going = False
        writer.join()


@pytest.mark.parametrize(
    ("make", "sentence"),
    [
        (lambda path: None, "there is no file"),
        (lambda path: path.write_bytes(b""), "is empty"),
        (lambda path: path.write_bytes(b"no database" * 200), "not a readable database"),
        (lambda path: sqlite3.connect(path).execute("create table t (x)").connection.commit(), "not a Fandle database"),
    ],
)
def test_what_is_no_copy_restores_nothing(tmp_path: Path, make: object, sentence: str) -> None:
    database = filled(tmp_path / "home")
    make(tmp_path / "copy")  # type: ignore[operator]
    with pytest.raises(StoreError, match=sentence):
        restore(tmp_path / "home", tmp_path / "copy")
    assert len(first_layouts(database, 99)) == 13


def test_no_copy_is_written_over_and_none_made_of_nothing(tmp_path: Path) -> None:
    with pytest.raises(StoreError, match="there is no database"):
        backup(tmp_path / "none", tmp_path / "copy")
    filled(tmp_path / "home")
    (tmp_path / "copy").write_text("mine")
    with pytest.raises(StoreError, match="exists already"):
        backup(tmp_path / "home", tmp_path / "copy")
    assert (tmp_path / "copy").read_text() == "mine"


def test_a_folder_that_is_served_is_not_restored_nor_served_twice(tmp_path: Path) -> None:
    filled(tmp_path / "home")
    backup(tmp_path / "home", tmp_path / "copy")
    assert held_by(tmp_path / "home") is None
    with serving(tmp_path / "home", "http://127.0.0.1:8000/"):
        who = f"the server at http://127.0.0.1:8000/ (process {os.getpid()})"
        assert held_by(tmp_path / "home") == who
        with pytest.raises(StoreError, match="stop it, then restore"):
            restore(tmp_path / "home", tmp_path / "copy")
        with (
            pytest.raises(StoreError, match="uses this data folder already"),
            serving(tmp_path / "home", "http://127.0.0.1:8001/"),
        ):
            pass
    assert held_by(tmp_path / "home") is None
    restore(tmp_path / "home", tmp_path / "copy")


@pytest.mark.parametrize("name", ["50 % off", "a#b", "what?x=1&mode=memory", "%41", "ü", "a;b", "file:x"])
def test_a_folder_of_any_name_holds_its_own_database(tmp_path: Path, name: str) -> None:
    database = filled(tmp_path / name)
    database.close()
    assert (tmp_path / name / FILE).stat().st_size > 0
    made = [path.relative_to(tmp_path).parts for path in tmp_path.rglob("*.sqlite3")]
    assert made == [(name, FILE)]
    assert len(first_layouts(Database.open(tmp_path / name), 99)) == 13
    with pytest.raises(StoreError, match="exists already"):
        backup(tmp_path / name, tmp_path / name / FILE)


def test_another_database_is_not_opened_by_a_name_that_looks_like_it(tmp_path: Path) -> None:
    """`a%41` is not `aA`: neither is looked at in place of the other."""
    other = tmp_path / "aA"
    other.mkdir()
    foreign = sqlite3.connect(other / FILE)
    foreign.execute("create table t (x)")
    foreign.commit()
    foreign.close()
    before = (other / FILE).read_bytes()
    filled(tmp_path / "a%41").close()
    assert (other / FILE).read_bytes() == before


def test_a_locked_database_says_so_and_not_to_move_it(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("fandle.store.database.BUSY_MS", 50)
    database = filled(tmp_path)
    holder = sqlite3.connect(tmp_path / FILE, isolation_level=None)
    holder.execute("begin exclusive")
    with pytest.raises(StoreError, match="another program holds the database") as refused:
        log.set_preference(database, "tip_mm", 12)
    assert "move it away" not in str(refused.value)
    assert str(tmp_path) not in str(refused.value)
    holder.execute("rollback")
    log.set_preference(database, "tip_mm", 12)
