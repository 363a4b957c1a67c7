"""A table's own correction by one test shot, carried to the other tracks of the systems over three rails.

A line that was right in the engine's numbers lands short or long on the real table; by as much as that moves the mark
at the first rail, the table's own numbers are shifted for every track. Cloth and weather come on top of it. Common
practice, no published source: about half a diamond on many tables, found by one shot.
"""

import math

from fandle.core.errors import BadInputError
from fandle.core.systems import corner_numbers, point_beyond, reference_lines
from fandle.core.systems.base import Draft, View, figure
from fandle.core.systems.catalogue import orders_of
from fandle.core.systems.played import Aiming
from fandle.core.table.rails import Rail

CARRIED = (corner_numbers.METHOD, point_beyond.METHOD, reference_lines.METHOD)
MOST = 1.5  # diamonds of the mark: more is no table's own correction
LEAST = 0.02  # and less is none
APART = 0.15  # diamonds by which a mark is moved to see which way is longer
STEADY = 0.1  # diamonds of landing by a diamond of the mark: less, and nothing can be told from it


def sets_it(method: str, rails: tuple[Rail, ...]) -> bool:
    """May a shot over these rails, counted so, be a test shot?"""
    return method in CARRIED and rails in orders_of(method)


def shift_of(off: float, slope: float) -> float:
    """By how many diamonds the marks at the first rail have to be aimed longer; negative: shorter.

    off: where a line came that should have hit, diamonds, long positive; slope: diamonds of landing by a diamond of the
    mark. shift = −off / |slope|. Raises BadInputError where that is no table's own correction.
    """
    if not math.isfinite(slope) or abs(slope) < STEADY:
        raise BadInputError("a mark does nothing here: choose another track as the test shot", "off", code="no_line")
    return carriable(-off / abs(slope))


def carriable(shift: float) -> float:
    """A shift that may be carried. Raises BadInputError for one that is no table's own correction."""
    if not abs(shift) <= MOST:
        raise BadInputError(
            f"{figure(abs(shift))} diamonds is more than a table's own correction, which is {figure(MOST)} at most: "
            "shoot it again, and note that", "carry", code="out_of_range",
        )  # fmt: skip
    return shift


def moved(aiming: Aiming, view: View, draft: Draft, carried: float) -> float:
    """The same shift as a move of a count's mark, in the system's own frame: towards longer where it is positive."""
    if abs(carried) < LEAST:
        return 0.0
    tried = [aiming.play(view.turn.at(view.rail, draft.base + by))[2] for by in (-APART, APART)]
    if tried[0] is None or tried[1] is None or tried[0].off == tried[1].off:
        return 0.0
    return math.copysign(carried, carried * (tried[1].off - tried[0].off))


def carried_words(carried: float) -> str:
    """The shift in words: "0.3 diamond longer by your test shot"; "" for none."""
    if abs(carried) < LEAST:
        return ""
    return f"{figure(abs(carried))} diamond {'longer' if carried > 0 else 'shorter'} by your test shot"
