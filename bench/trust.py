"""A table check, a diagnosis, trust maps and pictures: how long each takes, in one run. `make bench`.

Everything is called once before it is timed. Budgets are the issue's: two cores, none of which is used twice here.
"""

import time
from collections.abc import Callable

import numpy as np
from campaign.invented import POOL, STEADY, evening, missed, seen

from fandle.core.handbook.page import all_pages
from fandle.core.handbook.trust import COARSE, grid_of, methods_over, nearest_over, trust
from fandle.core.player.scatter import CLUB
from fandle.core.steps import finish
from fandle.core.systems.mapped import landings
from fandle.core.tablecheck.fit import fit
from fandle.core.tablecheck.next_aim import advise
from fandle.core.tablecheck.own_marks import KINDS, own_marks


def took(work: Callable[[], object]) -> float:
    """Seconds."""
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def line(what: str, seconds: float, budget: float | None = None) -> None:
    """One line of the table."""
    print(f"  {what:<44} {seconds:7.3f} s" + ("" if budget is None else f"   of {budget:g} s"))


def main() -> None:
    """The table."""
    rng = np.random.default_rng(1)
    shots = evening(POOL, STEADY, 1, rng)
    fit(POOL, shots, STEADY)
    line("fit of six shots", took(lambda: fit(POOL, shots, STEADY)), 2.0)
    shot, _, figures = missed(rng, "speed")
    told = seen(shot, figures, 2, rng)
    advise(told, CLUB)
    line("diagnosis", took(lambda: advise(told, CLUB)), 0.1)
    for page in all_pages():
        grid = grid_of(page.example.table)
        landings(page.method, page.example, page.rails, [(2.03, 1.07)])
        seconds = took(lambda page=page, grid=grid: finish(trust(page.method, page.example, page.rails, grid)))  # type: ignore[misc]
        line(f"map of {page.method}, {page.title}", seconds, 1.0)
    page = all_pages()[2]
    grid = grid_of(page.example.table, *COARSE)
    for rails in (1, 2, 3):
        names = methods_over(rails)
        seconds = sum(took(lambda n=n, r=rails: finish(nearest_over(n, page.example, r, grid))) for n in names)  # type: ignore[misc]
        line(f"picture of {len(names)} systems over {rails}", seconds)
    for method in KINDS:
        own_marks.cache_clear()
        line(f"own marks of {method}", took(lambda method=method: own_marks(POOL, method)))  # type: ignore[misc]


if __name__ == "__main__":
    main()
