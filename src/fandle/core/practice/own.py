"""A drill of one's own, made of any layout: its line is solved on the table it is played on, like any drill's."""

import hashlib
import re
from typing import NamedTuple

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import over
from fandle.core.practice.drill import Drill, Play
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import tips_of
from fandle.core.table.rails import Rail, rails_name
from fandle.core.table.speeds import lengths_of
from fandle.core.table.standards import standard_table
from fandle.core.words.balls import CUE, spoken

FAMILY = "My drills"
PREFIX = "own-"
MOST_TITLE = 60  # characters
MOST_SAY = 400
MOST_TRIES = 50  # of which a goal counts the last
OWN_CIRCLE = 0.5  # diamonds about where the cue ball stops


class Struck(NamedTuple):
    """How it is struck, in players' units: speed in table lengths, tips to the right and above centre; hit: ball
    diameters right of full."""

    lengths: float = 2.5
    tips: float = 0.0
    height: float = 0.0
    hit: float = 0.0


class Counts(NamedTuple):
    """What counts: with the stop or without, and how many of the last so many tries."""

    stop: bool = False
    wanted_hits: int = 7
    out_of: int = 10


def struck(layout: Layout, stroke: Stroke, hit: float) -> Struck:
    """A stroke in players' units."""
    table = layout.table
    lengths = lengths_of(standard_table(table.standard), stroke.speed)
    return Struck(lengths, tips_of(stroke.side, table), tips_of(stroke.up, table), hit)


def own_drill(
    layout: Layout, line: tuple[Rail, ...], how: Struck, title: str, counts: Counts, *, say: str = "",
    bank: bool = False, pocket: str | None = None,
) -> Drill:  # fmt: skip
    """A layout's line as a drill. line: its rails in order, () for the straight shot.

    Its name holds a hash of all that is drilled: another line is another drill, with a record of its own. Raises
    BadInputError without a target, a title, or a goal that can be reached.
    """
    target, title = layout.require_target().id, title.strip()
    if not 1 <= len(title) <= MOST_TITLE:
        raise BadInputError(f"a drill needs a title of 1 to {MOST_TITLE} letters", "title", code="out_of_range")
    if not 1 <= counts.wanted_hits <= counts.out_of <= MOST_TRIES:
        raise BadInputError(
            f"{counts.wanted_hits} of the last {counts.out_of} is no goal: choose 1 to {MOST_TRIES} tries, and no more "
            "of them that count", "wanted_hits", code="out_of_range",
        )  # fmt: skip
    play: Play = "bank" if bank else "kick" if pocket is None else "pot"
    drill = Drill(
        "", title, FAMILY, say.strip()[:MOST_SAY], _wanted(target, line, play, pocket, stop=counts.stop), play, (),
        line, **how._asdict(), **counts._asdict(), pocket=pocket, circle=OWN_CIRCLE, given=layout,
    )  # fmt: skip
    return drill.named(_name(drill))


def _wanted(target: str, line: tuple[Rail, ...], play: Play, pocket: str | None, *, stop: bool) -> str:
    ball, way = spoken(target), f" {over(line)}" if line else ""
    done = f"{ball} is hit{way}" if play == "kick" else f"{ball} goes into the {pocket} pocket{way}"
    if play == "bank" and pocket is None:
        done = f"{ball} is banked into a pocket{way}"
    return f"{done}, and {spoken(CUE)} stops in the circle" if stop else done


def _name(drill: Drill) -> str:
    """Its title in small letters, and a hash of what is drilled, the same on every machine."""
    layout = drill.given
    balls = [] if layout is None else [f"{ball.id} {ball.x:.6f} {ball.y:.6f}" for ball in layout.balls]
    figures = [f"{each:.4f}" for each in (drill.lengths, drill.tips, drill.height, drill.hit)]
    goal = f"{drill.wanted_hits} of the last {drill.out_of}"  # whatever a goal is called: names stay
    what = [drill.title, drill.say, drill.wanted, goal, drill.play, rails_name(drill.rails), figures, balls]
    mark = hashlib.sha256(repr(what).encode()).hexdigest()[:8]
    words = re.sub(r"[^a-z0-9]+", "-", drill.title.lower()).strip("-")[:30] or "drill"
    return f"{PREFIX}{words}-{mark}"
