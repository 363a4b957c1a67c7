"""Changes to a layout that need the rules: where a new ball may lie."""

from dataclasses import replace

from fandle.core.errors import BadInputError
from fandle.core.layout import IDS, Ball, Layout

POOL_ORDER = [str(n) for n in range(1, 16)]
SPACING = 0.5  # diamonds between the places tried


def next_id(layout: Layout) -> str:
    """The lowest id that is not on the table yet."""
    used = {b.id for b in layout.balls}
    known = IDS.get(layout.game)
    order = POOL_ORDER if known is None else sorted(known)
    for name in order:
        if name not in used:
            return name
    raise BadInputError("every ball of this game is on the table already: take one off first", "balls")


def add_ball(layout: Layout, name: str | None = None) -> Layout:
    """The layout with one more ball, on the first free place from the foot spot outwards."""
    new = name or next_id(layout)
    places = [(x * SPACING, y * SPACING) for x in range(1, 16) for y in range(1, 8)]
    places.sort(key=lambda p: (p[0] - 6.0) ** 2 + (p[1] - 2.0) ** 2)
    for x, y in places:
        try:
            return replace(layout, balls=(*layout.balls, Ball(new, x, y)))
        except BadInputError as error:
            if "overlap" not in str(error):
                raise
    raise BadInputError("no free place for another ball: take one off first", "balls")
