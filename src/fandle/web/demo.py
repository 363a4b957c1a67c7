"""The demo club with its practice, put into an empty database."""

from datetime import UTC, datetime

from fandle.app.demo import drilled, practice
from fandle.formats.files import layout_of
from fandle.store.database import Database
from fandle.store.demo_data import demo_club
from fandle.store.log import Noted
from fandle.store.practice import Try, note_tries
from fandle.store.queries import fill_demo
from fandle.web.noted import noted_attempt


def demo_practice() -> list[Noted]:
    """Some months of practice on three of the layouts, the same every time."""
    club = demo_club()
    rows = practice([layout_of(kept["layout"]) for kept in club["layouts"]])
    label = club["tables"][0]["label"]
    return [noted_attempt(row.attempt, row.uid, row.made_at, label, off=row.off, comment=row.comment) for row in rows]


def fill(database: Database) -> bool:
    """Fill an empty database; False (nothing done) if it is not empty."""
    if not fill_demo(database, demo_club(), demo_practice):
        return False
    label = demo_club()["tables"][0]["label"]
    note_tries(database, [Try(row.uid, row.made_at, row.drill, label, row.made) for row in drilled(datetime.now(UTC))])
    return True
