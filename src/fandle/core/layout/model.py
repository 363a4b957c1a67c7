"""A layout: balls on a table, checked. Positions are centres, in diamonds."""

import math
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import GAMES, id_hint, ids_of
from fandle.core.layout.place import check_place, lies
from fandle.core.layout.state import OPEN, State, check_state
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.words.balls import CUE, spoken

MOST_BALLS = 22
PASSES = 100  # to part balls that are written into each other
OVERLAP_M = 1e-8  # m: what may be left of an overlap after that
TOUCHING_M = 1e-15  # m: an overlap this small is rounding


@dataclass(frozen=True)
class Layout:
    """Balls on a table. Raises BadInputError, one sentence, where the layout cannot be."""

    table: Table
    game: str
    balls: tuple[Ball, ...]
    target: str | None = None
    state: State = OPEN

    def __post_init__(self) -> None:
        if self.game not in GAMES:
            raise BadInputError(f"unknown game {self.game!r}: use one of {', '.join(GAMES)}", "game", code="unknown")
        check_state(self.game, self.state)
        _check_ids(self)
        for ball in self.balls:
            check_place(self.table, ball)
        _check_overlaps(self)
        _ = self.places  # refuses balls that have no room

    @property
    def cue(self) -> Ball:
        """The cue ball."""
        return self.ball(CUE)

    def ball(self, name: str) -> Ball:
        """The ball called `name`."""
        for ball in self.balls:
            if ball.id == name:
                return ball
        raise BadInputError(
            f"no ball {name!r} in the layout: it has {', '.join(b.id for b in self.balls)}", "target", code="unknown"
        )

    @cached_property
    def places(self) -> dict[str, Point]:
        """Centres in metres by id: off the noses, short of the mouths, and no two balls into each other.

        Balls written a hair into one another are moved apart, each half the way.
        """
        table, r = self.table, self.table.ball_radius
        balls = sorted(self.balls, key=lambda b: b.id)  # the order of the file must not show in the sums
        places = np.array([lies(table, ball) for ball in balls])
        low, high = np.array([r, r]), np.array([table.length - r, table.width - r])
        inside = np.all((places >= low) & (places <= high), axis=1)
        for _ in range(PASSES):
            apart = places[:, None, :] - places[None, :, :]
            gap = np.hypot(apart[..., 0], apart[..., 1])
            np.fill_diagonal(gap, np.inf)
            over = np.clip(2 * r - gap, 0.0, None)
            if over.max(initial=0.0) < TOUCHING_M:
                break
            places += (apart * (0.5 * over / gap)[..., None]).sum(axis=1)
            places[inside] = np.clip(places[inside], low, high)
        else:
            if over.max() > OVERLAP_M:  # however they are moved apart by a hair
                a, b = (balls[i].id for i in np.unravel_index(np.argmax(over), over.shape))
                raise BadInputError(
                    f"{spoken(a)} and {spoken(b)} have no room: move one of them away",
                    "balls",
                    code="no_room",
                    balls=(a, b),
                )
        return {ball.id: (x, y) for ball, (x, y) in zip(balls, places.tolist(), strict=True)}

    def metres(self, ball: Ball) -> Point:
        """A ball's centre in metres."""
        return self.places[ball.id]

    def touch(self, one: str, other: str) -> bool:
        """Are two balls frozen to each other, as near as four decimals of a diamond tell?"""
        gap = math.dist(self.places[one], self.places[other]) - 2 * self.table.ball_radius
        return gap <= self.table.slack

    def settled(self) -> "Layout":
        """The layout with every ball where it really lies: off the noses and off its neighbours."""
        dx, dy = self.table.diamond_x, self.table.diamond_y
        moved = [
            ball if math.dist((x, y), (ball.x * dx, ball.y * dy)) < TOUCHING_M else replace(ball, x=x / dx, y=y / dy)
            for ball in self.balls
            for x, y in [self.metres(ball)]
        ]
        kept = all(a is b for a, b in zip(moved, self.balls, strict=True))
        return self if kept else self.moved(tuple(moved))

    def moved(self, balls: tuple[Ball, ...]) -> "Layout":
        """The same balls at places known to be right, as a mirror of this layout's are: nothing is checked again."""
        layout = object.__new__(Layout)
        for name in ("table", "game", "target", "state"):
            object.__setattr__(layout, name, getattr(self, name))
        object.__setattr__(layout, "balls", balls)
        return layout

    def object_balls(self) -> tuple[Ball, ...]:
        """All balls but the cue ball, in the layout's order."""
        return tuple(b for b in self.balls if b.id != CUE)

    def obstacles(self) -> NDArray[np.float64]:
        """Centres of the object balls in metres, (n, 2)."""
        centres = [self.metres(b) for b in self.object_balls()]
        return np.array(centres, dtype=np.float64).reshape(-1, 2)

    def index(self, name: str) -> int:
        """Place of an object ball in `obstacles`."""
        return [b.id for b in self.object_balls()].index(name)

    def require_target(self, name: str | None = None) -> Ball:
        """The ball to be hit: `name`, else the layout's own target."""
        wanted = name or self.target
        if wanted is None:
            raise BadInputError('no target: name the ball to be hit with "target"', "target", code="no_target")
        if wanted == CUE:
            raise BadInputError("target 'cue': choose an object ball to be hit", "target", code="no_target")
        return self.ball(wanted)


def _check_ids(layout: Layout) -> None:
    known = ids_of(layout.game)
    seen: set[str] = set()
    for ball in layout.balls:
        if ball.id not in known:
            raise BadInputError(
                f"unknown ball {ball.id!r} in {layout.game}: use {id_hint(layout.game)}", "balls", code="unknown"
            )
        if ball.id in seen:
            raise BadInputError(
                f"two balls are called {ball.id!r}: give each its own id", "balls", code="twice", balls=(ball.id,)
            )
        seen.add(ball.id)
    if CUE not in seen:
        raise BadInputError("no cue ball: add a ball with the id 'cue'", "balls", code="no_cue_ball")
    if len(layout.balls) > MOST_BALLS:
        raise BadInputError(
            f"{len(layout.balls)} balls: at most {MOST_BALLS} can lie on a table", "balls", code="too_many"
        )
    if layout.target is not None:
        layout.require_target()


def _check_overlaps(layout: Layout) -> None:
    table = layout.table
    for i, a in enumerate(layout.balls):
        for b in layout.balls[i + 1 :]:
            gap = math.hypot((a.x - b.x) * table.diamond_x, (a.y - b.y) * table.diamond_y)
            if gap < 2 * table.ball_radius - table.slack:
                over = (2 * table.ball_radius - gap) * 1000
                raise BadInputError(
                    f"balls {a.id} and {b.id} overlap by {over:.1f} mm: move one of them away",
                    "balls",
                    code="overlap",
                    balls=(a.id, b.id),
                )
