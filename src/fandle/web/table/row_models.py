"""The rows of the list of lines, as the page is told them."""

from typing_extensions import TypedDict


class RowStroke(TypedDict):
    """A stroke as the page asks with it."""

    speed: float
    side: float
    up: float
    elevation: float


class EndModel(TypedDict):
    """Where half of a ball's draws stop: an ellipse, its middle, the tip of its long half-axis, b its short one.

    Drawing points, mm.
    """

    id: str
    at: tuple[float, float]
    tip: tuple[float, float]
    b: float


class RowModel(TypedDict):
    """A line as the page lists it, and what it asks for when it is chosen.

    key: what makes it the same line again. share: the chance of the goal, 0 to 1, with its range; here: at the stroke
    given, null where the line needs another. own: is its stroke the one given? gain: what its stroke adds to that one;
    ends: where balls stop; after: what comes then, in sentences; ahead: the next shot's line.
    """

    key: str
    target: str
    kind: str
    rails: str
    pocket: str | None
    hit: float
    stroke: RowStroke
    own: bool
    name: str
    why: str
    mark: str
    share: float
    low: float
    high: float
    percent: str
    here: str | None
    gain: str | None
    path: str
    ends: list[EndModel]
    after: list[str]
    ahead: str


class ShutModel(TypedDict):
    """What is no line, and why."""

    key: str
    rails: str
    target: str
    name: str
    why: str
