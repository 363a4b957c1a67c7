"""A pot from which the cue ball comes back: the stroke is found, at medium pace, on the table at hand.

places -> layouts -> strokes: a pot is solved for each, played, and kept where the cue ball stops nearest to the
circle's middle. The drill's data holds the places; they were looked for so that a medium stroke does it on every
standard table. Common practice, no published source.
"""

from collections.abc import Iterator
from dataclasses import replace

from fandle.app.drill_made import away, contacts, made, stroke_of
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim
from fandle.core.practice.drill import Drill, Place
from fandle.core.practice.drilled import Drilled
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.words.balls import CUE

MEDIUM = (2.5, 2.3, 2.7)  # table lengths, all of which are called medium
WAYS = ((0.0, 0.0), (0.0, 0.5), (0.0, -0.5), (0.5, 0.0), (-0.5, 0.0), (0.0, 1.0), (0.0, -1.0))  # tips: side, height
WELL = 0.6  # of a circle: a stop nearer to its middle is good enough


def pot_return(wanted: Drill, layout: Layout) -> Drilled:
    """The pot whose cue ball comes back. Raises BadInputError where no medium stroke does it from any of its places."""
    for place in wanted.places:
        there = _set_up(layout, place)
        found = _way_back(replace(wanted, pocket=place.pocket), there)
        if found is not None:
            return found
    over = f"over {wanted.route} {'rail' if wanted.route == 1 else 'rails'} " if wanted.route else ""
    raise BadInputError(f"no medium stroke comes back {over}on this table", "table", code="no_route")


def _set_up(layout: Layout, place: Place) -> Layout:
    at = {CUE: place.cue, layout.target: place.target}
    return replace(layout, balls=tuple(replace(ball, x=at[ball.id][0], y=at[ball.id][1]) for ball in layout.balls))


def _way_back(wanted: Drill, layout: Layout) -> Drilled | None:
    """The first stroke whose cue ball comes well into the circle, or the one nearest to it; None where none does."""
    circle = 1000 * wanted.circle * layout.table.diamond_x
    near, best = circle, None
    for stroke in _strokes(wanted, layout.table):
        answer = solve_pot(layout, (), stroke, pocket=wanted.pocket or "any", with_chain=False, every=False)
        if not isinstance(answer, Aim):
            continue
        shot = play(layout, stroke, answer.best.direction)
        middle = _middle(wanted, layout, shot)
        rest = shot.rest[CUE]
        if rest is None or middle is None or layout.target not in dict(shot.potted):
            continue
        if len(contacts(layout, shot, wanted)) == wanted.route and away(layout.table, rest, middle) < near:
            near = away(layout.table, rest, middle)
            best = made(wanted, layout, stroke, answer.best.direction, middle=middle)
        if near < WELL * circle:
            break
    return best


def _strokes(wanted: Drill, table: Table) -> Iterator[Stroke]:
    ways = tuple((0.0, height) for height in wanted.heights) or WAYS
    return (stroke_of(lengths, side, height, table) for lengths in MEDIUM for side, height in ways)


def _middle(wanted: Drill, layout: Layout, shot: Shot) -> Point | None:
    """Of the circle: where the cue ball started, or where it meets the ball."""
    if wanted.home == "start":
        return layout.cue.x, layout.cue.y
    met = moment_of(layout, shot)
    return None if met is None else (met.cue[0] / layout.table.diamond_x, met.cue[1] / layout.table.diamond_y)
