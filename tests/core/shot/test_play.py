"""The whole shot as a player is told it."""

import math
import random
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from campaign.audit import POOL
from campaign.scenes import triangle
from tests.conftest import make
from tests.core.crowd import POOL_IDS, SNOOKER_IDS, break_shot, random_places, random_stroke

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics import rack
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import find_cue
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table


def layout_of(table: Table, places: np.ndarray, ids: list[str] = POOL_IDS, game: str = "straight") -> Layout:
    balls = [Ball(i, x / table.diamond_x, y / table.diamond_y) for i, (x, y) in zip(ids, places, strict=False)]
    return Layout(table, game, tuple(balls))


@pytest.mark.parametrize("seed", range(20))
def test_the_order_of_the_balls_in_the_file_changes_nothing(pool: Table, seed: int) -> None:
    """Bit for bit, frozen clusters and breaks included."""
    rng = random.Random(seed)
    layout = break_shot() if seed == 0 else layout_of(pool, random_places(rng, rng.randint(3, 16), 0.6))
    stroke, direction = random_stroke(rng), 0.01 if seed == 0 else rng.uniform(0, 6)
    shot = play(layout, stroke, direction)
    balls = list(layout.balls)
    for _ in range(3):
        rng.shuffle(balls)
        again = play(replace(layout, balls=tuple(balls)), stroke, direction)
        assert (again.events, again.rest) == (shot.events, shot.rest)


@pytest.mark.parametrize("seed", range(30))
def test_the_shot_begins_as_the_approach_does(pool: Table, seed: int) -> None:
    """What an aim is solved with and what is played are one engine: the same first contacts."""
    rng = random.Random(seed)
    layout = layout_of(pool, random_places(rng, rng.randint(1, 8), 0.0))
    stroke, direction = random_stroke(rng), rng.uniform(0, 6)
    short, whole = approach(layout, stroke, direction), play(layout, stroke, direction)
    mine = [ev for ev in whole.events if ev.ball == "cue"][: len(short.events)]
    for ours, theirs in zip(short.events, mine, strict=True):
        assert (ours.kind, ours.rail, ours.pocket, ours.other) == (
            theirs.kind,
            theirs.rail,
            theirs.pocket,
            theirs.other,
        )
        assert (ours.t, ours.x, ours.y, ours.speed) == pytest.approx(
            (theirs.t, theirs.x, theirs.y, theirs.speed), abs=1e-10
        )


def test_events_are_as_the_contract_says(pool: Table) -> None:
    shot = play(make(pool, (2.0, 2.0), (4.0, 2.0), (6.5, 3.8)), Stroke(3.0), 0.02)
    times = [ev.t for ev in shot.events]
    assert times == sorted(times)
    hit = next(ev for ev in shot.events if ev.kind == "ball")
    assert (hit.ball, hit.other) == ("cue", "1")
    assert hit.speed_after is not None
    assert hit.speed > hit.speed_after > 0.0
    stops = {ev.ball for ev in shot.events if ev.kind == "stop"}
    assert stops == set(shot.paths) - {ball for ball, _ in shot.potted}
    for name, way in shot.paths.items():
        assert all(a.t + a.lasts == pytest.approx(b.t, abs=1e-9) for a, b in pairwise(way))
        if shot.rest[name] is not None:
            assert way[-1].end == pytest.approx(shot.rest[name], abs=1e-6)
    assert shot.rest["2"] == pytest.approx((6.5, 3.8), abs=1e-12)


def test_the_faster_ball_names_a_contact(pool: Table) -> None:
    """The object ball comes back off the rail into the cue ball: then it is the one."""
    shot = play(make(pool, (2.0, 2.0), (7.2, 2.0)), Stroke(4.0, up=-0.14), 0.0)
    blows = [ev for ev in shot.events if ev.kind == "ball"]
    assert (blows[0].ball, blows[1].ball) == ("cue", "1")
    assert all(ev.speed > 0.0 for ev in blows)


def test_a_blow_through_frozen_balls_tells_every_contact(pool: Table) -> None:
    d = 2 * pool.ball_radius / pool.diamond_x
    shot = play(make(pool, (2.0, 2.0), (4.0, 2.0), (4.0 + d, 2.0), (4.0 + 2 * d, 2.0)), Stroke(3.0), 0.0)
    blows = [(ev.ball, ev.other) for ev in shot.events if ev.kind == "ball"][:3]
    assert blows == [("cue", "1"), ("1", "2"), ("2", "3")]
    reach = {name: shot.rest[name][0] for name in "123" if shot.rest[name]}
    assert reach["3"] > 5.0  # the last ball takes nearly all of it


def test_a_frozen_combination_goes_along_the_line_of_the_last_two(pool: Table) -> None:
    """Common practice, no published source: dead, but for a few degrees of throw."""
    d, a = 2 * pool.ball_radius, math.radians(20)
    first = (4.0, 2.0)
    second = (4.0 + d * math.cos(a) / pool.diamond_x, 2.0 + d * math.sin(a) / pool.diamond_y)
    shot = play(make(pool, (2.0, 2.0), first, second), Stroke(2.5), 0.0)
    way = shot.paths["2"][0]
    got = math.degrees(
        math.atan2((way.control[1] - way.start[1]) * pool.diamond_y, (way.control[0] - way.start[0]) * pool.diamond_x)
    )
    assert got == pytest.approx(20, abs=4)
    assert got < 20  # thrown towards where the blow came from


def test_a_pot_and_a_scratch(pool: Table) -> None:
    layout = make(pool, (4.0, 1.0), (4.0, 2.6))
    shot = play(layout, Stroke(2.5, up=0.3), math.pi / 2)
    assert shot.potted == (("1", "side-far"), ("cue", "side-far"))
    assert shot.rest == {"cue": None, "1": None}
    last = shot.events[-1]
    assert (last.kind, last.pocket, last.speed_after) == ("pocket", "side-far", None)
    assert not [ev for ev in shot.events if ev.kind == "stop"]


def test_first_ball_and_length_of_a_shot(pool: Table) -> None:
    shot = play(make(pool, (2.0, 2.0), (4.0, 2.0)), Stroke(2.0), 0.0)
    assert shot.first_ball == "1"
    assert shot.lasts == pytest.approx(max(ev.t for ev in shot.events), abs=1e-9)
    miss = play(make(pool, (2.0, 2.0), (4.0, 3.0)), Stroke(0.5), math.pi)
    assert miss.first_ball is None


def test_balls_written_a_hair_into_each_other_are_parted(pool: Table) -> None:
    """Up to a thousandth of a millimetre a file may be wrong; the shot starts without overlap."""
    d = 2 * pool.ball_radius - 9e-7
    places = np.array([[0.5, 0.6], [1.0, 0.6], [1.0 + d, 0.6], [1.0 + d / 2, 0.6 + d * math.sqrt(0.75)]])
    shot = play(layout_of(pool, places), Stroke(0.05), math.pi)
    apart = [
        math.dist(
            *(
                ((shot.rest[k] or (0, 0))[0] * pool.diamond_x, (shot.rest[k] or (0, 0))[1] * pool.diamond_y)
                for k in pair
            )
        )
        for pair in (("1", "2"), ("2", "3"), ("1", "3"))
    ]
    assert min(apart) >= 2 * pool.ball_radius - 1e-12


def test_twenty_two_balls(pool: Table) -> None:
    """The most a layout holds, struck hard; every one rests on the bed or is down."""
    places = random_places(random.Random(3), 22, 0.5)
    assert len(places) == 22
    shot = play(layout_of(pool, places, SNOOKER_IDS, "snooker"), Stroke(10.0, 0.2, 0.1), 0.4)
    assert len(shot.rest) == 22
    assert len(shot.paths) > 5


def test_what_cannot_be_played(pool: Table, monkeypatch: pytest.MonkeyPatch) -> None:
    layout = make(pool, (2.0, 2.0), (4.0, 2.0))
    with pytest.raises(BadInputError, match="direction is nan"):
        play(layout, Stroke(3.0), math.nan)
    monkeypatch.setattr(rack, "MOST_EVENTS", 6)
    with pytest.raises(EngineError, match="more than 6 contacts: play it slower"):
        play(layout, Stroke(3.0), 0.0)


def test_a_break_spreads_the_rack(pool: Table) -> None:
    """Sanity, common practice: an eight-metre break drives several balls to rails."""
    layout = Layout(pool, "eight-ball", (Ball("cue", 2.0, 2.1), *triangle(POOL)))
    shot = play(layout, Stroke(8.0), -0.035, None)
    assert isinstance(shot, Shot)
    assert len({ev.ball for ev in shot.events if ev.kind == "rail"}) >= 4
    assert len(shot.paths) == 16


@pytest.mark.parametrize(("elevation", "speed"), [(45.0, 4.0), (30.0, 6.0), (60.0, 2.0)])
def test_a_leap_is_refused_with_the_way_out(elevation: float, speed: float) -> None:
    with pytest.raises(BadInputError, match=r"leaps \d+ cm off the bed.*lower the cue, or play at most \d"):
        Stroke(speed, 0.3, 0.0, elevation)


def test_a_curve_shot_bends_towards_its_side(pool: Table) -> None:
    """Right side with a raised cue: off to the left by squirt, then round to the right. Trade, §4."""
    layout = make(pool, (1.0, 2.0), (7.0, 0.5))
    curve = approach(layout, Stroke(1.9, 0.4, 0.0, 35.0, find_cue("house")), 0.0)
    first = curve.pieces[0]
    assert first.control[1] > first.start[1]
    assert min(piece.end[1] for piece in curve.pieces) < 1.5
