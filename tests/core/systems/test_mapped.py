"""A system from many starts at once says what `fandle count` says from each."""

import random
from dataclasses import replace

import pytest

from fandle.core.errors import BadInputError
from fandle.core.handbook.holds import placed
from fandle.core.handbook.page import page_of
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import METHODS, orders_of
from fandle.core.systems.mapped import landings
from fandle.core.systems.registry import count
from fandle.core.table.condition import conditioned


def _starts(layout: Layout, rng: random.Random, n: int) -> list[tuple[float, float]]:
    found: list[tuple[float, float]] = []
    while len(found) < n:
        x, y = round(rng.uniform(0.15, 7.85), 3), round(rng.uniform(0.15, 3.85), 3)
        if placed(layout, x, y) is not None:
            found.append((x, y))
    return found


@pytest.mark.parametrize("method", list(METHODS))
def test_every_start_is_counted_as_the_count_does(method: str) -> None:
    """Each system over several orders of rails, from some starts, on the page's table and on a damp one."""
    page, rng, counted = page_of(method), random.Random(method), 0
    for cloth in ("as it is", "damp"):
        layout = page.example
        if cloth == "damp":
            layout = replace(layout, table=conditioned(layout.table, "damp", "soft"))
        for rails in (page.rails, *orders_of(method)[:6]):
            starts = _starts(layout, rng, 16 if rails == page.rails else 6)
            found = landings(method, layout, rails, starts)
            for k, start in enumerate(starts):
                there = placed(layout, *start)
                assert there is not None
                told = count(method, there, rails)
                assert bool(found.counted[k]) == isinstance(told, Count), (rails, start, told)
                if isinstance(told, Count):
                    assert found.off[k] == pytest.approx(told.lands.off, abs=1e-9)
                    assert bool(found.hits[k]) == told.lands.hits == (told.lands.off_balls < 1.0), (rails, start)
                    counted += 1
    assert counted > 5


def test_no_starts_and_rails_it_does_not_count_over() -> None:
    page = page_of("M3")
    assert landings("M3", page.example, page.rails, []).off.size == 0
    assert not landings("M3", page.example, page_of("M14").rails, [(1.0, 1.0)]).counted.any()
    with pytest.raises(BadInputError, match="unknown method"):
        landings("M99", page.example, page.rails, [(1.0, 1.0)])
