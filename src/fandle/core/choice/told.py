"""A line as it is told: the mark, the stroke, the room, what becomes of it, and why."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fandle.core.choice.after import After, after_of
from fandle.core.choice.aiming import Aimed
from fandle.core.choice.bank_mark import object_heading
from fandle.core.choice.carom import CaromPoint, point_of
from fandle.core.choice.chance import Chance, Share, scatter_of
from fandle.core.choice.error import spread
from fandle.core.choice.field import Field
from fandle.core.choice.gain import Gain, gain_of
from fandle.core.choice.judge import judge, pocket_number
from fandle.core.choice.named import stroke_name
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.reasons import BESIDE_RAD, Case, Reason, reasons
from fandle.core.choice.wish import Wish
from fandle.core.lines.marks import Marks, markable
from fandle.core.lines.pot import passed_on
from fandle.core.lines.question import Question
from fandle.core.lines.reading import Reading, read_at
from fandle.core.lines.remembered import Remembered
from fandle.core.lines.window import window
from fandle.core.shot.approach import Approach, approach, offset_at
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

TOGETHER = 4.0  # ball radii: a rail and a ball that are met so near to one another are met almost at once


@dataclass(frozen=True)
class Line:
    """One line of a plan. target: the ball hit, of a pot the one that drops; through: balls in order of contact.

    rails: the cue ball's up to the contact (of a bank the object ball's, of a point those before the second ball).
    mark_rail, aim: at which rail the mark is read, and there; None of a line that is aimed at a thing, which the mark
    names. A point that is not made as it is meant is not told at all (`told`).
    hit: ball diameters right of full. room_mm: at the mark.
    legal: as played without error. wanted: what it is ranked by. gain: what the best stroke adds to the one given, None
    where that is not clear. called: what the stroke, of a point its way, is called, "" where it has no name.
    point: of a carom line, who is where when; technique: of close work, its number. also: over which rails the ball is
    met just beside the line's own, in the same room. mark_error: is the error of a mark
    among the player's? scatter: times the player's own, more where it is out of reach.
    """

    kind: str
    target: str
    rails: tuple[Rail, ...]
    pocket: str | None
    through: tuple[str, ...]
    mark_rail: Rail
    aim: Marks | None
    mark: Remembered
    direction: float
    stroke: Stroke
    hit: float
    window_deg: float
    room_mm: tuple[float, float] | None
    legal: bool
    chance: Chance
    here: Share | None
    wanted: Share
    pros: tuple[Reason, ...]
    cons: tuple[Reason, ...]
    after: After
    gain: Gain | None
    called: str
    run: Approach
    point: CaromPoint | None = None
    technique: str = ""
    mark_error: bool = False
    scatter: float = 1.0
    also: tuple[tuple[Rail, ...], ...] = ()

    @property
    def identity(self) -> tuple[object, ...]:
        """What makes two rows the same line, but for the part of the ball that is met and the stroke."""
        return self.kind, self.target, self.rails, self.pocket, self.through[:1], self.technique


def told(field: Field, lines: Sequence[Ranked], wish: Wish, given: Stroke) -> list[Line | None]:
    """Ranked lines in full; None of one that, as meant, meets a jaw before the ball: that is no line but a fluke."""
    if not lines:
        return []
    seen = zip(lines, as_meant(field, [line.aim for line in lines]), _jawed(field, lines), strict=True)
    return [_one(field, line, wish, given, legal=legal, jawed=jawed) for line, legal, jawed in seen]


def _one(
    field: Field, line: Ranked, wish: Wish, given: Stroke, *, legal: bool, jawed: tuple[bool, bool]
) -> Line | None:
    aim, layout = line.aim, field.layout
    key, stroke = aim.stretch.key, aim.stretch.tried.stroke
    way = approach(layout, stroke, aim.direction)
    if way.first_ball is None or (key.kind == "point" and not legal):
        return None
    shot = play(layout, stroke, aim.direction)
    hit = offset_at(way, layout, layout.ball(way.first_ball))
    read = _mark_read(field, aim, shot)
    if read is None:
        return None
    sigma = spread(layout.table, wish.player, aim.marked)
    pros, cons = reasons(Case(field, line, way, hit, sigma, way.events[-1].speed, jawed, wish.player.body, wish.then))
    point = point_of(layout, shot) if key.kind == "point" else None
    return Line(
        kind=kind_of(field, key.kind, way), target=key.target,
        rails=key.rails if key.kind == "bank" else way.rails if point is None else point.rails, pocket=key.pocket,
        through=passed_on(shot, key.target if key.pocket is not None else way.first_ball), mark_rail=read.rail,
        aim=read.aim, mark=read.mark, direction=aim.direction, stroke=stroke, hit=hit,
        window_deg=math.degrees(aim.stretch.wide), room_mm=_room_mm(field, aim), legal=legal, chance=line.chance,
        here=None if line.here is None else wish.wanted(line.here), wanted=wish.wanted(line.chance), pros=pros,
        cons=cons, after=after_of(field, line, shot), gain=gain_of(line, wish, given, layout.table),
        called=stroke_name(key, stroke, hit, shot) if point is None else point.called, run=way, point=point,
        technique=key.technique, mark_error=aim.marked is not None and markable(aim.marked.rail, aim.marked.nose),
        scatter=scatter_of(field, wish.player, aim.direction), also=aim.stretch.also if key.by_rails else (),
    )  # fmt: skip


def kind_of(field: Field, kind: str, way: Approach) -> str:
    """A kick whose rail and ball are met almost together is called rail-first; one that, as aimed, meets no rail is
    straight, and a straight one that meets a rail is a kick: a ball near a rail is met either way."""
    if kind in ("kick", "straight"):
        kind = "kick" if way.rails else "straight"
    if kind != "kick" or len(way.rails) != 1:
        return kind
    table = field.layout.table
    (ax, ay), (bx, by) = [(ev.x * table.diamond_x, ev.y * table.diamond_y) for ev in way.events[-2:]]
    return "rail-first" if math.hypot(bx - ax, by - ay) <= TOGETHER * table.ball_radius else kind


def _mark_read(field: Field, aim: Aimed, shot: Shot) -> Reading | None:
    """Where the mark is read, and the aim there: of a bank the object ball's own; None where that never leaves."""
    table, key = field.layout.table, aim.stretch.key
    if key.kind == "bank":
        heading = object_heading(shot, key.target)
        return None if heading is None else read_at(table, key.rails[0], _place(field, key.target), heading)
    first = Question(field.layout, aim.stretch.met, key.aimed, 0.0).rail
    return read_at(table, first, field.start, aim.direction)


def _place(field: Field, name: str) -> Point:
    return field.layout.metres(field.layout.ball(name))


def _room_mm(field: Field, aim: Aimed) -> tuple[float, float] | None:
    """How far the mark may be off either way, mm; None of a bank, whose mark is another ball's."""
    stretch = aim.stretch
    if stretch.key.kind == "bank":
        return None
    question = Question(field.layout, stretch.met, stretch.key.aimed, 0.0)
    return window(question, aim.direction, stretch.low, stretch.high)


def as_meant(field: Field, aims: Sequence[Aimed]) -> list[bool]:
    """Is each line legal, played without error?"""
    at = np.array([aim.direction for aim in aims])
    strokes = np.array([aim.stretch.tried.stroke.array() for aim in aims])
    keys = [aim.stretch.key for aim in aims]
    target = np.array([-1 if key.pocket is None else field.number(key.target) for key in keys])
    pocket = np.array([pocket_number(key.pocket) for key in keys])
    verdicts = judge(field.court, field.played_now(at, strokes), target, pocket)
    return [bool(legal) for legal in verdicts.legal]


def _jawed(field: Field, lines: Sequence[Ranked]) -> list[tuple[bool, bool]]:
    """Does a jaw or a pocket lie just beyond the lower, the upper end of each line's window?"""
    stretches = [line.aim.stretch for line in lines]
    at = np.array([(s.low - BESIDE_RAD, s.high + BESIDE_RAD) for s in stretches]).reshape(-1)
    strokes = np.repeat([s.tried.stroke.array() for s in stretches], 2, axis=0)
    out = finish(field.met(at, strokes))
    ended = (out.jaw > 0) | (out.down[:, 0] == 0)
    return [(bool(low), bool(high)) for low, high in zip(ended[::2], ended[1::2], strict=True)]
