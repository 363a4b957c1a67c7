"""The favourite system on a line: it leads where it counts; where it does not, the one that lands nearest stands in."""

from fandle.app.count import count_line
from fandle.app.situation import Situation
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.registry import counted
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

LAYOUT = Layout(standard_table("pool-9ft"), "nine-ball", (Ball("cue", 1.1, 0.55), Ball("7", 5.3, 0.5)), "7")


def test_the_favourite_leads_where_it_counts() -> None:
    found = count_line(Situation(LAYOUT, Stroke(3.0), system="M3"), (Rail.FAR,), None)
    assert isinstance(found.found, Count)
    assert (found.found.method, found.favourite) == ("M3", None)


def test_the_one_that_lands_nearest_stands_in_and_the_favourite_says_why() -> None:
    found = count_line(Situation(LAYOUT, Stroke(3.0), system="M14"), (Rail.FAR,), None)
    assert isinstance(found.found, Count)
    assert isinstance(found.favourite, NoCount)
    assert found.favourite.method == "M14"
    others = [counted(name, LAYOUT, (Rail.FAR,)) for name in METHODS]
    nearest = min(c.lands.off_balls for c in others if isinstance(c, Count) and c.open)
    assert found.found.lands.off_balls == nearest


def test_where_none_counts_the_favourites_reason_is_told() -> None:
    found = count_line(Situation(LAYOUT, Stroke(3.0), system="M3"), (Rail.HEAD, Rail.FOOT, Rail.HEAD), None)
    assert isinstance(found.found, NoCount)
    assert (found.found.method, found.favourite) == ("M3", None)


def test_in_carom_the_product_leads_over_short_long_short() -> None:
    """M18 first for a natural (common practice), though another system may land nearer."""
    carom = standard_table("carom-10ft")
    balls = (Ball("cue", 1.2, 0.3), Ball("red", 0.2, 1.6), Ball("white", 6.0, 3.4))
    layout = Layout(carom, "three-cushion", balls, "red")
    rails = (Rail.FOOT, Rail.FAR, Rail.HEAD)
    led = count_line(Situation(layout, Stroke(3.45, -0.3)), rails, None)
    assert isinstance(led.found, Count)
    assert led.found.method == "M18"
    assert led.favourite is not None
