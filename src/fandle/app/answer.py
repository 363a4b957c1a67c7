"""The answer to a situation: the lines, the chosen one as it is played, and what the favourite system says of it."""

import math
from dataclasses import dataclass, replace

from fandle.app.choose import plan as choose
from fandle.app.choose import wish_for
from fandle.app.count import Counted, count_line, line_contact
from fandle.app.lines import one_line, with_chain
from fandle.app.situation import Situation
from fandle.core.choice.report import Plan
from fandle.core.choice.rules import balls_on
from fandle.core.choice.told import Line as Choice
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.candidates import Line, bank_line_steps, candidate_steps, in_the_way
from fandle.core.lines.helps import Helps, helps_of
from fandle.core.lines.marks import crossing, diamond_along, inset_of
from fandle.core.lines.mirror import contacts, natural_direction
from fandle.core.lines.question import MOST_RAILS
from fandle.core.lines.refusal import guarded
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.physics.jit import PLAIN
from fandle.core.practice.record import meant_for
from fandle.core.shot.play import Shot, play
from fandle.core.steps import Steps, quietly
from fandle.core.systems.contact import FULL_ON, Contact
from fandle.core.table.pocket import Point, mouths
from fandle.core.table.rails import Rail

BANK_RAILS = (1, 2)  # over which a bank is looked for where none is likely
MOST_AT_ONCE = 10  # balls on the bed with which a page's first line is chosen by its chance
FEW_DRAWS = 100  # that the first line of a page is chosen by
FULL_HIT = 0.001  # ball diameters: nearer than that is full


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

    asked: the situation, with the best line in it where none was asked for; plan: the lines that it is the best of,
    None where they were not needed. chosen and what it comes to: None where there is nothing to choose. in_the_way:
    the ball that blocks the straight shot; on: the balls that may be hit first.
    """

    asked: Situation
    in_the_way: Ball | None
    on: tuple[str, ...]
    plan: Plan | None = None
    chosen: Line | None = None
    played: Played | Refusal | None = None
    counted: Counted | None = None


def answer(asked: Situation) -> Steps[Answer]:
    """Everything the Table room is told, in steps."""
    on = balls_on(asked.layout)
    if asked.layout.target is None:
        return Answer(asked, None, on)
    plan = None
    if PLAIN and asked.rails is None:  # a plan would take half a minute
        asked = replace(asked, rails=soonest(asked))
    crowd = len(asked.layout.balls) > MOST_AT_ONCE  # breaking a rack costs too much to wait for
    if asked.rails is None and asked.kind == "kick" and (crowd or asked.layout.target not in on):
        rows = yield from candidate_steps(asked.layout, asked.stroke, hit=asked.hit)  # the player's own choice stands
        asked = replace(asked, rails=rows[0].rails)
    elif asked.rails is None:
        plan = yield from _here(asked)
        asked = yield from _with_best(asked, plan)
    chosen = one_line(asked)
    yield
    played = _played(asked, chosen)
    yield
    counted = count_line(asked, chosen.rails, _pocket(asked, chosen), _contact(asked, chosen)) if chosen.rails else None
    return Answer(asked, in_the_way(asked.layout), on, plan, chosen, played, counted)


def soonest(asked: Situation) -> tuple[Rail, ...]:
    """The rails of a line that is found at once: straight where nothing lies between, else the widest single rail."""
    kick = asked.kind == "kick"
    if kick and in_the_way(asked.layout) is None:
        return ()
    found = {rail: one_line(replace(asked, rails=(rail,))) for rail in Rail}
    solved = {rail: line.window_deg for rail, line in found.items() if line.solved}
    if solved:
        return (max(solved, key=lambda rail: solved[rail]),)
    return () if kick else (Rail.FAR,)  # refused, with its reason


def _with_best(asked: Situation, plan: Plan) -> Steps[Situation]:
    """The situation with the best line of a plan; of banks the best bank, a possible one where none is likely.

    A point over more rails than can be asked for is told in the plan only.
    """
    bank = asked.kind == "bank"
    able = (line for line in plan.lines if line.kind == "bank" or not bank)
    best = next((line for line in able if len(line.run.rails) <= MOST_RAILS), None)
    if best is not None:
        return chosen_of(asked, best)
    if not bank:
        return replace(asked, rails=())
    rows = yield from bank_line_steps(asked.layout, asked.stroke, BANK_RAILS, asked.pocket)
    return replace(asked, rails=rows[0].rails)


def _here(asked: Situation) -> Steps[Plan]:
    """The lines at the stroke given, on as few draws as will tell the best."""
    found = yield from quietly(choose(asked, wish_for(asked, "this", FEW_DRAWS, 0)))
    return found


def chosen_of(asked: Situation, line: Choice) -> Situation:
    """The situation with a line of a plan chosen: its ball, its way and stroke, and where it pots or how full it hits.

    A pot by way of another ball is asked for as the hit on that one, as full as it has to be.
    """
    met = line.through[0] if line.through else line.target
    potting = line.pocket is not None and (met == line.target or line.kind in ("bank", "combination"))
    hit = 0.0 if potting or abs(line.hit) < FULL_HIT else round(line.hit, 4)
    layout = replace(asked.layout, target=line.target if potting else met)
    rails = line.run.rails if line.kind == "point" else line.rails
    return replace(
        asked, layout=layout, stroke=line.stroke, rails=rails, kind="bank" if line.kind == "bank" else "kick",
        pocket=line.pocket if potting else None, hit=hit,
    )  # fmt: skip


def _pocket(asked: Situation, line: Line) -> str | None:
    if asked.kind != "bank":
        return None
    return line.answer.best.pocket if isinstance(line.answer, Aim) else asked.pocket


def _contact(asked: Situation, line: Line) -> Contact:
    return line_contact(asked, line.answer.best) if isinstance(line.answer, Aim) else FULL_ON


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
