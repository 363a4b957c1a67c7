"""Banks: the object ball over rails into a pocket, met by the cue ball straight; found, and proved by playing."""

import math

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.bank_chain import add_bank_chain
from fandle.core.lines.bank_question import BankQuestion, last_direction, object_direction
from fandle.core.lines.bank_refusal import refuse_bank
from fandle.core.lines.marks import diamond_along, edge_mark, markable, marks
from fandle.core.lines.question import MOST_RAILS, SPARE_RAD, wanted_mouths
from fandle.core.lines.remembered import remember
from fandle.core.lines.solution import Aim, Cushion, ObjectContact, Refusal, Solution
from fandle.core.physics import bank as kernels
from fandle.core.physics import search
from fandle.core.physics.collision import WIDTH, X, Y
from fandle.core.physics.scene import Scene
from fandle.core.physics.search import FOUND
from fandle.core.shot.approach import approach, pushes
from fandle.core.shot.path import Piece
from fandle.core.shot.play import Shot, object_run, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail

PASSING_M = 0.06  # a line that passes the mouth's middle this near tells why it fails; others are no line
HAIR_M = 1e-9  # what rounding may leave a ball short of the line it has come to
GRID, FINE = 300, 8  # directions across the object ball, and within one such step


def solve_bank(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    target: str | None = None,
    pocket: str | None = None,
    *,
    with_chain: bool = True,
) -> Aim | Refusal:
    """The aims that bank the target over `rails` into `pocket` (None: any, the widest window first).

    Every direction across the object ball is considered: the cue ball's way, the impact with its
    throw and spin transfer, and the object ball's way are played; the pocket's middle is bracketed
    on the last leg, and then every ball is played for real.
    """
    ball = layout.require_target(target)
    if not 1 <= len(rails) <= MOST_RAILS:
        raise BadInputError(f"{len(rails)} rails: a bank goes over 1 to {MOST_RAILS}", "rails", code="out_of_range")
    wanted = wanted_mouths(layout, pocket)
    questions = [BankQuestion(layout, ball.id, rails, mouth) for mouth in wanted]
    at, offsets = _sweep(questions, stroke)
    found: list[Solution] = []
    nearest: list[tuple[float, BankQuestion, float]] = []
    for question, values in zip(questions, offsets, strict=True):
        scene = question.scene(layout.table, stroke)
        rows, count, best = search.solve_from(at, values, 0.0, scene, FINE)
        leaving = [object_direction(float(row[FOUND.direction]), scene) for row in rows[:count]]
        found += [
            solution
            for row, way in zip(rows, leaving, strict=False)
            if markable(rails[0], question.nose(way))
            and (solution := _solution(question, stroke, scene, row, way)) is not None
        ]
        least = float(np.nanmin(np.abs(values))) if np.isfinite(values).any() else math.inf
        if least < PASSING_M and not math.isnan(best):
            nearest.append((least, question, float(best)))
    if not found:
        return refuse_bank(questions, stroke, nearest, pocket)
    solutions = tuple(sorted(found, key=lambda s: -s.window_mm))
    aim = Aim(solutions, ())
    return add_bank_chain(layout, stroke, aim) if with_chain else aim


def _sweep(questions: list[BankQuestion], stroke: Stroke) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Directions across the object ball, and how far each pocket's middle lies off for every one."""
    question = questions[0]
    (x, y), (bx, by) = question.cue, question.ball
    table = question.layout.table
    half = math.asin(min(1.0, 2 * table.ball_radius / math.hypot(bx - x, by - y)))
    middle = math.atan2(by - y, bx - x) - stroke.squirt
    at = np.linspace(middle - half - SPARE_RAD, middle + half + SPARE_RAD, GRID + 1)
    goals = np.array([q.mouth.middle for q in questions])
    offsets = np.empty((len(questions), at.size))
    kernels.bank_sweep(at, question.scene(table, stroke), goals, offsets, np.empty(WIDTH), np.empty(WIDTH))
    return at, offsets


def _solution(
    question: BankQuestion, stroke: Stroke, scene: Scene, row: NDArray[np.float64], direction: float
) -> Solution | None:
    """A proved bank from the search's row; direction: the object ball's as it leaves, rad.

    None where, played with every ball on, it does not drop there: among balls that are met again and again the
    window may be in shreds, and a direction between two that pot need not.
    """
    layout, rail = question.layout, question.rails[0]
    table, theta = layout.table, float(row[FOUND.direction])
    way, shot = approach(layout, stroke, theta), play(layout, stroke, theta)
    if (question.target, question.mouth.name) not in shot.potted:
        return None
    a, b = np.empty(WIDTH), np.empty(WIDTH)
    kernels.contact(theta, scene, a, b)
    at, scale = question.nose(direction), diamond_along(table, rail) * 1000
    ends = sorted(
        edge_mark(table, rail, question.ball, last_direction(theta, float(edge), scene), at)
        for edge in (row[FOUND.lowest], row[FOUND.highest])
    )
    cut = _cut(way.pieces[-1], (a[X], a[Y]), question.ball)
    return Solution(
        rails=question.rails,
        mark_rail=rail,
        target=question.target,
        mirror=marks(table, rail, question.ball, question.geometric(0.0)),
        natural=marks(table, rail, question.ball, question.geometric(table.ball_radius)),
        corrected=marks(table, rail, question.ball, direction),
        direction=theta,
        miss_mm=_miss(question, shot) * 1000,
        fullness=1.0 - abs(math.sin(cut)),
        window_less_mm=(at - ends[0]) * scale,
        window_more_mm=(ends[1] - at) * scale,
        window_deg=math.degrees(float(row[FOUND.highest] - row[FOUND.lowest])),
        cushions=_cushions(question, shot),
        shot=way,
        pocket=question.mouth.name,
        contact=ObjectContact(math.degrees(abs(cut)), (a[X] / table.diamond_x, a[Y] / table.diamond_y)),
        push=pushes(layout, way),
        mark=remember(table, rail, at),
        object_run=object_run(shot, question.target, len(question.rails) + 1),
    )


def _cut(piece: Piece, ghost: Point, ball: Point) -> float:
    """Angle between the cue ball's line of travel at contact and the line of centres, rad."""
    return math.remainder(math.atan2(ball[1] - ghost[1], ball[0] - ghost[0]) - piece.heading, 2 * math.pi)


def _cushions(question: BankQuestion, shot: Shot) -> tuple[Cushion, ...]:
    return tuple(
        Cushion(ev.rail, ev.rail.along(ev.x, ev.y), ev.in_deg, ev.out_deg)
        for ev in shot.events
        if ev.ball == question.target and ev.rail is not None and ev.in_deg is not None and ev.out_deg is not None
    )


def _miss(question: BankQuestion, shot: Shot) -> float:
    """How far from its middle the object ball crosses the mouth line, m; NaN if it does not."""
    table, mouth = question.layout.table, question.mouth
    (mx, my), (ax, ay) = mouth.middle, mouth.axis
    last, before = math.nan, -math.inf
    way = shot.paths[question.target]
    for q in way:
        spots = [(p[0] * table.diamond_x - mx, p[1] * table.diamond_y - my) for p in (q.start, q.control, q.end)]
        deep = [x * ax + y * ay for x, y in spots]
        deep[2] += HAIR_M if q is way[-1] else 0.0  # the fall line may be the mouth line itself
        if before < 0.0 <= deep[0]:  # it crosses just where one stretch ends and the next begins
            last = math.hypot(*spots[0])
        elif deep[0] < 0.0 <= deep[2]:
            s = _crossed(*deep)
            x, y = ((1 - s) ** 2 * spots[0][k] + 2 * s * (1 - s) * spots[1][k] + s * s * spots[2][k] for k in (0, 1))
            last = math.hypot(x, y)
        before = deep[2]
    return last


def _crossed(d0: float, d1: float, d2: float) -> float:
    """Parameter at which a Bézier coordinate that is below 0 at first and not at last first comes to 0."""
    c2, c1 = d0 - 2 * d1 + d2, 2 * (d1 - d0)
    roots = [r.real for r in np.roots([c2, c1, d0]) if abs(r.imag) < 1e-9 and -1e-9 <= r.real <= 1 + 1e-9]
    return min(roots, default=d0 / (d0 - d2))
