"""The four rails, and what "along" and "off" mean at each."""

import itertools
from enum import StrEnum
from functools import cached_property
from typing import NamedTuple

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.errors import BadInputError

STRAIGHT = "straight"  # the name of no rail at all
NO_RAIL = "none"  # the same


class Rail(StrEnum):
    """A rail by its name; `number` is its own in the kernels."""

    NEAR = "near"
    FAR = "far"
    HEAD = "head"
    FOOT = "foot"

    @cached_property
    def number(self) -> int:
        """Number of this rail in the compiled kernels."""
        return tuple(Rail).index(self)

    @cached_property
    def is_long(self) -> bool:
        """Does the rail run along x?"""
        return self is Rail.NEAR or self is Rail.FAR

    @cached_property
    def diamonds(self) -> int:
        """Diamonds along this rail, nose to nose."""
        return DIAMONDS_LONG if self.is_long else DIAMONDS_SHORT

    @cached_property
    def diamonds_across(self) -> int:
        """Diamonds from this rail's nose to the opposite one."""
        return DIAMONDS_SHORT if self.is_long else DIAMONDS_LONG

    @cached_property
    def at_end(self) -> bool:
        """Does the rail lie at the high end of the axis it bounds?"""
        return self is Rail.FAR or self is Rail.FOOT

    @property
    def end(self) -> float:
        """Where it lies across to itself, diamonds: 0 for near and head."""
        return 0.0 if self in (Rail.NEAR, Rail.HEAD) else float(DIAMONDS_SHORT if self.is_long else DIAMONDS_LONG)

    def along(self, x: float, y: float) -> float:
        """The coordinate that runs along this rail."""
        return x if self.is_long else y

    def across(self, x: float, y: float) -> float:
        """The coordinate that runs across to this rail."""
        return y if self.is_long else x

    def point(self, along: float, across: float) -> tuple[float, float]:
        """(x, y) from the two coordinates as this rail names them."""
        return (along, across) if self.is_long else (across, along)


def rails_name(rails: tuple[Rail, ...]) -> str:
    """Rails as `parse_rails` reads them."""
    return ",".join(rails) or STRAIGHT


def parse_rail(text: str) -> Rail:
    """The rail called `text`."""
    try:
        return Rail(text.strip().lower())
    except ValueError:
        names = ", ".join(Rail)
        raise BadInputError(f"unknown rail {text!r}: use one of {names}", "rails", code="unknown") from None


def parse_rails(text: str) -> tuple[Rail, ...]:
    """Rails in order from "far" or "far,foot"; none from "straight" or "none". A rail cannot follow itself."""
    if text.strip().lower() in (STRAIGHT, NO_RAIL):
        return ()
    rails = tuple(parse_rail(part) for part in text.split(","))
    for first, second in itertools.pairwise(rails):
        if first == second:
            raise BadInputError(
                f"rail {first} twice running: a ball cannot meet it again at once", "rails", code="twice"
            )
    return rails


class Contact(NamedTuple):
    """Where a ball meets a rail, diamonds along it, where the ball's centre turns."""

    rail: Rail
    at: float
