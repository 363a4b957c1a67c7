"""How fast: medians, warm, side by side in one run, compiled and plain Python (NUMBA_DISABLE_JIT=1).

Each round measures both, in two processes that wait for one another, so that a machine that
changes its pace changes both alike; the table gives medians and the median of the ratios.
"""

import json
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from typing import Any

ROUNDS = 5
ITEMS = ("three-rail shot", "aim with its chain", "whole answer to a drag")
BUDGET_MS = dict(zip((*ITEMS, "import, warm"), (0.1, 5.0, 16.0, 2000.0), strict=True))


def works() -> dict[str, Callable[[], Any]]:
    """What is timed. Inside the measured region: the call alone, arguments ready."""
    import numpy as np

    from fandle.core.aim import solve_kick
    from fandle.core.counts.every import count
    from fandle.core.layout import Ball, Layout
    from fandle.core.physics import engine as e
    from fandle.core.rails import Rail
    from fandle.core.stroke import Stroke
    from fandle.core.table import standard_table
    from fandle.web.address import State
    from fandle.web.view import answer

    table = standard_table("pool-9ft")
    balls = (Ball("cue", 1.1, 0.55), Ball("7", 5.3, 0.5), Ball("2", 3.2, 0.5))
    layout, stroke = Layout(table, "nine-ball", balls, "7"), Stroke(3.2, 0.17, 0.1)
    events, pieces = np.empty((e.MOST_EVENTS, e.EVENT_WIDTH)), np.empty((e.MOST_PIECES, e.PIECE_WIDTH))
    p, none = table.params(), np.empty((0, 2))
    state = State(layout, stroke, Rail.FAR)

    def shot() -> None:  # struck rolling with side; three rebounds, stopped at the fourth rail
        e.run(0.2, 0.1, 2.8, 2.6, -2.6, 2.8, 2.0, p, none, 0, False, 4, events, pieces)

    return {
        ITEMS[0]: shot,
        ITEMS[1]: lambda: solve_kick(layout, (Rail.FAR,), stroke),
        ITEMS[2]: lambda: (answer(state), count("M2", layout, (Rail.FAR,))),
    }


def serve() -> None:
    """A worker: times the item it is asked for, so many calls, and prints seconds per call."""
    table = works()
    for line in sys.stdin:
        name, calls = json.loads(line)
        work = table[name]
        start = time.perf_counter()
        for _ in range(calls):
            work()
        print((time.perf_counter() - start) / calls, flush=True)


class Worker:
    """A process that times on demand."""

    def __init__(self, **env: str) -> None:
        self.process = subprocess.Popen(
            [sys.executable, __file__, "worker"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
            env={**os.environ, **env},
        )  # fmt: skip

    def time(self, name: str, calls: int) -> float:
        """Seconds per call."""
        if self.process.stdin is None or self.process.stdout is None:
            raise RuntimeError("the worker has no pipes")
        self.process.stdin.write(json.dumps([name, calls]) + "\n")
        self.process.stdin.flush()
        return float(self.process.stdout.readline())


def import_seconds() -> float:
    """A fresh process that imports everything and asks one question, kernels warm."""
    start = time.perf_counter()
    subprocess.run([sys.executable, "-c", "import fandle.core.aim"], check=True)
    return time.perf_counter() - start


def main() -> None:
    """Measure and print."""
    compiled, plain = Worker(), Worker(NUMBA_DISABLE_JIT="1")
    calls = {ITEMS[0]: (2000, 4), ITEMS[1]: (20, 1), ITEMS[2]: (10, 1)}
    print(f"{'':<26}{'compiled':>12}{'budget':>10}{'plain Python':>16}{'ratio':>10}")
    for name in ITEMS:
        many, few = calls[name]
        compiled.time(name, 3)
        pairs = [(compiled.time(name, many), plain.time(name, few)) for _ in range(ROUNDS)]
        fast, slow = (statistics.median(column) * 1e3 for column in zip(*pairs, strict=True))
        ratio = statistics.median(b / a for a, b in pairs)
        print(f"{name:<26}{fast:>9.3f} ms{BUDGET_MS[name]:>7g} ms{slow:>13.1f} ms{ratio:>9.0f}x", flush=True)
    took = statistics.median(import_seconds() for _ in range(ROUNDS)) * 1e3
    print(f"{'import, warm':<26}{took:>9.0f} ms{BUDGET_MS['import, warm']:>7g} ms")
    for worker in (compiled, plain):
        worker.process.kill()


if __name__ == "__main__":
    serve() if sys.argv[1:] == ["worker"] else main()
