"""Cushions that give. Spring and half period: common practice for rubber; the rest is our own model, so
what is checked is what players report (trade: harder is shorter) and what physics forbids."""

import itertools
import math
import random
from dataclasses import replace

import numpy as np
import pytest
from campaign.audit import gaps, raw, rises, struck
from tests.conftest import all_counts, make
from tests.core.cases import SOFT_RAIL
from tests.core.crowd import random_places, random_stroke
from tests.core.rig import bounced, sunk

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import direction_to
from fandle.core.lines.solution import Aim
from fandle.core.physics import moving
from fandle.core.physics.bed import PRESSED, sinks_in
from fandle.core.physics.engine import STOPPED
from fandle.core.physics.give import dwell, glide
from fandle.core.shot.approach import approach
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.systems.base import Count
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.core.tablecheck.response import plain_landing, rebounds

POOL = standard_table("pool-9ft")
GIVES = (0.0, 0.0005, 0.001, 0.002, 0.003, 0.004)
SOFT = replace(POOL, name="soft", cushion_compression=0.003)


def landing(table: Table, start: tuple[float, float], mark: float, speed: float, side: float = 0.0) -> float:
    layout = Layout(table, "nine-ball", (Ball("cue", *start),))
    shot = approach(
        layout, Stroke(speed, side), direction_to(table, Rail.FAR, layout.metres(layout.cue), mark, "nose"), 2
    )
    found = crosses(shot, Rail.FAR, 1, start[1])
    assert found is not None
    return found[0]


@pytest.mark.parametrize("name", STANDARDS)
def test_no_give_is_the_rigid_cushion_bit_for_bit(name: str) -> None:
    """Whatever grip and loss say: the kernel of the rigid cushion alone decides."""
    table = STANDARDS[name]
    other = replace(table, name="other", cushion_grip=0.37, cushion_loss=0.9)
    rng = random.Random(3)
    for _ in range(60):
        layout = Layout(table, "straight", (Ball("cue", rng.uniform(0.5, 7.5), rng.uniform(0.5, 3.5)),))
        stroke, way = random_stroke(rng), rng.uniform(0, 2 * math.pi)
        a, b = play(layout, stroke, way), play(replace(layout, table=other), stroke, way)
        assert a == b
    values = (1.2, 2.3, 1.5, -0.4, 0.8)
    numbers = (table.sin_theta, table.cushion_restitution, table.cushion_friction, table.cloth_sliding, 4.0)
    assert sunk(*values, table.ball_radius, *numbers, 0.0, 0.3, 0.5) == bounced(*values, *numbers)


PLAIN = [
    (start, mark, speed)
    for start, mark in (((1, 1), 1.5), ((1, 1), 2.0), ((1, 1), 3.0), ((1, 3), 2.0), ((2, 1), 4.6))
    for speed in (1.5, 2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 8.0)
    if mark < 4.0 or speed >= 5.0  # slower, it does not come back so far
]


@pytest.mark.parametrize(("start", "mark", "speed"), PLAIN)
def test_more_give_is_never_longer_for_a_plain_shot(start: tuple[float, float], mark: float, speed: float) -> None:
    lands = [landing(replace(POOL, cushion_compression=give), start, mark, speed) for give in GIVES]
    assert all(a >= b - 1e-9 for a, b in itertools.pairwise(lands)), lands
    assert lands[0] - lands[-1] > 0.01


def test_harder_is_shorter_still_and_the_more_so_the_more_it_gives() -> None:
    """What players say of compression: the effect grows with the speed."""
    speeds = (2.0, 3.0, 4.0, 5.0, 6.0)
    effects = [landing(SOFT, (1, 1), 3.0, v) - landing(POOL, (1, 1), 3.0, v) for v in speeds]
    assert all(a > b for a, b in itertools.pairwise(effects)), effects
    lands = [landing(SOFT, (1, 1), 3.0, v) for v in speeds]
    assert all(a > b for a, b in itertools.pairwise(lands))


def test_the_way_along_the_rail_alone_makes_it_long() -> None:
    """Why the dent's wall is in the model: depth and dwell alone have the wrong sign (docs/decisions)."""
    smooth = replace(POOL, name="smooth", cushion_compression=0.003, cushion_grip=0.0)
    for speed in (2.0, 4.0, 6.0):
        assert landing(smooth, (1, 1), 3.0, speed) > landing(POOL, (1, 1), 3.0, speed)


def test_depth_and_time_in_the_rubber() -> None:
    """Spring: v·√(m/k) deep, half period π·√(m/k); 45° at 4 m/s meets the rail with under 2.9 m/s into it."""
    assert dwell(0.003) == pytest.approx(math.pi * 0.003)
    row = next(r for r in rebounds(SOFT) if r.lengths == 3.0)
    assert 0.003 * 2.0 < row.depth < 0.003 * 4.25 * math.sin(math.pi / 4) + 1e-12
    assert [r.depth for r in rebounds(POOL)] == [0.0] * len(rebounds(POOL))
    assert glide(0.0, 1.0, 1.0, 2.0, 0.6, -1.5) == pytest.approx((0.8, 0.0))
    layout = Layout(SOFT, "nine-ball", (Ball("cue", 1, 1),))
    shot = play(layout, Stroke(3.0), math.pi / 3)
    rail = shot.events[0]
    inside = next(q for q in shot.paths["cue"] if q.t == pytest.approx(rail.t) and q.lasts <= dwell(0.003) + 1e-9)
    assert inside.lasts == pytest.approx(dwell(0.003))
    assert inside.start[1] == inside.end[1] == pytest.approx(4 - SOFT.ball_radius / SOFT.diamond_y)
    assert inside.end[0] > inside.start[0]


def test_a_square_hit_only_waits() -> None:
    """Nothing leans where nothing runs along the rail; only `loss` takes speed then."""
    values = (0.0, 2.5, 2.5, 0.0, 0.0)
    numbers = (POOL.sin_theta, POOL.cushion_restitution, POOL.cushion_friction, POOL.cloth_sliding, 4.0)
    same = sunk(*values, POOL.ball_radius, *numbers, 0.003, 0.3, 0.0)
    assert same == bounced(*values, *numbers)
    lossy = sunk(*values, POOL.ball_radius, *numbers, 0.003, 0.3, 0.4)
    assert 0.0 < -lossy[1] < -same[1]


def test_energy_never_rises_at_a_cushion_that_gives() -> None:
    rng = random.Random(11)
    for _ in range(4000):
        v = [rng.uniform(-4, 4), rng.uniform(0.01, 6), *(rng.uniform(-8, 8) for _ in range(3))]
        give, grip, loss = rng.uniform(0, 0.006), rng.uniform(0, 0.4), rng.uniform(0, 1)
        after = sunk(*v, POOL.ball_radius, POOL.sin_theta, 0.85, 0.2, 0.2, 4.0, give, grip, loss)
        before_j = v[0] ** 2 + v[1] ** 2 + 0.4 * (v[2] ** 2 + v[3] ** 2 + v[4] ** 2)
        after_j = after[0] ** 2 + after[1] ** 2 + 0.4 * (after[2] ** 2 + after[3] ** 2 + after[4] ** 2)
        assert after_j <= before_j * (1 + 1e-9), (v, give, grip, loss)


def test_many_balls_on_rubber_that_gives() -> None:
    """Every shot ends, nothing overlaps or leaves the bed, energy never rises."""
    rng = random.Random(21)
    for _ in range(400):
        places = random_places(rng, rng.randint(1, 15), rng.choice([0.0, 0.4]))
        played = raw(places, struck(random_stroke(rng), rng.uniform(0, 2 * math.pi)), SOFT)
        assert played.code == 0
        assert np.all(played.state[:, moving.IN] == 0.0)
        assert rises(played) < 1e-7
        between, to_nose = gaps(played)
        assert between > -1e-9
        assert to_nose > -1e-9


def test_it_is_a_link_of_the_chain_and_holds() -> None:
    layout = Layout(SOFT, "nine-ball", (Ball("cue", 1.5, 1.0), Ball("7", 5.5, 1.0)), "7")
    aim, rigid = (solve_kick(replace(layout, table=t), (Rail.FAR,), Stroke(4.25)) for t in (SOFT, POOL))
    assert isinstance(aim, Aim)
    assert isinstance(rigid, Aim)
    links = {link.link: link.shift for link in aim.chain}
    assert 0.05 < links["compression"] < 0.2  # shorter, so the mark lies further along
    assert links["table"] == 0.0
    assert {link.link: link.shift for link in rigid.chain}["compression"] == 0.0
    assert aim.best.corrected.nose - rigid.best.corrected.nose == pytest.approx(links["compression"], abs=1e-6)
    assert play(layout, Stroke(4.25), aim.best.direction).first_ball == "7"
    assert aim.best.miss_mm < 1e-3
    landing_word = plain_landing(SOFT, 2.5)
    assert landing_word is not None
    assert landing_word < 5.1


def test_a_give_too_small_to_square_is_as_good_as_none(pool: Table) -> None:
    """A subnormal number of the file: time in the rubber that is not zero, and whose square is."""
    layout = make(replace(pool, cushion_compression=2.2e-309), (1.0, 1.0), (5.0, 1.2))
    rigid = make(pool, (1.0, 1.0), (5.0, 1.2))
    for found, plain in zip(all_counts(layout), all_counts(rigid), strict=True):
        assert (found.method, isinstance(found, Count)) == (plain.method, isinstance(plain, Count))


@pytest.mark.parametrize("case", SOFT_RAIL, ids=lambda case: f"{case[0]} {case[2][0]}")
def test_frozen_balls_do_not_push_each_other_in_and_out_of_the_rubber(
    case: tuple[str, float, list[tuple[float, float]], tuple[float, ...]],
) -> None:
    """Below 2 mm/s a ball only touches the rubber: the shot ends, in a handful of contacts, as on a rigid cushion."""
    name, give, places, start = case
    table = replace(standard_table(name), cushion_compression=give)
    soft, rigid = (raw(np.array(places), start, each) for each in (table, replace(table, cushion_compression=0.0)))
    assert soft.code == rigid.code == STOPPED
    assert len(soft.events) < 60
    assert np.abs(soft.state[:, :2] - rigid.state[:, :2]).max() < 1e-4  # m


def test_rubber_that_gives_sinks_under_all_but_the_slowest() -> None:
    """The bound lies where a bounce stays on the rail: a landing is the same to a thousandth of a diamond below it."""
    assert sinks_in(PRESSED, SOFT.params())
    assert not sinks_in(0.999 * PRESSED, SOFT.params())
    assert not sinks_in(10.0, POOL.params())
