"""What happens when a count is played: the verdict on its aim, with all balls on the table.

A count hits where the target is the first ball met, on the way over the counted rails and at most one more: a ball in
or near a corner is met after the adjoining rail as often as before it, one at the last rail a moment before that.
"""

import math
from dataclasses import replace
from typing import Literal

from fandle.core.errors import EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.approach import Approach, approach, offset_at, pushes
from fandle.core.shot.play import Shot, play
from fandle.core.shot.travel import passing
from fandle.core.systems.base import FULL, Count, Landing

MORE = 1  # rails beyond the counted ones after which the target may be met


def way_of(layout: Layout, found: Count) -> Approach:
    """A kick's count as it is played with all balls, up to the first of them or the rail after the last that counts."""
    return approach(layout, found.stroke, found.direction, most_rails=len(found.rails) + MORE + 1, past_jaws=True)


def proved(
    layout: Layout,
    found: Count,
    target: Ball,
    *,
    pots: bool = False,
    last: Ball | None = None,
    way: Approach | None = None,
) -> Landing:
    """The landing of a kick's count with its verdict; pots: also whether the target drops, and where. way: `way_of`.

    last: the ball that is to drop, where the target only drives it.
    """
    rails, table, goal = found.rails, layout.table, layout.metres(target)
    way = way_of(layout, found) if way is None else way
    done = len(way.rails)
    if (
        _first(layout, found, way) == target.id
        and way.rails[: len(rails)] == rails[:done]
        and done <= len(rails) + MORE
    ):
        full = offset_at(way, layout, target)
        met: Literal["left", "right", "full"] = "full" if abs(full) < FULL else "right" if full > 0.0 else "left"
        pocket = potted(layout, found, last or target) if pots else None
        return replace(
            found.lands, off_balls=abs(full), met=met, hits=True, after=way.rails[len(rails) :], before=rails[done:],
            full=full, pots=pocket,
        )  # fmt: skip
    legs = [piece for piece in way.pieces if len(rails) <= piece.leg <= len(rails) + MORE] or list(way.pieces)
    past = passing(table, legs, *goal)
    if math.isinf(past):  # it ends where it begins, at a ball that touches it
        past = math.dist(layout.metres(layout.cue), goal)
    return replace(
        found.lands, off_balls=max(abs(past) / (2 * table.ball_radius), 1.0), met="right" if past > 0.0 else "left",
        hits=False, after=(), before=(), full=None, pots=None,
    )  # fmt: skip


def _first(layout: Layout, found: Count, way: Approach) -> str | None:
    """The ball met first; of several that touch the cue ball the one that takes the blow first, as it is played."""
    at_once = bool(way.events) and way.events[0].other is not None and pushes(layout, way)
    shot = shot_of(layout, found) if at_once else None
    return way.first_ball if shot is None else shot.first_ball


def potted(layout: Layout, found: Count, target: Ball) -> str | None:
    """The pocket into which a count's own aim sends the target; None where it stays on the table."""
    shot = shot_of(layout, found)
    return None if shot is None else dict(shot.potted).get(target.id)


def shot_of(layout: Layout, found: Count) -> Shot | None:
    """A count played with all balls; None where balls never stop knocking, as a rack among dead cushions may."""
    try:
        return play(layout, found.stroke, found.direction)
    except EngineError:
        return None


def verdict_of(lands: Landing) -> str:
    """The verdict in a player's words: "hits", "hits after the far rail too", "goes by"."""
    if not lands.hits:
        return "goes by"
    if lands.before:
        return f"hits before the {lands.before[0]} rail"
    return f"hits after the {lands.after[0]} rail too" if lands.after else "hits"


def room_said(lands: Landing, pocket: str | None = None) -> str:
    """How full it is hit, or by how much it goes by, in ball widths across its way. pocket: the one that is meant."""
    if lands.full is None:
        by = max(lands.off_balls - 1.0, 0.0)
        far = f"{by:.1f} ball widths" if by >= 0.05 else "a hair"
        return f"by {far}, past its {lands.met}"
    thick = f"{1.0 - lands.off_balls:.0%} full" + ("" if lands.met == "full" else f", on its {lands.met}")
    if pocket is not None and lands.pots != pocket:
        thick += f", and does not drop in {pocket}"
    return f"{thick}, and drops in {lands.pots}" if lands.pots else thick
