"""The answer of `fandle squirt`."""

from typing import Self

from fandle.core.tablecheck.squirt_test import Squirt
from fandle.formats.base import Number
from fandle.formats.parts import Answer


class SquirtAnswer(Answer):
    """A cue's squirt. end_ratio: ball mass over the shaft's end mass, null where there is no squirt to be seen."""

    end_ratio: Number | None
    squirt_deg: Number
    sd_deg: Number
    say: str

    @classmethod
    def of(cls, found: Squirt) -> Self:
        """From what the two shots say."""
        ratio = found.end_ratio if found.deg else None
        return cls(end_ratio=ratio, squirt_deg=found.deg, sd_deg=found.sd_deg, say=found.say)
