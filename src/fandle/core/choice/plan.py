"""Every line there is, at one stroke or the best of the usual ones, each with its chance: best first.

All directions are swept once a stroke; what is wanted in them falls into stretches; the strokes of a line are compared
on a few of the draws, and the kept one is played on all.
"""

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from itertools import product

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.close_work import Close, close_lines
from fandle.core.choice.error import uncertain
from fandle.core.choice.field import Field
from fandle.core.choice.order import at_this_stroke, best_first
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.search import Search
from fandle.core.choice.strokes import (
    CAROM,
    HEIGHT,
    MEDIUM,
    USUAL,
    Tried,
    crawls,
    curves,
    much_side,
    plain_ones,
    slow_strokes,
    tried,
    usual_strokes,
)
from fandle.core.choice.wish import Wish
from fandle.core.errors import BadInputError
from fandle.core.player.draws import draws
from fandle.core.shot.cue import Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Telling

HEIGHTS_FOR = 8  # best lines that are tried with a low and a high tip, too, and all without a rail
HERE, STRAIGHT, USUALLY = 0.1, 0.5, 0.75  # of the work done once the given stroke, the usual ones, curves are known


@dataclass(frozen=True)
class Partial:
    """How far the work is, 0 to 1, and the lines as far as they are known."""

    progress: float
    lines: tuple[Ranked, ...]


@dataclass(frozen=True)
class Found:
    """The lines, best first, and the others that there was no room for, aimed, likeliest first."""

    lines: tuple[Ranked, ...]
    others: tuple[Aimed, ...]


Ranking = Telling[Partial, Found]


def rank(field: Field, stroke: Stroke, wish: Wish, close: Sequence[Close] = ()) -> Ranking:
    """All lines, best first, in steps, with what is known on the way. close: the techniques that work here."""
    search = Search(field, wish, draws(wish.draws, wish.seed, uncertain(field.layout.table)))
    lines = yield from _lines(search, stroke, close)
    others = yield from search.others({line.key for line in lines})
    return Found(best_first(field, lines, wish), tuple(others))


def _lines(search: Search, stroke: Stroke, close: Sequence[Close]) -> Telling[Partial, list[Ranked]]:
    """The lines at the stroke given, at the usual ones, by curves, with other heights, and the close work, in steps."""
    field, wish = search.field, search.wish
    carom = field.court.rules.counts == "point"
    given = [Tried(stroke, None)]
    found = at_this_stroke((yield from search.lines(_allowed(given, wish) if wish.usual else given, {})))
    if not wish.usual:
        return found
    yield Partial(HERE, best_first(field, found, wish))
    found = yield from search.lines(_usual(field, stroke.cue, wish), {line.key: line for line in found})
    if not carom and search.hides:
        yield Partial(STRAIGHT, best_first(field, found, wish))
        bent = _allowed([tried(field.layout.table, stroke.cue, MEDIUM), *curves(field.layout.table, stroke.cue)], wish)
        found = yield from search.lines(bent, {line.key: line for line in found})
    order = best_first(field, found, wish)
    leading = [line for place, line in enumerate(order) if place < HEIGHTS_FOR or not line.key.rails]
    heights = [] if carom else _allowed(_heights(field, leading), wish)
    if heights:
        yield Partial(USUALLY, best_first(field, found, wish))
        more = yield from search.lines(heights, {line.key: line for line in leading}, only=True)
        keys = {line.key for line in more}
        found = [*more, *(line for line in found if line.key not in keys)]
    found += yield from close_lines(search, close)
    return found


def _allowed(every: list[Tried], wish: Wish) -> list[Tried]:
    """The strokes that the player plays: with side only where they play with side."""
    return plain_ones(every) if wish.plain else every


def _usual(field: Field, cue: Cue, wish: Wish) -> list[Tried]:
    """The strokes that are tried on every line of this goal."""
    table, carom = field.layout.table, field.court.rules.counts == "point"
    every = usual_strokes(table, cue, CAROM if field.court.rules.cushions > 1 else USUAL)
    if wish.goal == "safe":
        every += slow_strokes(table, cue)
    if wish.goal != "pot" and not carom:
        every += crawls(table, cue)
    if wish.chained and not carom:
        every += much_side(table, cue)
    return _allowed(every, wish)


def _heights(field: Field, leading: Sequence[Ranked]) -> list[Tried]:
    """The strokes of the leading lines, each with a low and a high tip, with their side and without."""
    strokes = [line.aim.stretch.tried for line in leading]
    known = [(t.lengths, t.tips) for t in strokes if t.lengths is not None and t.stroke.elevation == 0.0]
    pairs = sorted({*known, *((lengths, 0.0) for lengths, _ in known)})
    table, found = field.layout.table, []
    for (lengths, tips), height in product(pairs, (-HEIGHT, HEIGHT)):
        with suppress(BadInputError):  # so far from the centre it would be a miscue
            found.append(tried(table, strokes[0].stroke.cue, lengths, tips, height))
    return found
