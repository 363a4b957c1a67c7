"""Many clients dragging a ball at once: how long an answer takes, whether one fails, whether memory grows."""

import random
import threading
import time
from dataclasses import dataclass
from typing import Any

from campaign.server import Client, Served

from fandle.web import address

CLIENTS = 16
WARM_S = 5.0
STEP = 0.02  # diamonds a drag moves a ball from one question to the next


@dataclass(frozen=True)
class Dragged:
    """Answers and what went wrong; milliseconds at the median and the 99th percentile; memory before and after, kB."""

    answers: int
    faults: tuple[str, ...]
    median_ms: float
    p99_ms: float
    before_kb: int
    after_kb: int

    @property
    def grown(self) -> float:
        """Share by which memory grew."""
        return self.after_kb / self.before_kb - 1


def question(x: float, y: float) -> dict[str, Any]:
    """A kick over the far rail with the cue ball at (x, y)."""
    balls = [{"id": "cue", "x": x, "y": y}, {"id": "7", "x": 5.3, "y": 0.5}, {"id": "2", "x": 3.2, "y": 2.5}]
    layout = {"format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "balls": balls, "target": "7"}
    return {"layout": layout, "speed": 3.1, "side": 0.1, "rails": "far"}


def drag(served: Served, seconds: float, seed: int, clients: int = CLIENTS) -> Dragged:
    """Every client asks as fast as it is answered, as a page does while a finger moves."""
    took: list[float] = []
    faults: list[str] = []
    lock, stop = threading.Lock(), threading.Event()

    def one(number: int) -> None:
        rng, client = random.Random(f"{seed}/{number}"), Client(served.port)
        x, y = rng.uniform(0.5, 2.5), rng.uniform(0.5, 3.0)
        while not stop.is_set():
            x, y = min(max(x + rng.uniform(-STEP, STEP), 0.3), 2.8), min(max(y + rng.uniform(-STEP, STEP), 0.3), 3.6)
            start = time.perf_counter()
            try:
                status, _ = client.send("POST", address.ANSWER, question(x, y))
            except OSError as wrong:
                status = 0
                with lock:
                    faults.append(repr(wrong))
            with lock:
                took.append(time.perf_counter() - start)
                if status != 200:
                    faults.append(f"status {status}")
        client.close()

    threads = [threading.Thread(target=one, args=(n,)) for n in range(clients)]
    for thread in threads:
        thread.start()
    time.sleep(WARM_S)
    before = served.memory_kb
    with lock:
        took.clear()
    time.sleep(seconds)
    after = served.memory_kb
    stop.set()
    for thread in threads:
        thread.join()
    took.sort()
    return Dragged(
        len(took), tuple(faults), 1000 * took[len(took) // 2], 1000 * took[int(0.99 * len(took))], before, after
    )


def starved(served: Served, lists: int = 45) -> tuple[float, dict[int, int]]:
    """(slowest reply of health, page and file, ms; how the lists ended) while so many plans are asked for."""
    ends: dict[int, int] = {}
    lock = threading.Lock()

    def ask_list(number: int) -> None:
        client = Client(served.port, 120.0)
        status, _ = client.send(
            "POST", address.PLAN, {"layout": question(1.0 + number / 100, 1.0)["layout"], "strokes": "this"}
        )
        client.close()
        with lock:
            ends[status] = ends.get(status, 0) + 1

    paths = (address.HEALTH, "/log", "/static/css/page.css")
    client = Client(served.port)
    for path in paths:
        client.get(path)
    threads = [threading.Thread(target=ask_list, args=(n,)) for n in range(lists)]
    for thread in threads:
        thread.start()
    slowest = 0.0
    time.sleep(0.2)
    for _ in range(40):
        for path in paths:
            start = time.perf_counter()
            status, _ = client.get(path)
            took = time.perf_counter() - start if status == 200 else 60.0
            if took > 0.07:
                print(path, round(took * 1000))
            slowest = max(slowest, took)
        time.sleep(0.02)
    for thread in threads:
        thread.join()
    client.close()
    return 1000 * slowest, ends
