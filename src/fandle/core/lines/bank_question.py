"""A question about a bank: which ball goes over which rails into which pocket."""

import math
from dataclasses import dataclass

import numpy as np

from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing
from fandle.core.lines.mirror import natural_direction
from fandle.core.physics import bank as kernels
from fandle.core.physics.collision import VX, VY, WIDTH
from fandle.core.physics.scene import Scene, scene_of
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES, Mouth, Point
from fandle.core.table.rails import Rail

MET_RAD = 1e-12  # how near an edge is told at which a ball is only just met


@dataclass(frozen=True)
class BankQuestion:
    """Which ball goes over which rails into which pocket."""

    layout: Layout
    target: str
    rails: tuple[Rail, ...]
    mouth: Mouth

    @property
    def cue(self) -> Point:
        """The cue ball, m."""
        return self.layout.metres(self.layout.cue)

    @property
    def ball(self) -> Point:
        """The object ball, m."""
        return self.layout.metres(self.layout.ball(self.target))

    def scene(self, table: Table, stroke: Stroke) -> Scene:
        """The question for the kernels, on this or another table, with this or another stroke."""
        order = np.array([rail.number for rail in self.rails], dtype=np.int64)
        return scene_of(
            np.array(self.cue), stroke.array(), table.params(), self.layout.obstacles(),
            self.layout.index(self.target), order, POCKET_NAMES.index(self.mouth.name), self.mouth.middle,
        )  # fmt: skip

    def geometric(self, inset: float) -> float:
        """Direction of the object ball along the unfolded straight line to the mouth's middle."""
        direction = natural_direction(self.layout.table, self.rails, self.ball, self.mouth.middle, inset)
        return 0.0 if direction is None else direction

    def nose(self, direction: float) -> float:
        """Where the object ball's line crosses the first rail's nose, diamonds."""
        return crossing(self.layout.table, self.rails[0], self.ball, direction, 0.0)

    def cue_for(self, direction: float) -> float:
        """Direction of the cue ball that meets the object ball on the line of centres `direction`."""
        reach = 2 * self.layout.table.ball_radius
        (x, y), (bx, by) = self.cue, self.ball
        return math.atan2(by - reach * math.sin(direction) - y, bx - reach * math.cos(direction) - x)


def object_direction(theta: float, scene: Scene) -> float:
    """Direction in which the object ball leaves; NaN where it is not met."""
    a, b = np.empty(WIDTH), np.empty(WIDTH)
    if not kernels.contact(theta, scene, a, b):
        return math.nan
    return math.atan2(b[VY], b[VX])


def last_direction(theta: float, edge: float, scene: Scene) -> float:
    """Direction in which the object ball leaves at the edge of a window, rad.

    theta: a cue direction at which the ball is met. Where the thinnest cut at the edge passes it by a hair, the last
    direction at which it is met, to 1e-12 rad.
    """
    found = object_direction(edge, scene)
    if not math.isnan(found):
        return found
    met, missed = theta, edge
    while abs(missed - met) > MET_RAD:
        middle = 0.5 * (met + missed)
        if middle in (met, missed):
            break
        if math.isnan(object_direction(middle, scene)):
            missed = middle
        else:
            met = middle
    return object_direction(met, scene)
