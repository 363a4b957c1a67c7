"""SIGKILL and a full disk at random points of whatever takes in a whole file: all of it is kept, or nothing, and the
sentence that says so is true. Of an import, of results, of a restore, and of every migration."""

import io
import json
import os
import random
import resource
import shutil
import signal
import sqlite3
import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cache, partial
from pathlib import Path

from alembic import command
from campaign.hostile_files import many
from sqlalchemy import create_engine

from fandle.core.errors import FandleError
from fandle.formats.log import json_parts
from fandle.store.backup import backup, restore
from fandle.store.database import APPLICATION_ID, FILE, Database
from fandle.store.log_files import take_in
from fandle.store.migrations_config import config_of, known_versions
from fandle.store.practice_files import take_in as take_results_in
from fandle.store.schema import foreign_to

ATTEMPTS = 3_000
TRIES = 20_000
SAYS = b"nothing was "  # how a refusal that kept nothing begins


@dataclass(frozen=True)
class Halved:
    """How often it was stopped, how often it was done all the same, and what is wrong."""

    stopped: int
    done: int
    faults: tuple[str, ...]


def _child(work: Callable[[], None], limit: int | None) -> tuple[int, int]:
    """(process, the end of a pipe that its sentence comes through) of work that is under way. limit: of any file."""
    reads, writes = os.pipe()
    process = os.fork()
    if process:
        os.close(writes)
        return process, reads
    os.close(reads)
    code = 0
    try:
        if limit is not None:
            signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
            resource.setrlimit(resource.RLIMIT_FSIZE, (limit, limit))
        work()
    except FandleError as told:
        os.write(writes, str(told).encode()[:2000])
        code = 2
    except BaseException as wrong:  # noqa: BLE001  (anything else is a fault, and the parent says so)
        os.write(writes, repr(wrong).encode()[:2000])
        code = 3
    os._exit(code)


def _stopped(work: Callable[[], None], after: float) -> int:
    """Kill work after so many seconds; its exit code, −9 where it was killed."""
    process, pipe = _child(work, None)
    time.sleep(after)
    os.kill(process, signal.SIGKILL)
    _, status = os.waitpid(process, 0)
    os.close(pipe)
    return os.waitstatus_to_exitcode(status)


def _on_a_full_disk(work: Callable[[], None], limit: int) -> tuple[int, bytes]:
    """(exit code, what it says) of work on a disk where no file grows beyond so many bytes."""
    process, pipe = _child(work, limit)
    _, status = os.waitpid(process, 0)
    told = os.read(pipe, 4000)
    os.close(pipe)
    return os.waitstatus_to_exitcode(status), told


def _count(home: Path, table: str) -> int:
    with sqlite3.connect(home / FILE) as connection:
        found = int(connection.execute(f"select count(*) from {table}").fetchone()[0])
    connection.close()
    return found


def _took(work: Callable[[], None]) -> float:
    start = time.perf_counter()
    process, pipe = _child(work, None)
    os.waitpid(process, 0)
    os.close(pipe)
    return time.perf_counter() - start


@dataclass(frozen=True)
class Case:
    """What takes in a whole file: into which folder, and of which table how many records are there then."""

    name: str
    fresh: Callable[[Path], None]
    work: Callable[[Path], None]
    table: str
    all_of_it: int


def _import(home: Path) -> None:
    database = Database.open(home)
    take_in(database, io.BytesIO(log_file()), "Somebody")


def _results(home: Path) -> None:
    database = Database.open(home)
    take_results_in(database, io.BytesIO(results_file()), "Somebody")


@cache
def log_file() -> bytes:
    """A log to be taken in."""
    return "".join(json_parts(replace(row, player="Somebody") for row in many(ATTEMPTS))).encode()


@cache
def results_file() -> bytes:
    """A player's results to be taken in."""
    tries = [
        {"uid": f"k{n}", "made_at": "2026-01-01T00:00:00+00:00", "drill": "freeze", "table": "any", "made": n % 2 == 0}
        for n in range(TRIES)
    ]
    return json.dumps({"format": "fandle-practice/1", "player": "Somebody", "tries": tries}).encode()


def _empty(home: Path) -> None:
    shutil.rmtree(home, ignore_errors=True)
    Database.open(home).close()


def stopped_often(folder: Path, times: int, seed: int) -> Halved:
    """Imports and results, killed and on a full disk, so often each."""
    log_file(), results_file()  # made before anything is stopped
    rng, home = random.Random(seed), folder / "home"
    done, faults = 0, list[str]()
    for case in (
        Case("import", _empty, _import, "attempt", ATTEMPTS),
        Case("results", _empty, _results, "drill_try", TRIES),
    ):
        case.fresh(home)
        took = _took(partial(case.work, home))
        size = (home / FILE).stat().st_size
        for _ in range(times):
            case.fresh(home)
            code = _stopped(partial(case.work, home), rng.uniform(0, 1.1 * took))
            done += _whole(case, home, code, b"", faults)
        for _ in range(times):
            case.fresh(home)
            told = _on_a_full_disk(partial(case.work, home), round(rng.uniform(0.2, 1.1) * size))
            done += _whole(case, home, *told, faults)
    return Halved(4 * times, done, tuple(faults))


def _whole(case: Case, home: Path, code: int, told: bytes, faults: list[str]) -> bool:
    """Is all of it there? Where neither all nor nothing is, or the sentence is not true, that is a fault."""
    found = _count(home, case.table)
    if found not in (0, case.all_of_it):
        faults.append(f"{case.name}: {found} of {case.all_of_it} are kept, exit {code}")
    if code == 0 and found != case.all_of_it:
        faults.append(f"{case.name}: done, and {found} are there")
    if code == 2 and (SAYS not in told or found):
        faults.append(f"{case.name}: {found} are there, and it says {told!r}")
    if code not in (0, 2, -signal.SIGKILL):
        faults.append(f"{case.name}: exit {code}, {told!r}")
    return found == case.all_of_it


def restored_often(folder: Path, times: int, seed: int) -> Halved:
    """A restore, killed so often: the folder holds one of the two databases, whole."""
    rng, home, done, faults = random.Random(seed), folder / "restored", 0, list[str]()
    log_file(), results_file()
    _empty(home)
    _results(home)
    copy = folder / "copy.sqlite3"
    backup(home, copy)

    def fresh() -> None:
        _empty(home)
        _import(home)

    fresh()
    took = _took(lambda: _restored(home, copy))
    for _ in range(times):
        fresh()
        code = _stopped(lambda: _restored(home, copy), rng.uniform(0, 1.1 * took))
        database = Database.open(home)  # it starts
        database.close()
        there = (_count(home, "attempt"), _count(home, "drill_try"))
        if there not in ((ATTEMPTS, 0), (0, TRIES)):
            faults.append(f"restore: {there} are there, exit {code}")
        done += there == (0, TRIES)
    return Halved(times, done, tuple(faults))


def _restored(home: Path, copy: Path) -> None:
    restore(home, copy)


def at_version(folder: Path, version: str) -> None:
    """A database of an earlier version, with a player in it."""
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    engine = create_engine(f"sqlite:///{folder / FILE}")
    with engine.connect() as connection:
        connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
        config = config_of()
        config.attributes["connection"] = connection
        command.upgrade(config, version)
        connection.exec_driver_sql("insert into club (name) values ('The Tin Lantern')")
        connection.exec_driver_sql("insert into player (nickname, club_id) values ('Pepper', 1)")
        connection.commit()
    engine.dispose()


def migrated_often(folder: Path, times: int, seed: int) -> Halved:
    """The way from every version to this one, killed so often: the next start comes through, and nobody is lost."""
    rng, home, done, faults = random.Random(seed), folder / "migrated", 0, list[str]()
    newest = max(known_versions())
    for version in sorted(known_versions() - {newest}):
        at_version(home, version)
        took = _took(lambda: Database.open(home).close())
        for _ in range(times):
            at_version(home, version)
            code = _stopped(lambda: Database.open(home).close(), rng.uniform(0, 1.1 * took))
            done += code == 0
            database = Database.open(home)
            database.close()
            with sqlite3.connect(home / FILE) as connection:
                foreign = foreign_to(connection, newest)
                names = connection.execute("select nickname from player").fetchall()
            connection.close()
            if foreign or names != [("Pepper",)]:
                faults.append(f"migration from {version}: {foreign} {names}, exit {code}")
    return Halved(times * (len(known_versions()) - 1), done, tuple(faults))
