"""Ball on ball: restitution along the line of centres, friction across it.

Friction falls with the sliding speed, μ(v) = a + b·exp(−c·v), and stops when the slip stops:
throw and spin transfer come out of that and of nothing else. Balls are alike but for the mass of
the cue ball; w = R·ω. Across the line of centres the balls are free to slip along the bed and up
and down; the little hop that the vertical part gives is dropped, the bed takes it.
Fit of μ(v): Alciatore to Marlow's data (from memory). Stop at the end of slip: Mathavan,
Jackson & Parkin, Sports Engineering 17 (2014) 227-237, without their friction at the cloth.
"""

import math

from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.slots import MU_FALL, MU_FLOOR, MU_RISE

# columns of a ball's state here: x, y, vx, vy, wx, wy, wz
X, Y, VX, VY, WX, WY, WZ = range(7)
WIDTH = 7


@kernel
def friction_impulse(slip: float, push: float, floor: float, rise: float, fall: float, ease: float = 7.0) -> float:
    """Friction impulse across one impact of normal impulse `push`, both per unit mass of an object ball.

    Each unit of it takes `ease` units off the slip (of two alike balls 2 by their speeds, 5 by their
    spins), so d slip/d push = −ease·μ(slip), which integrates: with E = exp(c·slip),
    a·E + b falls as exp(−ease·a·c·push). Never more than slip/ease, where the slip is nought.
    """
    if slip <= 0.0:
        return 0.0
    if fall < 1e-9:
        return min((floor + rise) * push, slip / ease)
    rate = ease * floor * fall * push
    shrinks = math.expm1(-rate) / floor if rate > 1e-12 else -ease * fall * push
    left = (floor + rise * math.exp(-fall * slip)) * shrinks  # E after over E before, less 1
    if left <= -1.0:
        return slip / ease
    return min(-math.log1p(left) / fall, slip) / ease


@kernel
def slip_between(a: Floats, b: Floats, nx: float, ny: float) -> tuple[float, float]:
    """Slip of ball a on ball b where they touch, (along n turned left, upwards); n from a to b."""
    along = -(a[VX] - b[VX]) * ny + (a[VY] - b[VY]) * nx + a[WZ] + b[WZ]
    upwards = (a[WX] + b[WX]) * ny - (a[WY] + b[WY]) * nx
    return along, upwards


@kernel
def push_apart(
    a: Floats, b: Floats, nx: float, ny: float, push: float, along: float, upwards: float, light: float
) -> None:
    """Apply one impulse: `push` parts the balls along n, (along, upwards) is the friction on a.

    light: mass of an object ball, which b is, over that of a.
    """
    a[VX] += light * (-push * nx - along * ny)
    a[VY] += light * (-push * ny + along * nx)
    b[VX] -= -push * nx - along * ny
    b[VY] -= -push * ny + along * nx
    twist = 2.5 * along
    a[WZ] += light * twist
    b[WZ] += twist
    roll = 2.5 * upwards
    a[WX] += light * roll * ny
    a[WY] -= light * roll * nx
    b[WX] += roll * ny
    b[WY] -= roll * nx


@kernel
def closing(a: Floats, b: Floats, nx: float, ny: float) -> float:
    """Speed at which a and b near each other along n, from a to b."""
    return (a[VX] - b[VX]) * nx + (a[VY] - b[VY]) * ny


@kernel
def collide(a: Floats, b: Floats, restitution: float, light: float, p: Floats) -> None:
    """Two balls that touch and close, nobody else near: their state after, in place.

    light: mass of an object ball, which b is, over that of a.
    """
    nx, ny = b[X] - a[X], b[Y] - a[Y]
    size = math.sqrt(nx * nx + ny * ny)
    nx, ny = nx / size, ny / size
    push = (1.0 + restitution) * closing(a, b, nx, ny) / (1.0 + light)
    along, upwards = slip_between(a, b, nx, ny)
    slip = math.sqrt(along * along + upwards * upwards)
    drag = friction_impulse(slip, push, p[MU_FLOOR], p[MU_RISE], p[MU_FALL], 3.5 * (1.0 + light))
    share = -drag / slip if slip > 0.0 else 0.0
    push_apart(a, b, nx, ny, push, share * along, share * upwards, light)
