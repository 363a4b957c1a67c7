"""A line and what it is ranked by."""

from dataclasses import dataclass

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.chance import Chance
from fandle.core.choice.stretch import Key


@dataclass(frozen=True)
class Ranked:
    """A line with its chance. here: its chance at the stroke given, where it exists with that one."""

    aim: Aimed
    chance: Chance
    here: Chance | None = None

    @property
    def key(self) -> Key:
        """What line it is."""
        return self.aim.stretch.key
