"""How long each kernel takes to compile, from an empty folder: its own share, and how often it is compiled.

python bench/compile_times.py [how many to show]
"""

import sys
import tempfile
import time
from collections import Counter
from functools import cache
from pathlib import Path
from typing import Any

from numba.core import event

from fandle.core.physics import jit


class Watch(event.Listener):
    """Seconds that each kernel takes by itself, without the kernels it calls."""

    def __init__(self) -> None:
        self.open: list[list[Any]] = []
        self.own: Counter[str] = Counter()
        self.times: Counter[str] = Counter()

    def on_start(self, event: Any) -> None:
        """A compilation begins."""
        function = event.data["dispatcher"].py_func
        self.open.append([f"{function.__module__.rpartition('.')[2]}.{function.__name__}", time.perf_counter(), 0.0])

    def on_end(self, event: Any) -> None:
        """It ends: what its callees took is not its own."""
        name, start, callees = self.open.pop()
        took = time.perf_counter() - start
        self.own[name] += took - callees
        self.times[name] += 1
        if self.open:
            self.open[-1][2] += took


def main(shown: int) -> None:
    """Compile everything and print a table."""
    folder = Path(tempfile.mkdtemp())
    jit.cache_folder = cache(lambda: folder)  # type: ignore[attr-defined]
    from fandle.core.physics.warm import warm
    from fandle.core.table.standards import standard_table

    watch = Watch()
    event.register("numba:compile", watch)  # type: ignore[no-untyped-call]
    start = time.perf_counter()
    for _ in warm(standard_table("pool-9ft").params()):
        pass
    print(f"all: {time.perf_counter() - start:.1f} s, {sum(watch.times.values())} compilations of {len(watch.times)}")
    for name, seconds in watch.own.most_common(shown):
        print(f"{name:32} {seconds:6.2f} s  {watch.times[name]} times")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 25)
