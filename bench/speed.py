"""How fast: medians, warm, everything side by side in one run. See README.md here.

Each round measures all contenders in turn, in processes that wait for one another, so that a
machine that changes its pace changes all alike; who goes first alternates. The tables give medians
and medians of ratios.
"""

import json
import os
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path

HERE = Path(__file__).parent
ROUNDS = 7
PAIRS = 31  # against the commit before: a difference of a hundredth is looked for
BUDGET_MS = {
    "three-rail shot": 0.06, "aim with its chain": 5.0, "whole answer to a drag": 16.0, "four one-rail kicks": 16.0,
    "a pot over one rail": 15.0, "a bank": 20.0, "all methods, landed": 40.0, "full-rack break": 8.0,
}  # fmt: skip
CALLS = {
    "three-rail shot": 2000, "aim with its chain": 20, "whole answer to a drag": 10, "four one-rail kicks": 10,
    "a pot over one rail": 10, "a bank": 10, "all methods, landed": 5,
    "full-rack break": 10,
}  # fmt: skip
NEW = ("a pot over one rail",)  # the commit before has none
TOO_SLOW = (*NEW, "all methods, landed")  # in plain Python: seconds a call
IMPORT_MS = 2000.0
SHOTS = 1000


def serve() -> None:
    """A worker: times the item it is asked for, so many calls, and prints seconds per call."""
    from work import works

    table = works()
    for line in sys.stdin:
        name, calls = json.loads(line)
        work = table[name]
        start = time.perf_counter()
        for _ in range(calls):
            work()
        print((time.perf_counter() - start) / calls, flush=True)


class Worker:
    """A process that times on demand: this script, or the same of another checkout."""

    def __init__(self, script: Path = Path(__file__), **env: str) -> None:
        self.process = subprocess.Popen(
            [sys.executable, str(script), "worker"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
            env={**os.environ, **env},
        )  # fmt: skip

    def time(self, name: str, calls: int) -> float:
        """Seconds per call."""
        if self.process.stdin is None or self.process.stdout is None:
            raise RuntimeError("the worker has no pipes")
        self.process.stdin.write(json.dumps([name, calls]) + "\n")
        self.process.stdin.flush()
        return float(self.process.stdout.readline())


def baseline() -> tuple[Worker | None, str]:
    """A worker of the commit named in BASELINE, checked out beside; None where git does not have it."""
    commit = (HERE / "BASELINE").read_text().strip()
    folder = Path(tempfile.mkdtemp()) / "baseline"
    made = subprocess.run(
        ["git", "worktree", "add", "--detach", str(folder), commit], cwd=HERE, capture_output=True, check=False
    )
    if made.returncode:
        return None, commit
    # its own kernels go to a cache of its own: the folder is named by what is compiled
    return Worker(folder / "bench" / "speed.py", PYTHONPATH=str(folder / "src")), commit


def compare() -> None:
    """Now, the baseline commit, plain Python."""
    now, plain = Worker(), Worker(NUMBA_DISABLE_JIT="1")
    old, commit = baseline()
    print(f"{'':<26}{'now':>12}{'budget':>10}{'/ ' + commit[:7]:>12}{'plain Python':>16}{'ratio':>9}")
    for name, calls in CALLS.items():
        pair = [now, *([old] if old and name not in NEW else [])]
        for worker in pair:
            worker.time(name, 2)
        rounds = []
        for k in range(PAIRS):
            rounds.append({w: w.time(name, calls) for w in (pair if k % 2 else pair[::-1])})
        fast = statistics.median(r[now] for r in rounds) * 1e3
        against = f"{statistics.median(r[now] / r[old] for r in rounds):.2f}" if old in pair else ""
        print(f"{name:<26}{fast:>9.3f} ms{BUDGET_MS[name]:>7g} ms{against:>12}", end="")
        if name not in TOO_SLOW:
            slow = [(plain.time(name, 1), now.time(name, calls)) for _ in range(ROUNDS)]
            print(f"{statistics.median(p for p, _ in slow) * 1e3:>13.1f} ms", end="")
            print(f"{statistics.median(p / n for p, n in slow):>8.0f}x", end="")
        print(flush=True)
    took = statistics.median(import_seconds() for _ in range(ROUNDS)) * 1e3
    print(f"{'import, warm':<26}{took:>9.0f} ms{IMPORT_MS:>7g} ms")
    for each in (now, plain, old):
        if each is not None:
            each.process.kill()
    subprocess.run(["git", "worktree", "prune"], cwd=HERE, check=False)


def import_seconds() -> float:
    """A fresh process that imports everything and asks one question, kernels warm."""
    start = time.perf_counter()
    subprocess.run([sys.executable, "-c", "import fandle.core.lines.kick"], check=True)
    return time.perf_counter() - start


def clock(work: object, *args: int) -> float:
    """Seconds of one call."""
    start = time.perf_counter()
    work(*args)  # type: ignore[operator]
    return time.perf_counter() - start


def twins() -> None:
    """The three-rail shot against C and against a general integrator; threads; cost by balls."""
    import numpy as np
    from work import (
        COUNTS,
        NONE,
        RAILS,
        START,
        TAPE,
        P,
        by_integrator,
        c_twin,
        crowds,
        rates,
        shots,
        two_threads,
    )

    from fandle.core.physics.state import EVENT

    in_c, apart = c_twin()
    place = by_integrator()
    shots(START, P, NONE, TAPE, 1)
    off = float(np.hypot(*(place - TAPE.events[RAILS - 1, [EVENT.x, EVENT.y]])))
    rounds = []
    for _ in range(ROUNDS):
        ours = clock(lambda: shots(START, P, NONE, TAPE, SHOTS)) / SHOTS
        rounds.append((ours, clock(in_c, SHOTS) / SHOTS, clock(by_integrator)))
    ours, c, ivp = (statistics.median(column) * 1e6 for column in zip(*rounds, strict=True))
    print(f"\nthe three-rail shot in a loop: {ours:.1f} µs")
    print(
        f"  in C, -O3                  {c:9.1f} µs   ours/C   {statistics.median(a / b for a, b, _ in rounds):.2f}"
        f"   budget 1.3   places {apart:.0e} m apart"
    )
    print(
        f"  by scipy's solve_ivp       {ivp:9.0f} µs   ratio {statistics.median(b / a for a, _, b in rounds):6.0f}x"
        f"   places {off:.0e} m apart"
    )
    go = two_threads(SHOTS)
    go(2)
    pairs = [(clock(go, 1), clock(go, 2)) for _ in range(ROUNDS)]
    print(f"  {SHOTS} in each of two threads / in one: {statistics.median(b / a for a, b in pairs):.2f}   budget 1.3")
    print("\nmany strokes in one call, one thread, a second")
    for told, play in rates():
        play()
        print(f"  {told:<44}{statistics.median(1 / clock(play) for _ in range(ROUNDS)) * 2000:>9,.0f}", flush=True)
    print("\nballs on the bed   one shot at 4 m/s, ms")
    for count in COUNTS:
        work = crowds(count)
        work()
        print(f"{count:>9}{statistics.median(clock(work) for _ in range(ROUNDS)) / 40 * 1e3:>22.3f}", flush=True)


if __name__ == "__main__":
    if sys.argv[1:] == ["worker"]:
        serve()
    else:
        compare()
        twins()
