"""Opening, migrating, reading and writing the database."""

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import DatabaseError, OperationalError
from sqlalchemy.orm import Session
from sqlalchemy.pool import NullPool

from fandle.store.errors import StoreError

APPLICATION_ID = 0x46414E44  # "FAND": marks the file as ours
BUSY_MS = 5000
MIGRATIONS = Path(__file__).parent / "migrations"


class Database:
    """One SQLite file: readers open it read-only, writers queue behind one lock."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._lock = threading.Lock()
        self._writer = _engine(path, "rwc")
        self._reader = _engine(path, "ro")

    @classmethod
    def open(cls, folder: Path) -> "Database":
        """Open the database in `folder`, creating or migrating it; StoreError if it is not ours."""
        path = folder / "fandle.sqlite3"
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError as fault:
            raise StoreError(
                f"cannot make the data folder {folder} ({fault.strerror}): set FANDLE_HOME to one you can write"
            ) from None
        _check_file(path)
        database = cls(path)
        database._migrate()
        return database

    def _migrate(self) -> None:
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.set_main_option("path_separator", "os")
        try:
            with self._lock, self._writer.connect() as connection:
                connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                connection.commit()
        except DatabaseError as fault:
            raise StoreError(f"cannot write {self.path} ({fault.orig}): check the folder's space and rights") from None

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session that can only read."""
        with Session(self._reader) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """The one writing session; commits at the end, rolls back on any error.

        Raises StoreError, one sentence, where the disk or the folder refuses.
        """
        try:
            with self._lock, Session(self._writer) as session, session.begin():
                yield session
        except OperationalError as fault:
            raise StoreError(
                f"nothing was saved ({fault.orig}): check the space and rights of {self.path.parent}, then try again"
            ) from None

    def close(self) -> None:
        """Let go of the file."""
        self._reader.dispose()
        self._writer.dispose()


def _engine(path: Path, mode: str) -> Engine:
    engine = create_engine(f"sqlite:///file:{path}?mode={mode}&uri=true", poolclass=NullPool)

    @event.listens_for(engine, "connect")
    def prepare(connection: Any, _record: Any) -> None:
        connection.execute("PRAGMA foreign_keys = ON")
        connection.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
        if mode != "ro":
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")  # what is acknowledged is on the disk

    return engine


def _version(connection: sqlite3.Connection) -> str | None:
    """The migration a database stands at; None before its first."""
    known = connection.execute("select 1 from sqlite_master where name = 'alembic_version'").fetchone()
    row = connection.execute("select version_num from alembic_version").fetchone() if known else None
    return None if row is None else str(row[0])


def _known_versions() -> set[str]:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("path_separator", "os")
    return {script.revision for script in ScriptDirectory.from_config(config).walk_revisions()}


def _check_file(path: Path) -> None:
    """Refuse a file that is not a Fandle database, without touching it."""
    if not path.exists() or path.stat().st_size == 0:
        return
    try:
        connection = sqlite3.connect(f"file:{path}?mode=ro", uri=True)
        try:
            mark = connection.execute("PRAGMA application_id").fetchone()[0]
            sound = connection.execute("PRAGMA quick_check").fetchone()[0]
            version = _version(connection)
        finally:
            connection.close()
    except sqlite3.DatabaseError as fault:
        raise StoreError(
            f"{path} is not a readable database ({fault}): move it away or set FANDLE_HOME elsewhere"
        ) from None
    if mark != APPLICATION_ID:
        raise StoreError(f"{path} is not a Fandle database: move it away or set FANDLE_HOME elsewhere")
    if sound != "ok":
        raise StoreError(f"{path} is damaged ({sound}): restore a copy or move it away")
    if version is not None and version not in _known_versions():
        raise StoreError(f"{path} was written by a newer Fandle: update this one, or set FANDLE_HOME elsewhere")
