"""Where a system can be trusted on this table, and which to prefer where. Maps are kept until something changes."""

from dataclasses import dataclass
from typing import Any

from fandle.core.handbook.trust import (
    COARSE,
    Part,
    Preferred,
    TrustMap,
    grid_of,
    methods_over,
    nearest_over,
    prefer,
    trust,
    without_cue,
)
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE, Cue
from fandle.core.steps import Telling
from fandle.core.systems.catalogue import known
from fandle.core.table.rails import Rail
from fandle.work.latest import Latest

PICTURED = (1, 2, 3)  # rails


_MAPS: Latest[TrustMap] = Latest()
_NEAREST: Latest[Any] = Latest()


def trust_map(method: str, layout: Layout, rails: tuple[Rail, ...], cue: Cue = HOUSE) -> Telling[Part, TrustMap]:
    """Where on the bed a system's own aim over these rails hits the layout's target; told column by column."""
    name = known(method)
    layout.require_target()
    key = (name, rails, cue, *without_cue(layout))
    kept = _MAPS.get(key)
    if kept is not None:
        yield Part(0, len(kept.grid.xs), kept)
        return kept
    found = yield from trust(name, layout, rails, grid_of(layout.table), cue)
    return _MAPS.put(key, found)


@dataclass(frozen=True)
class Progress:
    """How much of the pictures is known, 0 to 1."""

    part: float


def preferred(layout: Layout, cue: Cue = HOUSE) -> Telling[Progress, list[Preferred]]:
    """Of the systems over one, two and three rails each: which lands nearest from where; tells how far it is."""
    layout.require_target()
    grid, pictures, done = grid_of(layout.table, *COARSE), [], 0
    whole = sum(len(methods_over(rails)) for rails in PICTURED)
    for rails in PICTURED:
        maps = {}
        for name in methods_over(rails):
            key = (name, rails, cue, *without_cue(layout))
            found = _NEAREST.get(key)
            if found is None:
                found = _NEAREST.put(key, (yield from nearest_over(name, layout, rails, grid, cue)))
            maps[name] = found
            done += 1
            yield Progress(done / whole)
        pictures.append(prefer(maps, rails, grid))
    return pictures
