"""The demo club with its practice, put into an empty database."""

from datetime import UTC, datetime

from fandle.app.demo import drilled, practice
from fandle.formats.files import layout_of
from fandle.store.database import Database
from fandle.store.demo_data import demo_club
from fandle.store.log import Noted
from fandle.store.noting import practised_rows
from fandle.store.practice import Try, note_tries
from fandle.store.queries import fill_demo


def demo_practice() -> list[Noted]:
    """Some months of practice on three of the layouts, the same every time."""
    club = demo_club()
    made = practice([layout_of(kept["layout"]) for kept in club["layouts"]])
    return practised_rows(made, club["tables"][0]["label"])


def fill(database: Database) -> bool:
    """Fill an empty database; False (nothing done) if it is not empty."""
    club = demo_club()
    if not fill_demo(database, club, demo_practice):
        return False
    label = club["tables"][0]["label"]
    note_tries(database, [Try(row.uid, row.made_at, row.drill, label, row.made) for row in drilled(datetime.now(UTC))])
    return True
