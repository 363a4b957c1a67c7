"""The aim of a kick: natural, then corrected, verified by playing it, with its chain."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.approach import Approach, approach, final_approach
from fandle.core.errors import BadInputError
from fandle.core.layout import Layout, spoken
from fandle.core.mirror import natural_direction, rail_line
from fandle.core.path import into_pocket
from fandle.core.physics import search
from fandle.core.physics.judge import Scene, scene_of
from fandle.core.pocket import Point
from fandle.core.rails import Rail
from fandle.core.readout import Marks, crossing, diamond_along, marks, over, rail_ahead
from fandle.core.stroke import Stroke
from fandle.core.table import Table

LINKS = ("ball size", "cushion", "compression", "side", "follow", "table", "squirt and swerve")
THICKNESS = "thickness"
FULL_MM = 0.01  # an aim that misses the thickness asked for by more is a thinner hit
SAME_RAD = 1e-10  # two solutions nearer than this are one, found twice
CURVE_RAD = 1.4  # how far a raised cue may bend the ball away from its line, at 90°
EDGE_RAD = 0.02  # beyond the target's edges a straight shot is looked for this much further
FULLEST = 0.999  # ball diameters: nothing is met thinner on purpose


@dataclass(frozen=True)
class Cushion:
    """One contact with a rail: where the centre turns (diamonds) and the angles from the rail."""

    rail: Rail
    at: float
    in_deg: float
    out_deg: float


@dataclass(frozen=True)
class Link:
    """One link of the chain: what it is and how far it moves the mark at the nose, in diamonds."""

    link: str
    shift: float


@dataclass(frozen=True)
class Solution:
    """One verified aim. window: how far the mark at the nose (mm), the cue (degrees), may be off.

    mark_rail: where the marks are read, the first rail or the one behind the target.
    """

    rails: tuple[Rail, ...]
    mark_rail: Rail
    target: str
    mirror: Marks
    natural: Marks
    corrected: Marks
    direction: float
    miss_mm: float
    fullness: float
    window_less_mm: float
    window_more_mm: float
    window_deg: float
    cushions: tuple[Cushion, ...]
    shot: Approach

    @property
    def window_mm(self) -> float:
        """Whole width of the window."""
        return self.window_less_mm + self.window_more_mm


@dataclass(frozen=True)
class Refusal:
    """No aim: the code of the contract and the reason in a player's words."""

    rails: tuple[Rail, ...]
    target: str
    reason_code: str
    reason: str


@dataclass(frozen=True)
class Aim:
    """All aims over one order of rails, widest window first, with the chain of the first."""

    solutions: tuple[Solution, ...]
    chain: tuple[Link, ...]

    @property
    def best(self) -> Solution:
        """The aim with the widest window."""
        return self.solutions[0]


@dataclass(frozen=True)
class _Question:
    """A kick put to the search: the same for every table and stroke it is asked with."""

    layout: Layout
    target: str
    rails: tuple[Rail, ...]
    hit: float

    @property
    def rail(self) -> Rail:
        """Where the mark is read: the first rail, or the one a straight line would come to."""
        if self.rails:
            return self.rails[0]
        (x, y), (gx, gy) = self.start, self.goal
        return rail_ahead(self.layout.table, self.start, math.atan2(gy - y, gx - x))

    @property
    def start(self) -> Point:
        return self.layout.metres(self.layout.cue)

    @property
    def goal(self) -> Point:
        return self.layout.metres(self.layout.ball(self.target))

    @property
    def offset(self) -> float:
        return self.hit * 2 * self.layout.table.ball_radius

    @property
    def order(self) -> NDArray[np.int64]:
        return np.array([rail.number for rail in self.rails], dtype=np.int64)

    def scene(self, table: Table, stroke: Stroke) -> Scene:
        layout = self.layout
        place = layout.index(self.target)
        return scene_of(np.array(self.start), stroke.array(), table.params(), layout.obstacles(), place, self.order)

    def geometric(self, inset: float) -> float | None:
        return natural_direction(self.layout.table, self.rails, self.start, self.goal, inset, self.offset)

    def nose(self, direction: float) -> float:
        return crossing(self.layout.table, self.rail, self.start, direction, 0.0)


def solve_kick(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    target: str | None = None,
    hit: float = 0.0,
    with_chain: bool = True,
) -> Aim | Refusal:
    """The aims over `rails` that meet the target, or the reason why there is none.

    rails: none is the straight shot; its mark is read at the rail behind the target.
    hit: by how many ball diameters the line of travel passes right of the target's centre,
    −1…1. Every direction between the ends of the first rail (or on to the target) is considered:
    a coarse grid on the signed offset, refined near the target, bracketed, then played for real
    with every ball on.
    """
    if not -1.0 <= hit <= 1.0 or math.isnan(hit):
        raise BadInputError(f"hit {hit} is not a thickness: give -1 to 1, 0 is full", "hit")
    if len(rails) > 1:
        raise BadInputError(f"{len(rails)} rails: this version solves lines over one rail", "rails")
    ball = layout.require_target(target)
    hit = max(-FULLEST, min(FULLEST, hit))
    question = _Question(layout, ball.id, rails, hit)
    natural = question.geometric(layout.table.ball_radius)
    mirror = question.geometric(0.0)
    if natural is None or mirror is None:
        return Refusal(rails, ball.id, "no_such_line", f"no line {over(rails)} is that thin")
    found, best = _search(question, stroke)
    if not found:
        return _refuse(question, stroke, natural if math.isnan(best) else best)
    solutions = [_solution(question, stroke, row, mirror, natural) for row in found]
    solutions.sort(key=lambda s: -s.window_mm)
    aim = Aim(tuple(solutions), ())
    return add_chain(layout, stroke, aim, hit) if with_chain else aim


def add_chain(layout: Layout, stroke: Stroke, aim: Aim, hit: float = 0.0) -> Aim:
    """The same aim with the chain of its best solution, asked with the same stroke and `hit`."""
    best = aim.best
    question = _Question(layout, best.target, best.rails, max(-FULLEST, min(FULLEST, hit)))
    mirror, natural = question.geometric(0.0), question.geometric(layout.table.ball_radius)
    if mirror is None or natural is None:
        raise BadInputError(f"hit {hit} has no natural line: ask for a fuller one", "hit")
    return replace(aim, chain=_chain(question, stroke, best, mirror, natural))


def _search(question: _Question, stroke: Stroke) -> tuple[list[NDArray[np.float64]], float]:
    layout = question.layout
    if question.rails:
        first, last = _span(layout.table, question.rails[0], question.start, stroke)
        grid = search.RAIL_GRID
    else:
        first, last = _straight_span(question, stroke)
        grid = search.STRAIGHT_GRID
    scene = question.scene(layout.table, stroke)
    rows, count, best = search.solve(first, last, question.offset, scene, grid)
    return [rows[i] for i in range(count)], float(best)


def _span(table: Table, rail: Rail, start: Point, stroke: Stroke) -> tuple[float, float]:
    """Directions of the cue between the two ends of a rail, rising; wider for a curving ball."""
    line = rail_line(table, rail, table.ball_radius)
    whole = table.length if rail.is_long else table.width
    middle = {"far": math.pi / 2, "near": -math.pi / 2, "head": math.pi, "foot": 0.0}[rail.value]
    ends = []
    for along in (table.ball_radius, whole - table.ball_radius):
        x, y = rail.point(along, line)
        dx, dy = x - start[0], y - start[1]
        if abs(dx) + abs(dy) < 1e-9:  # the ball lies in that very corner
            dx, dy = rail.point(1.0 if along > whole / 2 else -1.0, 0.0)
        turned = math.remainder(math.atan2(dy, dx) - middle, 2 * math.pi)
        ends.append(middle + turned - stroke.squirt)
    spare = CURVE_RAD * math.sin(math.radians(stroke.elevation))
    return min(ends) - spare, max(ends) + spare


def _straight_span(question: _Question, stroke: Stroke) -> tuple[float, float]:
    """Directions of the cue from one edge of the target to the other, and a little."""
    (x, y), (gx, gy) = question.start, question.goal
    middle = math.atan2(gy - y, gx - x) - stroke.squirt
    half = math.asin(min(1.0, 2 * question.layout.table.ball_radius / math.hypot(gx - x, gy - y)))
    spare = EDGE_RAD + CURVE_RAD * math.sin(math.radians(stroke.elevation))
    return middle - half - spare, middle + half + spare


def _solution(question: _Question, stroke: Stroke, row: NDArray[np.float64], mirror: float, natural: float) -> Solution:
    layout, rail = question.layout, question.rail
    table, start = layout.table, question.start
    direction = float(row[0])
    shot = approach(layout, stroke, direction)
    (px, py), (ux, uy) = final_approach(shot, layout)
    gx, gy = question.goal
    offset = ux * (gy - py) - uy * (gx - px)
    asked = question.offset
    less, more = _window(question, direction, float(row[2]), float(row[3]))
    return Solution(
        rails=question.rails,
        mark_rail=rail,
        target=question.target,
        mirror=marks(table, rail, start, mirror),
        natural=marks(table, rail, start, natural),
        corrected=marks(table, rail, start, direction),
        direction=direction,
        miss_mm=abs(offset - asked) * 1000,
        fullness=1.0 - abs(offset) / (2 * table.ball_radius),
        window_less_mm=less,
        window_more_mm=more,
        window_deg=math.degrees(float(row[3] - row[2])),
        cushions=_cushions(shot),
        shot=shot,
    )


def _window(question: _Question, direction: float, low: float, high: float) -> tuple[float, float]:
    """How far the mark may be off either way, mm: at the first rail's nose, straight at the target."""
    if question.rails:
        scale = diamond_along(question.layout.table, question.rail) * 1000
        ends = sorted((question.nose(low), question.nose(high)))
        return (question.nose(direction) - ends[0]) * scale, (ends[1] - question.nose(direction)) * scale
    away = math.dist(question.start, question.goal) * 1000
    return away * math.sin(direction - low), away * math.sin(high - direction)


def _cushions(shot: Approach) -> tuple[Cushion, ...]:
    return tuple(
        Cushion(ev.rail, ev.rail.along(ev.x, ev.y), ev.in_deg, ev.out_deg)
        for ev in shot.events
        if ev.rail is not None and ev.in_deg is not None and ev.out_deg is not None
    )


def _chain(question: _Question, stroke: Stroke, solution: Solution, mirror: float, natural: float) -> tuple[Link, ...]:
    """Links from the mirror's mark to the corrected one, each the difference of two solved aims.

    Where one of the aims between does not exist, its link is 0 and the next one carries both.
    Where only a thinner hit than asked is open, a last link "thickness" says what that costs.
    """
    table = question.layout.table
    standard = table.standard_twin()
    plain = stroke.plain()
    level = Stroke(stroke.speed, stroke.side, stroke.up)
    full = solution.miss_mm < FULL_MM
    steps = (
        (replace(standard, cushion_compression=0.0), plain),
        (standard, plain),
        (standard, Stroke(stroke.speed, side=stroke.side)),
        (standard, level),
        (table, level),
        (table, stroke),
    )
    directions: list[float] = [mirror, natural]
    asked: tuple[Table, Stroke] | None = None
    for step in steps:
        direction = None if step == asked else _partial(question, *step, directions[-1])
        directions.append(directions[-1] if direction is None else direction)
        asked = step
    if full and abs(directions[-1] - solution.direction) > SAME_RAD:  # the aim is another branch's
        directions[-1] = solution.direction
    points = [question.nose(direction) for direction in directions]
    links = [Link(name, b - a) for name, a, b in zip(LINKS, points, points[1:], strict=False)]
    if not full:
        links.append(Link(THICKNESS, solution.corrected.nose - points[-1]))
    return tuple(links)


def _partial(question: _Question, table: Table, stroke: Stroke, near: float) -> float | None:
    """The full aim on another table or with another stroke, other balls aside; None if none."""
    found = search.root_near(near - stroke.squirt, question.offset, question.scene(table, stroke))
    return None if math.isnan(found) else float(found)


def _refuse(question: _Question, stroke: Stroke, best: float) -> Refusal:
    """Why there is no aim, from playing the direction that comes nearest to one, else the natural."""
    layout, way, asked = question.layout, over(question.rails), len(question.rails)
    ball = spoken(question.target)

    def refusal(code: str, reason: str) -> Refusal:
        return Refusal(question.rails, question.target, code, reason)

    shot = approach(layout, stroke, best)
    met = len(shot.rails)
    last = shot.events[-1]
    if last.kind == "ball" and last.other == question.target and met < asked:
        return refusal("blocked", f"{ball} itself is met before the {question.rails[met]} rail")
    if last.kind == "ball" and last.other is not None and met <= asked:
        leg = "way" if not asked else "way in" if met == 0 else "way out"
        return refusal("blocked", f"{spoken(last.other)} is on the {leg}")
    if last.pocket is not None and met < asked:
        return refusal("jaw", f"the ball would {into_pocket(last)}, not meet the {question.rails[met]} rail")
    if last.kind == "stop" and met <= asked:
        gx, gy = question.goal
        table = layout.table
        left = math.hypot(last.x * table.diamond_x - gx, last.y * table.diamond_y - gy) - 2 * table.ball_radius
        return refusal(
            "short_of_speed",
            f"the cue ball stops {max(left, 0.0) / table.diamond_x:.1f} diamonds short of {ball}",
        )
    return refusal("no_such_line", f"no line {way} reaches {ball}")
