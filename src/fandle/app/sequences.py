"""Drills of several shots: a pattern of pots, each from where the last one left the cue ball, and a round of banks.

pattern: layout -> pots of the next ball with every stroke -> where all balls lie then -> the same again; of all ways
through, the one whose narrowest pot is widest. round: ball by ball in hand -> cue ball straight behind the bank's line.
Common practice, no published source; figures from the engine.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import product

from fandle.app.drill_made import made, own_stroke, stroke_of
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.mirror import reflect
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim
from fandle.core.practice.drill import Drill
from fandle.core.practice.drilled import Drilled
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import Mouth, Point, mouths
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken

PACES = (1.25, 1.75, 2.5)  # table lengths: soft to medium
HEIGHTS = (0.0, 0.5, -0.5)  # tips
KEPT = 5  # ways through that are followed from ball to ball
BEHIND = (1.5, 1.0, 2.25, 0.6)  # diamonds from the ball to the cue ball in hand, tried in turn
STEEP = 0.35  # a bank's line meets its rail at no less than this (sine): below it is a guess


@dataclass(frozen=True)
class _Through:
    """A way through so far: how all lie now, the shots that led there, the narrowest of their pots (degrees)."""

    layout: Layout
    shots: tuple[Drilled, ...]
    room: float
    ahead: float = math.inf


def pattern(wanted: Drill, layout: Layout) -> Drilled:
    """All object balls in the order of the layout. Raises BadInputError where they cannot be run so."""
    ways = [_Through(layout, (), math.inf)]
    names = [ball.id for ball in layout.object_balls()]
    for k, name in enumerate(names):
        following = names[k + 1] if k + 1 < len(names) else None
        grown = [each for way in ways for each in _potted(wanted, way, name, following)]
        ways = sorted(grown, key=lambda way: -min(way.room, way.ahead))[:KEPT]
        if not ways:
            raise BadInputError(
                f"{spoken(name)} cannot be potted from where the cue ball stops", "table", code="no_line"
            )
    return _as_one(wanted, max(ways, key=lambda way: way.room).shots)


def _as_one(wanted: Drill, shots: tuple[Drilled, ...]) -> Drilled:
    """The first shot under the drill's own name, with the others behind it."""
    return replace(shots[0], drill=wanted, then=shots[1:])


def _potted(wanted: Drill, way: _Through, name: str, following: str | None) -> Iterator[_Through]:
    """Every pot of a ball with every stroke, and how all lie after it."""
    there = replace(way.layout, target=name)
    for lengths, height in product(PACES, HEIGHTS):
        stroke = stroke_of(lengths, 0.0, height, there.table)
        answer = solve_pot(there, (), stroke, with_chain=False)
        for one in answer.solutions if isinstance(answer, Aim) else ():
            if one.pot is None or one.pot.in_off or one.pot.ball != name or one.target != name:
                continue
            shot = play(there, stroke, one.direction)
            left = _left(there, shot, name)
            if left is not None:
                of_it = replace(wanted, play="pot", pocket=one.pot.pocket, stop=following is not None)
                room = min(way.room, one.pot.window_deg)
                ahead = math.inf if following is None else _ease(left, following)
                yield _Through(left, (*way.shots, made(of_it, there, stroke, one.direction)), room, ahead)


def _left(layout: Layout, shot: Shot, name: str) -> Layout | None:
    """How all lie after a shot that potted a ball and nothing else; None where it did more, or less."""
    if {ball for ball, _ in shot.potted} != {name}:
        return None
    places = {ball: rest for ball, rest in shot.rest.items() if rest is not None}
    balls = tuple(Ball(ball.id, *places[ball.id]) for ball in layout.balls if ball.id in places)
    return replace(layout, balls=balls, target=None)


def _ease(layout: Layout, name: str) -> float:
    """How wide the next pot is at best, by geometry alone, degrees: the pocket's room seen past the ball."""
    cue, ball, table = layout.metres(layout.cue), layout.metres(layout.ball(name)), layout.table
    best, radius = 0.0, table.ball_radius
    for mouth in mouths(table):
        run = math.dist(ball, mouth.middle)
        ux, uy = (mouth.middle[0] - ball[0]) / run, (mouth.middle[1] - ball[1]) / run
        ghost = ball[0] - 2 * radius * ux, ball[1] - 2 * radius * uy
        way = math.dist(cue, ghost)
        full = ((ghost[0] - cue[0]) * ux + (ghost[1] - cue[1]) * uy) / way if way else 0.0
        if full > 0.0:
            best = max(best, math.degrees(radius / run) * 2 * radius * full / (way + 2 * radius))
    return best


def bank_round(wanted: Drill, layout: Layout) -> Drilled:
    """Every object ball banked in turn, ball in hand, those before it gone. Raises BadInputError where one cannot."""
    shots, here = [], layout
    for ball in layout.object_balls():
        shots.append(_banked(wanted, replace(here, target=ball.id)))
        here = replace(here, balls=tuple(each for each in here.balls if each.id != ball.id), target=None)
    return _as_one(wanted, tuple(shots))


def _banked(wanted: Drill, layout: Layout) -> Drilled:
    """The shortest bank of the target over one rail that a cue ball in hand makes."""
    stroke = own_stroke(wanted, layout.table)
    for rail, mouth, along in _banks(layout):
        for there in _in_hand(layout, along):
            answer = solve_bank(there, (rail,), stroke, pocket=mouth.name, with_chain=False)
            if isinstance(answer, Aim) and _only(there, stroke, answer.best.direction):
                of_it = replace(wanted, play="bank", rails=(rail,), pocket=mouth.name)
                return made(of_it, there, stroke, answer.best.direction)
    raise BadInputError(f"{spoken(layout.target or '')} cannot be banked here", "table", code="no_line")


def _banks(layout: Layout) -> list[tuple[Rail, Mouth, Point]]:
    """Rails and pockets for the target with the direction in which it leaves, the shortest way first."""
    table, (x, y) = layout.table, layout.metres(layout.require_target())
    found: list[tuple[float, Rail, Mouth, Point]] = []
    for rail, mouth in product(Rail, mouths(table)):
        mx, my = reflect(table, rail, mouth.middle, table.ball_radius)
        run = math.dist((x, y), (mx, my))
        ux, uy = (mx - x) / run, (my - y) / run
        if abs(uy if rail.is_long else ux) >= STEEP and str(rail) not in mouth.name:
            found.append((run, rail, mouth, (ux, uy)))
    return [each[1:] for each in sorted(found, key=lambda each: each[0])]


def _in_hand(layout: Layout, along: Point) -> Iterator[Layout]:
    """Layouts with the cue ball straight behind the target, where there is room for it."""
    table, (x, y), r = layout.table, layout.metres(layout.require_target()), layout.table.ball_radius
    others = [layout.metres(ball) for ball in layout.object_balls()]
    for diamonds in BEHIND:
        back = diamonds * table.diamond_x
        cx, cy = x - back * along[0], y - back * along[1]
        inside = 2 * r < cx < table.length - 2 * r and 2 * r < cy < table.width - 2 * r
        if inside and all(math.dist((cx, cy), other) > 2.5 * r for other in others):
            cue = Ball(CUE, cx / table.diamond_x, cy / table.diamond_y)
            yield replace(layout, balls=tuple(cue if ball.id == CUE else ball for ball in layout.balls))


def _only(layout: Layout, stroke: Stroke, direction: float) -> bool:
    """Does the target drop, and nothing else?"""
    return {ball for ball, _ in play(layout, stroke, direction).potted} == {layout.target}
