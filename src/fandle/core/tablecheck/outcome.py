"""What a table check comes to, all of it."""

from dataclasses import dataclass

from fandle.core.table.model import Table
from fandle.core.tablecheck.fit import Fitting
from fandle.core.tablecheck.own_numbers import SystemChange
from fandle.core.tablecheck.report import Plays, Told, Verdict


@dataclass(frozen=True)
class Check:
    """A table check: the fit, how the table plays against what it was before, the systems, each shot, the verdict.

    like: the words of condition it is nearest to; notes: what else the shots say.
    """

    before: Table
    fitting: Fitting
    plays: tuple[Plays, ...]
    systems: tuple[SystemChange, ...]
    shots: tuple[Told, ...]
    verdict: Verdict
    like: str
    notes: tuple[str, ...]

    @property
    def table(self) -> Table:
        """The fitted table."""
        return self.fitting.table
