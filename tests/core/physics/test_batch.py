"""Many strokes at once: the same as one by one, whatever the chunks and threads; and what is told of each."""

import math
import random
from dataclasses import replace

import numpy as np
import pytest
from campaign.audit import POOL
from tests.core.crowd import R, random_places, random_stroke

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics import batch
from fandle.core.physics.batch import Strokes, play_batch, play_steps
from fandle.core.physics.engine import HIT_BALL, STOPPED
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES

SLOW = replace(POOL, cloth_rolling=0.02, cushion_friction=0.25)
TABLES = np.array([POOL.params(), SLOW.params()])


def strokes(rng: random.Random, cue: tuple[float, float], count: int, tables: int = 1) -> Strokes:
    some = [random_stroke(rng).array() for _ in range(count)]
    return Strokes(
        np.array([rng.uniform(-math.pi, math.pi) for _ in range(count)]),
        np.array(some),
        np.array([cue] * count, dtype=float),
        np.array([rng.randrange(tables) for _ in range(count)]),
    )


def one(direction: float, stroke: Stroke, cue: tuple[float, float]) -> Strokes:
    return Strokes(np.array([direction]), stroke.array()[None], np.array([cue]), np.array([0]))


def test_rows_are_what_single_shots_are() -> None:
    """The whole of 120 shots on two tables, against the shot as everybody else plays it."""
    rng = random.Random(4)
    places = random_places(rng, 6, 0.3)
    rows = strokes(rng, tuple(places[0]), 120, 2)
    out = play_batch(rows, TABLES, places[1:])
    names = [str(k) for k in range(1, len(places))]
    seen_down = seen_second = 0
    for i in range(120):
        table: Table = (POOL, SLOW)[rows.table[i]]
        dx, dy = table.diamond_x, table.diamond_y
        balls = [Ball(n, x / dx, y / dy) for n, (x, y) in zip(["cue", *names], places, strict=True)]
        layout = Layout(table, "straight", tuple(balls))
        s = rows.stroke[i]
        shot = play(layout, Stroke(s[0], s[1], s[2]), float(rows.direction[i]))
        assert out.code[i] == STOPPED
        met = [
            ev.other if ev.ball == "cue" else ev.ball
            for ev in shot.events
            if ev.kind == "ball" and "cue" in (ev.ball, ev.other)
        ]
        order = list(dict.fromkeys(met))
        assert [n for n in (out.first[i], out.second[i]) if n > 0] == [int(n) for n in order[:2] if n is not None]
        down = [(["cue", *names].index(ball), POCKET_NAMES.index(pocket)) for ball, pocket in shot.potted]
        assert [(b, k) for b, k in zip(out.down[i], out.pockets[i], strict=True) if b >= 0] == down
        for k, name in enumerate(["cue", *names]):
            rest = shot.rest[name]
            if rest is None:
                assert np.isnan(out.rests[i, k]).all()
            else:
                assert out.rests[i, k] == pytest.approx([rest[0] * dx, rest[1] * dy], abs=1e-9)
        seen_down += bool(down)
        seen_second += len(order) > 1
    assert min(seen_down, seen_second) > 5


def test_chunks_and_threads_change_nothing() -> None:
    rng = random.Random(8)
    places = random_places(rng, 9, 0.3)
    rows = strokes(rng, tuple(places[0]), 90)
    whole = play_batch(rows, TABLES, places[1:])
    for threads, chunk in ((1, 1), (2, 7), (3, 64)):
        other = finish(play_steps(rows, TABLES, places[1:], threads=threads, chunk=chunk))
        for a, b in zip(whole, other, strict=True):
            assert np.array_equal(a, b, equal_nan=True)


def test_it_goes_in_steps_and_can_be_stopped() -> None:
    rng = random.Random(2)
    steps = play_steps(strokes(rng, (0.5, 0.5), 100), TABLES, np.array([[1.6, 0.6]]), chunk=10)
    for _ in range(3):
        next(steps)
    steps.close()
    assert sum(1 for _ in play_steps(strokes(rng, (0.5, 0.5), 100), TABLES, np.array([[1.6, 0.6]]), chunk=10)) == 10


def test_only_to_the_first_ball() -> None:
    """First ball and rails are those of the whole shot; nobody is played on."""
    rng = random.Random(5)
    places = random_places(rng, 5, 0.0)
    rows = strokes(rng, tuple(places[0]), 200)
    whole, short = (play_batch(rows, TABLES, places[1:], short=short) for short in (batch.WHOLE, batch.TO_FIRST_BALL))
    met = short.code == HIT_BALL
    assert 20 < met.sum() < 200
    assert np.array_equal(short.first[met], whole.first[met])
    assert np.array_equal(short.before_first[met], whole.before_first[met])
    assert np.isnan(short.rests).all()
    assert (short.second == -1).all()


def test_rails_of_the_cue_ball_in_order() -> None:
    """As the whole shot tells them, up to the second ball; and a shot straight up and down the bed, known before."""
    rng = random.Random(6)
    places = random_places(rng, 3, 0.0)
    rows, names = strokes(rng, tuple(places[0]), 80), ["cue", "1", "2"]
    out = play_batch(rows, TABLES, places[1:])
    balls = tuple(Ball(n, x / POOL.diamond_x, y / POOL.diamond_y) for n, (x, y) in zip(names, places, strict=True))
    many = 0
    for i in range(80):
        s = rows.stroke[i]
        shot = play(Layout(POOL, "straight", balls), Stroke(s[0], s[1], s[2]), float(rows.direction[i]))
        rails: list[int] = []
        met: list[str] = []
        before_first = 0
        for ev in shot.events:
            if ev.kind == "ball" and "cue" in (ev.ball, ev.other):
                met.append(str(ev.other if ev.ball == "cue" else ev.ball))
            elif ev.kind == "rail" and ev.ball == "cue" and len(set(met)) < 2 and ev.rail is not None:
                rails.append(ev.rail.number)
                before_first += not met
        assert [r for r in out.cue_rails[i] if r >= 0] == rails[: batch.MOST_CUE_RAILS]
        assert (out.before_first[i], out.before_second[i]) == (before_first, len(rails))
        many += len(rails) > 2
    assert many > 10
    straight = play_batch(one(0.0, Stroke(3.0), (1.0, 0.6)), TABLES, np.array([[0.3, 0.3]]))
    assert straight.cue_rails[0, :2].tolist() == [3, 2]


@pytest.mark.parametrize(("angle_deg", "aside", "left"), [(45, 0.0, 1), (60, 0.0, 1), (60, 0.5, 0), (90, 0.0, 0)])
def test_a_ball_frozen_to_a_rail(angle_deg: float, aside: float, left: int) -> None:
    """Cut into its rail it comes off it, and that contact does not count; squeezed straight into it, it stays.

    aside: ball diameters off the middle. Rules of the games: a ball frozen to a rail counts for that rail only after
    it has left it (from memory).
    """
    angle, away = math.radians(angle_deg), 0.5
    cue = (1.0 - away * math.cos(angle), R + away * math.sin(angle))
    direction = math.atan2(R - cue[1], 1.0 - cue[0]) + math.asin(aside * 2 * R / away)
    out = play_batch(one(direction, Stroke(0.8), cue), TABLES, np.array([[1.0, R]]))
    assert out.first[0] == 1
    assert out.left[0].tolist() == [0, left]
    assert out.rails_after[0, 1] == 0


def test_a_frozen_ball_counts_for_its_rail_when_it_comes_back() -> None:
    """Cut hard it goes over the bed and comes back: other rails, then its own."""
    cue = (1.0 - 0.35, R + 0.35)
    out = play_batch(one(math.atan2(R - cue[1], 1.0 - cue[0]), Stroke(5.0), cue), TABLES, np.array([[1.0, R]]))
    assert out.left[0, 1] == 1
    assert out.rails_after[0, 1] >= 2


def test_a_kick_without_contact_tells_no_ball() -> None:
    out = play_batch(one(math.pi / 2, Stroke(1.0), (0.7, 0.5)), TABLES, np.array([[2.0, 0.3]]))
    assert (out.first[0], out.second[0], out.rails_after.sum(), out.before_first[0] > 0) == (-1, -1, 0, True)
