"""How much room a pocket gives a ball, by the direction it comes from: played once a table, jaws and all."""

import math
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fandle.core.constants import GRAVITY
from fandle.core.physics.batch import Strokes, play_now
from fandle.core.physics.pots import Room
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES, mouths
from fandle.core.table.speeds import default_speed

Floats = NDArray[np.float64]
STEPS, ACROSS = 35, 49  # directions from −85° to 85° off the pocket's axis; lines across the mouth for each
STEEPEST = math.radians(85.0)
SPEEDS = (0.6, 1.0, 1.5, 2.2, 3.2)  # m/s of the ball at the mouth
HEIGHT = 0.4  # where it is struck, so that it rolls at once
MIRRORED = ("foot-near", "head-far")  # the corners that a mirror makes of the first one, a turn makes the others
RUN_M = 0.5  # how far before the mouth it is let go


@lru_cache(maxsize=64)
def room_of(table: Table) -> Room:
    """What drops into every pocket, in their order; none on a table without. The stroke is a medium one."""
    holes = mouths(table)
    played = {number: np.array([_room(table, number, speed) for speed in SPEEDS]) for number in (0, 1) if holes}
    flipped = {number: -lines[:, ::-1, ::-1] for number, lines in played.items()}  # as in a mirror
    every = [(flipped if name in MIRRORED else played)[name.startswith("side")] for name in POCKET_NAMES[: len(holes)]]
    lines = np.array(every).reshape(len(holes), len(SPEEDS), 2, STEPS).swapaxes(0, 1)
    return Room(
        np.array([mouth.middle for mouth in holes]).reshape(-1, 2),
        np.array([mouth.axis for mouth in holes]).reshape(-1, 2),
        np.array(SPEEDS), lines[:, :, 0].copy(), lines[:, :, 1].copy(), STEEPEST, table.length, table.width,
        table.ball_radius, default_speed(table), table.cloth_sliding * GRAVITY, table.cloth_rolling * GRAVITY,
        0.5 * (1.0 + table.ball_restitution), table.cushion_restitution,
    )  # fmt: skip


def _room(table: Table, number: int, speed: float) -> tuple[Floats, Floats]:
    """By direction off the axis: the lowest and the highest line that drops, m left of the middle."""
    mouth, r = mouths(table)[number], table.ball_radius
    wide = math.dist(mouth.first, mouth.second)
    turns, across = np.linspace(-STEEPEST, STEEPEST, STEPS), np.linspace(-0.75 * wide, 0.75 * wide, ACROSS)
    middle, heading = np.array(mouth.middle), math.atan2(mouth.axis[1], mouth.axis[0])
    turn, off = (each.reshape(-1) for each in np.meshgrid(turns, across, indexing="ij"))
    ux, uy = np.cos(heading + turn), np.sin(heading + turn)
    start = np.stack([middle[0] - RUN_M * ux - off * uy, middle[1] - RUN_M * uy + off * ux], axis=1)
    low, high = np.array([r, r]), np.array([table.length - r, table.width - r])
    inside = np.all((start >= low - 1e-9) & (start <= high + 1e-9), axis=1)
    rows = Strokes(
        heading + turn,
        np.tile(Stroke(speed, up=HEIGHT).array(), (len(turn), 1)),
        np.clip(start, low, high),
        np.zeros(len(turn), np.int64),
    )
    out = play_now(rows, table.params(), np.empty((0, 2)))
    drops = (inside & (out.pockets[:, 0] == number) & (out.before_second <= 1)).reshape(STEPS, ACROSS)
    half = 0.5 * (across[1] - across[0])
    some = drops.any(axis=1)
    # a direction from which a ball cannot come from the bed, or which drops nowhere, has no room
    first = np.where(some, across[drops.argmax(axis=1)] - half, 0.0)
    last = np.where(some, across[ACROSS - 1 - drops[:, ::-1].argmax(axis=1)] + half, 0.0)
    return first, last
