"""All systems by their M-number, and the best rails for each."""

import logging
import math
from collections.abc import Callable
from dataclasses import dataclass, replace

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.steps import Steps
from fandle.core.systems.banks import bank_count
from fandle.core.systems.base import Count, Draft, NoCount, View
from fandle.core.systems.catalogue import METHODS, TITLES, known, orders_of, view_of
from fandle.core.systems.contact import FULL_ON, Contact, carried, into_pocket, pockets_of
from fandle.core.systems.halving import METHOD as HALVING
from fandle.core.systems.hands import HandStep, turned
from fandle.core.systems.played import blocker, finish
from fandle.core.systems.squirt import told as squirt_told
from fandle.core.systems.verdict import proved, way_of
from fandle.core.table.rails import Rail, rails_name

LOG = logging.getLogger(__name__)
FAILED = "this count could not be worked out; what went wrong is in the log"


def count(
    method: str,
    layout: Layout,
    rails: tuple[Rail, ...],
    target: str | None = None,
    cue: Cue = IDEAL,
    contact: Contact = FULL_ON,
) -> Count | NoCount:
    """One method over one order of rails, played with this cue; contact: how the ball is to be met."""
    name, layout = known(method), layout.settled()
    aimed = Wanted.of(layout, target, contact)
    found = _carried(name, layout, rails, aimed, cue, beside=True)
    return _looked_at(layout, found, aimed) if isinstance(found, Count) else found


def plain_count(method: str, layout: Layout, rails: tuple[Rail, ...], cue: Cue = IDEAL) -> Count | NoCount:
    """One method over one order of rails, its landing only: for many layouts at once."""
    settled = layout.settled()
    return _tried(known(method), settled, rails, settled.require_target(), cue)


def best_count(
    method: str,
    layout: Layout,
    target: str | None = None,
    cue: Cue = IDEAL,
    contact: Contact = FULL_ON,
) -> Count | NoCount:
    """One method over the rails it lands best on, ways that are open before ways that are not.

    Where it counts over none, neighbours of marks that a jaw spoils are offered.
    """
    name, layout = known(method), layout.settled()
    aimed = Wanted.of(layout, target, contact)
    good = _ranked(layout, [_carried(name, layout, rails, aimed, cue) for rails in orders_of(name)], aimed)
    if good:
        looked = (_looked_at(layout, c, aimed) for c in good)
        first = next(looked)
        return first if first.open else next((c for c in looked if c.open), first)
    tried = [_carried(name, layout, rails, aimed, cue, beside=True) for rails in orders_of(name)]
    reasons = "; ".join(f"{rails_name(c.rails)}: {c.reason}" for c in tried if isinstance(c, NoCount))
    return NoCount(name, TITLES[name], (), reasons)


def _ranked(layout: Layout, tried: list[Count | NoCount], aimed: "Wanted") -> list[Count]:
    """Those that count, the best first: as they are proved by playing them."""
    pots = aimed.contact.pocket is not None
    proven = [
        replace(c, lands=proved(layout, c, aimed.ball, pots=pots, last=aimed.target))
        for c in tried
        if isinstance(c, Count)
    ]
    return sorted(proven, key=lambda c: (pots and c.lands.pots != c.pocket, _landing(c)))


def other_rails(best: Count, layout: Layout, target: str | None = None, contact: Contact = FULL_ON) -> list[Count]:
    """The best count's system over all other rails it counts over: open ways first, then by landing."""
    settled = layout.settled()
    aimed, cue = Wanted.of(settled, target, contact), best.stroke.cue
    rest = [rails for rails in orders_of(best.method) if rails != best.rails]
    tried = [_carried(best.method, settled, rails, aimed, cue) for rails in rest]
    looked = [_looked_at(settled, c, aimed) for c in tried if isinstance(c, Count)]
    return sorted(looked, key=lambda c: (not c.open, _landing(c)))


@dataclass(frozen=True)
class Wanted:
    """What a count is to do. ball: the one that is met; target: the one that is to drop, mostly the same."""

    ball: Ball
    target: Ball
    contact: Contact

    @classmethod
    def of(cls, layout: Layout, target: str | None, contact: Contact) -> "Wanted":
        """Of a settled layout."""
        last = layout.require_target(target)
        return cls(last if contact.met is None else layout.ball(contact.met), last, contact)


def _landing(found: Count | NoCount) -> tuple[bool, float]:
    """What counts are ranked by: those that hit first, then by ball widths; those that do not apply come last."""
    return (not found.lands.hits, found.lands.off_balls) if isinstance(found, Count) else (True, math.inf)


def _carried(
    name: str, layout: Layout, rails: tuple[Rail, ...], aimed: Wanted, cue: Cue, *, beside: bool = False
) -> Count | NoCount:
    """A method over one order of rails with the contact that is wanted, into the pocket it lands best for."""

    def tried(place: Ball) -> Count | NoCount:
        return _tried(name, layout, rails, place, cue, beside=beside)

    contact = aimed.contact
    if contact.full:
        return tried(aimed.ball)
    if contact.pocket is None:
        return carried(layout, aimed.ball, contact, tried)
    found = [into_pocket(layout, aimed.ball, aimed.target, mouth, tried) for mouth in pockets_of(layout, contact)]
    ranked = _ranked(layout, found, aimed)
    return ranked[0] if ranked else found[0]


def _tried(
    name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball, cue: Cue, *, beside: bool = False
) -> Count | NoCount:
    """A method over one order of rails, played. One that fails is logged and does not count: the others stand."""
    try:
        return _played(name, layout, rails, ball, cue, beside=beside)
    except EngineError as fault:
        return NoCount(name, TITLES[name], rails, str(fault))
    except Exception:
        LOG.exception("%s over %s to %s fails on %r", name, rails_name(rails), ball.id, layout)
        return NoCount(name, TITLES[name], rails, FAILED)


def _played(
    name: str, layout: Layout, rails: tuple[Rail, ...], ball: Ball, cue: Cue, *, beside: bool
) -> Count | NoCount:
    module, view = METHODS[name], view_of(name, layout, rails, ball, cue)
    if view is not None:
        draft = module.count(view)
        if isinstance(draft, str):
            return NoCount(name, module.TITLE, rails, draft)
        held = replace(draft, stroke=replace(draft.stroke, cue=cue))
        return finish(layout, view, held, name, module.TITLE, beside=beside)
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
    view = None if measure is None else view_of(found.method, layout, found.rails, found.place(ball), cue)
    draft = "" if view is None else module.count(view)
    if measure is None or view is None or isinstance(draft, str):
        return ()
    return turned(view, measure(view, draft))


def _looked_at(layout: Layout, found: Count, aimed: Wanted) -> Count:
    """A count with what is looked up only for the one that is shown: what lies in its way, how its spot holds."""
    tell: Callable[[Layout, Count, Ball], str] | None = getattr(METHODS[found.method], "on_this_table", None)
    place = found.place(aimed.ball)
    adjust = found.adjust if tell is None else tell(layout, found, place)
    way = way_of(layout, found)
    blocked, is_open = blocker(found, aimed.ball.id, way)
    lands = proved(layout, found, aimed.ball, pots=True, last=aimed.target, way=way)
    shown = replace(found, lands=lands, blocked=blocked, open=is_open)
    potted = shown.pocket is not None and lands.pots == shown.pocket
    return replace(shown, adjust=adjust, squirt=squirt_told(layout, shown, place), potted=potted)


def counted(
    method: str,
    layout: Layout,
    rails: tuple[Rail, ...] | None = None,
    target: str | None = None,
    kind: str = "kick",
    pocket: str | None = None,
    cue: Cue = IDEAL,
    contact: Contact = FULL_ON,
) -> Count | NoCount:
    """One method for a kick or a bank, over `rails` or over whichever it lands best on. pocket: of a bank."""
    name = known(method)
    if kind == "bank" and name == HALVING:
        return bank_count(layout, rails, target, pocket, cue)
    if kind == "bank":
        return NoCount(name, TITLES[name], rails or (), f"it counts kicks; banks are counted by {HALVING}'s pairs")
    if kind != "kick":
        raise BadInputError(f"unknown kind {kind!r}: use kick or bank", "kind", code="unknown")
    if rails is None:
        return best_count(method, layout, target, cue, contact)
    return count(method, layout, rails, target, cue, contact)


def count_steps(
    layout: Layout,
    rails: tuple[Rail, ...] | None = None,
    target: str | None = None,
    kind: str = "kick",
    pocket: str | None = None,
    cue: Cue = IDEAL,
    contact: Contact = FULL_ON,
) -> Steps[list[Count | NoCount]]:
    """Every method, those that land nearest to the target first, those that do not apply last; in steps."""
    found: list[Count | NoCount] = []
    for name in METHODS:
        found.append(counted(name, layout, rails, target, kind, pocket, cue, contact))
        yield
    return sorted(found, key=_landing)
