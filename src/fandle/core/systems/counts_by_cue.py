"""How the equal counts land for a small and a large count, with a cue that does not squirt and with a house cue.

Practice adds or takes side by the size of the count and disagrees in which direction; here both are played.
"""

from dataclasses import replace

from fandle.core.errors import BadInputError
from fandle.core.layout.edit import clear
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE, IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, figure
from fandle.core.systems.played import Aiming
from fandle.core.systems.symmetry import ACROSS
from fandle.core.table.pocket import Point

SMALL, LARGE = 3.0, 6.0


def by_cue(layout: Layout, found: Count, zero: float, goal: Point, stroke: Stroke) -> str:
    """Landings of both counts from `zero` (diamonds along the cue ball's long rail) to `goal`, in words.

    "" where neither count fits on the rail or arrives.
    """
    told = []
    for cue in (IDEAL, HOUSE):
        landed = [(n, _lands(layout, found, zero, goal, replace(stroke, cue=cue), n)) for n in (SMALL, LARGE)]
        parts = [f"a count of {figure(n)} lands {where}" for n, where in landed if where]
        if parts:
            told.append(f"{_name(cue)} {' and '.join(parts)}")
    return "; ".join(told)


def _name(cue: Cue) -> str:
    return "with an ideal cue" if cue == IDEAL else f"with a {cue.label}"


def _lands(layout: Layout, found: Count, zero: float, goal: Point, stroke: Stroke, n: float) -> str:
    """Where the count n from a ball on the rail lands; "" where it does not fit or arrive."""
    short, long = found.rails[0], found.rails[1]
    own = ACROSS[long]
    along = zero + (n if short.at_end else -n)
    if not 0.0 < along < own.diamonds:
        return ""
    off = layout.table.ball_radius / layout.table.diamond_y
    x, y = own.point(along, own.diamonds_across - off if own.at_end else off)
    alone = clear(layout)
    balls = tuple(replace(b, x=x, y=y) if b.id == alone.cue.id else b for b in alone.balls)
    mark = short.diamonds - (n - 1) / 2 if long.at_end else (n - 1) / 2
    try:
        there = replace(alone, balls=balls)
    except BadInputError:  # the target lies there
        return ""
    lands = Aiming(there, found.rails, found.frame, stroke, goal).play(mark)[2]
    return "" if lands is None else lands.where
