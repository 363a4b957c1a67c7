"""A blow through balls that touch: known rows, an independent integrator, symmetry, momentum."""

import math
import random
from typing import Any

import numpy as np
import pytest
from campaign.audit import POOL, Array
from campaign.scenes import triangle
from scipy.integrate import solve_ivp
from tests.core.crowd import PERFECT, R, random_places

from fandle.core.physics import cluster
from fandle.core.physics.collision import collide
from fandle.core.physics.slots import STIFF
from fandle.core.table.model import Table

D = 2 * R


def blow(places: Array, motion: Array, table: Table = POOL) -> Array:
    """States (n, 16) after one blow; motion (n, 5)."""
    n = len(places)
    s = np.zeros((n, 16))
    s[:, :2], s[:, 2:7] = places, motion
    members = np.arange(n)
    contacts = cluster.find_contacts(s, members, n, table.params())
    cluster.resolve(s, members, n, contacts, table.ball_restitution, table.params())
    return s


def row(count: int, speed: float = 3.0) -> tuple[Array, Array]:
    """Touching balls in a row along x, the first running into the rest."""
    motion = np.zeros((count, 5))
    motion[0, 0] = speed
    return np.array([[i * D, 0.0] for i in range(count)]), motion


def test_three_balls_in_a_row() -> None:
    """Hertzian contacts, no loss: −0.071, 0.076, 0.995. Herrmann & Seitz 1982 (from memory)."""
    s = blow(*row(3), PERFECT)
    assert s[:, 2] / 3 == pytest.approx([-0.0710, 0.0760, 0.9947], abs=1e-3)


@pytest.mark.parametrize("count", [3, 4, 6])
@pytest.mark.parametrize("speed", [0.2, 8.0])
def test_rows_against_a_general_integrator(count: int, speed: float) -> None:
    """The same contacts as an ordinary differential equation in places and speeds, by scipy."""
    stiff = PERFECT.params()[STIFF]

    def rates(_: float, y: Array) -> Array:
        u, v = y[:count], y[count:]
        force = stiff * np.maximum(u[:-1] - u[1:], 0.0) ** 1.5
        return np.concatenate([v, -np.append(force, 0.0) + np.append(0.0, force)])

    start = np.zeros(2 * count)
    start[count] = speed
    lone = 2.943 * (0.625 * speed**2 / stiff) ** 0.4 / speed
    run = solve_ivp(rates, (0, 12 * lone), start, rtol=1e-9, atol=1e-15)
    s = blow(*row(count, speed), PERFECT)
    assert s[:, 2] / speed == pytest.approx(run.y[count:, -1] / speed, abs=2e-3)


def test_a_lone_pair_leaves_as_a_plain_collision_does() -> None:
    """With spin, friction and loss; within a two-hundredth of the speed."""
    rng = random.Random(4)
    for _ in range(50):
        phi = rng.uniform(-1.2, 1.2)
        places = np.array([[0.0, 0.0], [D * math.cos(phi), D * math.sin(phi)]])
        motion = np.array([[3.0, *(rng.uniform(-3, 3) for _ in range(4))], [0.0] * 5])
        if motion[0, :2] @ places[1] <= 0.2 * D:
            continue
        s = blow(places, motion)
        a, b = np.zeros((2, 7))
        a[2:], b[:2] = motion[0], places[1]
        collide(a, b, POOL.ball_restitution, 1.0, POOL.params())
        assert s[0, 2:7] == pytest.approx(a[2:], abs=0.015)
        assert s[1, 2:7] == pytest.approx(b[2:], abs=0.015)


def test_momentum_and_energy_in_any_cluster() -> None:
    """Momentum to 1e-12 of a metre a second, energy never up, in 300 random heaps, perfect balls too."""
    rng = random.Random(5)
    for table in (POOL, PERFECT):
        for _ in range(150):
            places = random_places(rng, rng.randint(3, 16), 0.95)
            n = len(places)
            motion = np.zeros((n, 5))
            motion[: n // 2] = [[rng.uniform(-5, 5) for _ in range(5)] for _ in range(n // 2)]
            s = blow(places, motion, table)
            assert s[:, 2:4].sum(axis=0) == pytest.approx(motion[:, :2].sum(axis=0), abs=1e-12)
            before = 0.5 * (motion[:, :2] ** 2).sum() + 0.2 * (motion[:, 2:] ** 2).sum()
            assert 0.5 * (s[:, 2:4] ** 2).sum() + 0.2 * (s[:, 4:7] ** 2).sum() <= before * (1 + 1e-14)


def rack_blow(order: list[int]) -> Array:
    balls = triangle(POOL)
    x0 = balls[0].x * POOL.diamond_x
    places = [[x0 - D, 2 * POOL.diamond_y], *([b.x * POOL.diamond_x, b.y * POOL.diamond_y] for b in balls)]
    motion = np.zeros((16, 5))
    motion[0, 0] = 9.0
    back = np.argsort(order)
    return np.array(blow(np.array(places)[order], motion[order])[back])


def test_a_rack_struck_straight_opens_symmetrically() -> None:
    s = rack_blow(list(range(16)))
    mirror = [0, 1, 3, 2, 6, 5, 4, 10, 9, 8, 7, 15, 14, 13, 12, 11]
    assert s[:, 2] == pytest.approx(s[mirror, 2], abs=1e-12)
    assert s[:, 3] == pytest.approx(-s[mirror, 3], abs=1e-12)
    assert s[:, 6] == pytest.approx(-s[mirror, 6], abs=1e-12)
    corners = np.hypot(s[[11, 15], 2], s[[11, 15], 3])
    assert np.all(corners > 3.5)  # the corner balls leave fastest, as everyone who breaks knows


def test_the_order_of_the_balls_does_not_matter_to_a_blow() -> None:
    order = list(range(16))
    random.Random(6).shuffle(order)
    assert rack_blow(order) == pytest.approx(rack_blow(list(range(16))), abs=1e-11)


def test_finer_steps_change_a_break_little(monkeypatch: pytest.MonkeyPatch) -> None:
    """48 steps a blow against 384: no ball of a rack leaves more than 2 % of the break speed otherwise."""
    coarse = rack_blow(list(range(16)))
    monkeypatch.setattr(cluster, "STEPS", 384)
    fine = np.array(_python(cluster.resolve))
    assert coarse[:, 2:4] == pytest.approx(fine, abs=0.02 * 9.0)


def _python(resolve: object) -> Array:
    """The rack's blow in plain Python, where a changed constant takes effect."""
    balls = triangle(POOL)
    s = np.zeros((16, 16))
    s[0, :2], s[0, 2] = [balls[0].x * POOL.diamond_x - D, 2 * POOL.diamond_y], 9.0
    s[1:, :2] = [[b.x * POOL.diamond_x, b.y * POOL.diamond_y] for b in balls]
    members, p = np.arange(16), POOL.params()
    contacts = cluster.find_contacts(s, members, 16, p)
    plain: Any = getattr(resolve, "py_func", resolve)
    plain(s, members, 16, contacts, POOL.ball_restitution, p)
    return s[:, 2:4]


def test_a_slow_contact_is_calmed() -> None:
    """Nobody nears any more, momentum kept, energy down."""
    rng = random.Random(8)
    for _ in range(40):
        places = random_places(rng, 10, 0.95)
        n = len(places)
        s = np.zeros((n, 16))
        s[:, :2] = places
        s[:, 2:4] = [[rng.uniform(-1e-3, 1e-3) for _ in range(2)] for _ in range(n)]
        members, p, before = np.arange(n), POOL.params(), s.copy()
        contacts = cluster.find_contacts(s, members, n, p)
        cluster.calm(s, contacts, p)
        for c in contacts:
            a, b = s[int(c[0])], s[int(c[1])]
            assert (a[2] - b[2]) * c[2] + (a[3] - b[3]) * c[3] < 1e-10
        assert s[:, 2:4].sum(axis=0) == pytest.approx(before[:, 2:4].sum(axis=0), abs=1e-12)
        assert (s[:, 2:4] ** 2).sum() <= (before[:, 2:4] ** 2).sum() + 1e-18
