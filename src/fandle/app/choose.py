"""Choosing: every line of a situation with its chance and its reasons, best first, as far as it is known."""

import logging
import os
from collections.abc import Sequence
from dataclasses import replace

from fandle.app.situation import Situation
from fandle.app.technique import techniques
from fandle.core.choice.close_work import Close
from fandle.core.choice.field import Field
from fandle.core.choice.more import how_many_more, once_each
from fandle.core.choice.plan import Partial, rank
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.refused import refused
from fandle.core.choice.report import Plan, SoFar
from fandle.core.choice.rules import balls_on, foul_cost
from fandle.core.choice.told import Line, told
from fandle.core.choice.wish import GOALS, Wish
from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.model import Layout
from fandle.core.lines.question import ANY, wanted_mouths
from fandle.core.player.draws import check_draws
from fandle.core.player.scatter import Player
from fandle.core.shot.play import object_run
from fandle.core.steps import Steps, Telling, quietly, relay
from fandle.core.techniques.base import Technique

LOG = logging.getLogger(__name__)
CLOSE = ("M20", "M21", "M22", "M24", "M25")  # techniques that are a line by themselves
POSITION = "M26"  # and the one that is for the next ball
FIRST = 8  # lines told on the way
Planning = Telling[SoFar, Plan]


def wish_of(goal: str, player: Player, strokes: str, pocket: str | None, draws: int, seed: int, layout: Layout) -> Wish:
    """A wish from what was written, checked."""
    known = next((each for each in GOALS if each == goal), None)
    if known == "safe" and layout.table.pockets is None:
        raise BadInputError("without pockets nothing is left to pot: ask for the goal hit", "goal", code="no_pockets")
    if known is None:
        raise BadInputError(f"unknown goal {goal!r}: use {', '.join(GOALS)}", "goal", code="unknown")
    if strokes not in ("this", "usual"):
        raise BadInputError(f"unknown strokes {strokes!r}: use this or usual", "strokes", code="unknown")
    if pocket is not None and known != "pot":
        raise BadInputError("a pocket belongs to a pot: leave it out, or ask for --goal pot", "pocket", code="not_with")
    if known == "pot":
        wanted_mouths(layout, pocket)  # refuses a pocket that the table does not have
    check_draws(draws, seed)
    return Wish(known, None if pocket == ANY else pocket, player, strokes == "usual", draws, seed)


def wish_for(asked: Situation, strokes: str, draws: int, seed: int) -> Wish:
    """The wish of a situation, checked; where there are no pockets, a hit."""
    potted = asked.table.pockets is not None
    goal = asked.goal if potted else GOALS[0]
    called = asked.called or (None if asked.pocket == ANY else asked.pocket)
    wish = wish_of(goal, asked.player, strokes, called if goal == "pot" else None, draws, seed, asked.layout)
    return replace(wish, then=asked.then)


def plan(asked: Situation, wish: Wish, threads: int = 1) -> Planning:
    """Which line? In steps, with what is known on the way. threads: how many play at once; the answer is the same."""
    layout = asked.layout
    on = balls_on(layout)
    if not on:
        return Plan(wish.goal, layout.game, on, ("nothing_on",), wish.player, wish.draws, (), (), "No ball is on.")
    field = Field.of(layout, threads)
    close = (yield from _close(asked, wish)) if wish.usual else []

    def known(so_far: Partial) -> SoFar:
        return SoFar(so_far.progress, wish.draws, _told(field, asked, wish, so_far.lines[:FIRST]))

    ranked = yield from relay(rank(field, asked.stroke, wish, close), known)
    found: list[Line] = []
    for first in range(0, len(ranked.lines), FIRST):
        found += _told(field, asked, wish, ranked.lines[first : first + FIRST])
        yield None
    lines = once_each(found)
    more = how_many_more(field, ranked.others, lines)
    yield None
    closed = yield from refused(field, asked.stroke, [*(line.aim for line in ranked.lines), *ranked.others], wish.goal)
    notes, say = _notes(layout, on, lines), _say(layout, lines)
    return Plan(wish.goal, layout.game, on, notes, wish.player, wish.draws, lines, tuple(closed), say, more)


def _close(asked: Situation, wish: Wish) -> Steps[list[Close]]:
    """The techniques that work on the ball to be hit, in steps."""
    layout = asked.layout
    if layout.target is None or layout.table.pockets is None:
        return []
    found = yield from quietly(techniques(asked))
    told = []
    for each in found:
        if isinstance(each, Technique) and (each.method in CLOSE or (wish.chained and each.method == POSITION)):
            rails = object_run(each.shot, each.target, 2).rails[:1] if each.banked else each.rails
            told.append(Close(each.method, each.target, rails, each.pocket, *each.way[1:4], banked=each.banked))
    return [each for each in told if each.rails or not each.banked]


def _told(field: Field, asked: Situation, wish: Wish, lines: Sequence[Ranked]) -> tuple[Line, ...]:
    """Lines in full; where one fails they are told one by one, and it is logged and left out: the others stand."""
    try:
        return tuple(one for one in told(field, lines, wish, asked.stroke) if one is not None)
    except EngineError:
        if len(lines) > 1:
            return tuple(one for line in lines for one in _told(field, asked, wish, [line]))
        LOG.exception("the line %s fails on %r", lines[0].key, asked.layout)
        return ()


def _notes(layout: Layout, on: tuple[str, ...], lines: tuple[Line, ...]) -> tuple[str, ...]:
    """Codes of what is odd."""
    notes = []
    if layout.target is not None and layout.target not in on:
        notes.append("target_not_on")
    if not lines:
        notes.append("no_line")
    return tuple(notes)


def _say(layout: Layout, lines: tuple[Line, ...]) -> str:
    """What it comes to: where there is no line, what costs least."""
    if lines:
        return ""
    near = "send it near a ball on and leave nothing" if layout.game == "snooker" else "leave the balls on hard to hit"
    return f"No line is worth a try: {foul_cost(layout)}. {near.capitalize()}."


def all_processors() -> int:
    """How many threads a plan may use where nothing else waits."""
    return os.cpu_count() or 1
