"""The corrected aim: it holds when played, refusals are true, the chain is real."""

import json
import math
import random
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from tests.amount import amount
from tests.conftest import fandle, fandle_process, make

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import diamond_along, marks
from fandle.core.lines.solution import LINKS, Aim, Refusal
from fandle.core.physics.judge import outcome
from fandle.core.physics.outcomes import HIT
from fandle.core.physics.scene import scene_of
from fandle.core.shot.approach import approach, final_approach
from fandle.core.shot.cue import find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

SWEEP = 7200


def random_layout(table: Table, rng: random.Random, balls: int) -> Layout:
    """A random layout the rules allow; ball 1 is the target."""
    while True:
        try:
            places = [(rng.uniform(0.1, 7.9), rng.uniform(0.1, 3.9)) for _ in range(balls)]
            return make(table, places[0], *places[1:])
        except BadInputError:
            continue


def random_stroke(rng: random.Random) -> Stroke:
    if rng.random() < 0.5:
        return Stroke(rng.uniform(1.0, 5.0))
    return Stroke(rng.uniform(0.8, 6.0), rng.uniform(-0.3, 0.3), rng.uniform(-0.3, 0.3))


def hits(layout: Layout, rail: Rail, stroke: Stroke, direction: float) -> bool:
    """Does this direction meet the target as first ball after exactly this rail?"""
    shot = approach(layout, stroke, direction, most_rails=2)
    return shot.rails == (rail,) and shot.first_ball == "1"


def offset_mm(layout: Layout, stroke: Stroke, direction: float) -> float:
    shot = approach(layout, stroke, direction)
    (px, py), (ux, uy) = final_approach(shot, layout)
    gx, gy = layout.metres(layout.require_target())
    return 1000 * (ux * (gy - py) - uy * (gx - px))


@pytest.mark.proof
def test_refusals_are_true(pool: Table) -> None:
    """Random layouts × 4 rails against a sweep of 7,200 directions: what the sweep hits, aim solves;
    what aim solves, the sweep hits, looked at finely enough for the width of its window."""
    rng = random.Random(20)
    disagree = []
    for _ in range(amount(20, 60)):
        layout, stroke = random_layout(pool, rng, rng.choice([2, 3, 5, 9])), random_stroke(rng)
        origin = np.array(layout.metres(layout.cue))
        for rail in Rail:
            scene = scene_of(origin, stroke.array(), pool.params(), layout.obstacles(), 0, np.array([rail.number]))
            answer = solve_kick(layout, (rail,), stroke, with_chain=False)
            found = any(outcome(2 * math.pi * i / SWEEP, 0, scene).what == HIT for i in range(SWEEP))
            if isinstance(answer, Aim):
                wide = math.radians(360 / SWEEP) < math.radians(answer.best.window_deg)
                agrees = found or (not wide and hits(layout, rail, stroke, answer.best.direction))
            else:
                agrees = not found
            if not agrees:
                disagree.append((layout.balls, rail, stroke))
    assert disagree == []


def test_aims_are_met_and_windows_are_their_edges(pool: Table) -> None:
    """Miss < 1 mm where the full hit is open; inside the window hits, 5 mm past either edge misses."""
    rng = random.Random(21)
    full = 0
    for _ in range(60):
        layout, stroke = random_layout(pool, rng, rng.choice([2, 4, 7])), random_stroke(rng)
        rail = rng.choice(list(Rail))
        answer = solve_kick(layout, (rail,), stroke, with_chain=False)
        if isinstance(answer, Refusal):
            continue
        best = answer.best
        assert hits(layout, rail, stroke, best.direction)
        if best.miss_mm < 1.0:
            full += 1
            assert abs(offset_mm(layout, stroke, best.direction)) < 1.0
        else:
            assert best.fullness < 1.0
        start = layout.metres(layout.cue)
        scale = 1000 * diamond_along(pool, rail)
        for sign, width in ((-1, best.window_less_mm), (1, best.window_more_mm)):
            for extra, expected in ((-0.02 * width - 0.01, True), (5.0, False)):
                at = best.corrected.nose + sign * (width + extra) / scale
                shot = approach(layout, stroke, _direction(layout, rail, start, at))
                if not expected and shot.rails[:1] != (rail,):
                    continue  # past the end of the rail itself: a miss of another kind
                # one more rail may stand behind the target; luck after two is not the same hit
                met = shot.first_ball == "1" and shot.rails[:1] == (rail,) and len(shot.rails) <= 2
                assert met == expected, (layout.balls, rail, stroke)
    assert full > 25


def _direction(layout: Layout, rail: Rail, start: tuple[float, float], at: float) -> float:
    line = (layout.table.width if rail.is_long else layout.table.length) if rail.at_end else 0.0
    x, y = rail.point(at * diamond_along(layout.table, rail), line)
    return math.atan2(y - start[1], x - start[0])


def test_aim_holds_in_a_fresh_process(layout_file: Path) -> None:
    """`aim`, then `simulate --direction` in another process: the same ball, within 1 mm of full."""
    stroke = ["--speed", "3.3", "--side", "0.15", "--up", "-0.1"]
    aim = json.loads(fandle_process("aim", str(layout_file), "--rails", "far", *stroke, "--json").stdout)
    assert aim["solved"]
    assert aim["miss_mm"] < 1.0
    args = ["simulate", str(layout_file), "--direction", repr(aim["direction"]), *stroke, "--json"]
    for done in (fandle_process(*args), fandle(*args, "--impulse-steps", "8")):
        events = json.loads(done.stdout)["events"]
        assert [ev["kind"] for ev in events[:2]] == ["rail", "ball"]
        assert events[1]["other"] == "7"


def test_chain_is_the_contracts_chain(blocked: Layout) -> None:
    aim = solve_kick(blocked, (Rail.FAR,), Stroke(3.1, 0.17, 0.1, 2.0, find_cue("house")))
    assert isinstance(aim, Aim)
    assert tuple(link.link for link in aim.chain) == LINKS
    total = sum(link.shift for link in aim.chain)
    assert total == pytest.approx(aim.best.corrected.nose - aim.best.mirror.nose, abs=1e-9)


def test_each_partial_sum_is_an_aim_of_its_own(blocked: Layout) -> None:
    """To 1e-6 diamond: mirror, natural, plain, with side, with follow, on this table, with this cue."""
    table = replace(blocked.table, cushion_friction=0.16, cloth_sliding=0.22)
    here = replace(blocked, table=table)
    stroke = Stroke(3.1, 0.17, 0.1, 2.0, find_cue("house"))
    aim = solve_kick(here, (Rail.FAR,), stroke)
    assert isinstance(aim, Aim)
    partial, sums = aim.best.mirror.nose, []
    for link in aim.chain:
        partial += link.shift
        sums.append(partial)
    level = Stroke(3.1, 0.17, 0.1)
    asked = [
        (blocked, Stroke(3.1)), (blocked, Stroke(3.1)), (blocked, Stroke(3.1, 0.17)), (blocked, level),
        (here, level), (here, stroke),
    ]  # fmt: skip
    assert sums[0] == pytest.approx(aim.best.natural.nose, abs=1e-9)
    for got, (layout, one) in zip(sums[1:], asked, strict=True):
        separate = solve_kick(layout, (Rail.FAR,), one, with_chain=False)
        assert isinstance(separate, Aim)
        assert got == pytest.approx(separate.best.corrected.nose, abs=1e-6)


def test_no_side_means_no_side_link_and_the_others_unchanged(blocked: Layout) -> None:
    with_side = solve_kick(blocked, (Rail.FAR,), Stroke(3.1, 0.2))
    without = solve_kick(blocked, (Rail.FAR,), Stroke(3.1))
    assert isinstance(with_side, Aim)
    assert isinstance(without, Aim)
    links = {link.link: link.shift for link in without.chain}
    assert links["side"] == links["follow"] == links["table"] == links["squirt and swerve"] == 0.0
    for name in ("ball size", "cushion", "compression"):
        assert links[name] == next(link.shift for link in with_side.chain if link.link == name)


def test_natural_and_mirror_are_pure_geometry(blocked: Layout) -> None:
    """Similar triangles by hand: the mirror in the noses, the natural one radius inside."""
    aim = solve_kick(blocked, (Rail.FAR,), Stroke(3.1))
    assert isinstance(aim, Aim)
    assert aim.best.mirror.nose == pytest.approx(1.1 + 4.2 * 3.45 / 6.95, abs=1e-12)
    assert aim.best.natural.centre == pytest.approx(1.1 + 4.2 * 3.36 / 6.77, abs=1e-12)


@pytest.mark.parametrize("hit", [-0.6, -0.25, 0.0, 0.25, 0.6])
def test_thickness_on_demand(pool: Table, hit: float) -> None:
    """+ passes right of the target's centre; the miss is measured from the thickness asked."""
    layout = make(pool, (1.5, 1.0), (5.5, 1.2))
    aim = solve_kick(layout, (Rail.FAR,), Stroke(3.2), hit=hit)
    assert isinstance(aim, Aim)
    assert aim.best.miss_mm < 1e-3
    assert offset_mm(layout, Stroke(3.2), aim.best.direction) == pytest.approx(hit * 57.15, abs=1e-3)
    assert aim.best.fullness == pytest.approx(1 - abs(hit), abs=1e-4)


MIRRORS = {
    "end": (lambda x, y: (8 - x, y), {"far": "far", "near": "near", "head": "foot", "foot": "head"}, -1),
    "side": (lambda x, y: (x, 4 - y), {"far": "near", "near": "far", "head": "head", "foot": "foot"}, -1),
    "half turn": (
        lambda x, y: (8 - x, 4 - y),
        {"far": "near", "near": "far", "head": "foot", "foot": "head"},
        1,
    ),
}


@pytest.mark.parametrize("name", MIRRORS)
@pytest.mark.parametrize("rail", list(Rail))
def test_mirrored_layouts_give_mirrored_aims(pool: Table, name: str, rail: Rail) -> None:
    turn: Any
    turn, rails, sign = MIRRORS[name]
    places = [(2.3, 1.4), (5.1, 2.2), (3.4, 2.9)]
    layout, image = make(pool, *places), make(pool, *(turn(*place) for place in places))
    a = solve_kick(layout, (rail,), Stroke(3.0, 0.2, 0.1), with_chain=False)
    b = solve_kick(image, (Rail(rails[rail.value]),), Stroke(3.0, sign * 0.2, 0.1), with_chain=False)
    assert isinstance(a, Aim)
    assert isinstance(b, Aim)
    flips = name == "half turn" or (name == "end") == rail.is_long
    expected = (8 if rail.is_long else 4) - a.best.corrected.nose if flips else a.best.corrected.nose
    assert b.best.corrected.nose == pytest.approx(expected, abs=1e-7)
    assert b.best.window_mm == pytest.approx(a.best.window_mm, abs=0.02)


def refusal(layout: Layout, rail: Rail, stroke: Stroke) -> Refusal:
    answer = solve_kick(layout, (rail,), stroke)
    assert isinstance(answer, Refusal)
    return answer


def test_reasons(pool: Table) -> None:
    """Each code of one-rail kicks, in a player's words."""
    wall = [(x / 10, 2.0) for x in range(22, 50, 2)]
    blocked = refusal(make(pool, (1.0, 0.5), (6.0, 0.5), *wall[:14]), Rail.FAR, Stroke(3.2))
    assert blocked.reason_code == "blocked"
    assert "is in the way" in blocked.reason
    short = refusal(make(pool, (1.0, 0.5), (7.0, 0.5)), Rail.FAR, Stroke(0.5))
    assert short.reason_code == "short_of_speed"
    assert "short of the 1" in short.reason
    itself = refusal(make(pool, (2.0, 3.0), (2.0, 3.5)), Rail.FAR, Stroke(3.2, 0.0, 0.0))
    assert itself.reason_code in ("blocked", "no_such_line")


def test_a_jaw_is_judged_where_the_ball_meets_the_rail(pool: Table) -> None:
    """Halving from 1 and 7 needs far 4: the side pocket is there, and the refusal names it."""
    answer = refusal(make(pool, (2.0, 0.8), (6.0, 0.8)), Rail.FAR, Stroke(3.5))
    assert answer.reason_code == "jaw"
    assert "side-far" in answer.reason


def test_bad_questions_are_refused_in_a_sentence(blocked: Layout) -> None:
    with pytest.raises(BadInputError, match="not a thickness"):
        solve_kick(blocked, (Rail.FAR,), Stroke(3.0), hit=1.2)
    with pytest.raises(BadInputError, match="no ball '5'"):
        solve_kick(blocked, (Rail.FAR,), Stroke(3.0), target="5")


def test_frozen_balls_and_corners_are_answered(pool: Table) -> None:
    """Nasty places: frozen to the aim rail, in a corner, ball against ball. Always an answer or a reason."""
    r = 0.09
    for cue, target in (
        ((3.0, 4 - r), (6.0, 2.0)),
        ((r, 2.0), (r, 3.0)),
        ((0.3, 0.3), (7.7, 3.7)),
        ((2, 2), (2.18, 2)),
    ):
        layout = make(pool, cue, target)
        for rail in Rail:
            answer = solve_kick(layout, (rail,), Stroke(3.0))
            if isinstance(answer, Aim):
                assert hits(layout, rail, Stroke(3.0), answer.best.direction)
            else:
                assert answer.reason
    assert marks(pool, Rail.FAR, (1, 1), 1.0).nose > 0
    assert Layout(pool, "nine-ball", (Ball("cue", 1, 1), Ball("1", 2, 1)), "1")
