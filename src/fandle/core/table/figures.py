"""A table's numbers as a player can see and set them: which the form shows, in which units, and how they are put in."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.parameter import Parameter, Shown
from fandle.core.table.parameters import POCKETS, TABLE

SAME = 1e-9  # a figure this near to the one shown was not changed


@dataclass(frozen=True)
class Figure:
    """One number of the form: its name in the table ("pockets.side_mouth" inside), and how it is shown."""

    name: str
    parameter: Parameter
    how: Shown

    @property
    def limits(self) -> tuple[float, float]:
        """Least and most, as shown."""
        return self.parameter.low * self.how.scale, self.parameter.high * self.how.scale

    def of(self, table: Table) -> float | None:
        """The number as shown; None where the table has none."""
        owner = table.pockets if self.name.startswith("pockets.") else table
        value = None if owner is None else getattr(owner, self.parameter.name)
        if self.name == "cue_ball_mass":
            value = table.cue_mass
        return None if value is None else round(value * self.how.scale, self.how.places)


def _figures(prefix: str, registry: Mapping[str, Parameter]) -> list[Figure]:
    return [Figure(prefix + name, known, known.shown) for name, known in registry.items() if known.shown is not None]


FIGURES = (*_figures("", TABLE), *_figures("pockets.", POCKETS))


def shown(table: Table) -> dict[str, float]:
    """Every number the table has, as shown, by name."""
    values = ((figure.name, figure.of(table)) for figure in FIGURES)
    return {name: value for name, value in values if value is not None}


def with_shown(table: Table, given: Mapping[str, float]) -> Table:
    """The table with shown figures put in. A figure that is what is shown already changes nothing."""
    known = {figure.name: figure for figure in FIGURES}
    plain: dict[str, Any] = {}
    pocket: dict[str, Any] = {}
    for name, value in given.items():
        figure = known.get(name)
        before = None if figure is None else figure.of(table)
        if figure is None or before is None:
            raise BadInputError(f"this table has no number {name!r}: use one of {', '.join(shown(table))}", name)
        _check(figure, value)
        if abs(value - before) >= SAME:
            target = pocket if name.startswith("pockets.") else plain
            target[figure.parameter.name] = value / figure.how.scale
    if pocket and table.pockets is not None:
        plain["pockets"] = replace(table.pockets, **pocket)
    return replace(table, **plain) if plain else table


def _check(figure: Figure, value: float) -> None:
    how = figure.how
    if not math.isfinite(value):
        raise BadInputError(f"{how.label.lower()}: {value} is not a number: type one", figure.name, code="not_a_number")
    low, high = figure.limits
    if not low <= value <= high:
        unit = f" {how.unit}" if how.unit else ""
        raise BadInputError(
            f"{how.group.lower()}, {how.label.lower()}: {value:g} is outside {low:g} to {high:g}{unit}",
            figure.name,
            code="out_of_range",
        )
