"""Cues: how much each squirts, and its tip."""

import math
from dataclasses import dataclass

from fandle.core import constants as k
from fandle.core.errors import BadInputError, check_text
from fandle.core.physics.strike import squirt_rad


@dataclass(frozen=True)
class Cue:
    """A cue: ball mass over end mass (inf = ideal, no squirt) and tip diameter in m; `label` in words."""

    name: str
    label: str
    end_ratio: float
    tip: float = k.TIP_DIAMETER_M

    @property
    def squirt_deg(self) -> float:
        """How far the ball leaves off the cue's line with the most side, degrees."""
        return abs(math.degrees(squirt_rad(k.MISCUE_LIMIT, self.end_ratio)))


IDEAL = Cue("ideal", "ideal, no squirt", math.inf)
HOUSE = Cue("house", "house cue", k.HOUSE_END_RATIO)
SLIM = Cue("slim", "slim shaft, less squirt", k.SLIM_END_RATIO)
CUES = {cue.name: cue for cue in (IDEAL, HOUSE, SLIM)}
CUE_LIMITS = {"end_ratio": (5.0, 200.0), "tip": (0.008, 0.015)}


def own_cue(name: str, end_ratio: float, tip: float) -> Cue:
    """A cue of the player's own, checked. tip: diameter, m."""
    check_text(name, "name")
    if not name.strip():
        raise BadInputError("a cue needs a name: type one", "name", code="no_name")
    if name in CUES:
        raise BadInputError(f"{name!r} comes with the program: choose another name", "name", code="taken")
    low, high = CUE_LIMITS["end_ratio"]
    if not low <= end_ratio <= high:
        raise BadInputError(
            f"a ball {end_ratio:g} times as heavy as the shaft's end is out of range: give {low:g} to {high:g}",
            "end_ratio",
            code="out_of_range",
        )
    low, high = CUE_LIMITS["tip"]
    if not low <= tip <= high:
        raise BadInputError(
            f"a tip of {tip * 1000:g} mm is out of range: give {low * 1000:g} to {high * 1000:g}",
            "tip_mm",
            code="out_of_range",
        )
    return Cue(name, name, end_ratio, tip)


def find_cue(name: str | None) -> Cue:
    """The cue called `name`; None is the ideal cue."""
    if name is None:
        return IDEAL
    if name not in CUES:
        raise BadInputError(f"unknown cue {name!r}: use one of {', '.join(CUES)}", "cue", code="unknown")
    return CUES[name]
