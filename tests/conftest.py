"""Fixtures and helpers shared by all tests."""

import io
import json
import os
import sqlite3
import subprocess
import sys
import traceback
from collections.abc import Iterator
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from typing import Any
from unittest.mock import patch

import pytest
from hypothesis import settings

from fandle.cli import main
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.steps import finish
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.registry import count_steps
from fandle.core.table.model import Table
from fandle.core.table.standards import standard_table
from fandle.store.database import Database

# in CI the same examples every time; a new one found by chance belongs to whoever runs the tests by hand
settings.register_profile("ci", derandomize=True)
if os.environ.get("CI"):
    settings.load_profile("ci")


@pytest.fixture(autouse=True)
def every_database_is_closed(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """What a test opens is closed behind it: from Python 3.13 on SQLite warns of connections that are left open."""
    opened: list[Database | sqlite3.Connection] = []
    begin, connect = Database.__init__, sqlite3.connect

    def begun(database: Database, path: Path) -> None:
        begin(database, path)
        opened.append(database)

    def connected(*given: Any, **more: Any) -> sqlite3.Connection:
        connection: sqlite3.Connection = connect(*given, **more)
        if "uri" not in more:  # else one of a database's own: a pool of a longer life may have it
            opened.append(connection)
        return connection

    monkeypatch.setattr(Database, "__init__", begun)
    monkeypatch.setattr(sqlite3, "connect", connected)
    yield
    for each in opened:
        each.close()


CONTRACT_LAYOUT: dict[str, Any] = {
    "format": "fandle-layout/1",
    "table": "pool-9ft",
    "game": "nine-ball",
    "balls": [
        {"id": "cue", "x": 1.1, "y": 0.55},
        {"id": "7", "x": 5.3, "y": 0.5},
        {"id": "2", "x": 3.2, "y": 0.5},
    ],
    "target": "7",
}


@pytest.fixture(scope="session")
def pool() -> Table:
    """The default nine-foot table."""
    return standard_table("pool-9ft")


@pytest.fixture(scope="session")
def blocked(pool: Table) -> Layout:
    """The layout the contract shows: the 2 stands between the cue ball and the 7."""
    return make(pool, (1.1, 0.55), (5.3, 0.5), (3.2, 0.5))


@pytest.fixture
def layout_file(tmp_path: Path) -> Path:
    """The contract's layout as a file."""
    path = tmp_path / "blocked.fandle.json"
    path.write_text(json.dumps(CONTRACT_LAYOUT))
    return path


def make(table: Table, cue: tuple[float, float], target: tuple[float, float], *others: tuple[float, float]) -> Layout:
    """A nine-ball layout; the target is ball 1, the others follow."""
    balls = [Ball("cue", *cue), Ball("1", *target)]
    balls += [Ball(str(n), *place) for n, place in enumerate(others, 2)]
    return Layout(table, "nine-ball", tuple(balls), "1")


def all_counts(*asked: Any, **more: Any) -> list[Count | NoCount]:
    """Every method on a layout, those that land nearest first."""
    return finish(count_steps(*asked, **more))


def fandle(*args: str, stdin: str | None = None, env: dict[str, str] | None = None) -> subprocess.CompletedProcess[str]:
    """Run the command line here, through its entry point: a process of its own would take two seconds more."""
    out, err, code = io.TextIOWrapper(io.BytesIO(), "utf-8"), io.StringIO(), 1
    given = io.TextIOWrapper(io.BytesIO((stdin or "").encode()), "utf-8")
    with (
        patch.dict(os.environ, env or {}),
        patch.object(sys, "stdin", given),
        redirect_stdout(out),
        redirect_stderr(err),
    ):
        try:
            main(list(args))
        except SystemExit as end:
            code = int(end.code or 0)
        except BaseException:  # noqa: BLE001  (as a process would: printed, and the next call lives)
            traceback.print_exc()
    out.flush()
    printed = out.buffer.getvalue().decode()  # BytesIO
    return subprocess.CompletedProcess(list(args), code, printed, err.getvalue())


def fandle_process(*args: str) -> subprocess.CompletedProcess[str]:
    """Run the command line in a fresh process."""
    return subprocess.run(
        [sys.executable, "-m", "fandle.cli", *args], text=True, capture_output=True, timeout=120, check=False
    )
