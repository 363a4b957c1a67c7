"""How does this table play? The reference shots, and the table that a few of them fit."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date

import numpy as np

from fandle.core.player.scatter import Player
from fandle.core.steps import Steps, finish
from fandle.core.systems.catalogue import TITLES
from fandle.core.table.model import Table
from fandle.core.tablecheck.evidence import Seen
from fandle.core.tablecheck.fit import fit_steps
from fandle.core.tablecheck.outcome import Check
from fandle.core.tablecheck.own_numbers import system_changes
from fandle.core.tablecheck.report import like, notes, plays, told, verdict_steps
from fandle.core.tablecheck.shooter import shoot as played_by_shooter
from fandle.core.tablecheck.shots import BY_ID, Reference, Setup, reference_shot, setup, shots_for


def reference_shots(table: Table) -> list[tuple[Reference, Setup]]:
    """The shots of a check on this table, those first that teach most."""
    return [(shot, setup(table, shot)) for shot in shots_for(table)]


def check(table: Table, seen: Sequence[Seen], player: Player, on: date | None = None) -> Check:
    """The same at once."""
    return finish(check_steps(table, seen, player, on))


def check_steps(table: Table, seen: Sequence[Seen], player: Player, on: date | None = None) -> Steps[Check]:
    """The check of a table, which is taken as its own prior; on: the day it is dated."""
    found = yield from fit_steps(table, seen, player)
    if found.table.fitted is not None and on is not None:
        dated = replace(found.table.fitted, date=on.isoformat())
        found = replace(found, table=replace(found.table, fitted=dated))
    who = yield from verdict_steps(table, found, seen, player)
    return Check(
        table, found, tuple(plays(table, found)), tuple(system_changes(table, found.table, tuple(TITLES))),
        tuple(told(table, found, seen, player)), who, like(found),
        tuple(notes(found, seen, player)),
    )  # fmt: skip


def shoot(hidden: Table, asked: Table, name: str, player: Player, turn: int) -> Seen:
    """The simulated shooter plays a reference shot of one table on another, hidden one; turn: which of its tries."""
    rng = np.random.default_rng((list(BY_ID).index(name), turn))
    return played_by_shooter([reference_shot(asked, name)], hidden, player, rng)[0]
