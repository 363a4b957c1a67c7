"""Every one-ball row of the trade's table of corrections: the direction of the effect.

Common practice, no published source. Each test is named after its row.
"""

import math
from dataclasses import replace

import pytest
from tests.core.physics.test_trade_figures import corner_track, third_number
from tests.core.rig import NEW_CLOTH, OLD_CLOTH, POOL, one_rail, return_x, run, towards

from fandle.core.physics.state import EV_RAIL, EVENT
from fandle.core.shot.side import running
from fandle.core.table.rails import Rail

SPEEDS = (2.0, 3.0, 4.0)


def test_harder_is_short() -> None:
    landings = [one_rail(v) for v in (2, 2.5, 3, 3.5, 4, 5, 6)]
    assert landings == sorted(landings, reverse=True)


def test_softer_is_long() -> None:
    assert one_rail(1.5) > one_rail(3.0) > 5.0


@pytest.mark.parametrize("speed", SPEEDS)
def test_running_side_is_long(speed: float) -> None:
    assert one_rail(speed, side=0.2) > one_rail(speed) + 0.3


@pytest.mark.parametrize("speed", SPEEDS)
def test_reverse_side_is_short(speed: float) -> None:
    assert one_rail(speed, side=-0.2) < one_rail(speed) - 0.15


def test_running_and_hard_partly_cancel() -> None:
    """A little running side at 5 m/s lands nearer to the soft plain ball than either alone."""
    soft = one_rail(2.5)
    both = abs(one_rail(5.0, side=0.1) - soft)
    assert both < abs(one_rail(5.0) - soft)
    assert both < abs(one_rail(2.5, side=0.1) - soft)


def _steep(up: float, speed: float) -> float:
    start = (1.0, 3.0)
    return return_x(run(start, towards(start, 2.0, 4.0), speed, up=up), 1, 1.0)


def test_follow_still_sliding_bends_long_draw_short() -> None:
    assert _steep(0.4, 4.0) > _steep(0.0, 4.0) + 0.2
    assert _steep(-0.4, 4.0) < _steep(0.0, 4.0) - 0.2


def test_a_ball_already_rolling_shows_little() -> None:
    """Far from the rail and soft, follow and draw have rolled off before it gets there."""
    follow, draw = one_rail(1.7, up=0.3), one_rail(1.7, up=-0.1)
    assert abs(follow - draw) < 0.1


@pytest.mark.parametrize(("cue", "first"), [(50, 20), (50, 10)])
def test_new_slick_cloth_runs_long_old_cloth_short(cue: float, first: float) -> None:
    """Running three-rail tracks; a plain one-rail kick may go either way."""
    new, old = (
        third_number(corner_track(cue, first, NEW_CLOTH)),
        third_number(corner_track(cue, first, OLD_CLOTH)),
    )
    assert new > third_number(corner_track(cue, first)) > old


def test_soft_and_lively_rubber_change_speed_and_angle() -> None:
    dead, lively = replace(POOL, cushion_restitution=0.75), replace(POOL, cushion_restitution=0.92)
    assert one_rail(3.0, table=dead) != pytest.approx(one_rail(3.0, table=lively), abs=0.05)
    speeds = [run((1, 1), towards((1, 1), 3, 4), 3.0, table=t).events[0, EVENT.after] for t in (dead, lively)]
    assert speeds[0] < speeds[1]


def test_wide_angle_errors_grow() -> None:
    """A segment at the aim rail is more at the target for a longer count."""

    def error(count: float) -> float:
        start = (1.0, 1.0)
        at = [return_x(run(start, towards(start, 1 + count / 2 + d, 4.0), 3.0), 1, 1.0) for d in (0.0, 0.1)]
        return at[1] - at[0]

    assert error(5) > error(3.5) > error(2) > 0.1


def test_target_off_the_rail_shifts_the_landing() -> None:
    start = (1.0, 1.0)
    played = run(start, towards(start, 3.0, 4.0), 3.0)
    assert return_x(played, 1, 0.09) - return_x(played, 1, 0.27) > 0.05


def test_elevation_swerves_and_more_so_at_low_speed() -> None:
    """Right side with a raised cue curves the ball to the right."""

    def curve(speed: float, elevation: float) -> float:
        played = run((1.0, 2.0), 0.0, speed, side=0.3, elevation=elevation, most_rails=1)
        last = played.pieces[-1]
        return float((2.0 - (last[3] + last[1] * (last[5] + last[7] * last[1] / 2)) / POOL.diamond_y) / 6.9)

    assert curve(2.0, 0.0) == pytest.approx(0.0, abs=1e-12)
    assert curve(2.0, 0.2) > curve(4.0, 0.2) > 0.005
    assert curve(2.0, 0.2) > curve(2.0, 0.1)


def test_inside_side_on_rail_one_turns_to_running_on_rail_two() -> None:
    """From far straight on to near the same spin works the other way: it holds on one, opens on two."""

    def steepening(side: float) -> list[float]:
        start = (1.0, 2.0)
        played = run(start, towards(start, 2.2, 4.0), 4.0, side=side)
        rails = played.events[played.events[:, EVENT.kind] == EV_RAIL][:2]
        assert rails[:, 2].tolist() == [1, 0]  # far, then near
        return [math.degrees(row[8] - row[7]) for row in rails]

    inside, plain = steepening(-0.3), steepening(0.0)
    assert inside[0] > plain[0] + 5.0  # held up: steeper, short
    assert inside[1] < plain[1] - 5.0  # opened: flatter, long
    assert running(-0.3, Rail.FAR, 1.0) == "reverse"
    assert running(-0.3, Rail.NEAR, -1.0) == "running"


def test_far_out_of_line_comes_short_and_a_quarter_tip_running_mends_it() -> None:
    """M4's tracks n to n/2 to the middle of near, sighted: from the end rail (n > 40) they come short."""

    def off(n: float, side: float = 0.0) -> float:
        start = (4 - n / 10, 0.12) if n <= 40 else (0.12, (n - 40) / 10)
        sight = 4 + (POOL.sight_setback or math.nan) / POOL.diamond_y
        return return_x(run(start, towards(start, 4 - n / 20, sight), 3.0, side=side), 1, 0.1) - 4.0

    assert all(abs(off(n)) < 0.1 for n in (15, 20, 25, 30, 40))
    shorts = [off(n) for n in (45, 50, 55, 60, 70)]
    assert shorts == sorted(shorts, reverse=True)
    assert shorts[0] < -0.3
    quarter = 0.25 * 0.35  # a quarter tip, radii
    assert abs(off(45, quarter)) < 0.15
    assert abs(off(50, quarter)) < abs(off(50)) - 0.3
