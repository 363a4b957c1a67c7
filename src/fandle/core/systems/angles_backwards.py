"""M12, angle matching worked backwards: from the target, the same angle off each rail as on to it.

The angle on to the last rail, the same off the one before, and so on back to the cue ball; the first mark is
moved until all match. Two rails that meet in a corner exchange an angle for the rest of a right angle.
That is the natural line of the ball's centre. Common practice, no published source.
"""

import math
from dataclasses import dataclass

from fandle.core.lines.marks import crossing
from fandle.core.lines.mirror import contacts, natural_direction
from fandle.core.systems.base import Draft, RailNumber, View
from fandle.core.systems.taught import by_eye
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M12"
TITLE = "Angles backwards"
ORDERS = (
    (Rail.FAR,), (Rail.FOOT,), (Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR),
    (Rail.FAR, Rail.NEAR), (Rail.FOOT, Rail.HEAD),
    (Rail.FAR, Rail.FOOT, Rail.NEAR), (Rail.FOOT, Rail.FAR, Rail.HEAD),
)  # fmt: skip


@dataclass(frozen=True)
class Matched:
    """A line whose angles match: its mark where the centre turns, and each rail's contact and angle (degrees)."""

    at: float
    contacts: tuple[tuple[Rail, float, float], ...]

    def numbers(self) -> tuple[RailNumber, ...]:
        """The contact marks, each with its angle."""
        first, *others = self.contacts
        marks = [RailNumber(first[0], first[1], f"{first[2]:.0f}°", "aim")]
        return tuple(marks + [RailNumber(rail, at, f"{angle:.0f}°", "zero") for rail, at, angle in others])

    def steps(self, view: View) -> tuple[str, ...]:
        """One step a rail, the last one first."""
        return tuple(f"{view.name(rail)}: in {a:.0f}° = out {a:.0f}°" for rail, _, a in reversed(self.contacts))


def matched(view: View) -> Matched | str:
    """The natural line of the ball's centre over the view's rails; why not, where there is none."""
    layout, table = view.layout, view.layout.table
    start, goal = layout.metres(view.cue), layout.metres(view.target)
    direction = natural_direction(table, view.rails, start, goal, table.ball_radius)
    turns = [] if direction is None else contacts(table, view.rails, start, direction, table.ball_radius)
    inside = all(0.0 <= x <= table.length and 0.0 <= y <= table.width for x, y in turns)
    if direction is None or len(turns) < len(view.rails) or not inside:
        names = [view.name(rail) for rail in view.rails]
        return f"no angles match over the {' and '.join(names)} rail{'s' * (len(names) > 1)}: another rail comes first"
    flat = abs(math.degrees(math.atan2(abs(math.sin(direction)), abs(math.cos(direction)))))
    found = tuple(
        (rail, rail.along(x / table.diamond_x, y / table.diamond_y), flat if rail.is_long else 90.0 - flat)
        for rail, (x, y) in zip(view.rails, turns, strict=True)
    )
    return Matched(crossing(table, view.rail, start, direction, table.ball_radius), found)


def count(view: View) -> Draft | str:
    """The first mark of the line whose angles all match."""
    found = matched(view)
    if isinstance(found, str):
        return found
    ball, n = spoken(view.target.id), len(view.rails)
    first, last_angle = view.name(view.rail), found.contacts[-1][2]
    say = (
        f"Start at {ball}: {last_angle:.0f}° from the {view.name(view.rails[-1])} rail both ways"
        + (", and backwards rail by rail" if n > 1 else "")
        + f". Only from one mark on the {first} rail does the last line come to the cue ball."
    )
    adjust = (
        "Each rail makes its own error: look at the angles here, then at the played ones, and learn the difference."
    )
    return Draft(found.at, "centre", by_eye(view), found.numbers(), found.steps(view), say, adjust)
