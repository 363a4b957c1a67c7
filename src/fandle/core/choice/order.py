"""In which order lines are told."""

from collections.abc import Iterable, Sequence
from dataclasses import replace

from fandle.core.choice.field import Field
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.stretch import KIND
from fandle.core.choice.wish import Wish

AS_GOOD = 0.02  # chances so near to one another are alike: the draws do not tell them apart
NOT_PLAIN = (KIND, "point")  # a push is a stroke of its own, and a point is no plainer for fewer rails
OPEN_AS_GOOD = 0.03  # and so near the straight shot at an open ball is to the likeliest way


def best_first(field: Field, lines: Iterable[Ranked], wish: Wish) -> tuple[Ranked, ...]:
    """By the chance of the goal, then by what comes nearest to it, of a hit, by the estimate; those at the ball chosen
    among several on lead. Where none is likelier the plainest leads: the straight shot at an open ball, else that over
    the fewest rails.

    Of the reds any will do: none of them is chosen.
    """
    chosen = field.chosen

    def rank(line: Ranked) -> tuple[bool, float, float, float, float, int]:
        share, merit, hit = wish.share(line.chance), wish.merit(line.chance), line.chance.share("hit").p
        other = chosen is not None and line.key.target != chosen
        return other, -share, -merit, -hit, -line.aim.estimate, len(line.key.rails)

    order = sorted(lines, key=rank)
    if wish.goal == "hit" and order:
        plain = _plainest(order, chosen, wish)
        order.sort(key=lambda line: line is not plain)
    return tuple(order)


def _plainest(order: Sequence[Ranked], chosen: str | None, wish: Wish) -> Ranked | None:
    """Of the lines that are as good as the best one: the straight shot at an open ball, else that over fewest rails."""
    best = wish.share(order[0].chance)

    def as_good(line: Ranked) -> bool:
        return wish.share(line.chance) >= best - (OPEN_AS_GOOD if line.key.open_shot else AS_GOOD)

    alike = [
        line for line in order if chosen in (None, line.key.target) and line.key.kind not in NOT_PLAIN and as_good(line)
    ]
    return min(alike, key=lambda line: (not line.key.open_shot, len(line.key.rails)), default=None)


def at_this_stroke(lines: Iterable[Ranked]) -> list[Ranked]:
    """Lines found at the stroke given: their chance is the one there."""
    return [replace(line, here=line.chance) for line in lines]
