"""All systems by their M-number, and the best rails for each."""

import itertools
import logging
import math
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from types import ModuleType

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.steps import Steps
from fandle.core.steps import finish as finish_steps
from fandle.core.systems import (
    add_and_halve,
    angles_backwards,
    corner_numbers,
    doubling,
    equal_angles,
    equal_count,
    equal_count_further,
    from_object_ball,
    ghost_ball,
    half_shift,
    halving,
    midpoint,
    natural_escape,
    point_beyond,
    product,
    projected_angles,
    reference_lines,
    round_the_table,
    tens,
)
from fandle.core.systems.banks import bank_count
from fandle.core.systems.base import Count, Draft, NoCount, View
from fandle.core.systems.hands import HandStep, turned
from fandle.core.systems.played import blocker, finish
from fandle.core.systems.squirt import told as squirt_told
from fandle.core.systems.symmetry import Turn, turn_to
from fandle.core.systems.verdict import proved, way_of
from fandle.core.table.rails import Rail, rails_name

LOG = logging.getLogger(__name__)
FAILED = "this count could not be worked out; what went wrong is in the log"
_IN_ORDER = (
    equal_angles, doubling, halving, tens, add_and_halve, projected_angles, half_shift, ghost_ball, from_object_ball,
    midpoint, equal_count, angles_backwards, natural_escape, corner_numbers, point_beyond, reference_lines,
    equal_count_further, product, round_the_table,
)  # fmt: skip
METHODS: dict[str, ModuleType] = {module.METHOD: module for module in _IN_ORDER}
PAGES: dict[str, str] = {name: module.__name__.rpartition(".")[2] for name, module in METHODS.items()}  # by file name
BY_EYE = frozenset(  # without a sum: a mirror or a played line, told in contact marks
    module.METHOD for module in (equal_angles, from_object_ball, angles_backwards, natural_escape, round_the_table)
)
TITLES: dict[str, str] = {name: module.TITLE for name, module in METHODS.items()}
TURNS = [Turn(ends, sides) for ends, sides in itertools.product((False, True), repeat=2)]


@lru_cache
def orders_of(method: str) -> tuple[tuple[Rail, ...], ...]:
    """Every order of rails a method counts over."""
    found = {tuple(turn.rail(rail) for rail in order): None for order in METHODS[method].ORDERS for turn in TURNS}
    return tuple(found)


def systems_over(rails: tuple[Rail, ...], kind: str = "kick") -> list[str]:
    """The methods that count a kick, or a bank, over this order of rails."""
    if kind == "bank":
        return [halving.METHOD] if len(rails) == 1 else []
    return [name for name in METHODS if rails in orders_of(name)]


def known(method: str) -> str:
    """A method's name as it is written; BadInputError for one nobody knows."""
    if method.upper() not in METHODS:
        raise BadInputError(f"unknown method {method!r}: use one of {', '.join(METHODS)}", "method", code="unknown")
    return method.upper()


def count(
    method: str, layout: Layout, rails: tuple[Rail, ...], target: str | None = None, cue: Cue = IDEAL
) -> Count | NoCount:
    """One method over one order of rails, played with this cue."""
    name, layout = known(method), layout.settled()
    ball = layout.require_target(target)
    found = _tried(name, layout, rails, ball, cue, beside=True)
    return _looked_at(layout, found, ball) if isinstance(found, Count) else found


def plain_count(method: str, layout: Layout, rails: tuple[Rail, ...], cue: Cue = IDEAL) -> Count | NoCount:
    """One method over one order of rails, its landing only: for many layouts at once."""
    settled = layout.settled()
    return _tried(known(method), settled, rails, settled.require_target(), cue)


def best_count(
    method: str, layout: Layout, target: str | None = None, cue: Cue = IDEAL, beside: bool = True
) -> Count | NoCount:
    """One method over the rails it lands best on, ways that are open before ways that are not.

    beside: where it counts over none, offer neighbours of marks that a jaw spoils.
    """
    name, layout = known(method), layout.settled()
    ball = layout.require_target(target)
    tried = [_tried(name, layout, rails, ball, cue) for rails in orders_of(name)]
    proven = [replace(c, lands=proved(layout, c, ball)) for c in tried if isinstance(c, Count)]
    good = sorted(proven, key=_landing)
    if good:
        looked = (_looked_at(layout, c, ball) for c in good)
        first = next(looked)
        return first if first.open else next((c for c in looked if c.open), first)
    if beside:
        tried = [_tried(name, layout, rails, ball, cue, beside) for rails in orders_of(name)]
    reasons = "; ".join(f"{rails_name(c.rails)}: {c.reason}" for c in tried if isinstance(c, NoCount))
    return NoCount(name, TITLES[name], (), reasons)


def other_rails(best: Count, layout: Layout, target: str | None = None) -> list[Count]:
    """The best count's system over all other rails it counts over: open ways first, then by landing."""
    settled = layout.settled()
    ball = settled.require_target(target)
    cue = best.stroke.cue
    tried = [_tried(best.method, settled, rails, ball, cue) for rails in orders_of(best.method) if rails != best.rails]
    looked = [_looked_at(settled, c, ball) for c in tried if isinstance(c, Count)]
    return sorted(looked, key=lambda c: (not c.open, _landing(c)))


def _landing(found: Count | NoCount) -> tuple[bool, float]:
    """What counts are ranked by: those that hit first, then by ball widths; those that do not apply come last."""
    return (not found.lands.hits, found.lands.off_balls) if isinstance(found, Count) else (True, math.inf)


def facing(name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball) -> tuple[tuple[Rail, ...], Turn] | None:
    """(the method's own order, the turn that brings these rails on to it); None where it does not count over them."""
    for wanted in METHODS[name].ORDERS:
        turn = turn_to(rails, wanted, layout, (ball.x, ball.y))
        if turn is not None:
            return wanted, turn
    return None


def view_of(name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball, cue: Cue = IDEAL) -> View | None:
    """The layout turned to the method; None where it does not count over these rails."""
    found = facing(name, layout, rails, ball)
    if found is None:
        return None
    wanted, turn = found
    there = turn.layout(layout)
    return View(there, wanted, there.ball(ball.id), turn, cue)


def _tried(
    name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball, cue: Cue, beside: bool = False
) -> Count | NoCount:
    """A method over one order of rails, played. One that fails is logged and does not count: the others stand."""
    try:
        return _played(name, layout, rails, ball, cue, beside)
    except EngineError as fault:
        return NoCount(name, TITLES[name], rails, str(fault))
    except Exception:
        LOG.exception("%s over %s to %s fails on %r", name, rails_name(rails), ball.id, layout)
        return NoCount(name, TITLES[name], rails, FAILED)


def _played(name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball, cue: Cue, beside: bool) -> Count | NoCount:
    module, view = METHODS[name], view_of(name, layout, rails, ball, cue)
    if view is not None:
        draft = module.count(view)
        if isinstance(draft, str):
            return NoCount(name, module.TITLE, rails, draft)
        held = replace(draft, stroke=replace(draft.stroke, cue=cue))
        return finish(layout, view, held, name, module.TITLE, beside)
    lengths = sorted({len(order) for order in module.ORDERS})
    ways = " or ".join("one rail" if n == 1 else f"{n} rails" for n in lengths)
    if len(rails) in lengths:
        ways = "; ".join(rails_name(order) for order in orders_of(name))
    return NoCount(name, module.TITLE, rails, f"it counts over {ways}, not over {rails_name(rails)}")


def hands_of(found: Count, layout: Layout, target: str | None = None) -> tuple[HandStep, ...]:
    """How a count is measured with hands and cue; () where its system does not measure."""
    module, layout = METHODS[found.method], layout.settled()
    measure: Callable[[View, Draft], tuple[HandStep, ...]] | None = getattr(module, "hands", None)
    cue, ball = found.stroke.cue, layout.require_target(target)
    view = None if measure is None else view_of(found.method, layout, found.rails, ball, cue)
    draft = "" if view is None else module.count(view)
    if measure is None or view is None or isinstance(draft, str):
        return ()
    return turned(view, measure(view, draft))


def _looked_at(layout: Layout, found: Count, ball: Ball) -> Count:
    """A count with what is looked up only for the one that is shown: what lies in its way, how its spot holds."""
    tell: Callable[[Layout, Count, Ball], str] | None = getattr(METHODS[found.method], "on_this_table", None)
    adjust = found.adjust if tell is None else tell(layout, found, ball)
    way = way_of(layout, found)
    blocked, is_open = blocker(found, ball.id, way)
    shown = replace(found, lands=proved(layout, found, ball, True, way), blocked=blocked, open=is_open)
    return replace(shown, adjust=adjust, squirt=squirt_told(layout, shown, ball))


def counted(
    method: str,
    layout: Layout,
    rails: tuple[Rail, ...] | None = None,
    target: str | None = None,
    kind: str = "kick",
    pocket: str | None = None,
    cue: Cue = IDEAL,
) -> Count | NoCount:
    """One method for a kick or a bank, over `rails` or over whichever it lands best on."""
    name = known(method)
    if kind == "bank" and name == halving.METHOD:
        return bank_count(layout, rails, target, pocket, cue)
    if kind == "bank":
        return NoCount(
            name, TITLES[name], rails or (), f"it counts kicks; banks are counted by {halving.METHOD}'s pairs"
        )
    if kind != "kick":
        raise BadInputError(f"unknown kind {kind!r}: use kick or bank", "kind", code="unknown")
    if pocket is not None:
        raise BadInputError("a kick has no pocket: leave --pocket out, or use --kind bank", "pocket")
    return best_count(method, layout, target, cue) if rails is None else count(method, layout, rails, target, cue)


def all_counts(
    layout: Layout,
    rails: tuple[Rail, ...] | None = None,
    target: str | None = None,
    kind: str = "kick",
    pocket: str | None = None,
    cue: Cue = IDEAL,
) -> list[Count | NoCount]:
    """Every method, those that land nearest to the target first, those that do not apply last."""
    return finish_steps(count_steps(layout, rails, target, kind, pocket, cue))


def count_steps(
    layout: Layout,
    rails: tuple[Rail, ...] | None = None,
    target: str | None = None,
    kind: str = "kick",
    pocket: str | None = None,
    cue: Cue = IDEAL,
) -> Steps[list[Count | NoCount]]:
    """`all_counts` in steps."""
    found: list[Count | NoCount] = []
    for name in METHODS:
        if kind == "kick" and pocket is None and rails is None:
            found.append(best_count(name, layout, target, cue))
        else:
            found.append(counted(name, layout, rails, target, kind, pocket, cue))
        yield
    return sorted(found, key=_landing)
