"""A large club: every page within a second, a note within a tenth, the first page no longer than 300 kB."""

import json
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from campaign.drags import question
from campaign.server import Client, Served
from sqlalchemy import insert

from fandle.core.table.standards import standard_table
from fandle.formats.practice import OwnDrillFile
from fandle.formats.tables import table_json
from fandle.store import log
from fandle.store.database import Database
from fandle.store.models import ClubTable, DrillTry, NamedLayout, OwnDrill, Player
from fandle.web import address
from fandle.web.demo import demo_practice

LAYOUTS, TABLES, DRILLS, PLAYERS, ATTEMPTS, TRIES = 10_000, 1_000, 3_000, 50, 50_000, 22_000
PAGE_S, NOTE_S, FIRST_BYTES = 1.0, 0.1, 300_000
PAGES = (
    "/", "/log", "/club", "/check", "/practice", "/compare", "/handbook", "/handbook/M3", "/devices", address.LAYOUTS,
    f"{address.LAYOUTS}?find=99", address.OWN_DRILLS, address.SIDE_BY_SIDE, "/club?table=Table+999", "/log?part=50",
)  # fmt: skip
LAYOUT = {
    "format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "target": "7",
    "balls": [{"id": "cue", "x": 1.1, "y": 0.55}, {"id": "7", "x": 5.3, "y": 0.5}],
}  # fmt: skip


@dataclass(frozen=True)
class Large:
    """The slowest page and how long it took (s), a note's and a try's median (s), the first page's bytes, the export of
    results and the player's scatter from the log (s), and what is wrong."""

    page: str
    page_s: float
    note_s: float
    try_s: float
    first_bytes: int
    results_s: float
    steady_s: float
    others_s: float
    faults: tuple[str, ...]


def fill(home: Path, share: float = 1.0, players: int = PLAYERS) -> None:
    """A club with so much of everything."""
    database = Database.open(home)
    base, when = table_json(standard_table("pool-9ft")), "2026-01-01T00:00:00+00:00"
    drill = OwnDrillFile.model_validate(
        {"title": "Mine", "layout": LAYOUT, "rails": "far", "lengths": 2.5, "wanted_hits": 5}
    )
    with database.write() as session:
        session.execute(
            insert(Player), [{"nickname": f"Player {n}", "club_id": 1, "is_me": False} for n in range(players)]
        )
        session.execute(
            insert(ClubTable),
            [
                {"label": f"Table {n}", "club_id": 1, "gone_at": None,
                 "data": {**base, "name": f"Table {n}", "cloth_rolling": 0.008 + n * 1e-6}}
                for n in range(round(TABLES * share))
            ],
        )  # fmt: skip
        session.execute(
            insert(NamedLayout),
            [{"name": f"Layout {n}", "note": "why", "data": LAYOUT} for n in range(round(LAYOUTS * share))],
        )
        made = [drill.model_copy(update={"title": f"Drill {n}"}).drill() for n in range(round(DRILLS * share))]
        session.execute(
            insert(OwnDrill),
            [
                {"name": each.name, "made_at": when, "deleted_at": None,
                 "data": OwnDrillFile.of(each).model_dump(mode="json")}
                for each in made
            ],
        )  # fmt: skip
        session.execute(
            insert(DrillTry),
            [
                {"uid": f"try-{n}", "made_at": when, "drill": made[n % len(made)].name if n % 2 else "freeze",
                 "table_label": "any", "player_id": 1 + n % players, "made": n % 3 == 0, "deleted_at": None}
                for n in range(round(TRIES * share))
            ],
        )  # fmt: skip
    rows = demo_practice()

    def attempts() -> Iterator[log.Noted]:
        for n in range(round(ATTEMPTS * share)):
            row, set_up = rows[n % len(rows)], f"7|far|cue:{n % 2000 / 500:.3f},1.00;7:5.30,0.50"
            yield replace(row, uid=f"large-{n:08d}", player=f"Player {n % players}", set_up=set_up)

    log.note_all(database, attempts())
    database.close()


def looked_at(served: Served) -> Large:
    """Every page, a note, a try, and what reads the whole log."""
    client = Client(served.port, 120.0)
    for page in PAGES:
        client.get(page)  # what is loaded and solved once
    took, faults = dict[str, float](), []
    for page in PAGES:
        start = time.perf_counter()
        status, body = client.get(page)
        took[page] = time.perf_counter() - start
        if status != 200:
            faults.append(f"{page}: {status} {body[:200]!r}")
        if page == "/" and len(body) > FIRST_BYTES:
            faults.append(f"the first page has {len(body)} bytes")
    slowest = max(took, key=lambda page: took[page])
    first = len(client.get("/")[1])
    note = _median(client, address.ATTEMPTS, {"question": question(1.1, 0.55), "result": "hit"})
    tried = _median(client, address.TRIES, {"table": "pool-9ft", "drill": "freeze", "made": True})
    start = time.perf_counter()
    json.loads(client.get(address.RESULTS)[1])
    results_s = time.perf_counter() - start
    steady_s, others_s = _steady(client, served)
    client.close()
    if took[slowest] > PAGE_S:
        faults.append(f"{slowest} takes {took[slowest]:.2f} s")
    if max(note, tried) > NOTE_S:
        faults.append(f"a note takes {note:.3f} s, a try {tried:.3f} s")
    if others_s > PAGE_S:
        faults.append(f"the health check took {others_s:.2f} s while the log was read")
    return Large(slowest, took[slowest], note, tried, first, results_s, steady_s, others_s, tuple(faults))


def _median(client: Client, path: str, body: dict[str, Any]) -> float:
    took = []
    for n in range(15):
        start = time.perf_counter()
        status, reply = client.send("POST", path, {**body, "uid": f"large-note-{n:06d}"})
        took.append(time.perf_counter() - start)
        if status != 200:
            raise RuntimeError(f"{path}: {status} {reply[:300]!r}")
    return sorted(took)[len(took) // 2]


def _steady(client: Client, served: Served) -> tuple[float, float]:
    """(seconds of the scatter from the log, the longest anybody else waited meanwhile)."""
    waited, going = [0.0], True

    def look() -> None:
        other = Client(served.port, 120.0)
        while going:
            start = time.perf_counter()
            other.get(address.HEALTH)
            waited.append(time.perf_counter() - start)
            time.sleep(0.01)
        other.close()

    watcher = threading.Thread(target=look)
    watcher.start()
    start = time.perf_counter()
    client.send("PUT", address.PLAYER, {"by": "log"})
    took = time.perf_counter() - start
    going = False
    watcher.join()
    return took, max(waited)
