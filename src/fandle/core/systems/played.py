"""A count played: turned back to the real table, its own aim with its own stroke, and where that lands."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to, marks, over
from fandle.core.lines.remembered import remember
from fandle.core.shot.approach import Approach, approach
from fandle.core.shot.path import into_pocket
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses, passing
from fandle.core.systems.base import FULL, Count, Draft, Landing, NoCount, View, figure
from fandle.core.systems.own import own_in_words
from fandle.core.systems.taught import HARDEST, QUARTER, paced
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import mixed

FROZEN = 0.002  # diamonds, half a millimetre: a cue ball this near to a rail has no way into it
NEIGHBOURS = 24  # marks tried on either side of one that cannot be played
NEXT = 0.05  # diamonds from one to the next
TINY = 1e-6  # of a quarter: a stroke of three lengths is at its step already


def landing(
    layout: Layout, rails: tuple[Rail, ...], goal: Point, shot: Approach, *, arrived: bool = False
) -> Landing | None:
    """How far a played aim lands from `goal` (diamonds); None where it never comes there off the last rail.

    arrived: the way may end before the goal's level, in the pocket that is the goal.
    """
    last, table = rails[-1], layout.table
    leg = [q for q in shot.pieces if q.leg == len(rails)]
    past = passing(table, leg, goal[0] * table.diamond_x, goal[1] * table.diamond_y)
    near = abs(past)
    flank: Literal["left", "right"] = "right" if past > 0.0 else "left"
    carry = (
        arrived or not ended(shot) or near < 2 * table.ball_radius
    )  # a target hanging at a jaw is met before the jaw is
    met = crosses(shot, last, len(rails), last.across(*goal), carry=carry)
    if shot.rails[: len(rails)] != rails or met is None:
        return None
    at, travel = met
    off = (at - last.along(*goal)) * travel
    off_balls = near / (2 * table.ball_radius)
    return Landing(off, off_balls, "full" if off_balls < FULL else flank)


def ended(shot: Approach) -> bool:
    """Whether the ball's way ends before another rail: at rest, at a jaw, in a pocket."""
    return bool(shot.events) and shot.events[-1].kind != "rail"


def astray(shot: Approach, rails: tuple[Rail, ...], target: str) -> str:
    """What becomes of a ball that does not come to its target (a name as it is spoken)."""
    done = len(shot.rails)
    if not ended(shot) or shot.rails[: len(rails)] != rails[:done]:
        return f"the ball does not come off {over(rails).removeprefix('over ')}"
    last = shot.events[-1]
    if done >= len(rails):
        there = f"before it comes to {target}"
    else:
        there = f"not meet the {rails[done]} rail" if last.pocket else f"before it comes to the {rails[done]} rail"
    return f"the ball would {into_pocket(last) + ',' if last.pocket else 'stop'} {there}"


def _alone(
    layout: Layout, rails: tuple[Rail, ...], goal: Point, stroke: Stroke, direction: float
) -> tuple[Approach, Landing | None]:
    """A line played, other balls aside, and where it lands."""
    shot = approach(layout, stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
    return shot, landing(layout, rails, goal, shot)


def _stops_short(shot: Approach, rails: tuple[Rail, ...], lands: Landing | None) -> bool:
    """Does the ball come to rest on its way, before it is level with its target?"""
    on_its_way = shot.rails == rails[: len(shot.rails)]
    return lands is None and on_its_way and bool(shot.events) and shot.events[-1].kind == "stop"


def arriving(
    layout: Layout, rails: tuple[Rail, ...], goal: Point, stroke: Stroke, direction: float
) -> tuple[Stroke, Approach, Landing | None]:
    """A line played, other balls aside: (stroke, way, landing).

    Where the stroke stops before the goal, the least of the harder ones, in quarters of a table length, that gets
    there; the stroke itself where none does.
    """

    def play(played: Stroke) -> tuple[Stroke, Approach, Landing | None]:
        return played, *_alone(layout, rails, goal, played, direction)

    first = found = play(stroke)
    table, lengths = layout.table, lengths_of(layout.table, stroke.speed)
    while _stops_short(found[1], rails, found[2]):
        lengths = QUARTER * (math.floor(lengths / QUARTER + TINY) + 1)
        if lengths > HARDEST:
            return first
        found = play(replace(stroke, speed=paced(table, lengths).speed))
    return found


@dataclass(frozen=True)
class Aiming:
    """Who aims at what over which rails, with which stroke; the mark itself is left open."""

    layout: Layout
    rails: tuple[Rail, ...]
    frame: str
    stroke: Stroke
    goal: Point

    def play(self, at: float) -> tuple[float, Approach, Landing | None]:
        """(direction, way, landing) of the mark `at`, other balls aside."""
        direction = self.direction(at)
        return direction, *_alone(self.layout, self.rails, self.goal, self.stroke, direction)

    def direction(self, at: float) -> float:
        """Where the cue points for the mark `at`, rad."""
        layout = self.layout
        return direction_to(layout.table, self.rails[0], layout.metres(layout.cue), at, self.frame)

    def neighbour(self, at: float) -> str:
        """The mark next to one that a jaw spoils from which the ball does arrive, in words; "" where none is near.

        Of the marks that are told exactly, so that it lands where it is said to.
        """
        middle = round(at / NEXT)
        for k in range(1, NEIGHBOURS + 1):
            for number in (middle - k, middle + k):
                mark = number * NEXT
                lands = self.play(mark)[2] if 0.0 <= mark <= self.rails[0].diamonds else None
                if lands is not None:
                    return f"; the neighbouring choice {figure(mark)} is open and lands {lands.where}"
        return ""


def _paced_up(table: Table, stroke: Stroke, played: Stroke) -> str:
    """What is said of a stroke that had to be harder than the system's own."""
    if played == stroke:
        return ""
    usual, more = (mixed(round(lengths_of(table, each.speed) / QUARTER) * QUARTER) for each in (stroke, played))
    return f" Its usual {usual} lengths do not get there: {more} is the least that does."


def blocker(count: Count, target: str, way: Approach) -> tuple[str, bool]:
    """(what lies in the way of a count's mark and on which leg, "" where nothing does; is the way open?), by its way.

    The target itself, met a rail too early, is told but leaves the way open.
    """
    rails = count.rails
    ball, done = way.first_ball, len(way.rails)
    if ball is None or done > len(rails) or (ball == target and done == len(rails)):
        return "", True
    if ball == target:
        return f"{spoken(ball)} is met on the way to the {rails[done]} rail already", True
    leg = f"after the {rails[done - 1]} rail" if done else f"before the {rails[0]} rail"
    return f"{spoken(ball)} is in the way {leg}", False


def finish(
    layout: Layout, view: View, draft: Draft, method: str, title: str, *, beside: bool = False
) -> Count | NoCount:
    """Turn a draft back to the real table and play its aim with its own stroke.

    beside: where a jaw stands in the way, look for the neighbouring choice.
    """
    turn, table, target = view.turn, layout.table, view.target
    goal = turn.point(target.x, target.y)
    rails = tuple(turn.rail(rail) for rail in view.rails)
    at = turn.at(view.rail, draft.at)

    def no(reason: str) -> NoCount:
        return NoCount(method, title, rails, reason)

    if not 0.0 <= at <= rails[0].diamonds:
        return no(f"the sum leads off the {rails[0]} rail, to {figure(at)}")
    if view.off(view.cue) <= view.radius + FROZEN:
        return no(f"the cue ball lies against the {rails[0]} rail: it cannot be played over it")
    stroke = replace(draft.stroke, side=turn.hand * draft.stroke.side)
    aiming = Aiming(layout, rails, draft.frame, stroke, goal)
    direction = aiming.direction(at)
    played, shot, lands = arriving(layout, rails, goal, stroke, direction)
    if lands is None:
        jaw = bool(shot.events) and shot.events[-1].pocket is not None
        other = aiming.neighbour(at) if beside and jaw else ""
        return no(f"shooting {figure(at)}, {astray(shot, rails, spoken(target.id))}{other}")
    run = turn.at(view.rail, 1.0) - turn.at(view.rail, 0.0)  # -1 where the real rail is counted the other way
    own = None if draft.own is None else replace(draft.own, unit=run * draft.own.unit)
    numbers = tuple(replace(n, rail=turn.rail(n.rail), at=turn.at(n.rail, n.at)) for n in draft.numbers)
    return Count(
        method, title, rails, numbers, draft.steps, draft.say + _paced_up(table, stroke, played), draft.adjust,
        draft.frame, marks(table, rails[0], layout.metres(layout.cue), direction), direction, played,
        lengths_of(table, played.speed), lands, shot, remember(table, rails[0], at), own,
        "" if own is None else own_in_words(own, table, rails[0]), goal=goal if view.ghost else None,
    )  # fmt: skip
