"""The answer to a situation: the lines, the chosen one as it is played, and what the favourite system says of it."""

import math
from dataclasses import dataclass

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.candidates import Line, in_the_way
from fandle.core.lines.helps import Helps, helps_of
from fandle.core.lines.marks import crossing, diamond_along, inset_of
from fandle.core.lines.mirror import contacts, natural_direction
from fandle.core.lines.refusal import guarded
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.practice.record import meant_for
from fandle.core.shot.play import Shot, play
from fandle.core.steps import Steps
from fandle.core.table.pocket import Point, mouths
from fandle.core.table.rails import Rail
from fandle.service.count import Counted, count_line
from fandle.service.lines import lines, one_line, with_chain
from fandle.service.situation import Situation


@dataclass(frozen=True)
class Played:
    """A line as it is played: its aim with the chain, the whole shot, and the natural line beside it.

    natural: from cue ball or object ball over the turning points to what it runs to, m; aim_line: of the cue, m.
    backwards: the last leg read from its end, (rail, mark in the situation's frame); meant: where short and long
    are read, diamonds; helps: what to keep an eye on besides the mark.
    """

    aim: Aim
    shot: Shot
    natural: tuple[Point, ...]
    aim_line: tuple[Point, ...]
    backwards: tuple[Rail, float] | None
    meant: Point
    helps: Helps

    @property
    def best(self) -> Solution:
        """The aim with the widest window."""
        return self.aim.best


@dataclass(frozen=True)
class Answer:
    """What a situation comes to.

    lines: None where the list takes long and was not needed to know the best; chosen and what it comes to: None
    where there is nothing to choose. in_the_way: the ball that blocks the straight shot.
    """

    in_the_way: Ball | None
    lines: tuple[Line, ...] | None
    chosen: Line | None = None
    played: Played | Refusal | None = None
    counted: Counted | None = None


def answer(asked: Situation) -> Steps[Answer]:
    """Everything the Table room is told, in steps."""
    if asked.layout.target is None:
        return Answer(None, ())
    found = yield from _listed(asked)
    chosen = next((line for line in found or [] if line.rails == asked.rails), None) or _one(asked, found)
    yield
    if chosen is None and found is None:  # none of the few is open any more
        found = yield from lines(asked)
        chosen = _one(asked, found)
    played = None if chosen is None else _played(asked, chosen)
    yield
    counted = None if chosen is None or not chosen.rails else count_line(asked, chosen.rails, _pocket(asked, chosen))
    return Answer(in_the_way(asked.layout), None if found is None else tuple(found), chosen, played, counted)


def _listed(asked: Situation) -> Steps[list[Line] | None]:
    """The list of lines where it is quick, or where it is needed to know which is best; else None.

    Whoever asks then asks for it by itself, so that a drag does not wait for it.
    """
    quick = asked.kind == "kick" and asked.over == (1,) and asked.pocket is None
    if quick or (asked.rails is None and not asked.among):
        found = yield from lines(asked)
        return found
    return None


def _one(asked: Situation, found: list[Line] | None) -> Line | None:
    """The chosen line itself, or the best of the list."""
    return found[0] if found and asked.rails is None else one_line(asked)


def _pocket(asked: Situation, line: Line) -> str | None:
    if asked.kind != "bank":
        return None
    return line.answer.best.pocket if isinstance(line.answer, Aim) else asked.pocket


def _played(asked: Situation, line: Line) -> Played | Refusal:
    """The chosen line played; one that fails is told like one that cannot be solved."""
    if isinstance(line.answer, Refusal):
        return line.answer
    found, played = line.answer, []

    def play_it() -> Aim:
        played.append(play_line(asked, with_chain(asked, found)))
        return found

    told = guarded(asked.layout, line.rails, found.best.target, play_it)
    return told if isinstance(told, Refusal) else played[0]


def play_line(asked: Situation, aim: Aim) -> Played:
    """An aim with everything that is drawn and told of it."""
    layout, best = asked.layout, aim.best
    start, goal = _ends(layout, best)
    inset = layout.table.ball_radius
    direction = natural_direction(layout.table, best.rails, start, goal, inset)
    turns = [] if direction is None else contacts(layout.table, best.rails, start, direction, inset)
    return Played(
        aim,
        play(layout, asked.stroke, best.direction),
        (start, *turns, goal),
        _aim_line(layout, best),
        _backwards(asked, best, goal),
        meant_for(layout, best),
        helps_of(layout, best),
    )


def _ends(layout: Layout, best: Solution) -> tuple[Point, Point]:
    """What the natural line runs from and to, m: cue ball to target, or object ball to the mouth's middle."""
    target = layout.metres(layout.ball(best.target))
    if best.pocket is None:
        return layout.metres(layout.cue), target
    return target, next(mouth.middle for mouth in mouths(layout.table) if mouth.name == best.pocket)


def _aim_line(layout: Layout, best: Solution) -> tuple[Point, ...]:
    """The line of the cue, m: to the first contact of a bank, else to the sights (or the nose) of the rail."""
    table, cue = layout.table, layout.metres(layout.cue)
    if best.contact is not None:
        last = best.shot.events[-1]
        return cue, (last.x * table.diamond_x, last.y * table.diamond_y)
    return cue, *contacts(table, (best.mark_rail,), cue, best.direction, -(table.sight_setback or 0.0))


def _backwards(asked: Situation, best: Solution, goal: Point) -> tuple[Rail, float] | None:
    """The last leg read backwards, from the ball (or pocket) it runs to; None where it has no mark there."""
    if not best.rails or len(best.cushions) < len(best.rails) or best.rails[-1] != best.cushions[-1].rail:
        return None
    table, rail = asked.table, best.rails[-1]
    across = table.ball_radius
    if rail.at_end:
        across = (table.width if rail.is_long else table.length) - across
    x, y = rail.point(best.cushions[-1].at * diamond_along(table, rail), across)
    direction = math.atan2(y - goal[1], x - goal[0])
    at = crossing(table, rail, goal, direction, inset_of(table, asked.frame))
    return (rail, at) if math.isfinite(at) else None
