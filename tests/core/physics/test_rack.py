"""Every ball at once: conservation, symmetry, order, bounds, threads, and that it always ends."""

import json
import math
import random
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np
import pytest
from campaign.audit import POOL, gaps, metres, raw, rises, struck
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.cases import CROWDS
from tests.core.crowd import R, break_shot, random_places, random_stroke

from fandle.core.physics import engine as e
from fandle.core.physics import moving, rack
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.state import EV_BALL, EVENT, PIECE
from fandle.core.shot.stroke import Stroke


def test_energy_never_rises_over_thousands_of_shots() -> None:
    rng = random.Random(1)
    most = 0
    for _ in range(3000):
        places = random_places(rng, rng.randint(2, 22), rng.choice([0.0, 0.3, 0.8]))
        played = raw(places, struck(random_stroke(rng), rng.uniform(0, 2 * math.pi)))
        assert played.code == e.STOPPED
        assert rises(played) < 1e-7, (places, played.places)
        most = max(most, len(played.events))
    assert most < rack.MOST_EVENTS / 4


def test_no_ball_overlaps_another_or_leaves_the_bed() -> None:
    rng = random.Random(2)
    for _ in range(1500):
        places = random_places(rng, rng.randint(2, 22), rng.choice([0.0, 0.3, 0.8]))
        between, to_nose = gaps(raw(places, struck(random_stroke(rng), rng.uniform(0, 2 * math.pi))))
        assert between > -1e-9
        assert to_nose > -1e-9


@settings(max_examples=200, deadline=None)
@given(
    seed=st.integers(0, 2**32 - 1),
    count=st.integers(1, 22),
    frozen=st.sampled_from([0.0, 0.5, 1.0]),
    speed=st.floats(1e-6, 12.0),
    offset=st.floats(0, 0.5),
    clock=st.floats(0, 6.3),
    elevation=st.floats(0, 60),
    direction=st.floats(-10, 10),
)
def test_any_layout_and_any_stroke_comes_to_an_end(
    seed: int, count: int, frozen: float, speed: float, offset: float, clock: float, elevation: float, direction: float
) -> None:
    """The loop is bounded by its arrays; here it also ends by itself, every ball at rest or down."""
    places = random_places(random.Random(seed), count, frozen)
    gentle = min(speed, 1.0 / max(math.tan(math.radians(elevation)), 1e-9))  # a leap is refused
    stroke = Stroke(gentle, offset * math.cos(clock) * 0.999, offset * math.sin(clock) * 0.999, elevation)
    played = raw(places, struck(stroke, direction))
    assert played.code == e.STOPPED
    speeds = np.hypot(played.state[:, 2], played.state[:, 3])
    assert np.all(speeds[played.state[:, moving.ON] > 0] == 0.0)


@pytest.mark.parametrize(("name", "places", "start"), CROWDS)
def test_nasty_crowds(name: str, places: list[tuple[float, float]], start: tuple[float, ...]) -> None:
    played = raw(np.array(places), start)
    assert played.code == e.STOPPED, name
    assert rises(played) < 1e-9
    assert min(gaps(played)) > -1e-9
    assert len(played.events) < 400


@pytest.mark.parametrize("seed", range(8))
def test_mirrored_and_turned_layouts_give_mirrored_and_turned_shots(seed: int) -> None:
    """Across the bed, end to end, half a turn; chaos is given four contacts to grow in."""
    rng = random.Random(seed)
    places = random_places(rng, 8, 0.4)
    stroke, a = Stroke(rng.uniform(1.5, 5), rng.uniform(-0.3, 0.3), rng.uniform(-0.3, 0.3)), rng.uniform(-3, 3)
    other_hand = replace(stroke, side=-stroke.side)
    base = raw(places, struck(stroke, a)).events[:4]
    size = np.array([POOL.length, POOL.width])
    for image, signs in (
        (raw(places * [1, -1] + [0, size[1]], struck(other_hand, -a)), (1, -1)),
        (raw(places * [-1, 1] + [size[0], 0], struck(other_hand, math.pi - a)), (-1, 1)),
        (raw(size - places, struck(stroke, a + math.pi)), (-1, -1)),
    ):
        back = image.events[:4, 3:5] * signs + np.where(np.array(signs) < 0, size, 0.0)
        assert back == pytest.approx(base[:, 3:5], abs=1e-6)
        assert image.events[:4, EVENT.after] == pytest.approx(base[:, 6], abs=1e-6, nan_ok=True)
        assert np.array_equal(image.events[:4, EVENT.ball], base[:, 9])


def test_a_straight_break_stays_symmetric() -> None:
    """Struck dead straight, all balls and the cue ball: mirror images until rounding has grown up."""
    layout = break_shot()
    played = raw(metres(layout), struck(Stroke(8.0), 0.0))
    mirror = {0: 0, **dict(enumerate([1, 3, 2, 6, 5, 4, 10, 9, 8, 7, 15, 14, 13, 12, 11], 1))}
    early = played.pieces[played.pieces[:, PIECE.t] < 0.45]
    starts = {(int(q[10]), round(q[0], 6)): q for q in early}
    compared = 0
    for (ball, t), q in starts.items():
        twin = starts.get((mirror[ball], t))
        if twin is not None and ball != mirror[ball]:
            assert q[4:6] == pytest.approx(twin[4:6] * [1, -1], abs=1e-6)
            assert q[3] + twin[3] == pytest.approx(POOL.width, abs=1e-6)
            compared += 1
    assert compared >= 14


def test_two_object_balls_struck_at_once_part_alike() -> None:
    """The cue ball comes between two balls that touch: no first and no second."""
    middle = POOL.width / 2
    places = np.array([[0.8, middle], [1.4, middle + R], [1.4, middle - R]])
    for order in ([0, 1, 2], [0, 2, 1]):
        played = raw(places[order], (3.0, 0.0, 0.0, 3.0, 0.0))
        first = played.events[played.events[:, EVENT.kind] == EV_BALL][:2]
        assert first[0, 1] == pytest.approx(first[1, 1], abs=1e-12)
        rows = [played.pieces[played.pieces[:, PIECE.ball] == k][0] for k in (1, 2)]
        assert rows[0][4] == pytest.approx(rows[1][4], abs=1e-12)
        assert rows[0][5] == pytest.approx(-rows[1][5], abs=1e-12)
        cue = played.pieces[(played.pieces[:, PIECE.ball] == 0) & (played.pieces[:, PIECE.t] >= first[0, 1] - 1e-12)][0]
        assert cue[5] == pytest.approx(0.0, abs=1e-12)


def test_linear_momentum_across_every_contact_of_a_break() -> None:
    """From the stretches of path before and after each blow, balls that touch taken together."""
    played = raw(metres(break_shot()), struck(Stroke(9.0), 0.004))
    pieces = played.pieces
    blows = np.unique(played.events[played.events[:, EVENT.kind] == EV_BALL, 1])
    others = np.unique(played.events[played.events[:, EVENT.kind] != EV_BALL, 1])
    checked = 0
    for t in np.setdiff1d(blows, others):
        rows = played.events[(played.events[:, EVENT.t] == t) & (played.events[:, EVENT.kind] == EV_BALL)]
        balls = np.unique(rows[:, [2, 9]]).astype(int)
        total = np.zeros(2)
        for ball in balls:
            mine = pieces[pieces[:, PIECE.ball] == ball]
            after = mine[mine[:, 0] == t]
            before = mine[mine[:, 0] < t]
            if len(after):
                total += after[0, 4:6]
            if len(before) and before[-1, 0] + before[-1, 1] > t - 1e-9:
                total -= before[-1, 4:6] + before[-1, 1] * before[-1, 6:8]
        assert np.abs(total).max() < 1e-12
        checked += 1
    assert checked > 10


def test_threads_and_single_give_identical_results() -> None:
    places, start = metres(break_shot()), struck(Stroke(9.0), 0.01)
    alone = raw(places, start)
    with ThreadPoolExecutor(4) as pool:
        for played in pool.map(lambda _: raw(places, start), range(16)):
            assert np.array_equal(played.events, alone.events, equal_nan=True)
            assert np.array_equal(played.pieces, alone.pieces)


PURE = """
import json, sys
sys.path.insert(0, ".")
from tests.core.physics.test_rack import combination
print(json.dumps([list(row[1:7]) for row in combination().events[:6]]))
"""


def combination() -> object:
    """A rail, then a ball, then that ball on two that touch."""
    places = np.array([[0.5, 0.5], [1.6, 0.55], [1.9, 0.62], [1.9 + 2 * R, 0.62]])
    return raw(places, struck(Stroke(4.0, 0.2, 0.1), 0.97))


def test_compiled_and_plain_python_agree() -> None:
    done = subprocess.run(
        [sys.executable, "-c", PURE], env={"NUMBA_DISABLE_JIT": "1", "PATH": "/usr/bin:/bin"},
        capture_output=True, text=True, check=True, timeout=300,
    )  # fmt: skip
    ours = [list(row[1:7]) for row in combination().events[:6]]  # type: ignore[attr-defined]
    plain = json.loads(done.stdout)
    assert np.array(ours[0]) == pytest.approx(np.array(plain[0]), abs=1e-9, nan_ok=True)
    assert np.array(ours) == pytest.approx(np.array(plain), abs=1e-6, nan_ok=True)


def test_too_many_contacts_end_the_run() -> None:
    state = np.zeros((1, moving.BALL_WIDTH))
    state[0, :2], state[0, moving.ON], state[0, 2:7] = (0.5, 0.5), 1.0, (9.0, 7.0, 0.0, 0.0, 0.0)
    code, n_ev, _ = rack.play_all(state, POOL.params(), *blank_tape(5, 50))
    assert (code, n_ev <= 5) == (e.TOO_MANY, True)
