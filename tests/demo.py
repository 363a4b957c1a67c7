"""The demo club's practice as it is kept, for tests of what keeps it."""

from fandle.app.demo import practice
from fandle.formats.files import layout_of
from fandle.store.demo_data import demo_club
from fandle.store.log import Noted
from fandle.store.noting import practised_rows


def demo_practice() -> list[Noted]:
    """Some months of practice on three of the layouts, the same every time."""
    club = demo_club()
    layouts = [layout_of(kept["layout"]) for kept in club["layouts"]]
    return practised_rows(practice(layouts), club["tables"][0]["label"])
