"""What a database of each version holds: a file that holds anything else is none of ours.

A copy that is brought back may come from anybody. A trigger in it would run at the next note, a view would answer in a
table's place, a missing column stop the first start.
"""

import sqlite3
from typing import NamedTuple

from alembic import command
from sqlalchemy import create_engine
from sqlalchemy.pool import StaticPool

from fandle.store.migrations_config import config_of

Column = tuple[object, ...]


class Shape(NamedTuple):
    """Tables with their columns (name, type, not null, default, key, hidden), and what else there is by name."""

    tables: dict[str, list[Column]]
    others: set[tuple[str, str]]


def shape_of(connection: sqlite3.Connection) -> Shape:
    """What a database holds, but for what SQLite keeps for itself."""
    rows = connection.execute("select type, name, sql from sqlite_master where name not like 'sqlite\\_%' escape '\\'")
    tables, others = {}, set()
    for kind, name, sql in rows.fetchall():
        if kind == "table" and str(sql).lstrip().upper().startswith("CREATE TABLE"):
            quoted = '"' + str(name).replace('"', '""') + '"'
            found = connection.execute(f"PRAGMA table_xinfo({quoted})").fetchall()
            tables[str(name)] = [tuple(column[1:]) for column in found]
        else:
            others.add((str(kind) if kind != "table" else "virtual table", str(name)))
    return Shape(tables, others)


def shape_at(version: str) -> Shape:
    """What a database holds that was migrated so far and no further."""
    engine = create_engine("sqlite://", poolclass=StaticPool)
    try:
        with engine.connect() as connection:
            config = config_of()
            config.attributes["connection"] = connection
            command.upgrade(config, version)
            connection.commit()
            raw = connection.connection.driver_connection
            return shape_of(raw) if isinstance(raw, sqlite3.Connection) else Shape({}, set())
    finally:
        engine.dispose()


def foreign_to(connection: sqlite3.Connection, version: str) -> str:
    """What a database of this version holds that is not ours, or lacks, in words; "" where it is as it should be."""
    here, ours = shape_of(connection), shape_at(version)
    for kind, name in sorted(here.others - ours.others):
        return f"it holds a {kind} of its own, {name!r}"
    for name in sorted(set(here.tables) ^ set(ours.tables)):
        return f"it holds a table of its own, {name!r}" if name in here.tables else f"it has no table {name!r}"
    for name, columns in ours.tables.items():
        if here.tables[name] != columns:
            return f"its table {name!r} has other columns"
    return ""
