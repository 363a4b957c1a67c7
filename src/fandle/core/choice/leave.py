"""What balls that lie somewhere leave to a shooter: the best pot in closed form, and whether a ball is seen at all.

A pot is taken as straight: the cue ball to the ghost ball, the object ball to the pocket, both corridors clear.
"""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.pocket_room import STEEPEST, Room, rooms
from fandle.core.table.model import Table
from fandle.core.table.pocket import Mouth, mouths

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]
HEAVIEST_CUT = math.radians(80.0)  # a thinner cut is nobody's
# a cut that turns by φ is thrown back by a seventh of it where the balls grip one another, and by less the thinner it
# is (impulse of two rolling spheres); the width is fitted to played draws, see tests/core/choice/test_leave.py
THROWN, THROWN_RAD = 1.0 / 7.0, 1.2
LOOKS = 17  # lines from edge to edge of a ball along which it may be seen
GONE_M = 1e3  # where a ball that is down is put, out of everybody's way


class Best(NamedTuple):
    """Of n draws: the chance of the best pot, and of which ball (number, 0 for none) into which pocket."""

    p: Floats
    ball: Ints
    pocket: Ints


def best_pot(table: Table, rests: Floats, on: Bools, direction_deg: float) -> Best:
    """The best straight pot from where the balls lie.

    rests: (n, m + 1, 2) m, the cue ball first, NaN where down; on: (n, m + 1) which of them may be played.
    direction_deg: the standard deviation σ of the cue's line. See `_chances`.
    """
    n, r = rests.shape[0], table.ball_radius
    places = np.where(np.isnan(rests), GONE_M, rests)
    cue, balls = places[:, 0], places[:, 1:]
    best = Best(np.zeros(n), np.zeros(n, np.int64), np.full(n, -1))
    for number, (mouth, room) in enumerate(zip(mouths(table), rooms(table), strict=True)):
        goal, unit, away, half = _towards(balls, mouth, room)
        ghost = balls - 2.0 * r * unit
        chance = _chances(cue, ghost, unit, half / away, math.radians(direction_deg), r)
        on_bed = (ghost >= r) & (ghost <= np.array([table.length, table.width]) - r)
        chance = np.where(on[:, 1:] & on_bed.all(axis=-1), chance, 0.0)
        chance[chance <= best.p[:, None]] = 0.0
        rows, cols = np.nonzero(chance)
        clear = _clear(balls[rows, cols], goal[rows, cols], balls[rows], cols, r)
        clear &= _clear(cue[rows], ghost[rows, cols], balls[rows], cols, r)
        chance[rows[~clear], cols[~clear]] = 0.0
        top = chance.argmax(axis=1)
        value = chance[np.arange(n), top]
        better = value > best.p
        best = Best(*(np.where(better, new, old) for new, old in zip((value, top + 1, number), best, strict=True)))
    return best


def _towards(balls: Floats, mouth: Mouth, room: Room) -> tuple[Floats, Floats, Floats, Floats]:
    """(where each ball is sent, the unit of its way there, how far that is, half the room it has) for one pocket."""
    axis, middle = np.array(mouth.axis), np.array(mouth.middle)
    goal = np.broadcast_to(middle, balls.shape)
    unit, away, half = balls, balls[..., 0], balls[..., 0]
    for _ in range(2):  # towards the middle of what drops from there
        way = goal - balls
        away = np.maximum(np.hypot(way[..., 0], way[..., 1]), 1e-9)
        unit = way / away[..., None]
        turn = np.arctan2(axis[0] * unit[..., 1] - axis[1] * unit[..., 0], (unit * axis).sum(axis=-1))
        low, high = np.interp(turn, room.turn, room.low), np.interp(turn, room.turn, room.high)
        half = np.where(np.abs(turn) <= STEEPEST, 0.5 * (high - low), 0.0)
        left = np.stack([-unit[..., 1], unit[..., 0]], axis=-1)
        goal = middle + 0.5 * (low + high)[..., None] * left
    return goal, unit, away, half


def _chances(cue: Floats, ghost: Floats, unit: Floats, free: Floats, sigma: float, r: float) -> Floats:
    """The chance of each straight pot whose object ball may be off by `free` (rad) either way.

    With the cut φ, thrown back as it is, the cue ball may pass 2R·sin(φ ± free) off the object ball's centre, at the
    distance D = L + 2R·cos φ, L being its way to the ghost ball: the normal chance of −2R(sin φ − sin(φ − free))/D …
    2R(sin(φ + free) − sin φ)/D.
    """
    line = ghost - cue[:, None]
    reach = np.maximum(np.hypot(line[..., 0], line[..., 1]), 1e-9)
    cut = ((line * unit).sum(axis=-1)) / reach
    angle = np.arccos(np.clip(cut, -1.0, 1.0))
    turned = np.minimum(free / (1.0 - THROWN / np.cosh(angle / THROWN_RAD) ** 2), 0.5 * math.pi)
    most = np.sin(np.minimum(angle + turned, 0.5 * math.pi)) - np.sin(angle)
    least = np.sin(angle) - np.sin(angle - turned)
    scale = 2.0 * r / ((reach + 2.0 * r * cut) * sigma * math.sqrt(2.0))
    chance = 0.5 * (_erf(scale * most) + _erf(scale * least))
    return np.where((free > 0.0) & (cut > math.cos(HEAVIEST_CUT)), chance, 0.0)


def _clear(start: Floats, end: Floats, balls: Floats, own: Ints, r: float) -> Bools:
    """Does a ball rolled from start to end, (k, 2), pass every other one, (k, m, 2), but its own?"""
    way = end - start
    square = np.maximum((way * way).sum(axis=1), 1e-18)
    off = balls - start[:, None]
    along = np.clip((off * way[:, None]).sum(axis=-1) / square[:, None], 0.0, 1.0)
    apart = off - along[..., None] * way[:, None]
    near = (apart * apart).sum(axis=-1) < (2.0 * r) ** 2
    near[np.arange(len(own)), own] = False
    return np.asarray(~near.any(axis=1), np.bool_)


def _erf(x: Floats) -> Floats:
    from scipy.special import erf  # only who asks what is left waits for it

    return np.asarray(erf(x), np.float64)


def sees(table: Table, rests: Floats, on: Bools) -> Bools:
    """In which draws the cue ball has a straight way to some part of a ball that may be played.

    Looked at along lines from edge to edge of each of them: one that another ball meets first sees nothing of it.
    """
    n, m = rests.shape[0], rests.shape[1] - 1
    r, places = table.ball_radius, np.where(np.isnan(rests), GONE_M, rests)
    off = places[:, 1:] - places[:, :1]
    away = np.maximum(np.hypot(off[..., 0], off[..., 1]), 2.0 * r)
    middle, half = np.arctan2(off[..., 1], off[..., 0]), np.arcsin(np.minimum(2.0 * r / away, 1.0))
    looks = middle[..., None] + half[..., None] * np.linspace(-0.98, 0.98, LOOKS)
    ux, uy = np.cos(looks), np.sin(looks)
    along = off[:, None, None, :, 0] * ux[..., None] + off[:, None, None, :, 1] * uy[..., None]
    aside = np.abs(off[:, None, None, :, 0] * uy[..., None] - off[:, None, None, :, 1] * ux[..., None])
    met = along - np.sqrt(np.maximum((2.0 * r) ** 2 - aside**2, 0.0))  # how far to the contact with each ball
    met = np.where((aside < 2.0 * r) & (along > 0.0), met, np.inf)
    own = met[:, np.arange(m), :, np.arange(m)].transpose(1, 0, 2)
    seen = (own <= met.min(axis=-1) + 1e-9) & np.isfinite(own) & on[:, 1:, None]
    return np.asarray(seen.reshape(n, -1).any(axis=1), np.bool_)
