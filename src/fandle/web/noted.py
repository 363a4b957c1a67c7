"""Kept things as the Table room shows them: their state and their address."""

from fandle.core.layout import Layout
from fandle.core.rails import parse_rails
from fandle.core.stroke import Stroke, find_cue
from fandle.core.units import default_speed
from fandle.formats.files import layout_of
from fandle.store.log import Noted
from fandle.web import address


def noted_state(row: Noted) -> address.State:
    """The Table room as it stood when an attempt was made."""
    s = row.stroke
    stroke = Stroke(s["speed"], s["side"], s["up"], cue=find_cue(s["cue"]))
    return address.State(layout_of(row.layout), stroke, parse_rails(row.rails), hit=s.get("hit", 0.0))


def noted_href(row: Noted) -> str:
    """Where an attempt is reopened."""
    return address.TABLE_ROOM + "?" + address.write(noted_state(row))


def layout_state(layout: Layout) -> address.State:
    """The Table room on a kept layout, plain at medium speed."""
    return address.State(layout, Stroke(default_speed(layout.table)))


def layout_href(layout: Layout) -> str:
    """Where a kept layout is reopened."""
    return address.TABLE_ROOM + "?" + address.write(layout_state(layout))
