"""The contact a count is to carry: full on its ball, a thickness, or the one that pots.

A system counts to a place. For a thickness that lies beside the ball, square to the way in; for a pot it is the ghost
ball in line with the pocket, of a combination that of the first ball in line with the second one's. Throw is left
aside, as players do. Common practice, no published source.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.question import check_hit, wanted_mouths
from fandle.core.systems.base import Count, NoCount, figure
from fandle.core.table.model import Table
from fandle.core.table.pocket import Mouth, Point
from fandle.core.words.balls import spoken

MOST_CUT = 80.0  # degrees: thinner, the ball hardly moves
PASSES = 3  # in which the way in and the place beside the ball settle
ROOM_M = 0.001  # by which a ghost ball may stand in rubber
Tried = Callable[[Ball], Count | NoCount]


@dataclass(frozen=True)
class Contact:
    """hit: ball diameters right of full, -1 to 1. pocket: where the target is to drop, "any" for whichever serves best.

    met: the first ball of a combination. Raises BadInputError.
    """

    hit: float = 0.0
    pocket: str | None = None
    met: str | None = None

    def __post_init__(self) -> None:
        check_hit(self.hit)

    @property
    def full(self) -> bool:
        """Is nothing but a full hit asked for?"""
        return self.hit == 0.0 and self.pocket is None and self.met is None


FULL_ON = Contact()


def carried(layout: Layout, ball: Ball, contact: Contact, tried: Tried) -> Count | NoCount:
    """A count to the ball at this thickness. tried: the count to a place, named as the ball is."""
    found = tried(ball)
    for _ in range(PASSES):
        if isinstance(found, NoCount):
            return found
        found = tried(_beside(layout, found, ball, contact.hit))
    if isinstance(found, NoCount):
        return found
    side = "right" if contact.hit > 0 else "left"
    return replace(found, say=f"{found.say} Counted to a contact {figure(abs(contact.hit))} ball {side} of full.")


def into_pocket(layout: Layout, ball: Ball, target: Ball, mouth: Mouth, tried: Tried) -> Count | NoCount:
    """A count to the ghost ball that sends the target into a pocket. ball: the one met, the target or another."""
    goal = _middle(layout.table, mouth.name)
    through = [target] if ball.id == target.id else [target, ball]
    for each in through:
        goal = _ghost(layout, each, goal)
    table, name = layout.table, spoken(target.id)
    place = Ball(ball.id, goal[0] / table.diamond_x, goal[1] / table.diamond_y)
    found = tried(place)
    if isinstance(found, NoCount):
        return found
    if not _fits(table, goal):
        why = f"no ghost ball fits behind {spoken(ball.id)}: a rail is in its place"
        return NoCount(found.method, found.title, found.rails, f"into {mouth.name}, {why}")
    here = layout.metres(ball)
    cut = abs(
        math.degrees(math.remainder(_heading(found) - math.atan2(here[1] - goal[1], here[0] - goal[0]), math.tau))
    )
    if cut > MOST_CUT:
        why = f"{spoken(ball.id)} would have to be cut {cut:.0f}°: the cue ball comes from the wrong side"
        return NoCount(found.method, found.title, found.rails, f"into {mouth.name}, {why}")
    by = "" if ball.id == target.id else f" by way of {spoken(ball.id)}"
    said = f"{found.say} Counted to the ghost ball that sends {name} into {mouth.name}{by}, a cut of {cut:.0f}°."
    return replace(found, say=said, pocket=mouth.name)


def pockets_of(layout: Layout, contact: Contact) -> list[Mouth]:
    """The pockets that a pot may go to. Raises BadInputError for one nobody knows, or on a table without."""
    return wanted_mouths(layout, contact.pocket)


def _middle(table: Table, name: str) -> Point:
    """A pocket as players see it, m: where the two noses would meet, of a side the middle of its nose."""
    end, side = name.split("-")
    return table.length * {"head": 0.0, "side": 0.5, "foot": 1.0}[end], table.width * {"near": 0.0, "far": 1.0}[side]


def _ghost(layout: Layout, ball: Ball, goal: Point) -> Point:
    """The centre of a ball that drives another one towards a place, m: two radii behind it."""
    x, y = layout.metres(ball)
    far = math.hypot(goal[0] - x, goal[1] - y)
    back = 2 * layout.table.ball_radius / max(far, layout.table.ball_radius)
    return x - (goal[0] - x) * back, y - (goal[1] - y) * back


def _fits(table: Table, place: Point) -> bool:
    """Has a ball room between the noses there?"""
    least = table.ball_radius - ROOM_M
    return least <= place[0] <= table.length - least and least <= place[1] <= table.width - least


def _heading(found: Count) -> float:
    """Direction of the ball on the last counted leg as it comes to its place, rad."""
    legs = [piece for piece in found.shot.pieces if piece.leg == len(found.rails)] or found.shot.pieces[-1:]
    return legs[-1].heading


def _beside(layout: Layout, found: Count, ball: Ball, hit: float) -> Ball:
    """The place that a ball's centre passes through when it meets another this far right of full."""
    table, way = layout.table, _heading(found)
    x, y = layout.metres(ball)
    away = 2 * table.ball_radius * hit
    return Ball(ball.id, (x + away * math.sin(way)) / table.diamond_x, (y - away * math.cos(way)) / table.diamond_y)
