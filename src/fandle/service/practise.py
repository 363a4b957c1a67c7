"""Practice: a drill set up on a table, its line solved there, played, and found to do what the drill says."""

import math
from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim
from fandle.core.practice.drilled import Circle, Drilled
from fandle.core.practice.drills import DRILLS, Drill, layout_of
from fandle.core.practice.routes import CIRCLE, Route, return_route
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.systems.base import Count
from fandle.core.systems.corner_numbers import METHOD as CORNER_NUMBERS
from fandle.core.systems.registry import count
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Contact
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import standard_table
from fandle.core.tablecheck.own_marks import tuned
from fandle.core.words.balls import CUE, spoken
from fandle.service.lines import shot_line
from fandle.service.point_drills import at_first, makes_point, point_line
from fandle.service.situation import Situation

RETURN_LENGTHS = tuple(1.5 + 0.25 * k for k in range(13))  # speeds tried for a way back after a pot, table lengths
WELL = 0.6  # of a circle: a stop nearer to its middle is good enough
RETURN_TIPS = ((0.0, 0.0), (0.0, 0.5), (0.0, -0.5), (0.5, 0.0), (-0.5, 0.0), (0.0, 1.0), (0.0, -1.0))  # side, height


@lru_cache(maxsize=512)
def drill(wanted: Drill, table: Table) -> Drilled:
    """A drill on a table."""
    try:
        layout = layout_of(wanted, table)
        found = _LINES[wanted.play](wanted, layout)
    except BadInputError as fault:
        return Drilled(wanted, why_not=str(fault))
    fault_said = fails(found)
    return found if not fault_said else Drilled(wanted, layout, why_not=fault_said)


def drills(table: Table, own: Iterable[Drill] = ()) -> list[Drilled]:
    """The player's own drills, then all others, on a table."""
    return [drill(each, table) for each in (*own, *DRILLS)]


def fails(found: Drilled) -> str:
    """Why a drill's line, played, does not do what the drill says; "" where it does."""
    if found.layout is None or found.stroke is None:
        return found.why_not or "it has no line"
    shot = play(found.layout, found.stroke, found.direction)
    return next((why for why, true in _faults(found, found.layout, shot) if true), "")


def _faults(found: Drilled, layout: Layout, shot: Shot) -> list[tuple[str, bool]]:
    """What may be wrong with a drill's shot, and whether it is."""
    wanted, target, rest, met = found.drill, layout.target, shot.rest[CUE], shot.first_ball
    rails = tuple(contact.rail for contact in contacts(layout, shot, wanted))
    asked = wanted.rails[:-1] if wanted.play == "own-number" else wanted.rails  # its ball lies on the last of them
    pots = wanted.play in ("pot", "bank")
    outside = (
        found.ends is not None and rest is not None and _away(layout.table, rest, found.ends) > found.ends.radius_mm
    )
    return [
        (f"its line meets {spoken(met) if met else 'nothing'} first", target is not None and met != target),
        ("its line meets other rails here", rails[: len(asked)] != asked),
        (f"{spoken(target or '')} is not potted", pots and target not in dict(shot.potted)),
        ("the point is not made", wanted.play == "point" and not makes_point(layout, shot, wanted.way)),
        ("the cue ball goes in", rest is None),
        ("the cue ball stops outside the circle", outside),
    ]


def _away(table: Table, rest: Point, ends: Circle) -> float:
    """mm from a stop to the middle of a circle."""
    return 1000 * math.hypot((rest[0] - ends.x) * table.diamond_x, (rest[1] - ends.y) * table.diamond_y)


def contacts(layout: Layout, shot: Shot, wanted: Drill) -> tuple[Contact, ...]:
    """Rails met by the ball that goes over them: up to the target of a kick, from the hit on of a pot, else all."""
    ball = layout.target if wanted.play == "bank" else CUE
    found, hit, met = [], False, set[str | None]()
    for event in shot.events:
        hit = hit or event.kind == "ball"
        if event.kind == "ball" and CUE in (event.ball, event.other):
            met.add(event.other if event.ball == CUE else event.ball)
        if wanted.play == "point" and len(met) > 1:
            break
        if hit and wanted.play in ("kick", "own-number"):
            break
        counts = hit or wanted.play != "pot" or bool(wanted.rails)
        if counts and event.ball == ball and event.kind == "rail" and event.rail is not None:
            found.append(Contact(event.rail, event.rail.along(event.x, event.y)))
    return tuple(found)


def _stroke(wanted: Drill, table: Table) -> Stroke:
    norm = standard_table(table.standard)
    speed = speed_of(norm, wanted.lengths)
    return Stroke(speed, offset_of(wanted.tips, table), offset_of(wanted.height, table))


def _made(wanted: Drill, layout: Layout, stroke: Stroke, direction: float, own_number: float | None = None) -> Drilled:
    """A line with what it meets and where it ends when it is played."""
    shot = play(layout, stroke, direction)
    rest = shot.rest[CUE]
    ends = None
    if wanted.stop and rest is not None:
        ends = Circle(*rest, 1000 * wanted.circle * layout.table.diamond_x)
    return Drilled(wanted, layout, stroke, direction, contacts(layout, shot, wanted), ends, own_number)


def _route(wanted: Drill, layout: Layout) -> Drilled:
    table = layout.table
    found: Route | None = return_route(table, wanted.route)
    if found is None:
        raise BadInputError(f"no stroke comes back over {wanted.route} rails on this table", "table", code="no_route")
    stroke = Stroke(found.speed, found.side)
    direction = direction_to(table, found.rail, layout.metres(layout.cue), found.at, "nose")
    made = _made(wanted, layout, stroke, direction)
    return replace(made, ends=Circle(*wanted.balls[0], 1000 * CIRCLE * table.diamond_x))


def _kick(wanted: Drill, layout: Layout) -> Drilled:
    asked = Situation(layout, _stroke(wanted, layout.table), wanted.rails, hit=wanted.hit)
    return _made(wanted, layout, asked.stroke, shot_line(asked).direction)


def _bank(wanted: Drill, layout: Layout) -> Drilled:
    asked = Situation(layout, _stroke(wanted, layout.table), wanted.rails, "bank", wanted.pocket)
    return _made(wanted, layout, asked.stroke, shot_line(asked).direction)


def _own_number(wanted: Drill, layout: Layout) -> Drilled:
    """A track by corner numbers, at the number that lands on this table."""
    found = count(CORNER_NUMBERS, layout, wanted.rails)
    if not isinstance(found, Count):
        raise BadInputError(found.reason, "table", code="no_line")
    own = tuned(layout, found)
    if own is None or own.own is None:
        raise BadInputError("no number of this track lands on this table", "table", code="no_line")
    direction = direction_to(layout.table, wanted.rails[0], layout.metres(layout.cue), own.at, found.frame)
    return _made(wanted, layout, found.stroke, direction, own_number=own.own.number)


def _point(wanted: Drill, layout: Layout) -> Drilled:
    line = point_line(layout, _stroke(wanted, layout.table), wanted.way)
    return _made(wanted, at_first(layout, line), line.stroke, line.direction)


def _pot(wanted: Drill, layout: Layout) -> Drilled:
    """A pot; with a way back, the stroke whose cue ball comes nearest to where it came from over so many rails."""
    if not wanted.route:
        asked = Situation(layout, _stroke(wanted, layout.table), wanted.rails, pocket=wanted.pocket)
        return _made(wanted, layout, asked.stroke, shot_line(asked).direction)
    for place in wanted.places:
        there = replace(layout, balls=tuple(_at(ball, place, layout.target) for ball in layout.balls))
        found = _way_back(wanted, there)
        if found is not None:
            stroke, direction = found
            circle = Circle(*wanted.balls[0], 1000 * wanted.circle * layout.table.diamond_x)
            return replace(_made(wanted, there, stroke, direction), ends=circle)
    raise BadInputError(f"no stroke comes back there over {wanted.route} rails on this table", "table", code="no_route")


def _at(ball: Ball, place: Point, target: str | None) -> Ball:
    return replace(ball, x=place[0], y=place[1]) if ball.id == target else ball


def _way_back(wanted: Drill, layout: Layout) -> tuple[Stroke, float] | None:
    """The first stroke that pots the ball and brings the cue ball well into the circle, or the one that comes nearest
    to its middle; None where none comes into it."""
    table, best = layout.table, (wanted.circle, Stroke(1.0), 0.0)
    for lengths in RETURN_LENGTHS:
        speed = speed_of(standard_table(table.standard), lengths)
        for side, height in RETURN_TIPS:
            stroke = Stroke(speed, offset_of(side, table), offset_of(height, table))
            answer = solve_pot(layout, (), stroke, pocket=wanted.pocket or "any", with_chain=False, every=False)
            if not isinstance(answer, Aim):
                continue
            shot = play(layout, stroke, answer.best.direction)
            rest, potted = shot.rest[CUE], dict(shot.potted)
            if rest is None or layout.target not in potted or len(contacts(layout, shot, wanted)) != wanted.route:
                continue
            best = min(
                best, (math.dist(rest, wanted.balls[0]), stroke, answer.best.direction), key=lambda each: each[0]
            )
            if best[0] < WELL * wanted.circle:
                return best[1:]
    return best[1:] if best[0] < wanted.circle else None


_LINES = {"route": _route, "kick": _kick, "bank": _bank, "pot": _pot, "own-number": _own_number, "point": _point}
