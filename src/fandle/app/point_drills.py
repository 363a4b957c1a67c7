"""Drills for a carom point: the likeliest line of the way that is drilled, at the drill's own stroke."""

from dataclasses import replace

from fandle.app.choose import plan, wish_for
from fandle.app.situation import Situation
from fandle.core.choice.carom import way_name
from fandle.core.choice.rules import rules_of
from fandle.core.choice.told import Line
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.shot.play import Shot
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE

DRAWS = 60  # that tell the likeliest of a few lines


def point_line(layout: Layout, stroke: Stroke, way: str) -> Line:
    """The likeliest line that makes the point in this way. Raises BadInputError where there is none, or no point."""
    if rules_of(layout).counts != "point":
        raise BadInputError("three cushions are not played on this table", "table", code="no_point")
    asked = Situation(layout, stroke)
    found = finish(plan(asked, wish_for(asked, "this", DRAWS, 0)))
    best = next((line for line in found.lines if line.point is not None and line.point.called == way), None)
    if best is None:
        raise BadInputError(f"with this stroke there is no {way} here", "table", code="no_line")
    return best


def makes_point(layout: Layout, shot: Shot, way: str) -> bool:
    """Does a played shot make the point, in this way?"""
    rails: list[Rail] = []
    met: list[str | None] = []
    before = 0
    for ev in shot.events:
        if ev.kind == "rail" and ev.ball == CUE and ev.rail is not None and len(met) < 2:
            rails.append(ev.rail)
        if ev.kind == "ball" and CUE in (ev.ball, ev.other):
            other = ev.other if ev.ball == CUE else ev.ball
            if other not in met:
                met.append(other)
                before = len(rails) if len(met) == 1 else before
    enough = len(rails) >= rules_of(layout).cushions
    return len(met) > 1 and enough and way_name(rails, before) == way


def at_first(layout: Layout, line: Line) -> Layout:
    """The layout with the ball that is met first as its target."""
    return replace(layout, target=line.run.first_ball)
