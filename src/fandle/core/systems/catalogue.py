"""The systems by their M-number: their modules, titles and orders of rails, a layout as one sees it."""

import itertools
from functools import lru_cache
from types import ModuleType

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.systems import (
    add_and_halve,
    angles_backwards,
    corner_numbers,
    doubling,
    equal_angles,
    equal_count,
    equal_count_further,
    from_object_ball,
    ghost_ball,
    half_shift,
    halving,
    midpoint,
    natural_escape,
    point_beyond,
    product,
    projected_angles,
    reference_lines,
    round_the_table,
    tens,
)
from fandle.core.systems.base import View
from fandle.core.systems.symmetry import Turn, turn_to
from fandle.core.table.rails import Rail

_IN_ORDER = (
    equal_angles, doubling, halving, tens, add_and_halve, projected_angles, half_shift, ghost_ball, from_object_ball,
    midpoint, equal_count, angles_backwards, natural_escape, corner_numbers, point_beyond, reference_lines,
    equal_count_further, product, round_the_table,
)  # fmt: skip
METHODS: dict[str, ModuleType] = {module.METHOD: module for module in _IN_ORDER}
PAGES: dict[str, str] = {name: module.__name__.rpartition(".")[2] for name, module in METHODS.items()}  # by file name
BY_EYE = frozenset(  # without a sum: a mirror or a played line, told in contact marks
    module.METHOD for module in (equal_angles, from_object_ball, angles_backwards, natural_escape, round_the_table)
)
TITLES: dict[str, str] = {name: module.TITLE for name, module in METHODS.items()}
TURNS = [Turn(ends, sides) for ends, sides in itertools.product((False, True), repeat=2)]


@lru_cache
def orders_of(method: str) -> tuple[tuple[Rail, ...], ...]:
    """Every order of rails a method counts over."""
    found = {tuple(turn.rail(rail) for rail in order): None for order in METHODS[method].ORDERS for turn in TURNS}
    return tuple(found)


def systems_over(rails: tuple[Rail, ...], kind: str = "kick") -> list[str]:
    """The methods that count a kick, or a bank, over this order of rails."""
    if kind == "bank":
        return [halving.METHOD] if len(rails) == 1 else []
    return [name for name in METHODS if rails in orders_of(name)]


def known(method: str) -> str:
    """A method's name as it is written; BadInputError for one nobody knows."""
    if method.upper() not in METHODS:
        raise BadInputError(f"unknown method {method!r}: use one of {', '.join(METHODS)}", "method", code="unknown")
    return method.upper()


def facing(name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball) -> tuple[tuple[Rail, ...], Turn] | None:
    """(the method's own order, the turn that brings these rails on to it); None where it does not count over them."""
    for wanted in METHODS[name].ORDERS:
        turn = turn_to(rails, wanted, layout, (ball.x, ball.y))
        if turn is not None:
            return wanted, turn
    return None


def view_of(name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball, cue: Cue = IDEAL) -> View | None:
    """The layout turned to the method; None where it does not count over these rails.

    ball: the one that is counted to, or the ghost ball in its stead, under its name.
    """
    found = facing(name, layout, rails, ball)
    if found is None:
        return None
    wanted, turn = found
    there = turn.layout(layout)
    if ball == layout.ball(ball.id):
        return View(there, wanted, there.ball(ball.id), turn, cue)
    return View(there, wanted, Ball(ball.id, *turn.point(ball.x, ball.y)), turn, cue, ghost=True)
