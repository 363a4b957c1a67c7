"""The candidate lines for a layout, best first, each with the reason for its place."""

import math
from dataclasses import dataclass
from itertools import pairwise, product

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.kick import NO_MARK, solve_kick
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.refusal import guarded, no_kick
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import clearance
from fandle.core.steps import Steps
from fandle.core.table.rails import Rail, rails_name
from fandle.core.words.balls import spoken

ROOMY_M = 0.100  # a gap wider than this needs no word
BEYOND = 1.0  # diamonds past the end of a rail at which a mark can still be judged
FULL = 0.95  # of a ball: anything fuller is called full


@dataclass(frozen=True)
class Line:
    """One candidate: its rails, its aim or its refusal, and why it stands where it stands."""

    rails: tuple[Rail, ...]
    answer: Aim | Refusal
    why: str

    @property
    def name(self) -> str:
        """Its rails, as they are asked for."""
        return rails_name(self.rails)

    @property
    def solved(self) -> bool:
        """Is there an aim?"""
        return isinstance(self.answer, Aim)

    @property
    def window_deg(self) -> float:
        """Angle by which the cue may be off, both ways together; 0 where there is no aim.

        Millimetres on the rail flatter a shallow line; the angle is what the arm can miss by. Of a pot: and still pot.
        """
        if not isinstance(self.answer, Aim):
            return 0.0
        best = self.answer.best
        return best.window_deg if best.pot is None else best.pot.window_deg


def candidate_steps(layout: Layout, stroke: Stroke, target: str | None = None, hit: float = 0.0) -> Steps[list[Line]]:
    """The four one-rail kicks, widest window first, refusals after them, and the straight shot; in steps.

    That leads where the ball is open, and ends the list where it is not. Without their chains. hit: the thickness
    asked, as for `solve_kick`.
    """
    kicks = []
    for rail in Rail:
        kicks.append(_line(layout, stroke, (rail,), target, hit))
        yield
    straight = _line(layout, stroke, (), target, hit)
    kicks.sort(key=lambda line: -line.window_deg)
    return [straight, *kicks] if is_open(straight, hit) else [*kicks, straight]


def is_open(line: Line, hit: float = 0.0) -> bool:
    """Is this the straight shot, with nothing in its way?"""
    if line.rails or not isinstance(line.answer, Aim):
        return False
    best = line.answer.best
    return not best.push and best.fullness >= FULL - abs(hit)


def orders(number: int) -> list[tuple[Rail, ...]]:
    """Every order of so many rails in which none follows itself."""
    return [order for order in product(Rail, repeat=number) if all(a != b for a, b in pairwise(order))]


def kick(
    layout: Layout, rails: tuple[Rail, ...], stroke: Stroke, target: str | None = None, hit: float = 0.0
) -> Aim | Refusal:
    """`solve_kick` without its chain, guarded."""
    ball = layout.require_target(target).id
    return guarded(layout, rails, ball, lambda: solve_kick(layout, rails, stroke, target, hit, with_chain=False))


def bank(
    layout: Layout, rails: tuple[Rail, ...], stroke: Stroke, target: str | None = None, pocket: str | None = None
) -> Aim | Refusal:
    """`solve_bank` without its chain, guarded."""
    ball = layout.require_target(target).id
    return guarded(layout, rails, ball, lambda: solve_bank(layout, rails, stroke, target, pocket, with_chain=False))


def _rank(line: Line) -> tuple[float, int]:
    return -line.window_deg, len(line.rails)


def bank_line_steps(
    layout: Layout, stroke: Stroke, over: tuple[int, ...], pocket: str | None = None, target: str | None = None
) -> Steps[list[Line]]:
    """Every bank over so many rails, widest window first, without chains, in steps; refused only over one rail."""
    found = []
    for rails in (order for number in over for order in orders(number)):
        answer = bank(layout, rails, stroke, target, pocket)
        if isinstance(answer, Aim):
            best = answer.best
            why = f"into {best.pocket}, {best.window_mm:.0f} mm wide"
            found.append(Line(rails, answer, why))
        elif len(rails) == 1:
            found.append(Line(rails, answer, answer.reason))
        yield
    return sorted(found, key=_rank)


def pot(
    layout: Layout,
    rails: tuple[Rail, ...],
    stroke: Stroke,
    pocket: str,
    target: str | None = None,
) -> Line:
    """The line over `rails` that pots the target, the safest of `solve_pot` without its chain, guarded."""
    ball = layout.require_target(target).id
    answer = guarded(
        layout, rails, ball,
        lambda: solve_pot(layout, rails, stroke, target, pocket, with_chain=False, every=False),
    )  # fmt: skip
    return Line(rails, answer, _pot_why(answer) if isinstance(answer, Aim) else answer.reason)


def _pot_why(aim: Aim) -> str:
    best = aim.best
    if best.pot is None:
        return ""
    through = best.pot.by(best.target)
    follows = ", the cue ball goes down, too" if best.pot.in_off else ""
    return f"into {best.pot.pocket}{through}{follows}"


def _line(layout: Layout, stroke: Stroke, rails: tuple[Rail, ...], target: str | None, hit: float) -> Line:
    answer = no_kick(layout, rails, layout.require_target(target).id) or kick(layout, rails, stroke, target, hit)
    if rails:
        answer = _aimable(answer)
    why = _why(layout, answer, hit) if isinstance(answer, Aim) else answer.reason
    return Line(rails, answer, why)


def _aimable(answer: Aim | Refusal) -> Aim | Refusal:
    """An aim a player can take: a line that runs along the rail crosses it nowhere near the table."""
    if isinstance(answer, Refusal):
        return answer
    best = answer.best
    if -BEYOND <= best.corrected.nose <= best.rails[0].diamonds + BEYOND:
        return answer
    return Refusal(best.rails, best.target, "no_such_line", NO_MARK)


def in_the_way(layout: Layout, target: str | None = None) -> Ball | None:
    """The ball nearest to the cue ball that blocks the straight line to the target, if any."""
    goal = layout.require_target(target)
    cx, cy = layout.metres(layout.cue)
    gx, gy = layout.metres(goal)
    away = math.hypot(gx - cx, gy - cy)
    ux, uy = (gx - cx) / away, (gy - cy) / away
    blockers = []
    for ball in layout.object_balls():
        x, y = layout.metres(ball)
        ahead = (x - cx) * ux + (y - cy) * uy
        aside = abs((x - cx) * uy - (y - cy) * ux)
        if ball != goal and 0.0 < ahead < away and aside < 2 * layout.table.ball_radius:
            blockers.append((ahead, ball))
    return min(blockers, key=lambda pair: pair[0])[1] if blockers else None


def _why(layout: Layout, aim: Aim, hit: float) -> str:
    best = aim.best
    if best.push:
        return "frozen to the cue ball: a push, both go on together"
    thin = best.fullness < FULL - abs(hit)
    near = clearance(layout, best.shot, best.target)
    if thin and near is not None and near[1] < ROOMY_M:
        return f"only {best.fullness:.0%} full, past {spoken(near[0].id)}"
    if thin:
        return f"only {best.fullness:.0%} full"
    if near is not None and near[1] < ROOMY_M:
        return f"passes {spoken(near[0].id)} by {near[1] * 1000:.0f} mm"
    return "clear"
