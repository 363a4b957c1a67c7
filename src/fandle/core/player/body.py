"""How far a player leans, and with which hand: where one can stand for a shot."""

from dataclasses import dataclass
from typing import Literal

from fandle.core import constants as k
from fandle.core.errors import BadInputError

Build = Literal["short", "usual", "tall"]
Hand = Literal["right", "left", "both"]
BUILDS: tuple[Build, ...] = ("short", "usual", "tall")
HANDS: tuple[Hand, ...] = ("right", "left", "both")


@dataclass(frozen=True)
class Body:
    """build: how far they lean over a rail; hand: the one that grips, both for who changes hands."""

    build: Build = "usual"
    hand: Hand = "both"

    @property
    def lean(self) -> float:
        """From the feet at the outer edge of a rail to the bridge hand, m."""
        return k.LEAN_M[BUILDS.index(self.build)]

    @property
    def grip(self) -> float:
        """From the feet to the grip hand, m: the elbow hangs over the cue, so it does not go as far as the other."""
        return k.GRIP_PART * self.lean


ANYBODY = Body()


def body_of(build: str, hand: str) -> Body:
    """A body from what was written. Raises BadInputError."""
    built = next((each for each in BUILDS if each == build), None)
    grips = next((each for each in HANDS if each == hand), None)
    if built is None:
        raise BadInputError(f"unknown reach {build!r}: use {', '.join(BUILDS)}", "reach", code="unknown")
    if grips is None:
        raise BadInputError(f"unknown hand {hand!r}: use {', '.join(HANDS)}", "hand", code="unknown")
    return Body(built, grips)
