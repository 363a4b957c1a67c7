"""What a drill's line comes to when it is played: the rails it meets, where it ends, and whether that is what the drill
says."""

import math

from fandle.app.point_drills import makes_point
from fandle.core.layout.model import Layout
from fandle.core.practice.drill import POTS, Drill
from fandle.core.practice.drilled import Circle, Drilled
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Contact
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import standard_table
from fandle.core.words.balls import CUE, spoken

BANKS = ("bank", "round")


def stroke_of(lengths: float, tips: float, height: float, table: Table) -> Stroke:
    """A stroke in players' units: speed in lengths of the standard table, tips to the right and above centre."""
    norm = standard_table(table.standard)
    return Stroke(speed_of(norm, lengths), offset_of(tips, table), offset_of(height, table))


def own_stroke(wanted: Drill, table: Table) -> Stroke:
    """The stroke a drill is played with."""
    return stroke_of(wanted.lengths, wanted.tips, wanted.height, table)


def made(
    wanted: Drill, layout: Layout, stroke: Stroke, direction: float, *, own_number: float | None = None,
    middle: Point | None = None,
) -> Drilled:  # fmt: skip
    """A line with what it meets and where it ends when it is played. middle: of the circle to stop in, where it is not
    the place at which the cue ball stops."""
    shot = play(layout, stroke, direction)
    rest = middle or shot.rest[CUE]
    ends = None
    if wanted.stop and rest is not None:
        ends = Circle(*rest, 1000 * wanted.circle * layout.table.diamond_x)
    route, into = contacts(layout, shot, wanted), dict(shot.potted).get(layout.target or "")
    return Drilled(wanted, layout, stroke, direction, route, ends, own_number, into=into)


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
    pots = wanted.play in POTS
    outside = (
        found.ends is not None
        and rest is not None
        and away(layout.table, rest, (found.ends.x, found.ends.y)) > found.ends.radius_mm
    )
    return [
        (f"its line meets {spoken(met) if met else 'nothing'} first", target is not None and met != target),
        ("its line meets other rails here", rails[: len(asked)] != asked),
        ("the cue ball meets more or fewer rails", wanted.play == "pot-return" and len(rails) != wanted.route),
        (f"{spoken(target or '')} is not potted", pots and target not in dict(shot.potted)),
        ("the point is not made", wanted.play == "point" and not makes_point(layout, shot, wanted.way)),
        ("the cue ball goes in", rest is None),
        ("the cue ball stops outside the circle", outside),
    ]


def away(table: Table, one: Point, other: Point) -> float:
    """mm between two places in diamonds."""
    return 1000 * math.hypot((one[0] - other[0]) * table.diamond_x, (one[1] - other[1]) * table.diamond_y)


def contacts(layout: Layout, shot: Shot, wanted: Drill) -> tuple[Contact, ...]:
    """Rails met by the ball that goes over them: up to the target of a kick, from the hit on of a pot, else all."""
    ball = layout.target if wanted.play in BANKS else CUE
    found, hit, met = [], False, set[str | None]()
    for event in shot.events:
        hit = hit or event.kind == "ball"
        if event.kind == "ball" and CUE in (event.ball, event.other):
            met.add(event.other if event.ball == CUE else event.ball)
        if wanted.play == "point" and len(met) > 1:
            break
        if hit and wanted.play in ("kick", "own-number"):
            break
        counts = hit or wanted.play not in POTS or bool(wanted.rails)
        if counts and event.ball == ball and event.kind == "rail" and event.rail is not None:
            found.append(Contact(event.rail, event.rail.along(event.x, event.y)))
    return tuple(found)
