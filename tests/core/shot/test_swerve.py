"""The bend of a raised cue against an independent integrator, and what players say of it."""

import math

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from fandle.core.constants import GRAVITY
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.swerve import paced, swerve
from fandle.core.table.standards import STANDARDS

POOL = STANDARDS["pool-9ft"]
STROKES = [
    Stroke(2.0, 0.3, -0.2, 8.0), Stroke(1.5, -0.35, 0.0, 20.0), Stroke(1.2, 0.3, 0.1, 30.0), Stroke(0.9, -0.3, -0.3, 45.0),
    Stroke(3.0, 0.4, 0.0, 5.0),
]  # fmt: skip


def integrated(stroke: Stroke) -> tuple[float, float]:
    """(aside, along) m where the ball begins to roll: Coulomb friction at the contact point, stepped by scipy.

    Cue through the offset point, its vertical part taken by the bed: R·ω = 5/2·v/cos ε·(side·(sin ε along the way) + up
    across it); the force −μ m g along the slip u = v + ω × (−R ẑ).
    """
    eps, mu = math.radians(stroke.elevation), POOL.cloth_sliding
    blow = 2.5 * stroke.speed / math.cos(eps)
    w0 = (blow * stroke.side * math.sin(eps), blow * stroke.up)  # R·ω about the way ahead, about its left

    def slip(s: np.ndarray) -> tuple[float, float]:
        return s[2] - s[5], s[3] + s[4]

    def rate(_: float, s: np.ndarray) -> list[float]:
        ux, uy = slip(s)
        size = math.hypot(ux, uy)
        fx, fy = (-mu * GRAVITY * ux / size, -mu * GRAVITY * uy / size) if size > 1e-12 else (0.0, 0.0)
        return [s[2], s[3], fx, fy, 2.5 * fy, -2.5 * fx]

    def rolls(_: float, s: np.ndarray) -> float:
        return math.hypot(*slip(s)) - 1e-7

    rolls.terminal = True  # type: ignore[attr-defined]
    start = [0.0, 0.0, stroke.speed, 0.0, w0[0], w0[1]]
    done = solve_ivp(rate, (0.0, 30.0), start, events=rolls, rtol=1e-10, atol=1e-12, max_step=0.01)
    return float(done.y[1, -1]), float(done.y[0, -1])


@pytest.mark.parametrize("stroke", STROKES, ids=lambda s: f"{s.speed} m/s {s.elevation}°")
def test_the_bend_is_the_integrators_to_a_millimetre(stroke: Stroke) -> None:
    told = swerve(POOL, stroke)
    aside, along = integrated(stroke)
    assert (told.aside_m, told.along_m) == pytest.approx((aside, along), abs=1e-3)


def test_the_engine_plays_the_same_bend() -> None:
    """On the bed, as long as no rail is met."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", 1.0, 2.0),))
    for stroke in STROKES[:3]:
        pieces = approach(layout, stroke, 0.0, most_rails=1).pieces
        end = next(piece.end for piece in pieces if piece.sliding)
        told = swerve(POOL, stroke)
        assert (end[0] - 1.0) * POOL.diamond_x == pytest.approx(told.along_m, abs=1e-4)
        assert (end[1] - 2.0) * POOL.diamond_y == pytest.approx(told.aside_m, abs=1e-4)


def test_harder_bends_later_softer_sooner_and_more_elevation_sooner_for_its_size() -> None:
    """trade.md §6b: harder bends too late, softer too early, more elevation bends more; it curves to the side "
    "struck."""
    stroke = Stroke(2.0, 0.3, -0.2, 12.0)
    here, (softer, harder) = swerve(POOL, stroke), paced(POOL, stroke)
    assert softer is not None
    assert harder is not None
    assert softer.along_m < here.along_m < harder.along_m
    assert here.aside_m < 0.0  # right side: to the right
    more = swerve(POOL, Stroke(2.0, 0.3, -0.2, 20.0))
    assert abs(more.turn_deg) > abs(here.turn_deg)
    assert swerve(POOL, Stroke(2.0, 0.3, 0.0, 0.0)).aside_m == pytest.approx(0.0, abs=1e-12)


def test_what_would_leap_has_no_harder_end() -> None:
    softer, harder = paced(POOL, Stroke(1.8, 0.3, 0.0, 45.0))
    assert softer is not None
    assert harder is None
