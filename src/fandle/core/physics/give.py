"""Cushion compression: what rubber that gives adds to the rigid cushion. All of it stands here.

The nose as a spring on the ball: with c = √(m/k), a ball that meets it at v_n sinks in by
v_n·c and leaves after the half period π·c, wherever it has got to along the rail by then.
Meanwhile the dent stays where it was made, and the ball presses against the wall of it: the face
it leaves from leans back by grip·c·v_t/R (tangent). That, not the depth, is what makes a hard shot
short: the way along the rail by itself makes it long (docs/decisions/compression.md). At will,
rubber pressed in far gives less back: restitution falls by `loss` per radius of depth.

With c = 0 none of this is touched: the rigid cushion, bit for bit. The spring is common practice
for rubber, no published source for a table; grip and loss are our own,
to be fitted to a table.
"""

import math
from typing import NamedTuple

from fandle.core.physics.cushion import Impact, Rubber, bounce
from fandle.core.physics.jit import kernel

MOST_LOSS = 0.9  # of the restitution: however far the rubber is pressed in, the ball comes back


class Dent(NamedTuple):
    """Rubber that gives, and the ball's radius (m): give c in s, grip and loss as told above."""

    radius: float
    give: float
    grip: float
    loss: float


@kernel
def dwell(give: float) -> float:
    """Seconds in the rubber: π·c."""
    return math.pi * give


@kernel
def glide(nx: float, ny: float, vx: float, vy: float, vx2: float, vy2: float) -> tuple[float, float]:
    """Mean velocity along the rail, whose normal is (nx, ny), between contact and leaving."""
    along = 0.5 * ((vx + vx2) * ny - (vy + vy2) * nx)
    return along * ny, -along * nx


@kernel
def give_way(into: Impact, rubber: Rubber, dent: Dent) -> Impact:
    """The ball after rubber that gives, from what it was before.

    The rigid impact is taken on the wall of the dent: its normal leans by tan ψ = grip·c·v_t/R to the way the
    ball travels.
    """
    lean = dent.grip * dent.give * into.vt / dent.radius
    c = 1.0 / math.sqrt(1.0 + lean * lean)
    s = c * lean
    kept = rubber.restitution * (1.0 - min(dent.loss * dent.give * into.vn / dent.radius, MOST_LOSS))
    turned = Impact(
        c * into.vt - s * into.vn, c * into.vn + s * into.vt, c * into.wt - s * into.wn, c * into.wn + s * into.wt,
        into.wz,
    )  # fmt: skip
    a = bounce(turned, Rubber(rubber.sin_theta, kept, rubber.mu_w, rubber.mu_s, rubber.steps))
    return Impact(c * a.vt + s * a.vn, c * a.vn - s * a.vt, c * a.wt + s * a.wn, c * a.wn - s * a.wt, a.wz)
