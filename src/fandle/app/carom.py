"""Carom: the product's number for a natural, counted from where the cue ball leaves the first ball."""

from dataclasses import replace

from fandle.core.choice.carom import CaromPoint
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count, figure
from fandle.core.systems.catalogue import orders_of
from fandle.core.systems.product import METHOD
from fandle.core.systems.registry import plain_count
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE, spoken


def product(layout: Layout, point: CaromPoint, rails: tuple[Rail, ...]) -> tuple[Count, float] | None:
    """(the product's count from the first ball to the second, where this line meets the first of its rails, diamonds).

    None where the way is not short, long, short, or the second ball lies where the system has no number.
    """
    if rails not in orders_of(METHOD) or not point.steps or point.steps[0].at is not None:
        return None
    first, second = point.steps[0], point.steps[-1].what
    met = next((step.at for step in point.steps if step.at is not None and step.ball == CUE), None)
    others = [ball for ball in layout.balls if ball.id == second]
    try:
        there = replace(layout, balls=(Ball(CUE, *first.place), *others), target=second)
        found = plain_count(METHOD, there, rails)
    except BadInputError:
        return None
    return (found, met) if isinstance(found, Count) and met is not None else None


def product_said(layout: Layout, point: CaromPoint, rails: tuple[Rail, ...]) -> str:
    """The same in words, "" where there is none."""
    found = product(layout, point, rails)
    if found is None:
        return ""
    count, met = found
    own = "" if count.own is None else f", {figure(count.own.rounded)} tenths"
    return (
        f"By the product from {spoken(point.steps[0].what)}: {count.steps[0]}{own} on the {rails[0]} rail, at "
        f"{figure(count.aim.centre)}; this line meets it at {figure(met)}."
    )
