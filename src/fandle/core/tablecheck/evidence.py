"""What was seen of shots on the real table, and what a table predicts of them: the difference in reading errors."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise, permutations
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.constants import DIAMONDS_LONG
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.physics.batch import Strokes
from fandle.core.physics.engine import MOST_EVENTS
from fandle.core.physics.trace import Traces, trace
from fandle.core.player.scatter import Player
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Contact, Rail
from fandle.core.tablecheck.shots import Setup

Floats = NDArray[np.float64]
RAILS = tuple(Rail)
READING = 0.05  # diamonds: how well a contact is read by eye
STOP_READING = 0.1  # and a stopping place
CORNER = 1.0  # diamonds: contacts with two rails this near to one another may be made in either order
NOWHERE = 1.0  # diamonds: a contact that is predicted on no such rail is off by so much
SLOWEST_PART, MOST_OFF = 0.2, 0.49  # of the speed meant; of the radius


@dataclass(frozen=True)
class Seen:
    """One shot as it was played: its set-up, the contacts with the rails watched, in order, where it stopped if told.

    A ball that dropped at a corner landed at that end of the rail.
    """

    setup: Setup
    landed: tuple[Contact, ...]
    rest: tuple[float, float] | None = None

    def __post_init__(self) -> None:
        for contact in self.landed:
            if not -0.5 <= contact.at <= contact.rail.diamonds + 0.5:
                raise BadInputError(
                    f"shot {self.setup.id}: {contact.at:g} does not lie on the {contact.rail} rail: 0 to "
                    f"{contact.rail.diamonds:g}", "shots.landed", code="out_of_range",
                )  # fmt: skip
        if self.setup.every and not _in_order(self.landed, self.setup.watch):
            raise BadInputError(
                f"shot {self.setup.id}: it is watched at {', '.join(self.setup.watch)}, in this order; landed has "
                f"{', '.join(contact.rail for contact in self.landed)}: put them in order",
                "shots.landed", code="order",
            )  # fmt: skip
        if not self.landed and self.rest is None:
            raise BadInputError(f"shot {self.setup.id}: say where it landed", "shots.landed", code="missing")

    @property
    def skips(self) -> bool:
        """Are only some of the rails on its way told of?"""
        rails = tuple(contact.rail for contact in self.landed)
        return not self.setup.every or rails != self.setup.watch[: len(rails)]

    @property
    def count(self) -> int:
        """How many figures it gives."""
        return len(self.landed) + (0 if self.rest is None else 2)


def _in_order(landed: tuple[Contact, ...], watch: tuple[Rail, ...]) -> bool:
    """Are these contacts with rails that are watched, some perhaps left out?"""
    left = iter(watch)
    return all(contact.rail in left for contact in landed)


def own_shot(
    layout: Layout, stroke: Stroke, direction: float, landed: tuple[Contact, ...], rest: tuple[float, float] | None
) -> Seen:
    """A shot of one's own, of which only the contacts told are known. Raises BadInputError.

    Contacts that lie nearer to those of the shot as it was meant in another order are refused, but for two at a corner.
    """
    if not landed:
        raise BadInputError("a shot of your own needs its contacts: give landed", "shots.landed", code="missing")
    events = approach(layout, stroke, direction, ignore_balls=True).events
    way = [Contact(ev.rail, ev.rail.along(ev.x, ev.y)) for ev in events if ev.rail is not None]
    orders = sorted(permutations(landed), key=lambda some: _apart(some, way))
    if _apart(orders[0], way) + CORNER < _apart(landed, way) and not _at_corner(landed):
        raise BadInputError(
            f"this shot meets {', '.join(each.rail for each in orders[0])}, in this order; landed has "
            f"{', '.join(each.rail for each in landed)}: put them in order", "shots.landed", code="order",
        )  # fmt: skip
    watch = tuple(contact.rail for contact in landed)
    return Seen(Setup("own", "own", layout, stroke, direction, watch, every=False), landed, rest)


def _apart(landed: tuple[Contact, ...], way: list[Contact]) -> float:
    """How far contacts in this order lie from those of a shot as meant, some of them left out, diamonds."""
    found, left = 0.0, iter(way)
    for contact in landed:
        met = next((each for each in left if each.rail is contact.rail), None)
        found += NOWHERE * DIAMONDS_LONG if met is None else abs(met.at - contact.at)
    return found


def _at_corner(landed: tuple[Contact, ...]) -> bool:
    """Do two contacts that follow one another lie so near to a corner that either may come first?"""
    return any(
        math.dist(one.rail.point(one.at, one.rail.end), other.rail.point(other.at, other.rail.end)) < CORNER
        for one, other in pairwise(landed)
    )


class Errors(NamedTuple):
    """How a shot was made otherwise than meant, in the player's own standard deviations: columns of (n, 4)."""

    speed: int = 0
    across: int = 1
    up: int = 2
    direction: int = 3


KINDS: Errors = Errors()


def off_words(kind: int, off: float, player: Player) -> str:
    """An error of speed or tip in words: "the tip 1.6 mm to the right"; off: in the player's standard deviations."""
    if kind == KINDS.speed:
        part = max(player.speed_part * off, SLOWEST_PART - 1.0)
        return f"{abs(part):.0%} {'firmer' if part > 0 else 'softer'} than meant"
    across = kind == KINDS.across
    way = ("right" if off > 0 else "left") if across else ("higher" if off > 0 else "lower")
    return f"the tip {abs(player.tip_mm * off):.1f} mm {'to the ' if across else ''}{way}"


def made(seen: Sequence[Seen], player: Player, off: Floats, tables: NDArray[np.int64]) -> Strokes:
    """The strokes as they were made, all shots a whole number of times. off: (n, 4) errors; tables: which one each is
    played on.

    The direction has the arm's error and that of the mark, as between diamonds.
    """
    times = len(off) // len(seen)
    stroke = np.tile(np.array([one.setup.stroke.array() for one in seen]), (times, 1))
    at = np.tile([one.setup.direction for one in seen], times)
    start = np.tile(np.array([one.setup.start for one in seen]), (times, 1))
    tip = np.tile([player.tip_mm / 1000 / one.setup.layout.table.ball_radius for one in seen], times)
    stroke[:, 0] *= np.maximum(1.0 + player.speed_part * off[:, KINDS.speed], SLOWEST_PART)
    side, up = stroke[:, 1] + tip * off[:, KINDS.across], stroke[:, 2] + tip * off[:, KINDS.up]
    scale = np.minimum(MOST_OFF / np.maximum(np.hypot(side, up), 1e-9), 1.0)
    stroke[:, 1], stroke[:, 2] = side * scale, up * scale
    aim = np.tile([aim_sd(one.setup, player) for one in seen], times)
    return Strokes(at + aim * off[:, KINDS.direction], stroke, start, tables)


def aim_sd(setup: Setup, player: Player) -> float:
    """The standard deviation of the cue's direction, rad: the arm's and the mark's, seen from the cue ball."""
    table, rail = setup.layout.table, setup.watch[0]
    x, y = setup.start
    ux, uy = np.cos(setup.direction), np.sin(setup.direction)
    ahead = abs(uy) if rail.is_long else abs(ux)
    gap = (
        (table.width - y if rail is Rail.FAR else y) if rail.is_long else (table.length - x if rail is Rail.FOOT else x)
    )
    unit = table.diamond_x if rail.is_long else table.diamond_y
    mark = player.mark.diamond * unit * ahead**2 / max(gap, 1e-6)
    return float(np.hypot(np.radians(player.direction_deg), mark))


def predicted(seen: Sequence[Seen], found: Traces, table: Table) -> list[Floats]:
    """The figures of each shot as a table predicts them: contacts, then the stop, diamonds; NaN where there is none."""
    told = [np.empty(0)] * len(seen)
    places: dict[int, list[int]] = {}
    for k, one in enumerate(seen):
        places.setdefault(id(one), []).append(k)
    for rows in places.values():
        found_of = predicted_of(seen[rows[0]], Traces._make(column[rows] for column in found), table)
        for k, row in zip(rows, found_of, strict=True):
            told[k] = row
    return told


def predicted_of(one: Seen, found: Traces, table: Table) -> Floats:
    """The figures of one shot on each of its traces, (n, figures).

    A contact that is missed by a little, because the ball stops before it or meets a corner's other rail, is where the
    way carried on straight would have met it: so that a small change never makes a leap.
    """
    n, legs = found.rails.shape
    row, every = np.full((n, one.count), np.nan), np.arange(n)
    leg, on = np.zeros(n, np.int64), np.ones(n, np.bool_)
    for i, contact in enumerate(one.landed):
        number, axis = RAILS.index(contact.rail), 0 if contact.rail.is_long else 1
        unit = table.diamond_x if contact.rail.is_long else table.diamond_y
        live, here = on & (leg < legs), np.minimum(leg, legs - 1)
        ahead = (found.rails == number) & (np.arange(legs) >= leg[:, None])
        met = np.where(ahead.any(axis=1), ahead.argmax(axis=1), -1)
        hit = live & ((met == leg) | ((met > leg) & one.skips))
        row[hit, i] = found.at[every[hit], met[hit], axis] / unit
        past = live & ~hit
        row[past, i] = found.carried[every[past], here[past], number] / unit
        leg, on = np.where(hit, met + 1, leg), on & ~past
    if one.rest is not None:
        row[on, -2:] = found.rest[on] / (table.diamond_x, table.diamond_y)
    return row


def noted(one: Seen) -> tuple[Floats, Floats]:
    """(the figures as they were read, how well each is read), diamonds."""
    values = [contact.at for contact in one.landed] + ([] if one.rest is None else list(one.rest))
    errors = [READING] * len(one.landed) + ([] if one.rest is None else [STOP_READING] * 2)
    return np.array(values), np.array(errors)


def residuals(seen: Sequence[Seen], strokes: Strokes, tables: Sequence[Table]) -> Floats:
    """(rows, figures): how far the prediction lies from what was read, in reading errors.

    strokes: a whole number of times all shots, each time on the table of the same number.
    """
    n, columns = len(seen), []
    most = [MOST_EVENTS if one.rest is not None or one.skips else len(one.landed) for one in seen]
    times = len(strokes.direction) // n
    found = trace(strokes, np.array([table.params() for table in tables]), most=np.tile(most, times))
    for k, one in enumerate(seen):
        guess = predicted_of(one, Traces._make(column[k::n] for column in found), tables[0])
        value, error = noted(one)
        columns.append(np.where(np.isnan(guess), NOWHERE, guess - value) / error)
    return np.concatenate(columns, axis=1)
