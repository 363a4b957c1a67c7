"""Every line there is, at one stroke or the best of the usual ones, each with its chance: best first.

All directions are swept once a stroke; what is wanted in them falls into stretches; the strokes of a line are compared
on a few of the draws, and the kept one is played on all.
"""

from collections.abc import Generator, Sequence
from dataclasses import dataclass

from fandle.core.choice.error import uncertain
from fandle.core.choice.field import Field
from fandle.core.choice.search import Ranked, Search, at_this_stroke, best_first
from fandle.core.choice.strokes import CAROM, HEIGHT, USUAL, Tried, crawls, curves, slow_strokes, tried, usual_strokes
from fandle.core.choice.wish import Wish
from fandle.core.player.draws import draws
from fandle.core.shot.stroke import Stroke

HEIGHTS_FOR = 8  # best lines that are tried with a low and a high tip, too
HERE, USUALLY = 0.1, 0.75  # of the work done once the given stroke, the usual ones are known


@dataclass(frozen=True)
class Partial:
    """How far the work is, 0 to 1, and the lines as far as they are known."""

    progress: float
    lines: tuple[Ranked, ...]


Ranking = Generator[Partial | None, None, tuple[Ranked, ...]]


def rank(field: Field, stroke: Stroke, wish: Wish) -> Ranking:
    """All lines, best first, in steps, with what is known on the way."""
    table, carom = field.layout.table, field.court.rules.counts == "point"
    search = Search(field, wish, draws(wish.draws, wish.seed, uncertain(table)))
    found = at_this_stroke((yield from search.lines([Tried(stroke, None)], {})))
    if not wish.usual:
        return best_first(field, found, wish)
    yield Partial(HERE, best_first(field, found, wish))
    every = usual_strokes(table, stroke.cue, CAROM if field.court.rules.cushions > 1 else USUAL)
    every += [] if carom else curves(table, stroke.cue)
    if wish.goal == "safe":
        every += slow_strokes(table, stroke.cue)
    if wish.goal != "pot" and not carom:
        every += crawls(table, stroke.cue)
    found = yield from search.lines(every, {line.key: line for line in found})
    leading = best_first(field, found, wish)[:HEIGHTS_FOR]
    heights = [] if carom else _heights(field, leading)
    if heights:
        yield Partial(USUALLY, best_first(field, found, wish))
        more = yield from search.lines(heights, {line.key: line for line in leading}, only=True)
        keys = {line.key for line in more}
        found = [*more, *(line for line in found if line.key not in keys)]
    return best_first(field, found, wish)


def _heights(field: Field, leading: Sequence[Ranked]) -> list[Tried]:
    """The strokes of the leading lines, each with a low and a high tip."""
    strokes = [line.aim.stretch.tried for line in leading]
    pairs = sorted({(t.lengths, t.tips) for t in strokes if t.lengths is not None and t.stroke.elevation == 0.0})
    table = field.layout.table
    return [
        tried(table, strokes[0].stroke.cue, lengths, tips, height)
        for lengths, tips in pairs
        for height in (-HEIGHT, HEIGHT)
    ]
