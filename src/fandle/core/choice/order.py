"""In which order lines are told."""

from collections.abc import Iterable
from dataclasses import replace

from fandle.core.choice.field import Field
from fandle.core.choice.search import Ranked
from fandle.core.choice.wish import Wish

AS_GOOD = 0.02  # chances so near to one another are alike: the draws do not tell them apart


def best_first(field: Field, lines: Iterable[Ranked], wish: Wish) -> tuple[Ranked, ...]:
    """By the chance of the goal, then by what comes nearest to it, of a hit, by the estimate; those at the ball chosen
    among several on lead. A ball that lies open is met straight before anything that is no likelier.

    Of the reds any will do: none of them is chosen.
    """
    chosen = field.chosen

    def rank(line: Ranked) -> tuple[bool, float, float, float, float, int]:
        share, merit, hit = wish.share(line.chance), wish.merit(line.chance), line.chance.share("hit").p
        other = chosen is not None and line.key.target != chosen
        return other, -share, -merit, -hit, -line.aim.estimate, len(line.key.rails)

    order = sorted(lines, key=rank)
    if wish.goal == "hit" and order:
        least = wish.share(order[0].chance) - AS_GOOD
        alike = [line for line in order if line.key.open_shot and wish.share(line.chance) >= least]
        plain = next((line for line in alike if chosen in (None, line.key.target)), None)
        order.sort(key=lambda line: line is not plain)
    return tuple(order)


def at_this_stroke(lines: Iterable[Ranked]) -> list[Ranked]:
    """Lines found at the stroke given: their chance is the one there."""
    return [replace(line, here=line.chance) for line in lines]
