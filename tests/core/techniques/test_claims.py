"""What players claim of close work (trade.md M20 to M26: common practice, no published source), played: signs, then sizes.

The shots are played here again by `play`, in directions of our own, not read from the techniques' answers.
"""

import math

import pytest
from tests.amount import amount

from fandle.core import constants as k
from fandle.core.choice.named import slides_into_rail
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, usual_game, usual_target
from fandle.core.techniques.half_ball import third_contact
from fandle.core.techniques.inside_position import contacts

ALL = list(STANDARDS.values())
POCKETED = [table for table in ALL if table.pockets is not None]
POOL, CAROM = STANDARDS["pool-9ft"], STANDARDS["carom-10ft"]
names = pytest.mark.parametrize


def laid(table: Table, cue: tuple[float, float], ball: tuple[float, float]) -> Layout:
    target = usual_target(table)
    return Layout(table, usual_game(table), (Ball("cue", *cue), Ball(target, *ball)), target)


def frozen(table: Table, off: float = 0.0) -> float:
    """y of a ball so many diamonds off the near rail."""
    return table.ball_radius / table.diamond_y + off


def called(table: Table) -> str:
    return table.name


@names("table", ALL, ids=called)
def test_side_that_keeps_it_flat_is_running_and_drives_the_ball_along_the_rail(table: Table) -> None:
    """M20: at the near rail going to the foot, left is running: the rebound is flatter, the ball leaves flatter."""
    layout, out, driven = laid(table, (4.6, 0.75), (6.0, 0.3)), {}, {}
    for side in (-0.3, 0.0, 0.3):
        stroke = Stroke(2.0, side)
        answer = solve_kick(layout, (Rail.NEAR,), stroke, with_chain=False)
        assert isinstance(answer, Aim)
        out[side] = answer.best.cushions[0].out_deg
        moment = moment_of(layout, play(layout, stroke, answer.best.direction))
        assert moment is not None
        assert moment.driven is not None
        driven[side] = math.degrees(moment.driven)
    assert out[-0.3] < out[0.0] - 2.0
    assert driven[-0.3] < driven[0.0] < driven[0.3] + 0.5


@names("table", POCKETED, ids=called)
def test_with_running_side_the_rail_first_pot_forgives_more(table: Table) -> None:
    layout, wide = laid(table, (4.6, 0.75), (6.0, 0.3)), {}
    for side in (-0.35, 0.35):
        answer = solve_pot(layout, (Rail.NEAR,), Stroke(1.9, side), pocket="foot-near", with_chain=False)
        assert isinstance(answer, Aim)
        assert answer.best.pot is not None
        wide[side] = answer.best.pot.window_deg
    assert wide[-0.35] > 1.1 * wide[0.35]


def back_cuts(table: Table, side: float, speed: float, cut: float = 93.0) -> float:
    """Width (mm at the ball) of the directions that pot a frozen ball rail-first with so much cut, level cue."""
    rad, span = math.radians(-cut), 3.0 * table.diamond_x
    x, r = 5.0 * table.diamond_x, table.ball_radius
    cue = (x - 2 * r - span * math.cos(rad), r - span * math.sin(rad))
    layout = laid(table, (cue[0] / table.diamond_x, cue[1] / table.diamond_y), (5.0, frozen(table)))
    middle = math.atan2(r - cue[1], x - cue[0])
    half = math.asin(2 * r / math.dist(cue, (x, r)))
    step, pots = math.radians(0.004), 0
    for n in range(180):
        direction = middle - half + math.radians(0.1) - n * step
        shot = play(layout, Stroke(speed, side), direction)
        kinds = [(ev.kind, ev.rail) for ev in shot.events if "cue" in (ev.ball, ev.other)][:1]
        pots += kinds == [("rail", Rail.NEAR)] and (layout.target, "foot-near") in shot.potted
    return 1000 * pots * step * span


def test_the_back_cut_wants_reverse_and_its_window_is_under_two_millimetres() -> None:
    """M21: near 93°, full side, 4 m/s: under 2 mm; at 2 m/s none; without side, and with running side, none."""
    full = 0.96 * k.MISCUE_LIMIT  # left: the cue ball goes a little to the head, where left is reverse at the near rail
    reverse = back_cuts(POOL, -full, 4.0)
    assert 0.2 < reverse < 2.0
    assert back_cuts(POOL, -full, 2.0) == 0.0
    assert back_cuts(POOL, 0.0, 4.0) == 0.0
    assert back_cuts(POOL, full, 4.0) == 0.0
    assert back_cuts(POOL, -0.5 * full, 4.0) < 0.5 * reverse


def grazed(table: Table, cue: tuple[float, float], off: float, side: float = 0.0) -> float:
    """Share of the ball that is met by the line that would just graze it in the open, on its rail side; 0 for a miss."""
    layout = laid(table, cue, (2.0, frozen(table, off)))
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.require_target())
    graze = math.atan2(gy - y, gx - x) - math.asin(2 * table.ball_radius / math.dist((x, y), (gx, gy)))
    shot = play(layout, Stroke(2.5, side), graze)
    moment = moment_of(layout, shot)
    first = next((ev for ev in shot.events if ev.ball == "cue"), None)
    return moment.fullness if moment and first and first.rail is Rail.NEAR else 0.0


@names("table", ALL, ids=called)
def test_a_thin_line_comes_thicker_through_the_cushion(table: Table) -> None:
    """M22: the finest graze in the open; the farther back, the thicker; reverse (right, here) takes some back."""
    base = grazed(table, (1.0, 1.0), 0.04)
    assert base > 0.05
    assert grazed(table, (1.0, 1.0), 0.08) > base
    back = grazed(table, (0.25, 1.0), 0.04)
    assert back > base
    assert grazed(table, (0.25, 1.0), 0.04, 0.15) < back


def test_half_ball_with_a_tip_a_diamond_comes_to_the_same_place() -> None:
    """M23: balls at one, two and three diamonds; without side the places lie far apart, with the tips near together."""
    tip = 0.98 * k.MISCUE_LIMIT / 3

    def arrives(diamond: int, tips: int) -> float:
        layout = laid(CAROM, (4.0, 1.0), (8.0 - diamond, 1.0))
        turn = math.radians(60)
        stroke = Stroke(2.6, -tips * tip * math.sin(turn), max(tips, 1) * tip * math.cos(turn))
        answer = solve_kick(layout, (), stroke, hit=0.5, with_chain=False)
        assert isinstance(answer, Aim)
        shot = play(layout, stroke, answer.best.direction)
        rails = [ev.rail for ev in shot.events if ev.ball == "cue" and ev.rail]
        assert rails[:2] == [Rail.NEAR, Rail.FOOT]
        there = third_contact(shot, Rail.FAR)
        return math.nan if there is None else there

    counted = [arrives(n, n) for n in (1, 2, 3)]
    assert max(counted) - min(counted) < 1.0
    assert math.isnan(arrives(3, 0)) or arrives(3, 0) > max(counted) + 0.5  # no side: long, or never there


def test_cushion_ball_cushion_wants_a_ball_a_little_off_and_running_side() -> None:
    """M24: the same cushion twice, then the next; running side widens it."""

    def width(off: float, side: float) -> int:
        layout = laid(POOL, (4.0, 0.6), (5.6, frozen(POOL, off)))
        wanted = [Rail.NEAR, usual_target(POOL), Rail.NEAR, Rail.FOOT]
        found = 0
        for n in range(160):
            shot = play(layout, Stroke(2.0, side), math.radians(-16.0 - 0.1 * n))
            met = [ev.rail or ev.other for ev in shot.events if ev.ball == "cue" and ev.kind in ("rail", "ball")]
            found += met[:4] == wanted
        return found

    assert width(0.3, -0.35) > width(0.3, 0.0) > 0
    assert width(0.0, 0.0) == 0


BANKS = [((5.6, 0.7), (5.0, 1.6)), ((5.4, 0.5), (4.9, 1.3))]


@pytest.mark.proof
@names("table", POCKETED, ids=called)
@names("places", BANKS[: amount(1, 2)])
def test_punch_is_shorter_than_rolled(table: Table, places: tuple[tuple[float, float], tuple[float, float]]) -> None:
    """M25: back at the near side the punched ball has gone less far along the rail, for the angle it came in at.

    Read as a share of the way in: a harder hit also throws the ball less, which is the other ball's doing, not the
    rail's; and over the whole way back, since a rolling ball comes off steep first and then bends long.
    """
    layout = laid(table, *places)
    rolled, punched = Stroke(2.2, 0.0, 0.2), Stroke(4.5)
    answer = solve_bank(layout, (Rail.FAR,), rolled, pocket="side-near", with_chain=False)
    assert isinstance(answer, Aim)
    share = {}
    for name, stroke in (("rolled", rolled), ("punched", punched)):
        shot = play(layout, stroke, answer.best.direction)
        mine = [ev for ev in shot.events if ev.ball == layout.target and ev.kind != "ball"]
        assert mine[0].rail is Rail.FAR
        assert mine[0].in_deg is not None
        assert slides_into_rail(shot, layout.target or "") is (name == "punched")
        run = abs(mine[1].x - mine[0].x) * table.diamond_x / (abs(mine[1].y - mine[0].y) * table.diamond_y)
        share[name] = run * math.tan(math.radians(mine[0].in_deg))
    assert share["punched"] < share["rolled"] - 0.02


CUTS = [((4.5, 2.0), (6.5, 3.6), "foot-far"), ((5.5, 1.5), (6.8, 0.3), "foot-near"), ((5.0, 1.6), (7.0, 2.9), "foot-far"),
        ((3.0, 1.0), (4.6, 2.8), "side-far"), ((3.5, 2.4), (1.2, 3.2), "head-far"), ((2.5, 1.0), (0.9, 2.2), "head-far")]  # fmt: skip


@names("table", POCKETED, ids=called)
def test_inside_side_turns_running_on_the_second_rail_where_the_rebound_turns_back(table: Table) -> None:
    """M26: reverse at the first rail is running at the second exactly where the ball turned back along the first, or the
    second lies opposite; round the table it stays reverse. Both happen among these."""
    seen: set[bool] = set()
    for cue, ball, pocket in CUTS:
        layout = laid(table, cue, ball)
        for speed in (2.0, 3.0):
            plain = solve_pot(layout, (), Stroke(speed, 0.0, 0.1), pocket=pocket, with_chain=False, every=False)
            if not isinstance(plain, Aim) or abs(plain.best.hit) < 0.2:
                continue
            stroke = Stroke(speed, -math.copysign(0.35, plain.best.hit), 0.1)
            answer = solve_pot(layout, (), stroke, pocket=pocket, with_chain=False, every=False)
            if not isinstance(answer, Aim):
                continue
            shot = play(layout, stroke, answer.best.direction)
            met = contacts(shot, stroke.side)
            if len(met) < 2 or met[0][4] != "reverse" or not shot.rest["cue"]:
                continue
            turned = along(shot, met[0][0], before=True) * along(shot, met[0][0], before=False) < 0.0
            opposite = met[0][0].is_long is met[1][0].is_long
            assert (met[1][4] == "running") is (turned != opposite)
            seen.add(met[1][4] == "running")
    assert seen == {True, False}


def along(shot: Shot, rail: Rail, before: bool) -> float:
    """Speed along a rail just before or after the cue ball first meets it after the hit."""
    hit = next(ev.t for ev in shot.events if ev.kind == "ball")
    t = next(ev.t for ev in shot.events if ev.ball == "cue" and ev.rail is rail and ev.t > hit)
    ways = [q for q in shot.paths["cue"] if (q.t + q.lasts <= t + 1e-9 if before else q.t >= t - 1e-9)]
    heading = ways[-1].heading if before else math.atan2(ways[0].motion[1], ways[0].motion[0])
    return math.cos(heading) if rail.is_long else math.sin(heading)
