"""One ball for callers from Python: arrays and plain numbers only, since a NamedTuple costs them some microseconds."""

from fandle.core.physics.collision import VX, VY, WX, WY, WZ, X, Y
from fandle.core.physics.engine import Until, run
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.state import Motion, Tape
from fandle.core.physics.strike import strike_by


@kernel
def strike_into(row: Floats, direction: float, stroke: Floats) -> None:
    """Write the motion just after the tip into a ball's row."""
    row[VX], row[VY], row[WX], row[WY], row[WZ] = strike_by(direction, stroke)


@kernel
def roll(
    start: Floats, p: Floats, balls: Floats, solid_leg: int, jaws: int, most_rails: int, events: Floats, pieces: Floats
) -> tuple[int, int, int]:
    """`engine.run` of the ball that `start` holds: x, y, vx, vy, wx, wy, wz."""
    ball = Motion(start[X], start[Y], start[VX], start[VY], start[WX], start[WY], start[WZ])
    return run(ball, p, balls, Until(solid_leg, jaws, most_rails), Tape(events, pieces))
