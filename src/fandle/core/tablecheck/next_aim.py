"""After the miss: what to aim at next, or how to strike instead, so that the same error would hit."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from fandle.core.lines.marks import Marks, crossing, direction_to, marks
from fandle.core.player.scatter import Player
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import tips_of
from fandle.core.systems.base import figure
from fandle.core.tablecheck.diagnose import Diagnosis, diagnose
from fandle.core.tablecheck.miss import Miss
from fandle.core.words.spoken import tips_word

Change = Literal["none", "mark", "speed", "side", "height"]
MOST_SPEED_CHANGE, MOST_SIDE_CHANGE = 0.35, 0.25  # a change of stroke larger than that (share, radii) is another shot


@dataclass(frozen=True)
class Next:
    """What to change for the next attempt: the mark at the nose, or the stroke; value: what it becomes."""

    change: Change
    value: float
    aim: Marks
    stroke: Stroke
    say: str


@dataclass(frozen=True)
class Advice:
    """The causes, and the next aims, the first one recommended."""

    diagnosis: Diagnosis
    next: tuple[Next, ...]


def advise(miss: Miss, player: Player) -> Advice:
    """Weigh the causes of a miss, and say what to shoot next."""
    found = diagnose(miss, player)
    layout, rail = miss.layout, miss.rails[0]
    here = marks(layout.table, rail, layout.metres(layout.cue), miss.direction)
    again = Next("none", 0.0, here, miss.stroke, "inside your own scatter: shoot it again")
    moved = _mark(miss, found)
    others = [each for each in (moved, _stroke(miss, found, here)) if each is not None]
    return Advice(found, (again, *others) if found.typical or not others else tuple(others))


def _mark(miss: Miss, found: Diagnosis) -> Next | None:
    """The mark that makes up for the miss at this stroke, whatever its cause."""
    layout, rail = miss.layout, miss.rails[0]
    if not math.isfinite(found.slope) or abs(found.slope) < 0.1:
        return None
    nose = crossing(layout.table, rail, layout.metres(layout.cue), miss.direction, 0.0) - miss.off / found.slope
    if not 0.0 <= nose <= rail.diamonds:
        return None
    direction = direction_to(layout.table, rail, layout.metres(layout.cue), nose, "nose")
    aim = marks(layout.table, rail, layout.metres(layout.cue), direction)
    return Next("mark", nose, aim, miss.stroke, f"aim at {figure(nose)} on the {rail} rail instead, same stroke")


def _stroke(miss: Miss, found: Diagnosis, here: Marks) -> Next | None:
    """The stroke that makes this mark right: another speed, else other side, where a small change does it."""
    part = -miss.off / found.per_speed if abs(found.per_speed) > 1e-6 else math.inf
    if abs(part) <= MOST_SPEED_CHANGE:
        stroke = replace(miss.stroke, speed=miss.stroke.speed * (1.0 + part))
        say = f"the same mark, {abs(part):.0%} {'firmer' if part > 0 else 'softer'}"
        return Next("speed", stroke.speed, here, stroke, say)
    by = -miss.off / found.per_side if abs(found.per_side) > 1e-6 else math.inf
    side = miss.stroke.side + by
    if abs(by) > MOST_SIDE_CHANGE or math.hypot(side, miss.stroke.up) > 0.49:
        return None
    table = miss.layout.table
    way = running(by, miss.rails[0], miss.direction)
    say = f"the same mark, {tips_word(abs(tips_of(by, table, miss.stroke.cue.tip)))} more {way}"
    return Next("side", side, here, replace(miss.stroke, side=side), say)
