"""The figures players know, one ball, default nine-foot table, rigid cushion.

All from common practice, no published source, unless said otherwise; sizes as two independent
prototypes of the same published models gave them, to be met within 0.1 diamond. + = long.
"""

import math

import pytest
from tests.core.rig import NEW_CLOTH, OLD_CLOTH, POOL, Run, line_of, one_rail, return_x, run, towards

from fandle.core.physics import bed as engine

BAND = 0.1


@pytest.mark.parametrize(
    ("speed", "nose", "sighted"),
    [
        (2, 0.29, -0.08),
        (2.5, 0.24, -0.13),
        (3, 0.17, -0.20),
        (3.5, -0.01, -0.38),
        (4, -0.19, -0.55),
        (5, -0.41, -0.75),
    ],
)
def test_one_rail_plain(speed: float, nose: float, sighted: float) -> None:
    assert one_rail(speed) - 5 == pytest.approx(nose, abs=BAND)
    assert one_rail(speed, "sight") - 5 == pytest.approx(sighted, abs=BAND)


@pytest.mark.parametrize(("speed", "running", "reverse"), [(2, 1.02, -0.31), (3, 1.09, -0.36), (4, 0.87, -0.74)])
def test_one_rail_side(speed: float, running: float, reverse: float) -> None:
    plain = one_rail(speed)
    assert one_rail(speed, side=0.2) - plain == pytest.approx(running, abs=BAND)
    assert one_rail(speed, side=-0.2) - plain == pytest.approx(reverse, abs=BAND)


def test_follow_long_and_draw_short_while_still_sliding() -> None:
    def landing(up: float) -> float:
        start = (1.0, 3.0)
        return return_x(run(start, towards(start, 2.0, 4.0), 4.0, up=up), 1, 1.0)

    assert landing(0.4) - landing(0.0) == pytest.approx(0.51, abs=BAND)
    assert landing(-0.4) - landing(0.0) == pytest.approx(-0.54, abs=BAND)


def corner_track(cue: float, first: float, table=POOL, share: float = 0.2) -> Run:  # type: ignore[no-untyped-def]
    """M14: struck from `share` of the way along the sighted track, 4 m/s, 0.40 R running, 0.20 R follow."""
    tail = ((50 - cue) / 5, 0.0) if cue <= 50 else (0.0, (cue - 50) / 10)
    direction = towards(tail, 8 - first / 10, line_of("sight"))
    length = (line_of("nose") - tail[1]) / math.sin(direction)
    along = share * length
    start = (tail[0] + along * math.cos(direction), tail[1] + along * math.sin(direction))
    start = (max(start[0], 0.0901), max(start[1], 0.0901))
    return run(start, direction, 4.0, side=0.40, up=0.20, table=table, most_rails=5)


def third_number(played: Run) -> float:
    rails = played.rails()
    assert [r[0] for r in rails[:3]] == [engine.FAR, engine.FOOT, engine.NEAR]
    return 10 * (8 - rails[2][1])


@pytest.mark.parametrize(
    ("cue", "first", "low", "high"),
    [
        (50, 10, 36, 37.5),
        (50, 20, 29.5, 31.5),
        (50, 30, 22, 24),
        (70, 30, 38, 39.5),
        (70, 40, 29.5, 32),
        (40, 20, 21.5, 23),
    ],
)
@pytest.mark.parametrize("share", [0.05, 0.2, 0.35])
def test_corner_numbers_m14(cue: float, first: float, low: float, high: float, share: float) -> None:
    """third = cue − first within half a diamond (5 numbers); bands widened by 0.1 diamond."""
    got = third_number(corner_track(cue, first, share=share))
    assert low - 1 <= got <= high + 1
    assert abs(got - (cue - first)) <= 5


def test_track_fifty_to_thirty_meets_the_head_rail_near_its_far_corner() -> None:
    """Track 20 runs on to the head-far corner pocket: about half a diamond from it."""
    rail, _, y = corner_track(50, 30).rails()[3]
    assert rail == engine.HEAD
    assert 4 - y == pytest.approx(0.5, abs=0.35)


@pytest.mark.parametrize(("cue", "first"), [(50, 20), (50, 10)])
def test_new_cloth_lengthens_and_old_cloth_shortens_corner_tracks(cue: float, first: float) -> None:
    """By 1-6 and by ½-2½ numbers."""
    plain = third_number(corner_track(cue, first))
    assert 1 <= third_number(corner_track(cue, first, NEW_CLOTH)) - plain <= 6
    assert 0.5 <= plain - third_number(corner_track(cue, first, OLD_CLOTH)) <= 2.5


def equal_count_arrival(t: float, n: float, side: float) -> float:
    """M11: x at which the line after foot and far crosses the near nose, 3 m/s, sighted, from the track's start."""
    sight_x = 8 + POOL.sight_setback / POOL.diamond_x  # type: ignore[operator]  # the pool table has sights
    direction = towards((t + n, 0.0), sight_x, 4 - (n - 1) / 2)
    start = (t + n + 0.1 / math.tan(direction), 0.1)
    played = run(start, direction, 3.0, side=side, most_rails=3)
    assert [r[0] for r in played.rails()[:2]] == [engine.FOOT, engine.FAR]
    q = played.pieces[-1]
    vx, vy = q[4] + q[6] * q[1], q[5] + q[7] * q[1]
    x, y = q[2] + q[1] * (q[4] + q[6] * q[1] / 2), q[3] + q[1] * (q[5] + q[7] * q[1] / 2)
    return float((x - y / vy * vx) / POOL.diamond_x)


# starts at x = 8 lie in the corner pocket, so t + n < 8
TRACKS = [(t, n) for t in range(4) for n in range(3, 7) if t + n < 8]


@pytest.mark.parametrize(("t", "n"), TRACKS)
def test_equal_count_m11(t: int, n: int) -> None:
    """With 0.3 R running (left) the ball arrives at x = t within 0.6 diamond."""
    assert equal_count_arrival(t, n, -0.3) == pytest.approx(t, abs=0.6)


@pytest.mark.parametrize(("t", "n"), [(t, n) for t, n in TRACKS if t + n <= 6 and t < 3])
def test_equal_count_without_side_comes_a_diamond_long(t: int, n: int) -> None:
    """Long is towards the head here. From starts nearer the foot corner (x > 6) it is less, or short."""
    assert equal_count_arrival(t, n, 0.0) <= t - 1.0
