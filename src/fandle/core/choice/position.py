"""The next shot after a pot: what is on then, how likely its best pot is, and how the cue ball comes to its line."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.field import Field
from fandle.core.choice.judge import pocket_number
from fandle.core.choice.leave import Best, best_pot
from fandle.core.choice.opponent import on_for, still_there
from fandle.core.choice.rules import EIGHT
from fandle.core.errors import BadInputError
from fandle.core.layout.games import SNOOKER_COLOURS
from fandle.core.layout.model import Layout
from fandle.core.layout.state import COLOUR, RED
from fandle.core.lines.question import ANY, wanted_mouths
from fandle.core.shot.play import Shot
from fandle.core.table.pocket import mouths
from fandle.core.words.balls import CUE

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True)
class Next:
    """The ball that is to be potted next and its pocket; None: whichever is easiest."""

    ball: str | None = None
    pocket: str | None = None

    @property
    def text(self) -> str:
        """As `next_of` reads it."""
        return f"{self.ball or ANY}:{self.pocket}" if self.pocket else self.ball or ANY


EASIEST = Next()


def next_of(layout: Layout, text: str) -> Next:
    """From BALL or BALL:POCKET, either of them "any". Raises BadInputError."""
    ball, _, pocket = text.partition(":")
    if layout.table.pockets is None:
        raise BadInputError("without pockets there is no next pot: leave it out", "next", code="no_pockets")
    if ball != ANY and ball not in [each.id for each in layout.object_balls()]:
        raise BadInputError(f"the next ball {ball!r} is not on the table: name one that is, or any", "next")
    if pocket:
        wanted_mouths(layout, pocket)
    return Next(None if ball == ANY else ball, None if pocket in ("", ANY) else pocket)


@dataclass(frozen=True)
class Following:
    """The next shot as it is told: the pot had most often after this one, how likely it is then on average.

    along_deg: between the cue ball's last way and the next shot's line, 0 along it, 90 across it; both as meant. ghost,
    goal: from where the cue ball stops, over where, to where (m).
    """

    ball: str
    pocket: str
    p: float
    along_deg: float
    line: tuple[tuple[float, float], ...]


def next_pot(field: Field, pots: Bools, rests: Floats, wanted: Next, target: str, direction_deg: float) -> Best:
    """The best pot of what is on next, draw by draw; none where the shot itself pots nothing."""
    best = Best.none(len(pots))
    rows = np.flatnonzero(pots & ~np.isnan(rests[:, 0, 0]))
    if rows.size:
        after = _respotted(field, rests[rows])
        if wanted.ball is None:
            on = on_next(field, after, target)
        else:
            on = np.zeros(after.shape[:2], np.bool_)
            on[:, field.number(wanted.ball)] = True
        best.put(rows, best_pot(field.layout.table, after, on, direction_deg, pocket_number(wanted.pocket)))
    return best


def on_next(field: Field, rests: Floats, target: str) -> Bools:
    """Which balls are on for who has just potted `target`, (n, m + 1): of those that are still there."""
    ours = field.layout.state.group
    if field.court.rules.order == "snooker" and target.startswith(RED):
        reds = np.array([name.startswith(RED) for name in ("", *field.names)])
        return np.asarray(still_there(rests) & ~reds, np.bool_)
    if field.court.rules.order == "group" and ours is None:  # the ball potted decides it
        ours = "low" if int(target) < int(EIGHT) else "high"
    return on_for(field, rests, ours)


def _respotted(field: Field, rests: Floats) -> Floats:
    """Snooker's colours that go back to their spots: while reds are left, and the one after the last red."""
    if field.court.rules.order != "snooker":
        return rests
    table, names = field.layout.table, ("", *field.names)
    red = np.array([name.startswith(RED) for name in names])
    back = (~np.isnan(rests[:, red, 0])).any(axis=1) | (field.layout.state.on == COLOUR)
    found = rests.copy()
    for k, name in enumerate(names):
        if name in SNOOKER_COLOURS:
            x, y = table.spots[name]
            found[back & np.isnan(rests[:, k, 0]), k] = x * table.diamond_x, y * table.diamond_y
    return found


def following(field: Field, best: Best, pots: Bools, shot: Shot) -> Following | None:
    """The next shot in full, over the draws that pot; None where there is none in any of them."""
    ball, pocket = best.commonest(np.flatnonzero(pots))
    if not ball:
        return None
    mouth = mouths(field.layout.table)[pocket]
    line = _line(field, shot, ball, mouth.middle)
    return Following(field.name(ball), mouth.name, float(best.p[pots].mean()), _along(field, shot, line), line)


def _line(field: Field, shot: Shot, ball: int, goal: tuple[float, float]) -> tuple[tuple[float, float], ...]:
    """The next shot as meant: from the cue ball over the ghost ball to the pocket, m; nothing where one is gone."""
    table, places = field.layout.table, []
    for name in (CUE, field.name(ball)):
        rest = shot.rest[name]
        if rest is None:
            return ()
        places.append((rest[0] * table.diamond_x, rest[1] * table.diamond_y))
    cue, (x, y) = places
    away = math.dist((x, y), goal)
    ghost = (x - 2 * table.ball_radius * (goal[0] - x) / away, y - 2 * table.ball_radius * (goal[1] - y) / away)
    return cue, ghost, goal


def _along(field: Field, shot: Shot, line: tuple[tuple[float, float], ...]) -> float:
    """Between the cue ball's way since its last contact and the next line, degrees; 0 where it hardly moved."""
    table = field.layout.table
    contacts = [ev.t for ev in shot.events if CUE in (ev.ball, ev.other) and ev.kind in ("rail", "ball", "jaw")]
    last = max(contacts, default=0.0)
    way = [piece for piece in shot.paths.get(CUE, ()) if piece.t >= last - 1e-9]
    if not line or not way:
        return 0.0
    (sx, sy), (ex, ey) = way[0].start, way[-1].end
    dx, dy = (ex - sx) * table.diamond_x, (ey - sy) * table.diamond_y
    if math.hypot(dx, dy) < 2 * table.ball_radius:
        return 0.0
    (cx, cy), (gx, gy) = line[:2]
    return math.degrees(abs(math.remainder(math.atan2(dy, dx) - math.atan2(gy - cy, gx - cx), math.pi)))
