"""The event loop: symmetry, order, caps, pressing along a rail, JIT on and off."""

import json
import math
import random
import subprocess
import sys
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from tests.conftest import make
from tests.core.rig import POOL, run

from fandle.core.errors import BadInputError, EngineError
from fandle.core.physics import bed
from fandle.core.physics import engine as e
from fandle.core.physics.state import EV_RAIL, EVENT, PIECE
from fandle.core.shot.approach import approach
from fandle.core.shot.path import RAILS
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail


def test_rails_are_numbered_as_the_kernels_number_them() -> None:
    assert [RAILS[i] for i in (bed.NEAR, bed.FAR, bed.HEAD, bed.FOOT)] == [Rail.NEAR, Rail.FAR, Rail.HEAD, Rail.FOOT]
    assert [r.number for r in RAILS] == [0, 1, 2, 3]


def test_energy_never_rises_along_a_shot() -> None:
    rng = random.Random(8)
    for _ in range(300):
        played = run(
            (rng.uniform(0.2, 7.8), rng.uniform(0.2, 3.8)), rng.uniform(-3, 3), rng.uniform(0.2, 12),
            rng.uniform(-0.35, 0.35), rng.uniform(-0.35, 0.35),
        )  # fmt: skip
        assert played.code == e.STOPPED
        rails = played.events[played.events[:, EVENT.kind] == EV_RAIL]
        speeds = np.hypot(played.pieces[:, PIECE.vx], played.pieces[:, PIECE.vy])
        # follow may speed a ball up; with all its spin gone into speed it gains at most 5/7 of it
        assert np.all(rails[:, 6] <= rails[:, 5] * 1.5 + 0.5)
        assert speeds.max() <= speeds[0] * (1 + 2.5 * 0.5)


@pytest.mark.parametrize("seed", range(6))
def test_mirrored_shots_are_mirrored(seed: int) -> None:
    """Across the bed and end to end: side changes its hand; half a turn keeps it."""
    rng = random.Random(seed)
    x, y, a = rng.uniform(0.5, 7.5), rng.uniform(0.5, 3.5), rng.uniform(-3, 3)
    v, side, up = rng.uniform(1, 6), rng.uniform(-0.3, 0.3), rng.uniform(-0.3, 0.3)
    base = run((x, y), a, v, side, up).rails()[:4]
    turned: tuple[tuple[Any, Any], ...] = (
        (run((x, 4 - y), -a, v, -side, up), lambda p: (p[0], 4 - p[1])),
        (run((8 - x, y), math.pi - a, v, -side, up), lambda p: (8 - p[0], p[1])),
        (run((8 - x, 4 - y), math.pi + a, v, side, up), lambda p: (8 - p[0], 4 - p[1])),
    )
    for image, back in turned:
        got = [back(r[1:]) for r in image.rails()[:4]]
        assert np.array(got) == pytest.approx(np.array([r[1:] for r in base]), abs=1e-6)


def test_halving_the_impulse_step_moves_three_rails_by_less_than_three_thousandths() -> None:
    for side in (-0.3, 0.0, 0.4):
        a, b = (run((0.5, 0.4), 0.6, 4.0, side, 0.2, steps=n).rails()[:3] for n in (4, 8))
        assert np.array([r[1:] for r in a]) == pytest.approx(np.array([r[1:] for r in b]), abs=3e-3)


def test_the_ball_stays_on_the_bed() -> None:
    rng = random.Random(9)
    for _ in range(200):
        played = run((rng.uniform(0.2, 7.8), rng.uniform(0.2, 3.8)), rng.uniform(-3, 3), rng.uniform(0.2, 9))
        r = POOL.ball_radius
        assert np.all(played.events[:, EVENT.x] >= r - 1e-9)
        assert np.all(played.events[:, EVENT.x] <= POOL.length - r + 1e-9)
        assert np.all(played.events[:, EVENT.y] >= r - 1e-9)
        assert np.all(played.events[:, EVENT.y] <= POOL.width - r + 1e-9)
        assert np.all(np.diff(played.events[:, EVENT.t]) >= 0)


def test_follow_straight_into_a_rail_comes_to_rest() -> None:
    """Heavy follow drives the ball back into the cushion again and again; the engine ends it."""
    for up in (0.3, 0.5):
        played = run((1.0, 3.8), math.pi / 2, 8.0, up=up)
        assert played.code == e.STOPPED
        assert len(played.events) < 60


def test_the_event_cap_is_a_clear_error(pool: Table) -> None:
    endless = replace(
        pool,
        cloth_rolling=0.001,
        cloth_sliding=0.01,
        cushion_restitution=1.0,
        cushion_friction=0.0,
        pockets=None,
    )
    layout = make(endless, (1.0, 2.0), (4.0, 0.5))
    tiny = make(replace(endless, length=0.6, width=0.3, ball_radius=0.0125, nose_height=0.016), (2.0, 2.0), (6.0, 1.0))
    with pytest.raises(EngineError, match="play it slower"):
        approach(tiny, Stroke(12.0), math.pi / 2, ignore_balls=True)
    assert approach(layout, Stroke(1.0), 0.0).events


def test_what_a_shot_reports(pool: Table) -> None:
    layout = make(pool, (1.1, 0.55), (5.3, 0.5), (3.2, 0.5))
    shot = approach(layout, Stroke(3.0), math.radians(90))
    assert shot.events[0].rail == Rail.FAR
    assert shot.events[0].in_deg == pytest.approx(90)
    blocked = approach(layout, Stroke(3.0), 0.0)
    assert (blocked.events[-1].kind, blocked.first_ball) == ("ball", "2")
    assert blocked.events[-1].speed_after is None
    down = approach(make(pool, (4.0, 1.0), (6.0, 3.0)), Stroke(3.0), math.pi / 2)
    assert (down.events[-1].kind, down.events[-1].pocket) == ("pocket", "side-far")
    with pytest.raises(BadInputError, match="direction is nan"):
        approach(layout, Stroke(3.0), math.nan)


PURE = """
import json, math, sys
sys.path.insert(0, ".")
from tests.core.rig import run
print(json.dumps([[list(r) for r in run((0.7, 0.6), a, 3.5, s, u).rails()[:3]] for a, s, u in
    ((0.9, 0.0, 0.0), (0.5, 0.3, 0.2), (2.2, -0.3, 0.1), (-1.2, 0.2, -0.3))]))
"""


def test_compiled_and_plain_python_agree() -> None:
    """To 1e-9 m over one rail, 1e-6 diamond over three, with NUMBA_DISABLE_JIT=1 in another process."""
    done = subprocess.run(
        [sys.executable, "-c", PURE], env={"NUMBA_DISABLE_JIT": "1", "PATH": "/usr/bin:/bin"},
        capture_output=True, text=True, check=True, timeout=120,
    )  # fmt: skip
    plain = json.loads(done.stdout)
    for rails, (a, s, u) in zip(
        plain, ((0.9, 0.0, 0.0), (0.5, 0.3, 0.2), (2.2, -0.3, 0.1), (-1.2, 0.2, -0.3)), strict=True
    ):
        ours = [list(r) for r in run((0.7, 0.6), a, 3.5, s, u).rails()[:3]]
        assert np.array(ours[0]) == pytest.approx(np.array(rails[0]), abs=3e-9)
        assert np.array(ours) == pytest.approx(np.array(rails), abs=1e-6)
