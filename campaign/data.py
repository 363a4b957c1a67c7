"""What is kept under bad conditions: a full disk, several processes at once, a very long log."""

import json
import random
import subprocess
import sys
import threading
import time
import uuid
from collections.abc import Iterator
from dataclasses import dataclass, replace
from pathlib import Path

from campaign.drags import question
from campaign.server import Client, Served, serving

from fandle.formats.log import json_parts
from fandle.store import log
from fandle.store.backup import backup
from fandle.store.database import Database
from fandle.web import address
from fandle.web.demo import demo_practice

FULL_KB = 900  # no file may grow beyond
SET_UPS, ATTEMPTS = 1000, 50_000


@dataclass(frozen=True)
class Kept:
    """How many things were acknowledged, and what is wrong with what was found."""

    acknowledged: int
    faults: tuple[str, ...]


def note_of(uid: str) -> dict[str, object]:
    """A note to send."""
    return {"uid": uid, "question": question(1.1, 0.55), "result": "hit"}


def full_disk(home: Path) -> Kept:
    """A server that may write no file beyond a size: it says so, answers on, and what it acknowledged is kept."""
    limit = FULL_KB * 1024
    before = (
        "import resource, signal; signal.signal(signal.SIGXFSZ, signal.SIG_IGN); "
        f"resource.setrlimit(resource.RLIMIT_FSIZE, ({limit}, resource.RLIM_INFINITY))"
    )
    kept, faults, refused = [], [], 0
    with serving(home, demo=True, before=before) as served:
        client = Client(served.port)
        for _ in range(3000):
            uid = str(uuid.uuid4())
            status, reply = client.send("POST", address.ATTEMPTS, note_of(uid))
            if status == 200:
                kept.append(uid)
                continue
            refused += 1
            told = json.loads(reply).get("error", "")
            if status != 503 or "nothing was saved" not in told or str(home) in told:
                faults.append(f"a full disk gives {status}: {reply[:200]!r}")
            if client.send("POST", address.ANSWER, question(1.1, 0.55))[0] != 200 or client.get("/log")[0] != 200:
                faults.append("reading fails while the disk is full")
            if refused >= 5:
                break
        client.close()
    if not refused:
        faults.append("the disk never became full")
    return _all_there(home, kept, faults)


def several_processes(home: Path, seed: int, each: int = 300) -> Kept:
    """A server that notes, three commands that import, one that exports and one that backs up, all at once."""
    rng, made, kept = random.Random(seed), demo_practice(), []
    files = []
    for n in range(3):
        rows = [replace(rng.choice(made), uid=f"import-{n}-{i:06d}", player=f"Player {n}") for i in range(each)]
        kept += [row.uid for row in rows]
        files.append(home / f"import-{n}.json")
        files[-1].write_text("".join(json_parts(rows)))
    faults: list[str] = []
    with serving(home) as served:
        commands = [["import", str(file)] for file in files]
        commands += [["export", str(home / "out.json")], ["backup", str(home / f"copy-{seed}.sqlite3")]]
        env = {"FANDLE_HOME": str(home), "PATH": "/usr/bin:/bin"}
        running = [
            subprocess.Popen(
                [sys.executable, "-m", "fandle.cli", *command], env=env, text=True,
                stdout=subprocess.PIPE, stderr=subprocess.STDOUT,
            )
            for command in commands
        ]  # fmt: skip
        client, lock = Client(served.port), threading.Lock()
        while any(process.poll() is None for process in running):
            uid = str(uuid.UUID(int=rng.getrandbits(128)))
            status, _ = client.send("POST", address.ATTEMPTS, note_of(uid))
            with lock:
                if status == 200:
                    kept.append(uid)
                elif status != 503:
                    faults.append(f"a note gives {status}")
        client.close()
        for command, process in zip(commands, running, strict=True):
            out, _ = process.communicate()
            if process.returncode != 0:
                faults.append(f"{command[0]} ends with {process.returncode}: {out}")
    return _all_there(home, kept, faults)


def _all_there(home: Path, uids: list[str], faults: list[str]) -> Kept:
    database = Database.open(home)
    found = [row.uid for row in log.attempts(database)]
    database.close()
    there = set(found)
    lost = [uid for uid in uids if uid not in there]
    if lost:
        faults.append(f"{len(lost)} acknowledged attempts are lost, {lost[0]} first")
    if len(there) != len(found):
        faults.append("attempts are kept twice")
    return Kept(len(uids), tuple(faults))


@dataclass(frozen=True)
class LongLog:
    """The Log room on a long log: seconds (median of five), bytes, memory grown (kB); exports' seconds and memory."""

    seconds: float
    size: int
    grown_kb: int
    export_s: float
    export_kb: int


def fill(home: Path, attempts: int = ATTEMPTS, set_ups: int = SET_UPS) -> None:
    """A log of so many attempts in so many set-ups."""
    rng, made = random.Random(1), demo_practice()
    database = Database.open(home)

    def rows() -> Iterator[log.Noted]:
        for n in range(attempts):
            row = rng.choice(made)
            yield replace(row, uid=f"long-{n:08d}", set_up=f"7|far|cue:{n % set_ups / 500:.3f},1.00;7:5.30,0.50")

    log.note_all(database, rows())
    database.close()


def long_log(served: Served) -> LongLog:
    """Open the Log room of a filled log, then export it."""
    client = Client(served.port)
    client.get("/")
    client.get("/log?before=1")  # a page without attempts: what it loads (scipy, 45 MB) is not the log's
    before, took, size = served.memory_kb, [], 0
    for _ in range(5):
        start = time.perf_counter()
        _, page = client.get("/log")
        took.append(time.perf_counter() - start)
        size = len(page)
    grown = served.memory_kb - before
    start = time.perf_counter()
    for path in (address.LOG_CSV, address.LOG_JSON):
        client.get(path)
    export_s, export_kb = time.perf_counter() - start, served.memory_kb - before
    client.close()
    return LongLog(sorted(took)[2], size, grown, export_s, export_kb)


def backed_up_while_written(home: Path) -> Kept:
    """A copy made while a server writes is whole, and holds all that was acknowledged before it began."""
    kept: list[str] = []
    faults: list[str] = []
    with serving(home) as served:
        going = True

        def write() -> None:
            client = Client(served.port)
            while going:
                uid = str(uuid.uuid4())
                if client.send("POST", address.ATTEMPTS, note_of(uid))[0] == 200:
                    kept.append(uid)
            client.close()

        writer = threading.Thread(target=write)
        writer.start()
        time.sleep(1.0)
        acknowledged = list(kept)
        copies = home / "copies"
        copies.mkdir(exist_ok=True)
        backup(home, copies / "fandle.sqlite3")
        going = False
        writer.join()
    return _all_there(copies, acknowledged, faults)
