"""After the hit, as the page is told it."""

from typing_extensions import TypedDict

from fandle.web.table.row_models import EndModel, RowModel, RowStroke


class VariationModel(TypedDict):
    """The line with one thing changed. moved: where the cue ball stops then, against where it stops as it is."""

    name: str
    stroke_name: str
    mark: str
    percent: str
    moved: str
    says: str
    stroke: RowStroke
    hit: float
    ends: list[EndModel]


class RiskRow(TypedDict):
    """A line beside those of other goals. well: the share potted or left safe; risk: what else happens, in words."""

    row: RowModel
    well: float
    risk: str


class GoalModel(TypedDict):
    """The best lines of one goal."""

    goal: str
    name: str
    rows: list[RiskRow]


class StrategyModel(TypedDict):
    """How far the work is, the goals as far as they are known, and the advice, "" until the end."""

    progress: float
    goals: list[GoalModel]
    say: str
