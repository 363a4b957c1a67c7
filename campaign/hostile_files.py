"""Files as an attacker makes them, against a server that may not take 100 MB more than it has: refused or taken in, and
never for more than 50 MB of memory."""

import base64
import json
import resource
import zlib
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from http.client import HTTPException
from pathlib import Path
from typing import Any

from campaign.server import Client, Served

from fandle.core.table.standards import standard_table
from fandle.formats.log import csv_parts, json_parts
from fandle.formats.tables import table_json
from fandle.web import address
from fandle.web.demo import demo_practice

MAY_GROW_KB, HARD_KB = 50_000, 100_000  # what one file may cost; what the process is held to
MB = 1_000_000
JSON, CSV, TEXT = "application/json", "text/csv", "text/plain"
Body = Callable[[], bytes]


@dataclass(frozen=True)
class File:
    """One file: what it is called here, where it is sent, as what, and what is in it."""

    name: str
    path: str
    kind: str
    body: Body


@dataclass(frozen=True)
class Attacked:
    """How many files, the most that one cost (kB), and what is wrong."""

    files: int
    worst_kb: int
    worst: str
    faults: tuple[str, ...]


def many(count: int, table: Callable[[int], Any] | None = None) -> Iterator[Any]:
    """So many attempts of the demo club's, under names of their own."""
    made = demo_practice()
    for n in range(count):
        row = replace(made[n % len(made)], uid=f"hostile-{n:08d}", player="Somebody")
        yield row if table is None else replace(row, layout={**row.layout, "table": table(n)})


def _log(row: str) -> bytes:
    return b'{"format": "fandle-log/1", "attempts": [' + row.encode() + b"]}"


def _one(**change: Any) -> str:
    return json.dumps({**vars(next(many(1))), **change})


def _own_table(n: int) -> Any:
    return {**table_json(standard_table("pool-9ft")), "name": f"Table {n}", "cloth_rolling": 0.008 + n * 1e-7}


def files() -> list[File]:
    """Every way to make a reader grow that we know."""
    into: list[tuple[str, Body]] = [
        ("20 kB of [", lambda: b"[" * 20_000),
        ("3 MB of [", lambda: b"[" * 3 * MB),
        ("3 MB of [ as attempts", lambda: b'{"format": "fandle-log/1", "attempts": [' + b"[" * 3 * MB),
        ('3 MB of {"a":', lambda: b'{"a":' * 600_000),
        ("3 MB of [ within an attempt", lambda: _log(_one(touched="@").replace('"@"', "[" * 3 * MB))),
        ("a text of 90 MB", lambda: b'{"format": "' + b"x" * 90 * MB),
        ("a text of 90 MB in an attempt", lambda: _log(_one(comment="x" * 90 * MB))),
        ("90 MB of numbers", lambda: b'{"format": "fandle-log/1", "attempts": [' + b"1," * 45 * MB),
        ("90 MB of [],", lambda: b'{"format": "fandle-log/1", "attempts": [' + b"[]," * 30 * MB),
        ("a number of 5,000 digits", lambda: _log(_one(off=7).replace('"off": 7', '"off": ' + "7" * 5000))),
        ("a number of 50 MB", lambda: _log(_one(off=7).replace('"off": 7', '"off": ' + "7" * 50 * MB))),
        ("90 MB of blanks", lambda: b" " * 90 * MB),
        ("quotes and backslashes", lambda: b'{"format": "' + b'\\"' * 20 * MB),
        ("20,000 keys", lambda: _log("{" + ",".join(f'"k{n}": 1' for n in range(20_000)) + "}")),
        ("5,000 tables", lambda: "".join(json_parts(many(5000, _own_table))).encode()),
        ("50,000 attempts", lambda: "".join(json_parts(many(50_000))).encode()),
    ]
    cells: list[tuple[str, Body]] = [
        ("one line of 90 MB", lambda: b"a," * 45 * MB),
        ("a cell that never ends", lambda: "".join(csv_parts(many(1))).encode() + b'"' + b"x\n" * 40 * MB),
        ("a cell nested 100,000 deep", lambda: "".join(csv_parts(many(1))).replace('"{', '"' + "[" * 100_000).encode()),
        ("50,000 lines", lambda: "".join(csv_parts(many(50_000))).encode()),
    ]
    head = b'{"format": "fandle-practice/1", "player": "Somebody", '
    tries = ",".join(
        f'{{"uid": "h{n}", "made_at": "2026-01-01T00:00:00+00:00", "drill": "freeze", "table": "any", "made": true}}'
        for n in range(1000)
    )
    handed: list[tuple[str, Body]] = [
        ("results nested 1 MB deep", lambda: head + b'"tries": ' + b"[" * MB),
        ("results of 60 MB of nothing", lambda: head + b'"own": [' + b"{}," * 20 * MB),
        ("results of 300,000 tries", lambda: head + b'"tries": [' + _tries(tries) + b"]}"),
    ]
    small: list[tuple[str, str, str, Body]] = [
        ("a layout nested 900 kB deep", address.READ_LAYOUT, TEXT, lambda: b"[" * 900_000),
        ("a table nested 900 kB deep", address.READ_TABLE, TEXT, lambda: b'{"a":' * 180_000),
        ("a set nested 900 kB deep", address.READ_SET, TEXT, lambda: b"[" * 900_000),
        ("a question nested 900 kB deep", address.ANSWER, JSON, lambda: b"[" * 900_000),
        ("a question of a million quotes", address.ANSWER, JSON, lambda: b'"' * 990_000),
    ]
    named = f"{address.LOG_IMPORT}?player=Somebody"
    found = [File(name, named, JSON, body) for name, body in into]
    found += [File(name, named, CSV, body) for name, body in cells]
    found += [File(name, address.READ_RESULTS, JSON, body) for name, body in handed]
    return found + [File(name, path, kind, body) for name, path, kind, body in small]


def _tries(thousand: str) -> bytes:
    return b",".join(thousand.replace('"h', f'"h{n}-').encode() for n in range(300))


def links() -> list[str]:
    """Links whose table is none."""
    texts = [b"[" * 59_000, b'{"a":' * 12_000, b" " * 50 * MB, b"7" * 59_000]
    return [base64.urlsafe_b64encode(zlib.compress(text, 9)).decode().rstrip("=") for text in texts]


def peak_kb(process: int) -> int:
    """The most memory a process has had since the last look, which is forgotten."""
    found = 0
    for line in Path(f"/proc/{process}/status").read_text().splitlines():
        if line.startswith("VmHWM"):
            found = int(line.split()[1])
    with suppress(OSError):
        Path(f"/proc/{process}/clear_refs").write_text("5")
    return found


def hold(process: int, more_kb: int) -> None:
    """Let a process have so much more memory than it has, and no more."""
    now = next(
        int(line.split()[1])
        for line in Path(f"/proc/{process}/status").read_text().splitlines()
        if line.startswith("VmData")
    )
    resource.prlimit(process, resource.RLIMIT_DATA, ((now + more_kb) * 1024, resource.RLIM_INFINITY))


def attacked(served: Served, only: int | None = None) -> Attacked:
    """All files at a server, one after the other; only: the first so many."""
    client = Client(served.port, 300.0)
    client.get("/")
    client.get("/practice")
    client.ask("POST", f"{address.LOG_IMPORT}?player=Somebody", "".join(json_parts(many(600))).encode(), JSON)
    idle = served.memory_kb
    hold(served.process.pid, HARD_KB)
    faults: list[str] = []
    worst_kb, worst = 0, ""
    sent = files()[:only]
    for file in sent:
        peak_kb(served.process.pid)
        faults += _fault(client, served, file)
        grown = peak_kb(served.process.pid) - idle
        if grown > worst_kb:
            worst_kb, worst = grown, file.name
        if grown > MAY_GROW_KB:
            faults.append(f"{file.name}: {grown / 1000:.0f} MB")
    for link in links():
        status, _ = client.get(f"/?table=x&balls=cue:2,1;1:6,1&target=1&own={link}")
        if status not in (200, 414):
            faults.append(f"a hostile link gives {status}")
    client.close()
    return Attacked(len(sent) + len(links()), worst_kb, worst, tuple(faults))


def _fault(client: Client, served: Served, file: File) -> list[str]:
    """What is wrong with what comes of a file."""
    try:
        status, reply = client.ask("POST", file.path, file.body(), file.kind)
        if status not in (200, 400, 413, 422):
            return [f"{file.name}: {status} {reply[:200]!r}"]
    except (OSError, HTTPException) as broken:  # refused in the middle of the upload
        client.close()
        if served.process.poll() is not None:
            return [f"{file.name}: the server is gone ({served.process.returncode})"]
        if not isinstance(broken, BrokenPipeError | ConnectionResetError):
            return [f"{file.name}: {broken!r}"]
    return [] if client.get(address.HEALTH)[0] == 200 else [f"{file.name}: the server does not answer any more"]
