"""Copies, restored; folders of any name; one server a folder; sentences that fit their cause."""

import os
import sqlite3
import stat
import threading
from dataclasses import replace
from pathlib import Path

import pytest
from tests.demo import demo_practice

from fandle.store import database as databases
from fandle.store import log
from fandle.store.backup import backup, last_backup, restore
from fandle.store.database import BACKUPS, FILE, Database
from fandle.store.demo_data import demo_club
from fandle.store.errors import StoreError
from fandle.store.folder import open_to_others, told_open
from fandle.store.preferences import set_preference
from fandle.store.queries import fill_demo, first_layouts, remove_layout
from fandle.store.serving import held_by, serving


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
        set_preference(database, "tip_mm", 12)
    assert "move it away" not in str(refused.value)
    assert str(tmp_path) not in str(refused.value)
    holder.execute("rollback")
    set_preference(database, "tip_mm", 12)


def spoilt(path: Path, *statements: str) -> None:
    """The database at `path` after these statements."""
    with sqlite3.connect(path) as connection:
        for statement in statements:
            connection.execute(statement)
    connection.close()


@pytest.mark.parametrize(
    ("statement", "sentence"),
    [
        ("create trigger t after insert on attempt begin delete from attempt; end", "a trigger of its own, 't'"),
        ("create view v as select 1", "a view of its own, 'v'"),
        ("create table mine (x)", "a table of its own, 'mine'"),
        ("create virtual table f using fts5(x)", "of its own, 'f"),
        ("drop table drill_try", "it has no table 'drill_try'"),
        ("alter table attempt drop column comment", "its table 'attempt' has other columns"),
        ("alter table player add column g generated always as (id + 1)", "its table 'player' has other columns"),
        ("update alembic_version set version_num = '9999'", "was written by a newer Fandle"),
    ],
)
def test_a_copy_that_holds_what_none_of_ours_does_is_refused(tmp_path: Path, statement: str, sentence: str) -> None:
    filled(tmp_path / "home").close()
    backup(tmp_path / "home", tmp_path / "copy")
    spoilt(tmp_path / "copy", statement)
    with pytest.raises(StoreError, match=sentence):
        restore(tmp_path / "home", tmp_path / "copy")
    again = Database.open(tmp_path / "home")
    assert len(first_layouts(again, 99)) == 13
    assert not list((tmp_path / "home").glob("restoring-*"))


@pytest.mark.parametrize("what", ["damaged", "newer", "foreign", "empty"])
def test_what_is_in_the_way_is_moved_aside_and_the_next_start_works(tmp_path: Path, what: str) -> None:
    """Restoring is for just these cases. What SQLite keeps beside a database goes aside with it."""
    home = tmp_path / "home"
    filled(home).close()
    backup(home, tmp_path / "copy")
    if what == "damaged":
        (home / FILE).write_bytes(b"SQLite format 3\0" + b"nonsense" * 4000)
        (home / f"{FILE}-wal").write_bytes(b"left over")
    elif what == "newer":
        spoilt(home / FILE, "update alembic_version set version_num = '9999'")
    elif what == "foreign":
        spoilt(home / FILE, "PRAGMA application_id = 7")
    else:
        (home / FILE).write_bytes(b"")
    before = (home / FILE).read_bytes()
    kept = restore(home, tmp_path / "copy")
    again = Database.open(home)
    assert len(first_layouts(again, 99)) == 13
    assert len(log.attempts(again)) == len(demo_practice())
    again.close()
    if what == "empty":
        assert kept is None
        return
    assert kept is not None
    assert kept.parent == home / BACKUPS
    assert kept.read_bytes() == before
    if what == "damaged":
        assert Path(f"{kept}-wal").read_bytes() == b"left over"


def test_a_backup_that_fails_leaves_no_file_and_a_link_is_no_target(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    filled(tmp_path / "home").close()
    (tmp_path / "link").symlink_to(tmp_path / "nowhere")
    with pytest.raises(StoreError, match="exists already"):
        backup(tmp_path / "home", tmp_path / "link")
    assert not (tmp_path / "nowhere").exists()
    with pytest.raises(StoreError, match="check the folder's space and rights"):
        backup(tmp_path / "home", Path("/proc/copy.sqlite3"))
    real = databases.connect

    def full(path: Path, mode: str) -> sqlite3.Connection:
        if mode == "rw" and path.name == "copy":
            raise sqlite3.OperationalError("database or disk is full")
        return real(path, mode)

    monkeypatch.setattr(databases, "connect", full)
    with pytest.raises(StoreError, match="disk is full"):
        backup(tmp_path / "home", tmp_path / "copy")
    assert not (tmp_path / "copy").exists()


def mode_of(path: Path) -> int:
    return stat.S_IMODE(path.stat().st_mode)


def test_only_its_owner_looks_into_the_data_folder(tmp_path: Path) -> None:
    """What was made by an earlier version, or by hand, too; a folder that was open to others is told."""
    home = tmp_path / "home"
    filled(home).close()
    backup(home, home / BACKUPS / "old.sqlite3")
    for path in (home, home / BACKUPS):
        path.chmod(0o777)
    for path in (home / FILE, home / BACKUPS / "old.sqlite3"):
        path.chmod(0o644)
    assert (was := open_to_others(home))
    with serving(home, "http://127.0.0.1:8000/"):
        database = Database.open(home)
        holder = sqlite3.connect(home / FILE)  # so that what SQLite writes beside it stays there
        holder.execute("select * from player").fetchall()
        set_preference(database, "tip_mm", 12)
        files = [path for path in home.rglob("*") if path.is_file()]
        assert {path.name for path in files} >= {FILE, f"{FILE}-wal", "serving.json", "serving.lock", "old.sqlite3"}
        assert [path for path in files if mode_of(path) != 0o600] == []
        holder.close()
        database.close()
    assert mode_of(home) == 0o700
    assert "until now" in told_open(home, before=was)
    assert told_open(home, before=False) == ""
    tmp_path.chmod(0o777)
    assert "put another data folder in the place of yours" in told_open(home, before=False)
    tmp_path.chmod(0o700)


def test_a_folder_that_everybody_shares_is_left_to_everybody_and_told(tmp_path: Path) -> None:
    shared = tmp_path / "tmp"
    shared.mkdir()
    shared.chmod(0o1777)
    was = open_to_others(shared)
    filled(shared).close()
    assert mode_of(shared) == 0o1777
    assert mode_of(shared / FILE) == 0o600
    assert "others can write to the data folder" in told_open(shared, before=was)


def test_a_data_folder_that_is_a_link_is_restored_where_it_lies(tmp_path: Path) -> None:
    real = tmp_path / "real"
    filled(real).close()
    backup(real, tmp_path / "copy")
    (tmp_path / "home").symlink_to(real)
    restore(tmp_path / "home", tmp_path / "copy")
    assert (tmp_path / "home").is_symlink()
    assert len(first_layouts(Database.open(tmp_path / "home"), 99)) == 13
