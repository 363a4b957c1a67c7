"""Kicks over one to three rails, every order: against a brute sweep, and against playing them."""

import itertools
import math
import random

import pytest
from tests.amount import amount
from tests.conftest import make
from tests.core.lines.test_kick import random_layout, random_stroke

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.candidates import orders
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.mirror import natural_direction, turns
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.physics import engine as e
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.slots import STEPS
from fandle.core.physics.state import EV_RAIL, EVENT, PIECE, Motion
from fandle.core.physics.strike import strike
from fandle.core.shot.approach import approach, final_approach
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

ORDERS = [order for count in (1, 2, 3) for order in orders(count)]
RAILS = list(Rail)
SWEEP = 7200
FULL = 0.995  # of a ball: what is told as full must be met so when it is played


def swept(layout: Layout, stroke: Stroke) -> set[tuple[Rail, ...]]:
    """Orders of rails over which any of 7,200 directions meets the target, everything on the bed."""
    p, balls, s = layout.table.params(), layout.obstacles(), stroke.array()
    x, y = layout.metres(layout.cue)
    target = layout.index(layout.require_target().id)
    tape = blank_tape(e.MOST_EVENTS, e.MOST_PIECES)
    events = tape.events
    found = set()
    for i in range(SWEEP):
        start = Motion(x, y, *strike(2 * math.pi * i / SWEEP, *s))
        code, n, _ = e.run(start, p, balls, e.Until(0, e.AT_JAWS, 5), tape)
        if code == e.HIT_BALL and int(events[n - 1, EVENT.which]) == target:
            rails = tuple(RAILS[int(row[EVENT.which])] for row in events[: n - 1] if row[EVENT.kind] == EV_RAIL)
            if 1 <= len(rails) <= 3:
                found.add(rails)
    return found


def solved(layout: Layout, stroke: Stroke, every: list[tuple[Rail, ...]]) -> dict[tuple[Rail, ...], Aim | Refusal]:
    """Each order's answer, without its chain."""
    return {rails: solve_kick(layout, rails, stroke, with_chain=False) for rails in every}


def meets(layout: Layout, stroke: Stroke, rails: tuple[Rail, ...], direction: float) -> bool:
    way = approach(layout, stroke, direction)
    return way.first_ball == layout.target and way.rails == rails


def test_there_are_four_twelve_thirtysix_orders() -> None:
    assert [len(orders(count)) for count in (1, 2, 3, 4)] == [4, 12, 36, 108]
    assert all(a != b for order in orders(4) for a, b in itertools.pairwise(order))


@pytest.mark.proof
def test_whatever_the_sweep_hits_is_solved_and_whatever_is_solved_hits(pool: Table) -> None:
    """Random layouts, each over all 52 orders of one to three rails."""
    rng = random.Random(52)
    missed, false = [], []
    for _ in range(amount(20, 60)):
        layout, stroke = random_layout(pool, rng, rng.choice([2, 4, 7])), random_stroke(rng)
        answers, hit = solved(layout, stroke, ORDERS), swept(layout, stroke)
        for rails, answer in answers.items():
            if isinstance(answer, Aim):
                false += [(layout.balls, rails)] * (not meets(layout, stroke, rails, answer.best.direction))
            elif rails in hit:
                missed.append((layout.balls, rails, stroke))
    assert missed == []
    assert false == []


@pytest.mark.proof
def test_full_hits_miss_by_less_than_a_millimetre_and_again_with_half_the_impulse_step(pool: Table) -> None:
    """< 1 mm over one rail, < 2 mm over more, in the whole engine, and with steps twice as fine."""
    rng = random.Random(9)
    full = thin = 0
    for _ in range(amount(15, 40)):
        layout, stroke = random_layout(pool, rng, 3), random_stroke(rng)
        for rails, answer in solved(layout, stroke, ORDERS).items():
            if isinstance(answer, Refusal) or answer.best.fullness < FULL:
                thin += isinstance(answer, Aim)  # only a thinner hit is open
                continue
            limit = 1.0 if len(rails) == 1 else 2.0
            (px, py), (ux, uy) = _first_contact(layout, stroke, answer.best.direction)
            gx, gy = layout.metres(layout.require_target())
            played = abs(ux * (gy - py) - uy * (gx - px)) * 1000
            assert played < limit, (layout.balls, rails, stroke)
            full += 1
    assert full > amount(50, 150)
    assert thin < full


def _first_contact(layout: Layout, stroke: Stroke, direction: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """(place, unit direction) of the cue ball as it meets the target, impulse steps doubled."""
    table = layout.table
    p = table.params().copy()
    p[STEPS] *= 2
    tape = blank_tape(e.MOST_EVENTS, e.MOST_PIECES)
    pieces = tape.pieces
    x, y = layout.metres(layout.cue)
    start = Motion(x, y, *strike(direction, *stroke.array()))
    code, _, n = e.run(start, p, layout.obstacles(), e.Until(0, e.AT_JAWS, 9), tape)
    assert code == e.HIT_BALL
    q, t = pieces[n - 1], pieces[n - 1, PIECE.lasts]
    vx, vy = q[4] + q[6] * t, q[5] + q[7] * t
    speed = math.hypot(vx, vy)
    place = (q[2] + t * (q[4] + q[6] * t / 2), q[3] + t * (q[5] + q[7] * t / 2))
    return place, (vx / speed, vy / speed)


def test_five_millimetres_past_the_window_misses(pool: Table) -> None:
    rng = random.Random(12)
    checked = 0
    for _ in range(25):
        layout, stroke = random_layout(pool, rng, 2), random_stroke(rng)
        for rails, answer in solved(layout, stroke, orders(2)).items():
            if isinstance(answer, Refusal):
                continue
            best, start = answer.best, layout.metres(layout.cue)
            unit = pool.diamond_x if rails[0].is_long else pool.diamond_y
            across = (pool.width if rails[0].is_long else pool.length) if rails[0].at_end else 0.0
            for sign, width in ((-1, best.window_less_mm), (1, best.window_more_mm)):
                at = best.corrected.nose * unit + sign * (width + 5.0) / 1000
                x, y = rails[0].point(at, across)
                way = approach(layout, stroke, math.atan2(y - start[1], x - start[0]))
                same = way.rails == rails  # met off a rail more, apart from the window, is another line
                near = [(s.corrected.nose * unit * 1000, s) for s in answer.solutions[1:]]
                if any(-s.window_less_mm <= at * 1000 - m <= s.window_more_mm for m, s in near):
                    continue  # another way over the same rails begins there
                assert not (way.first_ball == layout.target and same), (layout.balls, rails, stroke)
                checked += 1
    assert checked > 60


@pytest.mark.parametrize(
    ("target", "rails"),
    [
        ((6.2, 1.0), (Rail.FAR, Rail.FOOT)),
        ((5.0, 1.1), (Rail.FAR, Rail.FOOT, Rail.NEAR)),
        ((2.2, 1.2), (Rail.FOOT, Rail.HEAD)),
    ],
)
def test_the_chain_adds_up_over_any_rails(pool: Table, target: tuple[float, float], rails: tuple[Rail, ...]) -> None:
    layout = make(pool, (1.0, 0.5), target)
    answer = solve_kick(layout, rails, Stroke(4.0, 0.2, 0.1))
    assert isinstance(answer, Aim)
    best = answer.best
    assert sum(link.shift for link in answer.chain) == pytest.approx(best.corrected.nose - best.mirror.nose, abs=1e-9)
    assert [c.rail for c in best.cushions] == list(rails)
    assert all(0 < c.in_deg <= 90 and 0 < c.out_deg <= 90 for c in best.cushions)


@pytest.mark.parametrize("flip", [(1, -1), (-1, 1), (-1, -1)])
def test_three_rail_lines_are_mirrored_with_the_table(pool: Table, flip: tuple[int, int]) -> None:
    sx, sy = flip
    turned = {Rail.NEAR: Rail.FAR, Rail.FAR: Rail.NEAR} if sy < 0 else {}
    turned |= {Rail.HEAD: Rail.FOOT, Rail.FOOT: Rail.HEAD} if sx < 0 else {}

    def image(x: float, y: float) -> tuple[float, float]:
        return (8 - x if sx < 0 else x, 4 - y if sy < 0 else y)

    places = [(0.9, 0.6), (5.2, 1.1), (3.3, 2.6)]
    rails = (Rail.FAR, Rail.FOOT, Rail.NEAR)
    a = solve_kick(make(pool, *places), rails, Stroke(4.0, 0.25), with_chain=False)
    mirrored = tuple(turned.get(rail, rail) for rail in rails)
    side = 0.25 * sx * sy
    b = solve_kick(make(pool, *(image(*p) for p in places)), mirrored, Stroke(4.0, side), with_chain=False)
    assert isinstance(a, Aim)
    assert isinstance(b, Aim)
    expected = 8 - a.best.corrected.nose if sx < 0 else a.best.corrected.nose
    assert b.best.corrected.nose == pytest.approx(expected, abs=1e-6)
    assert b.best.window_mm == pytest.approx(a.best.window_mm, abs=0.05)


def test_natural_turns_go_over_the_rails_in_order_or_not_at_all(pool: Table) -> None:
    start, goal, r = (0.4, 0.3), (1.8, 0.4), pool.ball_radius
    rails = (Rail.FAR, Rail.FOOT)
    direction = natural_direction(pool, rails, start, goal, r)
    assert direction is not None
    points = turns(pool, rails, start, direction, r)
    assert points is None or (
        points[0][1] == pytest.approx(pool.width - r) and points[1][0] == pytest.approx(pool.length - r)
    )
    back = natural_direction(pool, (Rail.HEAD, Rail.FAR, Rail.HEAD), start, goal, r)
    assert back is not None
    assert turns(pool, (Rail.HEAD, Rail.FAR, Rail.HEAD), start, back, r) is None


def test_refusals_name_the_leg_and_too_many_rails_are_bad_input(pool: Table) -> None:
    blocked = make(pool, (1.0, 1.0), (6.0, 1.0), (4.3, 3.55), (5.0, 3.0))
    answer = solve_kick(blocked, (Rail.FAR, Rail.FOOT), Stroke(4.0), with_chain=False)
    if isinstance(answer, Refusal):
        assert answer.reason_code in ("blocked", "no_such_line", "jaw")
    slow = solve_kick(make(pool, (1.0, 1.0), (6.0, 1.0)), (Rail.FAR, Rail.FOOT, Rail.NEAR), Stroke(0.6))
    assert isinstance(slow, Refusal)
    assert slow.reason_code == "short_of_speed"
    with pytest.raises(BadInputError, match="5 rails: give at most 4"):
        solve_kick(blocked, (Rail.FAR, Rail.FOOT, Rail.NEAR, Rail.HEAD, Rail.FAR), Stroke(4.0))


def test_a_ball_between_two_rails_is_told_as_such(pool: Table) -> None:
    """The line from the far to the foot rail is barred by one ball put on it."""
    free = make(pool, (1.0, 0.8), (6.2, 1.0))
    stroke, rails = Stroke(4.0), (Rail.FAR, Rail.FOOT)
    answer = solve_kick(free, rails, stroke, with_chain=False)
    assert isinstance(answer, Aim)
    leg = next(q for q in answer.best.shot.pieces if q.leg == 1 and q.lasts > 0.1)
    middle = ((leg.start[0] + leg.end[0]) / 2, (leg.start[1] + leg.end[1]) / 2)
    wall = [(middle[0] + d * 0.18, middle[1] - d * 0.18) for d in (-1, 0, 1)]
    barred = solve_kick(make(pool, (1.0, 0.8), (6.2, 1.0), *wall), rails, stroke, with_chain=False)
    assert isinstance(barred, Refusal)
    assert barred.reason_code == "blocked"
    assert "between the far and the foot rail" in barred.reason


def test_a_three_rail_kick_is_played_as_it_was_solved(pool: Table) -> None:
    layout = make(pool, (0.6, 0.4), (6.0, 0.9), (3.2, 0.9))
    answer = solve_kick(layout, (Rail.FAR, Rail.FOOT, Rail.NEAR), Stroke(4.4, 0.2))
    assert isinstance(answer, Aim)
    shot = play(layout, Stroke(4.4, 0.2), answer.best.direction)
    assert [ev.rail for ev in shot.events if ev.ball == "cue"][:3] == [Rail.FAR, Rail.FOOT, Rail.NEAR]
    assert shot.first_ball == "1"
    (px, py), _ = final_approach(answer.best.shot, layout)
    hit = next(ev for ev in shot.events if ev.kind == "ball")
    assert (hit.x * pool.diamond_x, hit.y * pool.diamond_y) == pytest.approx((px, py), abs=1e-9)
