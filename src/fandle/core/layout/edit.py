"""Changes to a layout that need the rules: where a new ball may lie."""

from dataclasses import dataclass, replace

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.fitted import fitted
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.layout.rack import on_spot, racked, scattered
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game
from fandle.core.words.balls import CUE

SPACING = 0.5  # diamonds between the places tried


def absent(layout: Layout) -> list[str]:
    """Ids of the game's balls that are not on the table, in the order in which they are added."""
    used = {b.id for b in layout.balls}
    return [name for name in id_order(layout.game) if name not in used]


def next_id(layout: Layout) -> str:
    """The lowest id that is not on the table yet."""
    left = absent(layout)
    if not left:
        raise BadInputError(
            "every ball of this game is on the table already: take one off first", "balls", code="taken"
        )
    return left[0]


def add_ball(layout: Layout, name: str | None = None) -> Layout:
    """The layout with one more ball, on the first free place from the foot spot outwards."""
    new = name or next_id(layout)
    places = [(x * SPACING, y * SPACING) for x in range(1, 16) for y in range(1, 8)]
    places.sort(key=lambda p: (p[0] - 6.0) ** 2 + (p[1] - 2.0) ** 2)
    for x, y in places:
        try:
            return replace(layout, balls=(*layout.balls, Ball(new, x, y)))
        except BadInputError as error:
            if error.code != "overlap":
                raise
    raise BadInputError("no free place for another ball: take one off first", "balls", code="no_room")


def moved_to(layout: Layout, table: Table) -> Layout:
    """The same places, counted along the rails, on another table; its usual game where the balls are others.

    A ball frozen to a rail or to another ball stays frozen; balls that would overlap are moved just clear of each
    other. The balls keep their order and take the new game's ids; more than that game has are left off.
    """
    game = usual_game(table)
    balls = fitted(layout, table)
    if game == usual_game(layout.table):
        return Layout(table, layout.game, balls, layout.target, layout.state)
    order = id_order(game)
    names = {CUE: CUE, **dict(zip((b.id for b in layout.object_balls()), order, strict=False))}
    kept = tuple(Ball(names[b.id], b.x, b.y) for b in balls if b.id in names)
    return Layout(table, game, kept, names.get(layout.target or ""))


def flip_left_right(layout: Layout) -> Layout:
    """Mirror across the table: near and far change places, so side changes its hand."""
    return replace(layout, balls=tuple(replace(b, y=DIAMONDS_SHORT - b.y) for b in layout.balls))


def flip_end_to_end(layout: Layout) -> Layout:
    """Mirror along the table: head and foot change places, so side changes its hand."""
    return replace(layout, balls=tuple(replace(b, x=DIAMONDS_LONG - b.x) for b in layout.balls))


def flipped_rail(rail: Rail, *, left_right: bool) -> Rail:
    """The rail that stands where `rail` stood, after a flip."""
    pairs = {Rail.NEAR: Rail.FAR, Rail.FAR: Rail.NEAR} if left_right else {Rail.HEAD: Rail.FOOT, Rail.FOOT: Rail.HEAD}
    return pairs.get(rail, rail)


def swap_cue_and_target(layout: Layout) -> Layout:
    """Cue ball and target change places: the same line, shot from its other end."""
    target, cue = layout.require_target(), layout.cue
    places = {CUE: (target.x, target.y), target.id: (cue.x, cue.y)}
    balls = tuple(Ball(b.id, *places[b.id]) if b.id in places else b for b in layout.balls)
    return replace(layout, balls=balls)


def clear(layout: Layout) -> Layout:
    """Only the cue ball and the target stay on the table."""
    return replace(layout, balls=tuple(b for b in layout.balls if b.id in (CUE, layout.target)))


@dataclass(frozen=True)
class Turning:
    """What of a question turns with a flip: the rails, the side, the thickness asked."""

    rails: tuple[Rail, ...] | None
    side: float = 0.0
    hit: float = 0.0

    def flipped(self, *, left_right: bool) -> "Turning":
        """The same question on the mirrored table: right is left there."""
        rails = None if self.rails is None else tuple(flipped_rail(rail, left_right=left_right) for rail in self.rails)
        return Turning(rails, -self.side, -self.hit)


def edited(layout: Layout, how: str, turning: Turning, ball: str = CUE, seed: int = 0) -> tuple[Layout, Turning]:
    """A layout changed as a whole, with its rails, side and thickness as they then have to be.

    how: "left-right", "end-to-end" (a flip turns them with it), "swap", "clear", "rack", "scatter" (by `seed`) or
    "spot" (of `ball`).
    """
    if how == "rack":
        return racked(layout), replace(turning, rails=None)
    if how == "scatter":
        return scattered(layout, seed), replace(turning, rails=None)
    if how == "spot":
        return on_spot(layout, ball), turning
    if how == "swap":
        return swap_cue_and_target(layout), turning
    if how == "clear":
        return clear(layout), turning
    across = how == "left-right"
    return flip_left_right(layout) if across else flip_end_to_end(layout), turning.flipped(left_right=across)
