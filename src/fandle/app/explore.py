"""The Handbook: a system on its page's example or on any layout, what others say of it, and where it holds."""

from dataclasses import dataclass
from functools import cache

from fandle.app.compare import Beside, beside
from fandle.core.handbook.close_work import TechniquePage
from fandle.core.handbook.holds import Curve, by_cloth, by_cue, by_pace
from fandle.core.handbook.page import Page
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE, Cue
from fandle.core.steps import Steps
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.catalogue import orders_of
from fandle.core.systems.registry import best_count, count
from fandle.core.table.rails import Rail
from fandle.core.tablecheck.own_marks import OwnMarks, carrying, own_marks
from fandle.core.techniques.base import NoTechnique, Technique
from fandle.core.techniques.registry import solved


@dataclass(frozen=True)
class Example:
    """A system on a layout, and the systems it quarrels with on the same one, over the same rails where they can."""

    told: Beside
    rivals: tuple[Count | NoCount, ...]


@dataclass(frozen=True)
class Drift:
    """How a system lands along its page's row of cue balls, by cloth, by pace, and by cue.

    cue: () where the system is played without side, so that no cue makes a difference. own: the table's own marks,
    None for a system that has none.
    """

    cloth: tuple[Curve, ...]
    pace: tuple[Curve, ...]
    cue: tuple[Curve, ...]
    own: OwnMarks | None = None


def example(
    page: Page, layout: Layout, rails: tuple[Rail, ...], cue: Cue = HOUSE, carried: float = 0.0
) -> Steps[Example]:
    """A page's system on a layout, played with this cue, in steps. carried: what a test shot found of the table.

    Over other rails where it does not count over the ones asked.
    """
    nothing = "no ball is chosen to be hit: do so in the Table room"
    found: Count | NoCount = NoCount(page.method, page.title, rails, nothing)
    yield
    if layout.target is not None:
        found = count(page.method, layout, rails, cue=cue)
        yield
        other = best_count(page.method, layout, cue=cue) if isinstance(found, NoCount) else found
        found = other if isinstance(other, Count) else found
    rivals = []
    for method in page.rivals if isinstance(found, Count) else ():
        same = found.rails in orders_of(method)
        over = count(method, layout, found.rails, cue=cue) if same else best_count(method, layout, cue=cue)
        rivals.append(over)
        yield
    return Example(beside(layout, found, carried), tuple(rivals))


def own_example(page: Page) -> Count | NoCount:
    """A page's system on its own example, as the index draws it."""
    return count(page.method, page.example, page.rails)


@cache
def technique_example(page: TechniquePage) -> Technique | NoTechnique:
    """A technique on its page's own example, as the index draws it."""
    return solved(page.method, page.example)


def drift(
    page: Page, layout: Layout, rails: tuple[Rail, ...], own_cue: Cue = HOUSE, carried: float = 0.0
) -> Steps[Drift]:
    """How the system drifts, in steps; the table's own marks are this cue's, moved by what a test shot found."""
    cloth = yield from by_cloth(page, layout, rails)
    pace = yield from by_pace(page, layout, rails)
    cue = yield from by_cue(page, layout, rails)
    yield
    own = own_marks(layout.table, page.method, own_cue)
    return Drift(cloth, pace, cue, None if own is None else carrying(own, layout.table, own_cue, carried))
