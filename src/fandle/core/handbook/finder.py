"""Which method when: what each needs, and a search through what the pages say."""

from dataclasses import dataclass
from typing import Literal

Lie = Literal["rail", "open", "either"]
Use = Literal["kick", "bank", "position", "point"]


@dataclass(frozen=True)
class Fit:
    """What a method is for. rails: over how many; lie: of the ball to be hit; sums: does one have to reckon?

    known: does it want a table one knows, since its numbers move with cloth and rubber? use: what for.
    """

    rails: tuple[int, ...]
    lie: Lie
    sums: bool
    known: bool
    use: Use = "kick"


FITS: dict[str, Fit] = {
    "M1": Fit((1,), "either", sums=False, known=False),
    "M2": Fit((1,), "either", sums=True, known=False),
    "M3": Fit((1,), "either", sums=True, known=False, use="kick"),
    "M4": Fit((1,), "either", sums=True, known=False),
    "M5": Fit((1,), "either", sums=True, known=False),
    "M6": Fit((1,), "either", sums=False, known=False),
    "M7": Fit((1,), "either", sums=True, known=False),
    "M8": Fit((1,), "either", sums=False, known=False),
    "M9": Fit((1,), "either", sums=False, known=False),
    "M10": Fit((2,), "either", sums=False, known=False),
    "M11": Fit((2,), "rail", sums=True, known=True),
    "M12": Fit((2, 3), "either", sums=False, known=False),
    "M13": Fit((2,), "open", sums=False, known=False),
    "M14": Fit((3,), "rail", sums=True, known=True),
    "M15": Fit((3,), "rail", sums=False, known=True),
    "M16": Fit((3,), "rail", sums=False, known=True),
    "M17": Fit((3,), "rail", sums=True, known=True),
    "M18": Fit((3,), "rail", sums=True, known=True, use="point"),
    "M19": Fit((4,), "either", sums=False, known=True),
    "M20": Fit((1,), "rail", sums=False, known=False),
    "M21": Fit((1,), "rail", sums=False, known=True),
    "M22": Fit((1,), "rail", sums=True, known=True),
    "M23": Fit((0,), "open", sums=True, known=True, use="point"),
    "M24": Fit((1,), "rail", sums=False, known=True, use="point"),
    "M25": Fit((1,), "either", sums=False, known=True, use="bank"),
    "M26": Fit((0,), "open", sums=False, known=True, use="position"),
}
ALSO: dict[str, Use] = {"M3": "bank"}  # a second use


@dataclass(frozen=True)
class Wish:
    """What is asked for; None where it does not matter. known: False where the table is a strange one."""

    rails: int | None = None
    lie: Literal["rail", "open"] | None = None
    sums: bool | None = None
    known: bool | None = None
    use: Use | None = None

    @property
    def anything(self) -> bool:
        """Is anything asked for at all?"""
        return any(part is not None for part in (self.rails, self.lie, self.sums, self.known, self.use))


def fits(method: str, wish: Wish) -> bool:
    """Does a method suit what is asked for? A method without sums suits whoever would not mind them."""
    fit = FITS[method]
    return (
        (wish.rails is None or wish.rails in fit.rails)
        and (wish.lie is None or fit.lie in (wish.lie, "either"))
        and (wish.sums is not False or not fit.sums)
        and (wish.known is not False or not fit.known)
        and (wish.use is None or wish.use in (fit.use, ALSO.get(method)))
    )


def found_in(words: str, title: str, texts: tuple[str, ...]) -> int:
    """How well a page answers a search: 0 not at all, 2 where all words stand in its title, 1 where in its text."""
    parts = words.lower().split()
    if not parts:
        return 0
    if all(part in title.lower() for part in parts):
        return 2
    whole = " ".join((title, *texts)).lower()
    return int(all(part in whole for part in parts))
