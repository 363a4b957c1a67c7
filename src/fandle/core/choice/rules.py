"""The rules of the games, as data: which balls are on, what a legal shot must do, what counts, what a foul costs.

From the published rules of the games' world bodies (WPA pool, WPBSA snooker, UMB carom), from memory. The event's own
rules take precedence.
"""

from dataclasses import dataclass
from typing import Literal

from fandle.core.layout.games import SNOOKER_COLOURS
from fandle.core.layout.model import Layout
from fandle.core.layout.state import COLOUR, OPEN, RED, State

Order = Literal["lowest", "group", "any", "snooker", "both"]
Counts = Literal["called", "any", "on", "point"]
EIGHT = "8"
LEAST_FOUL = 4  # points, snooker
VALUES = {RED: 1, **{name: value for value, name in enumerate(SNOOKER_COLOURS, 2)}}


@dataclass(frozen=True)
class Rules:
    """One game.

    order: which balls are on. needs_rail: after contact a ball must be potted or reach a rail. counts: which pot is
    one: the called ball into the called pocket, any ball, any ball on and none other, or none, the point. cushions:
    how many the cue ball has to meet before the second ball of a point.
    """

    order: Order
    needs_rail: bool
    counts: Counts
    cost: str
    cushions: int = 0


NO_POINT = "without the point the turn passes"
IN_HAND = "a foul gives ball in hand"
REPLAYED = "a foul costs {points} points, and a miss may be called and replayed"
RULES = {
    "nine-ball": Rules("lowest", needs_rail=True, counts="any", cost=IN_HAND),
    "ten-ball": Rules("lowest", needs_rail=True, counts="called", cost=IN_HAND),
    "eight-ball": Rules("group", needs_rail=True, counts="called", cost=IN_HAND),
    "straight": Rules("any", needs_rail=True, counts="called", cost="a foul costs a point, and the turn"),
    "snooker": Rules("snooker", needs_rail=False, counts="on", cost=REPLAYED),
    "three-cushion": Rules("both", needs_rail=False, counts="point", cost=NO_POINT, cushions=3),
    "one-cushion": Rules("both", needs_rail=False, counts="point", cost=NO_POINT, cushions=1),
    "straight-rail": Rules("both", needs_rail=False, counts="point", cost=NO_POINT, cushions=0),
}


def rules_of(layout: Layout) -> Rules:
    """The rules of a layout's game."""
    return RULES[layout.game]


def balls_on(layout: Layout) -> tuple[str, ...]:
    """Ids of the balls on, in the layout's order: the cue ball must meet one of them first."""
    names = [ball.id for ball in layout.object_balls()]
    order = rules_of(layout).order
    if order == "lowest":
        return (min(names, key=int),) if names else ()
    if order == "group":
        return _of_group(layout, names)
    if order == "snooker":
        return _in_snooker(layout, names)
    return tuple(names)


def _of_group(layout: Layout, names: list[str]) -> tuple[str, ...]:
    """Eight-ball: any but the 8 while the table is open, then one's own group, at last the 8."""
    group = layout.state.group
    ours = {"low": range(1, 8), "high": range(9, 16), None: (*range(1, 8), *range(9, 16))}[group]
    left = tuple(name for name in names if int(name) in ours)
    return left or tuple(name for name in names if name == EIGHT)


def _in_snooker(layout: Layout, names: list[str]) -> tuple[str, ...]:
    """Any red, a colour, the colours in order; with a free ball any. What is not there any more is passed over."""
    if layout.state.free_ball:
        return tuple(names)
    reds = tuple(name for name in names if name.startswith(RED))
    colours = [name for name in SNOOKER_COLOURS if name in names]
    on = layout.state.on
    if on == COLOUR and colours:
        return tuple(name for name in names if name in colours)
    if on in colours:
        return (on,)
    if reds:
        return reds
    return tuple(colours[:1])


def on_if(layout: Layout) -> tuple[str, State] | None:
    """(game, how it stands) in which the target would be on; None where it is on, or there is none."""
    target = layout.target
    if target is None or target in balls_on(layout):
        return None
    if layout.game == "eight-ball" and target != EIGHT:
        return "eight-ball", State(group="low" if int(target) < int(EIGHT) else "high")
    if layout.game == "snooker":
        return "snooker", State(on=RED if target.startswith(RED) else target)
    return "straight", OPEN


def cost_of_foul(layout: Layout) -> int:
    """Snooker: the points that a foul costs, the value of the ball on, 4 at least."""
    values = [VALUES[RED if name.startswith(RED) else name] for name in balls_on(layout)]
    return max(LEAST_FOUL, max(values, default=LEAST_FOUL))


def foul_cost(layout: Layout) -> str:
    """What a foul costs here, in words."""
    return rules_of(layout).cost.format(points=cost_of_foul(layout) if layout.game == "snooker" else "")
