"""What the Table room draws for a solved line: paths, marks, the mirror view. No words but those at a contact."""

import math
from typing import Any

from fandle.core.lines.marks import FRAMES, crossing, diamond_along, inset_of
from fandle.core.lines.mirror import contacts, natural_direction
from fandle.core.lines.solution import Solution
from fandle.core.practice.record import meant_for
from fandle.core.shot.play import play
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point, mouths
from fandle.core.words.balls import CUE, spoken
from fandle.web.address import State
from fandle.web.drawing import diamonds_mm, mm, polyline
from fandle.web.unfolded import unfolded
from fandle.web.whole import whole


def picture(state: State, best: Solution) -> dict[str, Any]:
    """Drawing data of one solution. Of a bank the object ball's way is as loud as the cue ball's."""
    layout, table = state.layout, state.layout.table
    banked = best.target if best.contact is not None else None
    start, goal = ends(state, best)
    direction = natural_direction(table, best.rails, start, goal, table.ball_radius)
    turns = [] if direction is None else contacts(table, best.rails, start, direction, table.ball_radius)
    per_mm = 1 / (1000 * diamond_along(table, best.mark_rail)) if best.rails else 0.0
    shot = play(layout, state.stroke, best.direction)
    last = best.shot.events[-1]
    ghost = (last.x * table.diamond_x, last.y * table.diamond_y)
    cue = layout.metres(layout.cue)
    aim_line = [cue, ghost] if banked else [cue, *_sight_point(table, best, cue)]
    pieces = shot.paths[banked] if banked else best.shot.pieces
    balls = {ball.id: layout.metres(ball) for ball in layout.balls}
    at = [cushion.at for cushion in best.cushions]
    return {
        **whole(layout, shot, best.fullness, banked),
        "line": across_line(state, best) if best.rails else None,
        "natural": polyline(table, [start, *turns, goal]),
        "ghost": mm(table, *ghost),
        "aim_line": polyline(table, aim_line),
        "mark": {
            "nose": best.corrected.nose,
            "natural": best.natural.nose,
            "less": best.corrected.nose - best.window_less_mm * per_mm,
            "more": best.corrected.nose + best.window_more_mm * per_mm,
        },
        "mirror": unfolded(table, best.rails, balls, start, goal, pieces, at) if best.rails else None,
        "involved": sorted({CUE, best.target, *shot.paths}),
    }


def ends(state: State, best: Solution) -> tuple[Point, Point]:
    """What the natural line runs from and to, m: cue ball to target, or object ball to the mouth's middle."""
    layout = state.layout
    target = layout.metres(layout.ball(best.target))
    if best.pocket is None:
        return layout.metres(layout.cue), target
    return target, next(mouth.middle for mouth in mouths(layout.table) if mouth.name == best.pocket)


def from_the_other_end(state: State, best: Solution) -> str:
    """The last leg read backwards, from the ball (or pocket) it runs to: the rail and its mark."""
    if not best.rails or len(best.cushions) < len(best.rails) or best.rails[-1] != best.cushions[-1].rail:
        return ""
    table, rail = state.layout.table, best.rails[-1]
    frame = state.frame if state.frame in FRAMES else "nose"
    _, goal = ends(state, best)
    unit = diamond_along(table, rail)
    across = table.ball_radius
    if rail.at_end:
        across = (table.width if rail.is_long else table.length) - across
    x, y = rail.point(best.cushions[-1].at * unit, across)
    direction = math.atan2(y - goal[1], x - goal[0])
    at = crossing(table, rail, goal, direction, inset_of(table, frame))
    whence = spoken(best.target) if best.pocket is None else best.pocket
    return f"{rail} rail {at:.2f}, seen from {whence}" if math.isfinite(at) else ""


def across_line(state: State, best: Solution) -> dict[str, Any]:
    """The line along which short and long are read: through what is played for, parallel to the last rail."""
    rail, goal = best.rails[-1], meant_for(state.layout, best)
    places = [diamonds_mm(state.layout.table, rail.point(a, rail.across(*goal))) for a in (0.0, float(rail.diamonds))]
    return {"from": places[0], "to": places[1], "whole": rail.diamonds, "target": rail.along(*goal)}


def _sight_point(table: Table, best: Solution, cue: Point) -> list[Point]:
    """Where the line of aim leaves the drawing of the rail: the line of sights, or the nose."""
    return contacts(table, (best.mark_rail,), cue, best.direction, -(table.sight_setback or 0.0))
