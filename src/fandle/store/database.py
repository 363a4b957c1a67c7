"""Opening, migrating, reading and writing the database."""

import json
import os
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from alembic import command
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import DatabaseError, OperationalError
from sqlalchemy.orm import Session
from sqlalchemy.pool import NullPool, QueuePool

from fandle.store.errors import BusyStoreError, StoreError, Unreadable
from fandle.store.folder import close_off, make_private
from fandle.store.migrations_config import config_of, head, known_versions

APPLICATION_ID = 0x46414E44  # "FAND": marks the file as ours
BUSY_MS = 5000
FILE = "fandle.sqlite3"
BACKUPS = "backups"  # folder of copies made before a migration or a restore


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
        path = folder / FILE
        make_private(folder)
        version = check_file(path)
        close_off(path)
        if version is not None and version != head():
            copy(path, copy_path(path, f"before-{head()}"))
        database = cls(path)
        database.migrate()
        return database

    def migrate(self) -> None:
        """Bring it to the newest version, all of it or nothing. Raises StoreError."""
        config = config_of()
        try:
            with self._lock, self._writer.connect() as connection:
                connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                connection.commit()
        except DatabaseError as fault:
            raise StoreError(_refused(f"cannot write {self.path}", fault.orig)) from None

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
            raise StoreError(_refused("nothing was saved", fault.orig)) from None

    def close(self) -> None:
        """Let go of the file."""
        self._reader.dispose()
        self._writer.dispose()


def connect(path: Path, mode: str) -> sqlite3.Connection:
    """The very file at `path`, whatever characters its name has. mode: ro, rw or rwc."""
    return sqlite3.connect(f"{path.absolute().as_uri()}?mode={mode}", uri=True, check_same_thread=False)


def copy_path(path: Path, why: str) -> Path:
    """A free name for a copy of the database at `path`, made now."""
    stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S-%f")
    return path.parent / BACKUPS / f"{why}-{stamp}.sqlite3"


def copy(source: Path, target: Path) -> None:
    """A whole copy by SQLite's own backup, also while the database is in use, in a new file that only its owner reads.

    Where that fails nothing is left of it.
    """
    made = False
    try:
        target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        os.close(os.open(target, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600))
        made = True
        with _closed(connect(source, "ro")) as old, _closed(connect(target, "rw")) as new:
            old.backup(new)
        synced(target)
    except (OSError, sqlite3.Error) as fault:
        if made:
            target.unlink(missing_ok=True)
        raise StoreError(f"cannot write the copy {target} ({fault}): check the folder's space and rights") from None


def synced(path: Path) -> None:
    """What a file holds, and its name in the folder, are on the disk when this returns."""
    for each in (path, path.parent):
        handle = os.open(each, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


@contextmanager
def _closed(connection: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    try:
        yield connection
    finally:
        connection.close()


def lenient(text: Any) -> Any:
    """A JSON column's value; one malformed record must not take all others with it."""
    if isinstance(text, int | float):  # as SQLite keeps a bare number
        return text
    try:
        return json.loads(text)
    except (ValueError, RecursionError, TypeError):
        return Unreadable(str(text))


def _engine(path: Path, mode: str) -> Engine:
    pool: Any = QueuePool if mode == "ro" else NullPool  # a page reads several times; writers are one at a time
    engine = create_engine("sqlite://", creator=lambda: connect(path, mode), poolclass=pool, json_deserializer=lenient)

    @event.listens_for(engine, "connect")
    def prepare(connection: Any, _record: Any) -> None:
        connection.text_factory = lambda raw: raw.decode("utf-8", "replace")
        connection.execute("PRAGMA foreign_keys = ON")
        connection.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
        if mode != "ro":
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")  # what is acknowledged is on the disk
            connection.isolation_level = None  # the transaction is begun below

    if mode != "ro":

        @event.listens_for(engine, "begin")
        def take_turns(connection: Any) -> None:
            # a transaction that reads first and writes then would be refused at once where another process wrote
            # in between; one that means to write from the start waits for its turn
            connection.exec_driver_sql("BEGIN IMMEDIATE")

    return engine


def _is_busy(fault: object) -> bool:
    return "locked" in str(fault) or "busy" in str(fault)


def _refused(what: str, fault: object) -> str:
    """Why SQLite refuses, with the remedy that fits."""
    text = str(fault)
    if _is_busy(fault):
        return f"{what}: another program holds the database; close that, or try again in a moment"
    if "readonly" in text or "unable to open" in text:
        return f"{what} ({text}): check the rights of the database and its folder"
    if "full" in text:
        return f"{what} ({text}): free some space on the disk, then try again"
    return f"{what} ({text}): check the data folder's space and rights, then try again"


def _version(connection: sqlite3.Connection) -> str | None:
    """The migration a database stands at; None before its first."""
    known = connection.execute("select 1 from sqlite_master where name = 'alembic_version'").fetchone()
    row = connection.execute("select version_num from alembic_version").fetchone() if known else None
    return None if row is None else str(row[0])


def _take_back(path: Path) -> None:
    """What a program that was stopped left half written is taken back, as SQLite does it: by one that may write.

    Its journal lies beside the file then, and whoever may only read is refused. Only of a file that is ours by its
    header, where the application's mark stands from byte 68 on (sqlite.org/fileformat2.html).
    """
    journal = Path(f"{path}-journal")
    if not journal.exists() or journal.stat().st_size == 0:
        return
    with path.open("rb") as file:
        head = file.read(72)
    if int.from_bytes(head[68:72], "big") == APPLICATION_ID and os.access(path, os.W_OK):
        with _closed(connect(path, "rw")) as connection:
            connection.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
            connection.execute("select count(*) from sqlite_master").fetchone()


def check_file(path: Path) -> str | None:
    """Refuse a file that is not a Fandle database, without touching it; else the migration it stands at.

    None where there is no file yet, or an empty one.
    """
    try:
        if not path.exists() or path.stat().st_size == 0:
            return None
        _take_back(path)
        with _closed(connect(path, "ro")) as connection:
            connection.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
            mark = connection.execute("PRAGMA application_id").fetchone()[0]
            sound = connection.execute("PRAGMA quick_check").fetchone()[0]
            version = _version(connection)
    except OSError as fault:
        raise StoreError(f"cannot look at {path} ({fault.strerror}): check its rights, or set FANDLE_HOME") from None
    except sqlite3.OperationalError as fault:
        kind = BusyStoreError if _is_busy(fault) else StoreError
        raise kind(_refused(f"cannot read {path}", fault)) from None
    except sqlite3.DatabaseError as fault:
        raise StoreError(
            f"{path} is not a readable database ({fault}): move it away or set FANDLE_HOME elsewhere"
        ) from None
    if mark != APPLICATION_ID:
        raise StoreError(f"{path} is not a Fandle database: move it away or set FANDLE_HOME elsewhere")
    if sound != "ok":
        raise StoreError(f"{path} is damaged ({sound}): restore a copy or move it away")
    if version is not None and version not in known_versions():
        raise StoreError(f"{path} was written by a newer Fandle: update this one, or set FANDLE_HOME elsewhere")
    return version
