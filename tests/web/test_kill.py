"""SIGKILL at 50 random moments while notes are being saved: every acknowledged note is there, none twice, none half."""

import http.client
import json
import os
import random
import signal
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from pathlib import Path

from tests.browser.conftest import free_port
from tests.conftest import CONTRACT_LAYOUT

from fandle.store import log
from fandle.store.database import Database

KILLS = 50
BODY = {"question": {"layout": CONTRACT_LAYOUT, "speed": 3.1, "rails": "far"}, "result": "hit"}


class Writer(threading.Thread):
    """Notes one attempt after another; what was not acknowledged is sent again, under the same name."""

    def __init__(self, port: list[int]) -> None:
        super().__init__(daemon=True)
        self.port, self.acknowledged, self.going = port, [], True  # type: ignore[var-annotated]

    def run(self) -> None:
        uid = str(uuid.uuid4())
        while self.going:
            if self.send(uid):
                self.acknowledged.append(uid)
                uid = str(uuid.uuid4())

    def send(self, uid: str) -> bool:
        request = urllib.request.Request(
            f"http://127.0.0.1:{self.port[0]}/api/attempts",
            json.dumps({**BODY, "uid": uid}).encode(), {"Content-Type": "application/json"},
        )  # fmt: skip
        try:
            with urllib.request.urlopen(request, timeout=5) as reply:
                return bool(json.load(reply)["attempt"]["uid"] == uid)
        except urllib.error.HTTPError as refused:  # the disk was busy: the same note is sent again
            refused.close()
            return False
        except (OSError, http.client.HTTPException, ValueError):  # killed before or while it answered
            time.sleep(0.005)
            return False


def test_killing_the_server_loses_nothing_that_was_acknowledged(tmp_path: Path) -> None:
    rng = random.Random(50)
    nursery = subprocess.Popen(
        [sys.executable, "-m", "tests.web.forked_server"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
        env={**os.environ, "FANDLE_HOME": str(tmp_path)},
    )  # fmt: skip
    assert nursery.stdin
    assert nursery.stdout
    port = [0]
    writers = [Writer(port) for _ in range(2)]
    child = 0
    try:
        for kill in range(KILLS):
            port[0] = free_port()
            nursery.stdin.write(f"{port[0]}\n")
            nursery.stdin.flush()
            child = int(nursery.stdout.readline())
            if kill == 0:
                for writer in writers:
                    writer.start()
            before = sum(len(w.acknowledged) for w in writers)
            deadline = time.monotonic() + 20
            while sum(len(w.acknowledged) for w in writers) < before + 2 and time.monotonic() < deadline:
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
    kept = log.attempts(Database.open(tmp_path))
    names = [row.uid for row in kept]
    acknowledged = {uid for writer in writers for uid in writer.acknowledged}
    assert len(acknowledged) >= KILLS
    assert acknowledged <= set(names)
    assert len(names) == len(set(names)) <= len(acknowledged) + len(writers)
    for row in kept:
        assert row.layout == CONTRACT_LAYOUT
        assert (row.result, row.rails, row.aim["nose"] > 0) == ("hit", "far", True)
