"""The question turned round: hold the mark, and find the side, the height or the speed that goes with it."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

from fandle.core import constants as k
from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.question import Question, ask
from fandle.core.lines.refusal import refuse
from fandle.core.lines.solution import ReasonCode, Refusal
from fandle.core.physics.judge import measure, outcome
from fandle.core.physics.outcomes import HIT
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

Change = Literal["side", "up", "speed"]
CHANGES: tuple[Change, ...] = ("side", "up", "speed")
SLOWEST_MPS = 0.3  # slower strokes are not looked at
STEPS = 80  # over the whole legal range, before each root is closed in on
JUMP_M = 0.3  # a larger change of the offset from step to step is no crossing but another way round
ROOM = 1e-9  # of the radius, inside the miscue limit


@dataclass(frozen=True)
class Instead:
    """The stroke that takes the held line to the target; `others` are further values that do."""

    rails: tuple[Rail, ...]
    target: str
    change: Change
    stroke: Stroke
    direction: float
    miss_mm: float
    others: tuple[float, ...]

    @property
    def value(self) -> float:
        """What was solved for."""
        return float(getattr(self.stroke, self.change))


def solve_instead(
    layout: Layout,
    rails: tuple[Rail, ...],
    direction: float,
    stroke: Stroke,
    change: str,
    target: str | None = None,
    hit: float = 0.0,
) -> Instead | Refusal:
    """The value of `change` nearest to the stroke's own with which the line `direction` meets the target.

    change: "side", "up" or "speed"; everything else of the stroke is kept. The whole legal range
    is looked at in even steps (of the logarithm, for speed), each crossing is closed in on, and
    the stroke is played for real.
    """
    known = next((name for name in CHANGES if name == change), None)
    if known is None:
        raise BadInputError(f"change {change!r}: hold the mark and change one of {', '.join(CHANGES)}", "change")
    question = ask(layout, rails, target, hit)
    scene = question.scene(layout.table, stroke)

    def offset(value: float) -> float:
        scene.stroke[:] = _changed(stroke, change, value).array()
        return float(measure(direction, scene)) - question.offset

    values = _values(stroke, change)
    offsets = [offset(value) for value in values]
    roots = []
    for a, b, f_a, f_b in zip(values, values[1:], offsets, offsets[1:], strict=False):
        if f_a * f_b <= 0.0 and abs(f_a - f_b) < JUMP_M:
            roots.append(_close_in(offset, a, b, f_a))
    roots.sort(key=lambda value: abs(value - getattr(stroke, change)))
    good = []
    for root in roots:
        off = offset(root)  # leaves the stroke in the scene
        if abs(off) < 1e-4 and outcome(direction, 0, scene).what == HIT:
            good.append((root, off))
    if good:
        (best, off), *more = good
        changed = _changed(stroke, change, best)
        others = tuple(root for root, _ in more)
        return Instead(rails, question.target, known, changed, direction, abs(off) * 1000, others)
    if roots:
        return refuse(question, _changed(stroke, change, roots[0]), direction)
    return _out_of_range(question, change, offsets)


def _changed(stroke: Stroke, change: str, value: float) -> Stroke:
    if change == "side":
        return replace(stroke, side=value)
    return replace(stroke, up=value) if change == "up" else replace(stroke, speed=value)


def _values(stroke: Stroke, change: str) -> list[float]:
    if change == "speed":
        fastest = k.FASTEST_MPS
        if stroke.elevation > 0.0:  # a raised cue must not make the ball leap
            fastest = min(fastest, stroke.speed * math.sqrt(k.LEAP_M / max(stroke.hop, 1e-12)))
        ratio = fastest / SLOWEST_MPS
        return [SLOWEST_MPS * ratio ** (i / STEPS) * (1 - 1e-12) for i in range(STEPS + 1)]
    other = stroke.up if change == "side" else stroke.side
    most = math.sqrt(max(k.MISCUE_LIMIT**2 - other**2, 0.0)) - ROOM
    return [most * (2 * i / STEPS - 1) for i in range(STEPS + 1)]


def _close_in(offset: Callable[[float], float], a: float, b: float, f_a: float) -> float:
    """Bisection: the offset is continuous but has kinks, and 50 halvings are 1e-15 of the range."""
    for _ in range(50):
        mid = 0.5 * (a + b)
        f = offset(mid)
        if (f < 0.0) == (f_a < 0.0):
            a, f_a = mid, f
        else:
            b = mid
    return 0.5 * (a + b)


def _out_of_range(question: Question, change: str, offsets: list[float]) -> Refusal:
    """Nothing in the legal range does it: which code, and how near it comes."""
    ball = spoken(question.target)
    near = [abs(f) for f in offsets if not math.isnan(f)]
    what = {"side": "side", "up": "follow or draw", "speed": "speed"}[change]
    code: ReasonCode = (
        "too_much_side" if change == "side" else "short_of_speed" if change == "speed" else "no_such_line"
    )
    if not near:
        return Refusal(
            question.rails, question.target, "no_such_line", f"from that mark no {what} goes over these rails"
        )
    left = min(near) * 1000
    reason = f"no {what} within the limits takes that mark to {ball}: the nearest misses it by {left:.0f} mm"
    return Refusal(question.rails, question.target, code, reason)
