"""Carom points: what players call their way, who is where when, and how the balls lie together afterwards.

Ways, as players talk (common practice, no published source): natural goes round the corners one way; reversed turns
back at one of them; rail first meets a rail before the first ball; across goes from one long rail to the other; round
the table is four rails and more, one way.
"""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.layout.model import Layout
from fandle.core.shot.path import Event, Piece
from fandle.core.shot.play import Shot
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken

RING = (Rail.NEAR, Rail.FOOT, Rail.FAR, Rail.HEAD)  # round the table
STEP_S = 0.004  # a ball at 6 m/s goes 24 mm meanwhile
PARTED_S = 0.12  # after the first contact the two are still together
NEAR_MISS_MM = 60.0  # of air between two balls: nearer than that is told as a kiss that may happen
AROUND = 4  # rails


@dataclass(frozen=True)
class Kiss:
    """How near two balls come to each other before the point: who, when (s after the stroke), the air between them in
    mm; 0 where they touch."""

    balls: tuple[str, str]
    t: float
    gap_mm: float


@dataclass(frozen=True)
class Step:
    """Something that happens on the way to the point: when (s), to which ball, what: a rail's name or a ball's id.

    at: diamonds along that rail, where the ball's centre turns; None of a ball. place: the ball's centre, diamonds.
    """

    t: float
    ball: str
    what: str
    at: float | None
    place: tuple[float, float]


@dataclass(frozen=True)
class CaromPoint:
    """A point. rails: of the cue ball up to the second ball, in order; called: its way as players call it.

    t: when it is made (s); kiss: the nearest that balls come to each other before, None where only two ever move;
    together_mm: the longest distance between any two balls at rest.
    """

    rails: tuple[Rail, ...]
    called: str
    t: float
    kiss: Kiss | None
    steps: tuple[Step, ...]
    together_mm: float


def way_name(rails: Sequence[Rail], before_first: int) -> str:
    """What players call a way. rails: all up to the second ball; before_first: how many of them before the first."""
    if before_first:
        return "rail first"
    turns = [(RING.index(after) - RING.index(before)) % 4 for before, after in itertools.pairwise(rails)]
    if 2 in turns:
        return "across"
    if {1, 3} <= set(turns):
        return "reversed"
    return "round the table" if len(rails) >= AROUND else "natural"


def point_of(layout: Layout, shot: Shot) -> CaromPoint | None:
    """A scoring shot, played; None where the cue ball meets fewer than two balls."""
    met: dict[str, float] = {}
    for ev in shot.events:
        if ev.kind == "ball" and CUE in (ev.ball, ev.other):
            met.setdefault((ev.other if ev.ball == CUE else ev.ball) or "", ev.t)
    if len(met) < 2:
        return None
    (first, start), (second, end) = list(met.items())[:2]
    kiss = min(
        (each for each in (
            _nearest(layout, shot, (CUE, first), start + PARTED_S, end),
            _nearest(layout, shot, (first, second), start + PARTED_S / 4, end),
        ) if each is not None),
        key=lambda each: each.gap_mm, default=None,
    )  # fmt: skip
    steps = _steps(shot.events, first, end)
    met_rails = [(step.t, Rail(step.what)) for step in steps if step.at is not None and step.ball == CUE]
    rails, before = tuple(rail for _, rail in met_rails), sum(t < start for t, _ in met_rails)
    return CaromPoint(rails, way_name(rails, before), end, kiss, steps, _together(layout, shot))


def _steps(events: Sequence[Event], first: str, end: float) -> tuple[Step, ...]:
    """Contacts of the cue ball and the first ball up to the point, in order of time."""
    found = []
    for ev in events:
        if ev.t > end + 1e-9:
            break
        if ev.kind == "rail" and ev.rail is not None and ev.ball in (CUE, first):
            found.append(Step(ev.t, ev.ball, ev.rail.value, ev.rail.along(ev.x, ev.y), (ev.x, ev.y)))
        if ev.kind == "ball" and CUE in (ev.ball, ev.other):
            found.append(Step(ev.t, CUE, (ev.other if ev.ball == CUE else ev.ball) or "", None, (ev.x, ev.y)))
    return tuple(found)


def _nearest(layout: Layout, shot: Shot, pair: tuple[str, str], start: float, end: float) -> Kiss | None:
    """How near two balls come to each other between two times."""
    times = np.arange(start, end - STEP_S, STEP_S)
    if not len(times) or not any(name in shot.paths for name in pair if name != CUE):
        return None
    one, other = (_places(layout, shot, name, times) for name in pair)
    away = np.hypot(one[:, 0] - other[:, 0], one[:, 1] - other[:, 1])
    k = int(np.argmin(away))
    return Kiss(pair, float(times[k]), max(1000 * (float(away[k]) - 2 * layout.table.ball_radius), 0.0))


def _places(layout: Layout, shot: Shot, ball: str, times: NDArray[np.float64]) -> NDArray[np.float64]:
    """Where a ball is at each time, metres, (n, 2)."""
    table, way = layout.table, shot.paths.get(ball, ())
    lies = layout.metres(layout.ball(ball))
    found = np.repeat(np.array(lies)[None], len(times), axis=0)
    for piece in way:
        here = _piece_places(piece, times)
        inside = times >= piece.t
        found[inside] = here[inside] * (table.diamond_x, table.diamond_y)
    return found


def _piece_places(piece: Piece, times: NDArray[np.float64]) -> NDArray[np.float64]:
    """A stretch of path at each time, diamonds, held at its end: exactly one quadratic curve."""
    share = np.clip((times - piece.t) / piece.lasts if piece.lasts > 0.0 else np.ones_like(times), 0.0, 1.0)[:, None]
    a, b, c = (np.array(point) for point in (piece.start, piece.control, piece.end))
    return np.asarray((1 - share) ** 2 * a + 2 * share * (1 - share) * b + share**2 * c)


def _together(layout: Layout, shot: Shot) -> float:
    table = layout.table
    places = [(x * table.diamond_x, y * table.diamond_y) for x, y in (p for p in shot.rest.values() if p is not None)]
    return 1000 * max((math.dist(a, b) for a, b in itertools.combinations(places, 2)), default=0.0)


def kiss_said(kiss: Kiss | None) -> str:
    """A kiss in words, "" where nothing comes near."""
    if kiss is None or kiss.gap_mm > NEAR_MISS_MM:
        return ""
    one, other = (spoken(name) for name in kiss.balls)
    pair = f"{one[0].upper()}{one[1:]} and {other}"
    if kiss.gap_mm <= 0.0:
        return f"{pair} kiss after {kiss.t:.1f} s."
    return f"{pair} pass {kiss.gap_mm:.0f} mm apart after {kiss.t:.1f} s: a kiss is near."


def when_said(point: CaromPoint) -> str:
    """Who is where when, in words."""
    mine = [step for step in point.steps if step.ball == CUE]
    told = [f"{step.t:.1f} s {step.what if step.at is None else f'{step.what} rail'}" for step in mine]
    return f"{', '.join(told)}. The three balls lie within {point.together_mm / 10:.0f} cm of each other."


SAYS = {
    "natural": "Natural: round the corners one way, as the spin runs.",
    "reversed": "Reversed: it turns back at one of the rails.",
    "rail first": "Rail first: a rail before the first ball, which avoids its kiss.",
    "across": "Across: from one rail to the one opposite.",
    "round the table": "Round the table: four rails and more, one way.",
}
