"""Why a line stands where it stands: for and against, short and true, each with its figure."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from fandle.core.choice.chance import Chance
from fandle.core.choice.field import Field
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.reach import reach_of
from fandle.core.choice.stretch import KIND
from fandle.core.choice.wish import ANYHOW, Then
from fandle.core.lines.marks import diamond_along, edge_mark, over
from fandle.core.player.body import ANYBODY, Body
from fandle.core.shot.approach import Approach, approach
from fandle.core.shot.play import play
from fandle.core.shot.side import running
from fandle.core.shot.tips import tips_of
from fandle.core.shot.travel import clearance
from fandle.core.words.balls import CUE, spoken
from fandle.core.words.spoken import side_name, tips_word

Code = Literal[
    "room", "backstop", "close", "jaw", "double_kiss", "in_off", "slow", "side", "many_rails", "between", "heavy_cut",
    "reach", "no_rail", "follows_in", "zone",
]  # fmt: skip
CLOSE_M = 0.040  # a gap narrower than that is told
OFTEN = 0.08  # of the draws: what happens more seldom is no reason
KISSES = 0.2  # of the draws: a second meeting costs the leave, not the hit
ARRIVES_SLOWLY_MPS = 0.5
ROOMY, TIGHT = 1.3, 0.7  # standard deviations of the aim on either side of it: room for error is plenty, or short
HEAVY = 0.75  # ball diameters off full: a quarter of the ball is met
MANY = 3
OFF_FULL = 0.08  # ball diameters: an aim further from full than that is told
MOST_ALSO = 2  # other ways to the ball that are named
PART = 0.85  # a window of which less than that is met over the line's own rails has a backstop
BESIDE_RAD = 5e-4  # so far past the end of a window what ends it is looked at


@dataclass(frozen=True)
class Reason:
    """A reason: its code and how it is said."""

    code: Code
    say: str


@dataclass(frozen=True)
class Case:
    """What a line's reasons are read from. way: the cue ball's, as meant; hit: ball diameters right of full.

    sigma: the standard deviation of the aim, rad; arrives: the cue ball's speed at contact, m/s; jawed: does a jaw or a
    pocket lie just beyond the lower, the upper end of the window? body: whose reach counts; then: what is
    to become of the cue ball.
    """

    field: Field
    line: Ranked
    way: Approach
    hit: float
    sigma: float
    arrives: float
    jawed: tuple[bool, bool]
    body: Body = ANYBODY
    then: Then = ANYHOW

    def often(self, share: float) -> str:
        """A share of the draws as it is said; "" where it is no reason."""
        return "" if share < OFTEN else tenths(share)


def tenths(share: float) -> str:
    """A share as players say it: "3 in 10"."""
    return f"{max(round(10 * share), 1)} in 10"


def _room(case: Case) -> Reason | None:
    """How far one may be wrong, at the rail for marks, else as seen along the cue."""
    stretch, direction = case.line.aim.stretch, case.line.aim.direction
    marked = case.line.aim.marked
    if marked is not None:
        table = case.field.layout.table
        ends = [
            edge_mark(table, marked.rail, case.field.start, end, marked.nose) for end in (stretch.low, stretch.high)
        ]
        mm = abs(ends[1] - ends[0]) * diamond_along(table, marked.rail) * 1000
        say = f"{mm:.0f} mm of room"
    else:
        say = f"{math.degrees(stretch.wide):.1f}° of room"
    least = min(stretch.high - direction, direction - stretch.low)
    if stretch.key.pocket is None and abs(case.hit) > OFF_FULL and least > 0.0:
        say += f", aim {abs(case.hit):.1f} of a ball {side_name(case.hit)} of full"
    return Reason("room", say) if not TIGHT <= least / case.sigma <= ROOMY else None


def _has_room(case: Case) -> bool:
    stretch, direction = case.line.aim.stretch, case.line.aim.direction
    return min(stretch.high - direction, direction - stretch.low) > ROOMY * case.sigma


def _backstop(case: Case) -> Reason | None:
    stretch = case.line.aim.stretch
    if stretch.key.kind == KIND and stretch.tried.lengths is not None:
        return Reason("backstop", "a soft push that leaves it on the rail")
    low, high = stretch.part
    own = max(min(high, stretch.high) - max(low, stretch.low), 0.0)
    if stretch.key.pocket is not None or stretch.key.kind == "point" or own > PART * stretch.wide:
        return None
    share = f"{1 - own / stretch.wide:.0%} of the room"
    if not stretch.also:
        return Reason("backstop", f"the rail behind it brings {share}")
    ways = " or ".join(over(other) for other in stretch.also[:MOST_ALSO])
    return Reason("backstop", f"also met {ways}: {share}")


def _close(case: Case) -> Reason | None:
    near = clearance(case.field.layout, case.way, case.line.aim.stretch.met)
    if near is None or near[1] >= CLOSE_M:
        return None
    return Reason("close", f"passes {spoken(near[0].id)} by {max(near[1], 0.0) * 1000:.0f} mm")


def _jaw(case: Case) -> Reason | None:
    """A jaw or a pocket that ends the room on one side."""
    stretch = case.line.aim.stretch
    ends = (stretch.low - BESIDE_RAD, stretch.high + BESIDE_RAD)
    for end in (end for end, jawed in zip(ends, case.jawed, strict=True) if jawed and stretch.key.aimed):
        events = approach(case.field.layout, stretch.tried.stroke, end).events
        pocket = next((event.pocket for event in events if event.pocket is not None), None)
        if pocket is not None:
            return Reason("jaw", f"the {pocket} jaw ends the room")
    return None


def _double_kiss(case: Case) -> Reason | None:
    share = float(case.line.chance.again.mean())
    return Reason("double_kiss", f"double kiss {case.often(share)}") if share >= KISSES else None


def follows(chance: Chance, target: int) -> float:
    """In which share of the draws the cue ball goes down after the target."""
    gone = np.isnan(chance.rests[:, (0, target), 0])
    return float((gone.all(axis=1) & chance.verdicts.in_off).mean())


def _follows_in(case: Case) -> Reason | None:
    target = case.field.number(case.line.key.target)
    often = case.often(follows(case.line.chance, target))
    if often:
        return Reason("follows_in", f"follows it in {often}")
    aside = f"hit it {abs(case.hit):.1f} of a ball {side_name(case.hit)}"
    return Reason("follows_in", f"full follows it in: {aside}") if _full_follows(case) else None


def _full_follows(case: Case) -> bool:
    """Would a full straight hit on a ball that is to be potted send both down? The aim then avoids it."""
    key, stroke, layout = case.line.key, case.line.aim.stretch.tried.stroke, case.field.layout
    if key.pocket is None or key.kind != "straight" or abs(case.hit) <= OFF_FULL:
        return False
    (x, y), (gx, gy) = case.field.start, layout.metres(layout.ball(key.target))
    down = [ball for ball, _ in play(layout, stroke, math.atan2(gy - y, gx - x) - stroke.squirt).potted]
    return key.target in down and CUE in down


def _in_off(case: Case) -> Reason | None:
    target = case.field.number(case.line.key.target)
    other = case.line.chance.share("in_off").p - follows(case.line.chance, target)
    often = case.often(other)
    return Reason("in_off", f"in-off {often}") if often else None


def _no_rail(case: Case) -> Reason | None:
    told = case.line.chance.verdicts
    if not case.field.court.rules.needs_rail:
        return None
    often = case.often(float((told.hit & ~told.legal & ~told.in_off).mean()))
    return Reason("no_rail", f"no rail after it {often}, a foul") if often else None


def _slow(case: Case) -> Reason | None:
    slow = case.arrives < ARRIVES_SLOWLY_MPS
    return Reason("slow", f"arrives slowly, {case.arrives:.1f} m/s") if slow else None


def _side(case: Case) -> Reason | None:
    stretch, table = case.line.aim.stretch, case.field.layout.table
    stroke = stretch.tried.stroke
    tips = tips_of(stroke.side, table, stroke.cue.tip)
    if abs(tips) < 0.02:
        return None
    rails = stretch.key.aimed
    bare = not rails or stretch.key.kind == "bank"
    which = side_name(tips) if bare else running(stroke.side, rails[0], case.line.aim.direction)
    return Reason("side", f"needs {tips_word(tips)} {which}")


def _many_rails(case: Case) -> Reason | None:
    n = len(case.line.key.rails)
    return Reason("many_rails", f"{n} rails: small errors grow") if n >= MANY else None


def _between(case: Case) -> Reason | None:
    marked = case.line.aim.marked
    if marked is None or marked.grade != "between":
        return None
    return Reason("between", "a mark between diamonds")


def _heavy_cut(case: Case) -> Reason | None:
    if abs(case.hit) <= HEAVY or (case.line.key.rails and case.line.key.kind != "bank"):
        return None
    return Reason("heavy_cut", f"thin, {1 - abs(case.hit):.0%} of the ball: scatters widely")


def _reach(case: Case) -> Reason | None:
    say = reach_of(case.field.layout, case.line.aim.direction, case.body).said
    return Reason("reach", say) if say else None


def _zone(case: Case) -> Reason | None:
    """The cue ball's place is missed nearly always: how near it stops at best, of the draws that do what is wanted."""
    if not case.then.placed:
        return None
    table, told = case.field.layout.table, case.line.chance.verdicts
    reached = told.legal if case.line.key.pocket is None else told.pot
    cue = case.line.chance.rests[reached, 0]
    if not len(cue) or case.then.in_zones(table, cue).mean() >= OFTEN:
        return None
    off = case.then.beside(table, cue)
    near = float(np.median(off))
    away = f"stops {near:.1f} diamonds from it" if near >= 0.1 else "stops at its edge"
    return Reason("zone", f"does not leave it there: {away}" if math.isfinite(near) else "does not leave it there")


Rule = Callable[[Case], Reason | None]
AGAINST: tuple[Rule, ...] = (
    _zone, _follows_in, _in_off, _no_rail, _double_kiss, _close, _jaw, _reach, _slow, _heavy_cut, _many_rails, _side,
    _between,
)  # fmt: skip


def reasons(case: Case) -> tuple[tuple[Reason, ...], tuple[Reason, ...]]:
    """(for, against), the weightiest first."""
    room, backstop = _room(case), _backstop(case)
    against = [reason for rule in AGAINST if (reason := rule(case)) is not None]
    pros = [backstop] if backstop is not None else []
    if room is not None and _has_room(case):
        pros.insert(0, room)
    elif room is not None:
        against.insert(0, room)
    return tuple(pros), tuple(against)
