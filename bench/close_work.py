"""Close work and three cushions: what a technique costs, and all points of a carom layout at the usual strokes.

Medians, warm, beside each other in one run. Run by `make bench`.
"""

import random
import statistics
import time
from collections.abc import Callable
from functools import partial

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.handbook.close_work import technique_pages
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.player.scatter import CLUB
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS
from fandle.core.techniques.registry import solved

ROUNDS, THREADS, LAYOUTS = 9, 2, 6


def median(work: Callable[[], object], rounds: int = ROUNDS) -> float:
    """Milliseconds of one call, the median of the rounds after one that warms."""
    work()
    took = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        took.append(1000 * (time.perf_counter() - start))
    return statistics.median(took)


def carom(seed: int) -> Layout:
    """Three balls at random on the carom table."""
    rng, table = random.Random(seed), STANDARDS["carom-10ft"]
    while True:
        try:
            balls = [Ball(name, rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7)) for name in ("cue", "red", "white")]
            return Layout(table, "three-cushion", tuple(balls), "red")
        except BadInputError:
            continue


def points(layout: Layout, strokes: str) -> Callable[[], object]:
    """A plan of a carom layout."""
    asked = Situation(layout, Stroke(default_speed(layout.table)))
    wish = wish_of("hit", CLUB, strokes, None, 300, 0, layout)
    return lambda: finish(plan(asked, wish, THREADS))


def main() -> None:
    """Print the table."""
    print("technique on its own page, ms (asked: 30)")
    for page in technique_pages():
        each = median(partial(solved, page.method, page.example))
        print(f"  {page.method} {page.title:<36} {each:6.1f}")
    print("all points of a three-cushion layout, ms (asked: 3,000 at usual strokes)")
    for strokes in ("this", "usual"):
        took = [median(points(carom(seed), strokes), 3) for seed in range(LAYOUTS)]
        print(f"  {strokes} strokes: median {statistics.median(took):.0f}, worst {max(took):.0f}")


if __name__ == "__main__":
    main()
