"""Which line? What a plan costs, beside a drag in the same run, and against balls, strokes and draws.

Medians of seven rounds in turn, warm, two threads, the call alone. Run by `make bench`.
"""

import math
import random
import statistics
import threading
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from operator import attrgetter

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.field import Field
from fandle.core.choice.plan import rank
from fandle.core.choice.wish import Wish
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.player.scatter import CLUB
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS
from fandle.web.table.view import answer

ROUNDS, THREADS = 7, 2
PLACES = {"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5)}


def layout(game: str, table: str, count: int) -> Layout:
    """The contract's three balls, more of them scattered about, or a crowd of snooker balls."""
    made, rng = STANDARDS[table], random.Random(count)
    snooker = game == "snooker"
    places = {"cue": PLACES["cue"]} if snooker else dict(PLACES)
    names = id_order(game) if snooker else ["9", "10", "11", "12", "13", "14", "15"]
    for name in names:
        while len(places) < count and name not in places:
            x, y = rng.uniform(0.4, 7.6), rng.uniform(0.4, 3.6)
            if all(math.dist((x, y), place) * made.diamond_x > 2.5 * made.ball_radius for place in places.values()):
                places[name] = (x, y)
    return Layout(made, game, tuple(Ball(name, *place) for name, place in places.items()), None if snooker else "7")


def planned(
    on: Layout, goal: str = "hit", strokes: str = "usual", draws: int = 300, threads: int = THREADS
) -> Callable[[], object]:
    """A plan of a layout at medium speed."""
    asked = Situation(on, Stroke(default_speed(on.table)))
    wish = wish_of(goal, CLUB, strokes, None, draws, 0, on)
    return lambda: finish(plan(asked, wish, threads))


def clock(work: Callable[[], object]) -> float:
    """Milliseconds of one call."""
    start = time.perf_counter()
    work()
    return 1000 * (time.perf_counter() - start)


def median(work: Callable[[], object], rounds: int = ROUNDS) -> float:
    """Median of the rounds, after one that warms."""
    work()
    return statistics.median(clock(work) for _ in range(rounds))


def main() -> None:
    """Print the tables."""
    five, nine, snooker = (
        layout("nine-ball", "pool-9ft", 5),
        layout("ten-ball", "pool-9ft", 9),
        layout("snooker", "snooker-12ft", 22),
    )
    print(f"{'which line?':<44}{'ms':>8}{'budget':>9}")
    for told, work, budget in (
        ("one stroke, 5 balls, over up to 4 rails", planned(five, strokes="this"), 150),
        ("usual strokes, hits, 9 balls", planned(nine), 2000),
        ("usual strokes, pots and banks, 9 balls", planned(nine, "pot"), 2000),
        ("usual strokes, what is left, 9 balls", planned(nine, "safe"), 4000),
        ("usual strokes, hits, 22 balls of snooker", planned(snooker), 4000),
    ):
        print(f"{told:<44}{median(work):>8.0f}{budget:>9}", flush=True)
    lines = finish(rank(Field.of(nine, THREADS), Stroke(default_speed(nine.table)), Wish("safe", usual=False))).lines
    left = [replace(line.chance) for line in lines for _ in range(4)]
    took = [clock(partial(attrgetter("safe", "ahead"), one)) for one in left]
    print(f"{'what one line leaves, 300 draws, 9 balls':<44}{statistics.median(took):>8.1f}{120:>9}", flush=True)
    drag = Situation(five, Stroke(3.2, 0.17, 0.1), (Rail.FAR,))
    alone, stop = median(lambda: finish(answer(drag)), 31), threading.Event()

    def others() -> None:
        work = planned(nine, threads=1)
        while not stop.is_set():
            work()

    busy = threading.Thread(target=others, daemon=True)
    busy.start()
    time.sleep(0.3)
    print(f"{'an answer to a drag, alone':<44}{alone:>8.1f}{16:>9}")
    print(
        f"{'the same while a plan is worked out':<44}{median(lambda: finish(answer(drag)), 31):>8.1f}{16:>9}",
        flush=True,
    )
    stop.set()
    busy.join()
    print("\nballs   one stroke, ms   usual strokes, ms")
    for count in (3, 5, 7, 10):
        on = layout("ten-ball", "pool-9ft", count)
        print(f"{count:>5}{median(planned(on, strokes='this')):>17.0f}{median(planned(on), 3):>20.0f}", flush=True)
    print("\ndraws   one stroke, ms   usual strokes, ms   (5 balls)")
    for draws in (100, 300, 1000):
        here, usual = median(planned(five, strokes="this", draws=draws)), median(planned(five, draws=draws), 3)
        print(f"{draws:>5}{here:>17.0f}{usual:>20.0f}", flush=True)


if __name__ == "__main__":
    main()
