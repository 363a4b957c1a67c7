"""Measuring with hands and cue: what to put where, what to keep unchanged, which point to remember.

The systems that measure (M3, M6-M10) give their own steps in the method's frame, diamonds; here they are
turned back to the real table.
"""

from dataclasses import dataclass, replace

from fandle.core.systems.base import View
from fandle.core.table.landmarks import landmark
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

# What a drawn thing is: a finger or chalk on a spot, the shaft laid along a line, a distance held between
# fingers, a line of sight, the outline of a ball, the mark to remember.
FINGER, SHAFT, SPAN, SIGHT, GHOST, MARK = "finger", "shaft", "span", "sight", "ghost", "mark"


@dataclass(frozen=True)
class Thing:
    """Something on the drawing: one point, or a line through its points."""

    kind: str
    points: tuple[Point, ...]


@dataclass(frozen=True)
class HandStep:
    """One thing to do. keep: what stays unchanged from here on, "" where nothing does."""

    do: str
    keep: str
    things: tuple[Thing, ...]


def finger(point: Point) -> Thing:
    """A finger, or a piece of chalk, on a spot."""
    return Thing(FINGER, (point,))


def shaft(*points: Point) -> Thing:
    """The cue laid along a line."""
    return Thing(SHAFT, points)


def span(a: Point, b: Point) -> Thing:
    """A distance held between fingers, or on the cue."""
    return Thing(SPAN, (a, b))


def sight(*points: Point) -> Thing:
    """A line of sight."""
    return Thing(SIGHT, points)


def ghost(point: Point) -> Thing:
    """The outline of a ball."""
    return Thing(GHOST, (point,))


def on(view: View, along: float, beyond: float = 0.0, rail: Rail | None = None) -> Point:
    """A point on the nose of a rail (the first one's), or `beyond` diamonds outside it."""
    rail = rail or view.rail
    edge = rail.diamonds_across if rail.at_end else 0.0
    return rail.point(along, edge + (beyond if rail.at_end else -beyond))


def remember(view: View, at: float, beyond: float = 0.0) -> HandStep:
    """The last step of all: the mark, by what is nearest to it."""
    rail = view.turn.rail(view.rail)
    where = landmark(view.layout.table, rail, view.turn.at(view.rail, at))
    point = on(view, at, beyond)
    cue = view.cue.x, view.cue.y
    return HandStep(
        f"Remember that point on the {rail} rail: {where}. Get down and shoot at it.",
        "the mark",
        (Thing(MARK, (point,)), sight(cue, point)),
    )


def turned(view: View, steps: tuple[HandStep, ...]) -> tuple[HandStep, ...]:
    """The steps on the real table."""
    return tuple(
        replace(
            step, things=tuple(replace(t, points=tuple(view.turn.point(*p) for p in t.points)) for t in step.things)
        )
        for step in steps
    )
