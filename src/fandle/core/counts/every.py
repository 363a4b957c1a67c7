"""All counts by name, and the best rail for each."""

from collections.abc import Callable

from fandle.core.counts import m2, m3
from fandle.core.counts.base import Count, NoCount, View
from fandle.core.errors import BadInputError
from fandle.core.layout import Layout
from fandle.core.rails import Rail

_MODULES = (m2, m3)
METHODS: dict[str, Callable[[View], Count | NoCount]] = {m.METHOD: m.count for m in _MODULES}
TITLES = {m.METHOD: m.TITLE for m in _MODULES}


def count(method: str, layout: Layout, rails: tuple[Rail, ...], target: str | None = None) -> Count | NoCount:
    """One method over one order of rails."""
    if method.upper() not in METHODS:
        raise BadInputError(f"unknown method {method!r}: use one of {', '.join(METHODS)}", "method")
    if len(rails) != 1:
        raise BadInputError(f"method {method.upper()} counts over one rail, not {len(rails)}", "rails")
    return METHODS[method.upper()](View(layout, rails[0], layout.require_target(target)))


def best_count(method: str, layout: Layout, target: str | None = None) -> Count | NoCount:
    """One method over whichever rail it lands best on."""
    tried = [count(method, layout, (rail,), target) for rail in Rail]
    good = [c for c in tried if isinstance(c, Count)]
    if good:
        return min(good, key=lambda c: c.lands.off_balls)
    first = tried[0]
    reasons = "; ".join(f"{c.rails[0]}: {c.reason}" for c in tried if isinstance(c, NoCount))
    return NoCount(first.method, first.title, (), reasons)


def all_counts(
    layout: Layout, rails: tuple[Rail, ...] | None = None, target: str | None = None
) -> list[Count | NoCount]:
    """Every method, those that land nearest to the target first, those that do not apply last."""
    found = [
        best_count(name, layout, target) if rails is None else count(name, layout, rails, target) for name in METHODS
    ]
    return sorted(found, key=lambda c: c.lands.off_balls if isinstance(c, Count) else float("inf"))
