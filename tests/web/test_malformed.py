"""Whatever stands in a record, every page opens and every file goes out, or says in the middle that it cannot go on."""

import json
import sqlite3
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from tests.amount import amount
from tests.conftest import CONTRACT_LAYOUT
from tests.web.conftest import local_client

from fandle.web import address
from fandle.web.app import create_app
from fandle.web.settings import Settings

NASTY = (
    "'x'", "''", "x'fffe00'", "1e308", "-1", "9007199254740993", "'²'", "'null'", "'[]'", "'{}'", "'1e999'",
    "'{\"speed\": 1e999, \"nose\": 1e999, \"difficulty\": 1e999, \"cards\": {\"sum\": \"x\"}}'",
    "'[[[[[[[[[[[[[[[[[[[[[[[[[1]]]]]]]]]]]]]]]]]]]]]]]]]'", "'9999-12-31T23:59:59+00:00'",
    "'0001-01-01T00:00:00-14:00'", "'2026-11-30T10:00:00'", "'\u202e<script>'",
)  # fmt: skip
SOLVED = ("/compare", "/check", "/handbook")  # slow, and they read only what can be played on and how
PLAYED = ("club_table", "club_cue", "named_layout", "preference", "table_version")
KEYS = {"id", "alembic_version.version_num"}  # what records are known by
PAGES = (
    "/", "/log", "/log?result=hit", "/club", "/check", "/practice", "/compare", "/handbook", "/devices",
    address.LOG_CSV, address.LOG_JSON, address.RESULTS, address.SIDE_BY_SIDE, address.PROGRESS, address.LAYOUTS,
    address.OWN_DRILLS, address.PLAYER, f"{address.DRILL_SET}?drills=freeze",
)  # fmt: skip
POSTS = {
    address.TONIGHT: {"table": "pool-9ft", "minutes": 20},
    address.ASK: {"table": "pool-9ft"},
    address.ANSWER: {"layout": CONTRACT_LAYOUT, "rails": "far"},
    address.ATTEMPTS_HERE: {"layout": CONTRACT_LAYOUT, "rails": "far"},
}


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """A club in which there is something of everything."""
    app = create_app(Settings(tmp_path_factory.mktemp("home"), demo=True, beyond=True))
    with local_client(app) as client:
        note = {"question": {"layout": CONTRACT_LAYOUT, "rails": "far"}, "result": "short"}
        for n in range(len(NASTY)):
            assert client.post(address.ATTEMPTS, json={**note, "uid": f"malformed-{n:02d}"}).status_code == 200
        more = {"touched": [{"rail": "foot", "at": 1.0}], "stopped_x": 1.0, "stopped_y": 1.0, "at": 3.0}
        client.patch(f"{address.ATTEMPTS}/malformed-00", json=more)
        query = "table=pool-9ft&balls=cue:1.2,1.1;7:5.4,0.9&target=7&speed=3&rails=far"
        made = client.post(address.OWN_DRILLS, json={"query": query, "title": "Mine"}).json()
        client.post(
            address.TRIES, json={"uid": "malformed-try", "table": "pool-9ft", "drill": made["key"], "made": True}
        )
        client.post(address.CLUB_TABLES, json={"base": "pool-9ft", "name": "Mine"})
        whole = client.get(address.SAVE_TABLE, params={"name": "Mine"}).json()
        own = {**CONTRACT_LAYOUT, "table": "Mine"}
        client.post(address.ATTEMPTS, json={**note, "uid": "on-mine-01", "question": {"layout": own, "rails": "far"}})
        table = next(row.id for row in app.state.library.standing() if row.label == "Mine")
        client.put(f"{address.CLUB_TABLES}/{table}", json={"base": "Mine", "whole": {**whole, "cloth_rolling": 0.02}})
        asked = client.post(address.ASK, json={"table": "pool-9ft", "topic": "one rail"}).json()
        reply = {name: asked[name] for name in ("topic", "seed", "difficulty")}
        client.post(
            address.REPLY, json={**reply, "uid": "malformed-q", "table": "pool-9ft", "given": 2.0, "seconds": 3}
        )
        client.put(address.PREFERENCES, json={"tip_mm": 12, "system": "M3", "cue": "house"})
        client.put(address.PLAYER, json={"by": "strong"})
        app.state.devices._let_in("Phone")
        yield client


def columns(path: Path) -> list[tuple[str, str]]:
    with sqlite3.connect(path) as connection:
        names = [row[0] for row in connection.execute("select name from sqlite_master where type = 'table'")]
        found = [(name, row[1]) for name in names for row in connection.execute(f"pragma table_info({name})")]
    connection.close()
    return [(table, column) for table, column in found if not {column, f"{table}.{column}"} & KEYS]


def spoil(path: Path, table: str, column: str) -> None:
    """Something else that is nasty in that column of every record, as far as its constraints let it."""
    with sqlite3.connect(path) as connection:
        for key, *_ in connection.execute(f"select rowid from {table} order by rowid").fetchall():
            for n in range(len(NASTY)):
                value = NASTY[(key + n) % len(NASTY)]
                try:
                    connection.execute(f"update {table} set {column} = {value} where rowid = {key}")
                    break
                except sqlite3.IntegrityError:
                    continue  # a name that another record has: the next one
    connection.close()


@pytest.mark.proof
def test_every_column_of_every_record_may_be_malformed(club: TestClient, tmp_path: Path) -> None:
    """One column after the other, all records at once. Every reader of the database is in these pages.

    In every run each column meets every third page, with the next column the next ones.
    """
    state = club.app.state  # type: ignore[attr-defined]  # FastAPI
    path, faults, tried = state.database.path, [], 0
    sound = tmp_path / "sound"
    _copy(path, sound)
    every = amount(3, 1)
    for n, (table, column) in enumerate(columns(path)):
        spoil(path, table, column)
        state.library.forget()
        for page in PAGES[n % every :: every]:
            if page in SOLVED and table not in PLAYED:
                continue
            tried += 1
            fault = _fault(club, page)
            if fault:
                faults.append(f"{table}.{column}: {page}: {fault}")
        for page, body in POSTS.items():
            if page == address.ANSWER and table not in PLAYED:
                continue
            try:
                status = club.post(page, json=body).status_code
            except Exception as error:  # noqa: BLE001  (told as a fault)
                faults.append(f"{table}.{column}: {page}: {error!r}")
                continue
            if status not in (200, 422):
                faults.append(f"{table}.{column}: {page}: {status}")
        _copy(sound, path)
    state.library.forget()
    assert tried > amount(200, 600)
    assert faults == []


def _fault(club: TestClient, page: str) -> str:
    """What is wrong with a page; "" where nothing is."""
    try:
        reply = club.get(page)
    except Exception as error:  # noqa: BLE001  (told as a fault)
        return repr(error)
    if reply.status_code != 200:
        return f"{reply.status_code} {reply.text[:200]}"
    if reply.headers["content-type"] == "application/json":
        json.loads(reply.text, parse_constant=_refused)
    return "it breaks off" if "breaks off here" in reply.text else ""


def _refused(text: str) -> None:
    raise ValueError(f"{text} is no JSON")


def _copy(source: Path, target: Path) -> None:
    with sqlite3.connect(source) as old, sqlite3.connect(target) as new:
        old.backup(new)
    old.close()
    new.close()
