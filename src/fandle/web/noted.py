"""Kept things as the Table room shows them: their state and their address."""

from fandle.core.errors import BadInputError
from fandle.core.layout import Layout
from fandle.core.rails import parse_rails
from fandle.core.stroke import IDEAL, Cue, Stroke
from fandle.core.units import default_speed
from fandle.formats.files import layout_of
from fandle.store.log import Noted
from fandle.web import address
from fandle.web.known import STANDARD, Known


def noted_state(row: Noted, known: Known = STANDARD) -> address.State:
    """The Table room as it stood when an attempt was made, on the table as it was then.

    Raises BadInputError where the record is not what this version writes.
    """
    s = row.stroke
    try:
        stroke = Stroke(s["speed"], s["side"], s["up"], cue=_cue(s["cue"], known))
        hit = s.get("hit", 0.0)
    except (TypeError, KeyError, AttributeError):
        raise BadInputError(f"the record of attempt {row.uid} cannot be read", "stroke") from None
    layout, kind = layout_of(row.layout), "bank" if row.kind == "bank" else "kick"
    return address.State(layout, stroke, parse_rails(row.rails), hit=hit, kind=kind, pocket=row.pocket)


def _cue(name: str, known: Known) -> Cue:
    """The cue it was played with; the ideal one where that has been let go of."""
    try:
        return known.cue(name)
    except BadInputError:
        return IDEAL


def noted_href(row: Noted, known: Known = STANDARD) -> str | None:
    """Where an attempt is reopened; None where its record cannot be read."""
    try:
        return address.TABLE_ROOM + "?" + address.write(noted_state(row, known))
    except BadInputError:
        return None


def layout_state(layout: Layout, method: str = "M3") -> address.State:
    """The Table room on a kept layout, plain at medium speed."""
    return address.State(layout, Stroke(default_speed(layout.table)), method=method)


def layout_href(layout: Layout, method: str = "M3") -> str:
    """Where a kept layout is reopened."""
    return address.TABLE_ROOM + "?" + address.write(layout_state(layout, method))
