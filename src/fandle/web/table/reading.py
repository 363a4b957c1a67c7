"""Where the card reads the mark of the chosen line, in the frame that is printed large."""

import math

from fandle.app.situation import Situation
from fandle.core.lines.marks import Marks
from fandle.core.lines.reading import Reading, on_rail, read_at
from fandle.core.lines.remembered import remember
from fandle.core.lines.solution import Solution
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken


def reading_of(best: Solution, asked: Situation) -> Reading:
    """Where the mark is read so that it lies on its rail; of a bank the object ball's."""
    here = on_rail(best.corrected, best.mark_rail)
    if here is not None or best.contact is not None:
        return Reading(best.mark_rail, here or best.corrected, best.mark)
    return read_at(asked.table, best.mark_rail, asked.layout.metres(asked.layout.cue), best.direction)


def frame_of(marks: Marks, asked: Situation) -> str:
    """The frame printed large: the cushion edge where the sights end before the line comes to them."""
    return asked.frame if getattr(marks, asked.frame) is not None else "nose"


def lead(best: Solution, at: Reading) -> str:
    """What the mark belongs to."""
    if not best.rails:
        return f"Straight at {spoken(best.target)}"
    return f"{at.rail.value.capitalize()} rail"


def counted_from(best: Solution, at: Reading) -> str:
    """Where the mark's number is counted from."""
    if not best.rails:
        return f"on the {at.rail} rail behind it"
    start = Rail.HEAD if at.rail.is_long else Rail.NEAR
    return f"from the {start} end"


def remembered(at: Reading, asked: Situation) -> str:
    """The mark as one remembers it, or the thing aimed at; nothing where there are no diamonds to remember it by."""
    if at.aim is None:
        return at.mark.say
    value = getattr(at.aim, frame_of(at.aim, asked))
    if not math.isfinite(value) or not asked.table.has_diamonds:
        return ""
    return remember(asked.table, at.rail, value).say
