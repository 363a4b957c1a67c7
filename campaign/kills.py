"""SIGKILL at random moments while notes, words and layouts are being saved: what was acknowledged is there, whole."""

import http.client
import os
import random
import signal
import subprocess
import sys
import threading
import time
import uuid
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from campaign.drags import question
from campaign.server import Client, free_port

from fandle.store import log
from fandle.store.database import Database
from fandle.store.queries import layouts
from fandle.web import address


@dataclass(frozen=True)
class Killed:
    """How often, what was acknowledged, and what is wrong with what was found."""

    kills: int
    notes: int
    comments: int
    layouts: int
    faults: tuple[str, ...]


class Writer(threading.Thread):
    """Notes attempts, says a word about each, saves layouts; what was not acknowledged is sent again, the same."""

    def __init__(self, port: list[int], number: int) -> None:
        super().__init__(daemon=True)
        self.port, self.number, self.going = port, number, True
        self.notes: list[str] = []
        self.comments: dict[str, str] = {}
        self.layouts: list[str] = []

    def run(self) -> None:
        """Until told to stop."""
        while self.going:
            uid = str(uuid.uuid4())
            note = {"uid": uid, "question": question(1.1, 0.55), "result": "hit"}
            if not self.until("POST", address.ATTEMPTS, note):
                return
            self.notes.append(uid)
            word = f"word {len(self.notes)}"
            if not self.until("PATCH", f"{address.ATTEMPTS}/{uid}", {"comment": word}):
                return
            self.comments[uid] = word
            if len(self.notes) % 5 == 0:
                name = f"layout {self.number}-{len(self.notes)}"
                if not self.until("POST", address.LAYOUTS, {"name": name, "layout": question(1.1, 0.55)["layout"]}):
                    return
                self.layouts.append(name)

    def until(self, method: str, path: str, data: Any) -> bool:
        """Send it until it is acknowledged (a name that is taken was: by the try whose reply was lost)."""
        while self.going:
            client = Client(self.port[0], 5.0)
            try:
                status, _ = client.send(method, path, data)
                if status in (200, 409):
                    return True
            except (OSError, http.client.HTTPException, ValueError):
                time.sleep(0.005)
            finally:
                client.close()
        return False


def kill_often(home: Path, kills: int, seed: int) -> Killed:
    """Start, write, kill, as often as asked; then look."""
    rng = random.Random(seed)
    nursery = subprocess.Popen(
        [sys.executable, "-m", "campaign.nursery"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
        env={**os.environ, "FANDLE_HOME": str(home), "PYTHONPATH": os.pathsep.join(sys.path)},
    )  # fmt: skip
    if nursery.stdin is None or nursery.stdout is None:
        raise RuntimeError("the nursery has no pipes")
    port = [0]
    writers = [Writer(port, n) for n in range(2)]
    try:
        for kill in range(kills):
            port[0] = free_port()
            nursery.stdin.write(f"{port[0]}\n")
            nursery.stdin.flush()
            child = int(nursery.stdout.readline())
            if kill == 0:
                for writer in writers:
                    writer.start()
            before = sum(len(w.notes) for w in writers)
            deadline = time.monotonic() + 20
            while sum(len(w.notes) for w in writers) < before + 2 and time.monotonic() < deadline:
                time.sleep(0.005)
            time.sleep(rng.uniform(0, 0.08))
            os.kill(child, signal.SIGKILL)
    finally:
        for writer in writers:
            writer.going = False
        nursery.kill()
        nursery.wait(10)
        nursery.stdin.close()
        nursery.stdout.close()
    for writer in writers:
        writer.join(10)
    return _looked_at(home, kills, writers)


def _looked_at(home: Path, kills: int, writers: list[Writer]) -> Killed:
    database = Database.open(home)
    kept, saved = log.attempts(database), {row.name for row in layouts(database, 10_000)}
    database.close()
    by_uid = {row.uid: row for row in kept}
    notes = [uid for writer in writers for uid in writer.notes]
    comments = {uid: word for writer in writers for uid, word in writer.comments.items()}
    named = [name for writer in writers for name in writer.layouts]
    faults = [f"note {uid} is lost" for uid in notes if uid not in by_uid]
    faults += [f"the word on {uid} is lost" for uid, word in comments.items() if by_uid[uid].comment != word]
    faults += [f"{name} is lost" for name in named if name not in saved]
    if len(kept) != len(by_uid) or len(kept) > len(notes) + len(writers):
        faults.append(f"{len(kept)} attempts for {len(notes)} notes")
    faults += [f"{row.uid} is half" for row in kept if row.rails != "far" or row.aim["nose"] <= 0 or not row.layout]
    return Killed(kills, len(notes), len(comments), len(named), tuple(faults))
