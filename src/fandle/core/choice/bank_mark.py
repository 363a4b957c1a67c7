"""The mark that an object ball is banked at."""

import math
from dataclasses import replace

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.error import Marked, Through
from fandle.core.choice.field import Field
from fandle.core.lines.marks import crossing, markable
from fandle.core.shot.play import Shot, play


def object_heading(shot: Shot, ball: str) -> float | None:
    """The direction in which a ball leaves, rad; None where it does not move."""
    way = shot.paths.get(ball)
    if not way:
        return None
    vx, vy = way[0].motion[:2]
    return math.atan2(vy, vx)


def bank_marked(field: Field, aim: Aimed) -> Aimed:
    """A bank with the mark that the object ball is sent at; anything else as it is.

    The cue ball's centre has to come to two radii behind the object ball on that line.
    """
    key = aim.stretch.key
    if key.kind != "bank":
        return aim
    layout, table = field.layout, field.layout.table
    heading = object_heading(play(layout, aim.stretch.tried.stroke, aim.direction), key.target)
    if heading is None:
        return aim
    place, rail = layout.metres(layout.ball(key.target)), key.rails[0]
    nose = crossing(table, rail, place, heading, 0.0)
    if not markable(rail, nose):
        return aim
    return replace(aim, marked=Marked(rail, nose, place, Through(field.start, place, heading)))
