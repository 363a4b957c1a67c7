"""The four ways to lay a table on itself: a method is written once, and the layout is turned to it."""

from dataclasses import dataclass, replace
from functools import lru_cache

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.layout.model import Layout
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

ACROSS = {Rail.NEAR: Rail.FAR, Rail.FAR: Rail.NEAR, Rail.HEAD: Rail.FOOT, Rail.FOOT: Rail.HEAD}


@dataclass(frozen=True)
class Turn:
    """Head and foot exchanged, near and far exchanged, or both (a half turn). Its own inverse."""

    ends: bool = False
    sides: bool = False

    @property
    def hand(self) -> float:
        """−1 where right becomes left: one mirror, not two."""
        return -1.0 if self.ends != self.sides else 1.0

    def rail(self, rail: Rail) -> Rail:
        """Where a rail comes to lie."""
        flipped = self.sides if rail.is_long else self.ends
        return ACROSS[rail] if flipped else rail

    def at(self, rail: Rail, along: float) -> float:
        """A mark along a rail, diamonds, after the turn."""
        flipped = self.ends if rail.is_long else self.sides
        return rail.diamonds - along if flipped else along

    def point(self, x: float, y: float) -> Point:
        """A point, diamonds, after the turn."""
        return (DIAMONDS_LONG - x if self.ends else x, DIAMONDS_SHORT - y if self.sides else y)

    def layout(self, layout: Layout) -> Layout:
        """The layout after the turn."""
        return _turned(self, layout) if self.ends or self.sides else layout


@lru_cache(maxsize=32)  # every system turns the same layout the same three ways
def _turned(turn: Turn, layout: Layout) -> Layout:
    balls = []
    for ball in layout.balls:
        x, y = turn.point(ball.x, ball.y)
        balls.append(replace(ball, x=x, y=y))
    return layout.moved(tuple(balls))


def turn_to(rails: tuple[Rail, ...], wanted: tuple[Rail, ...], layout: Layout, target: Point) -> Turn | None:
    """The turn that brings `rails` on to `wanted`; None if there is none.

    Where the rails leave an axis open, the target comes to lie further along it than the cue ball.
    """
    if len(rails) != len(wanted):
        return None
    ends, sides = None, None
    for have, want in zip(rails, wanted, strict=True):
        if have.is_long != want.is_long:
            return None
        flip = have is not want
        if have.is_long:
            if sides is not None and sides != flip:
                return None
            sides = flip
        else:
            if ends is not None and ends != flip:
                return None
            ends = flip
    cue = layout.cue
    if ends is None:
        ends = target[0] < cue.x
    if sides is None:
        sides = target[1] < cue.y
    return Turn(ends, sides)
