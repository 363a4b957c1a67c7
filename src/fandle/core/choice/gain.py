"""What another stroke would add to a line's chance, where the draws show it clearly."""

import math
from dataclasses import dataclass

from fandle.core.choice.ranked import Ranked
from fandle.core.choice.wish import Wish
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import tips_of
from fandle.core.table.model import Table
from fandle.core.words.spoken import side_name, tips_word

SURE = 2.0  # standard errors
SAME_SPEED, SAME_TIPS = 0.03, 0.1


@dataclass(frozen=True)
class Gain:
    """By how much the chance rises (a share), and with what: "+9 %: a little softer"."""

    p: float
    say: str


def gain_of(line: Ranked, wish: Wish, given: Stroke, table: Table) -> Gain | None:
    """What the line's own stroke adds to the chance it has at the stroke given; None unless that is clear.

    Draw by draw the same errors are made with both: the mean of the differences must exceed two standard errors.
    """
    if line.here is None or line.here is line.chance:
        return None
    off = wish.worth(line.chance) - wish.worth(line.here)
    if len(off) < 2:
        return None
    mean, error = float(off.mean()), float(off.std(ddof=1)) / math.sqrt(len(off))
    if mean <= SURE * error or mean < 0.005:
        return None
    return Gain(mean, f"+{100 * mean:.0f} %: {changed(line.aim.stretch.tried.stroke, given, table)}")


def changed(stroke: Stroke, given: Stroke, table: Table) -> str:
    """What is other about a stroke, in words: "firmer, ½ tip right"."""
    said = []
    part = stroke.speed / given.speed - 1.0
    if abs(part) > SAME_SPEED:
        little = "a little " if abs(part) < 0.2 else ""
        said.append(f"{little}{'firmer' if part > 0 else 'softer'}")
    for name, plain, more in (("side", "without side", None), ("up", "at centre height", "above")):
        tips = tips_of(getattr(stroke, name), table, stroke.cue.tip)
        before = tips_of(getattr(given, name), table, stroke.cue.tip)
        if abs(tips - before) <= SAME_TIPS:
            continue
        way = side_name(tips) if more is None else ("above centre" if tips > 0 else "below centre")
        said.append(plain if abs(tips) <= SAME_TIPS else f"{tips_word(tips)} {way}")
    if stroke.elevation > given.elevation:
        said.append(f"the cue raised by {stroke.elevation:.0f}°")
    return ", ".join(said) or "as it is"
