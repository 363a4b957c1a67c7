"""Where a line of aim crosses nose, sights and the centre's turning line; aims in words."""

import math
import re
from dataclasses import dataclass

from fandle.core.constants import INCH_M
from fandle.core.errors import BadInputError
from fandle.core.lines.mirror import rail_line
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail, parse_rail

FRAMES = ("nose", "sight", "centre")
MARK_BEYOND = 2.0  # diamonds past a rail's ends at which a mark at the nose still says where to aim


@dataclass(frozen=True)
class Marks:
    """An aim in the three frames, diamonds along the first rail; sight None without sights."""

    nose: float
    sight: float | None
    centre: float


def diamond_along(table: Table, rail: Rail) -> float:
    """One diamond along a rail, in metres."""
    return table.diamond_x if rail.is_long else table.diamond_y


def inset_of(table: Table, frame: str) -> float:
    """How far inside the nose (m) a frame's line lies; sights lie outside, so negative."""
    if frame == "nose":
        return 0.0
    if frame == "centre":
        return table.ball_radius
    if frame == "sight":
        if table.sight_setback is None:
            raise BadInputError(
                f"table {table.name!r} has no sights: give the aim @nose or @centre", "aim", code="no_sights"
            )
        return -table.sight_setback
    raise BadInputError(f"unknown frame {frame!r}: use nose, sight or centre", "aim", code="unknown")


def crossing(table: Table, rail: Rail, start: Point, direction: float, inset: float) -> float:
    """Diamonds along the rail where the line crosses `inset` metres inside the nose; inf if parallel."""
    x, y = start
    ahead = math.sin(direction) if rail.is_long else math.cos(direction)
    aside = math.cos(direction) if rail.is_long else math.sin(direction)
    gap = rail_line(table, rail, inset) - rail.across(x, y)
    if abs(ahead) < 1e-12:
        return math.inf
    return (rail.along(x, y) + gap * aside / ahead) / diamond_along(table, rail)


def markable(rail: Rail, at: float) -> bool:
    """Does a mark at the nose say where to aim? Further out the line runs along the rail."""
    return -MARK_BEYOND <= at <= rail.diamonds + MARK_BEYOND


def edge_mark(table: Table, rail: Rail, start: Point, direction: float, at: float) -> float:
    """The mark at the nose of one edge of a window, diamonds, no further than the rail's own ends.

    at: the mark whose window it is, which may itself lie a little beyond. A direction that leads along the
    rail or away from it stands for the end on its side.
    """
    low, high = min(0.0, at), max(float(rail.diamonds), at)
    ahead, aside = math.sin(direction), math.cos(direction)
    if not rail.is_long:
        ahead, aside = aside, ahead
    if (ahead if rail.at_end else -ahead) < 1e-12:
        return high if aside > 0.0 else low
    return min(max(crossing(table, rail, start, direction, 0.0), low), high)


def marks(table: Table, rail: Rail, start: Point, direction: float) -> Marks:
    """The aim from `start` (m) in `direction` (rad), read at a rail in every frame."""
    sight = None
    if table.sight_setback is not None:
        sight = crossing(table, rail, start, direction, -table.sight_setback)
    return Marks(
        nose=crossing(table, rail, start, direction, 0.0),
        sight=sight,
        centre=crossing(table, rail, start, direction, table.ball_radius),
    )


def from_pocket(table: Table, rail: Rail, at: float) -> tuple[float, str]:
    """(metres, which) from a mark on a nose to the nearest pocket: a corner of the noses, or a side's middle."""
    across = "far" if rail.at_end else "near"
    if rail.is_long:
        places = [(0.0, f"head-{across} corner"), (8.0, f"foot-{across} corner")]
        if table.pockets is not None:
            places.append((4.0, f"middle of the side-{across} pocket"))
    else:
        end = "foot" if rail.at_end else "head"
        places = [(0.0, f"{end}-near corner"), (4.0, f"{end}-far corner")]
    away, name = min((abs(at - place), name) for place, name in places)
    return away * diamond_along(table, rail), name


def inches(metres: float) -> str:
    """A length to the nearest eighth of an inch: 16¼ in."""
    eighths = round(metres / INCH_M * 8)
    part = ("", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞")[eighths % 8]
    return f"{eighths // 8 or ''}{part} in" if eighths else "0 in"


def rail_ahead(table: Table, start: Point, direction: float) -> Rail:
    """The rail whose nose line a straight line from `start` (m) in `direction` (rad) comes to first."""
    dx, dy = math.cos(direction), math.sin(direction)

    def run(rail: Rail) -> float:
        speed = dy if rail.is_long else dx
        gap = rail_line(table, rail, 0.0) - rail.across(*start)
        return gap / speed if speed * gap > 0.0 else math.inf

    return min(Rail, key=run)


def over(rails: tuple[Rail, ...]) -> str:
    """A way in words: "over the far rail", "over the far and foot rails", "straight"."""
    if not rails:
        return "straight"
    *some, last = rails
    return f"over the {', '.join(some) + ' and ' if some else ''}{last} rail{'s' if some else ''}"


def direction_to(table: Table, rail: Rail, start: Point, at: float, frame: str) -> float:
    """Direction (rad) from `start` (m) to the mark `at` diamonds along a rail, read in `frame`.

    Raises BadInputError for a mark at the nose far beyond the rail's ends. At the sights a line that meets
    the rail may cross anywhere.
    """
    if frame == "nose" and not markable(rail, at):
        raise BadInputError(
            f"{at:g} is not a mark on the {rail} rail, which runs 0 to {rail.diamonds}: give at most "
            f"{MARK_BEYOND:g} {table.marks} beyond its ends",
            "aim",
            code="out_of_range",
        )
    x, y = rail.point(at * diamond_along(table, rail), rail_line(table, rail, inset_of(table, frame)))
    dx, dy = x - start[0], y - start[1]
    ahead = dy if rail.is_long else dx
    if not rail.at_end:
        ahead = -ahead
    if ahead < 1e-9:
        raise BadInputError(
            f"the cue ball already lies on the {frame} line of the {rail} rail: "
            "read the aim at the nose, or give a direction",
            "aim",
            code="taken",
        )
    return math.atan2(dy, dx)


_AIM = re.compile(r"\s*(?P<rail>[a-z]+)\s*:\s*(?P<at>[^@]+?)\s*(?:@\s*(?P<frame>[a-z]+))?\s*")


def parse_aim(text: str) -> tuple[Rail, str, str]:
    """(rail, mark, frame) from "far:3.42@nose" or "far:just past 3"; the nose where no frame is named."""
    found = _AIM.fullmatch(text)
    if found is None:
        raise BadInputError(f"aim {text!r} is not understood: write it like far:3.42@nose", "aim")
    frame = found["frame"] or "nose"
    if frame not in FRAMES:
        raise BadInputError(f"unknown frame {frame!r}: use nose, sight or centre", "aim", code="unknown")
    return parse_rail(found["rail"]), found["at"], frame


def degrees(direction: float) -> float:
    """A direction in degrees, −180 to 180."""
    return math.degrees(math.remainder(direction, 2 * math.pi))
