"""A club in memory and one in a database keep the same things alike; the library finds a name in either."""

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest

from fandle.app.club import Club, KeptLayout, MemoryClub
from fandle.app.drill_list import drill_called, own_called, titles
from fandle.app.library import VISITING, Library
from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import own_cue
from fandle.core.table.model import Table, renamed
from fandle.core.table.standards import STANDARDS
from fandle.formats.files import layout_json
from fandle.store import club as kept
from fandle.store.database import Database
from fandle.store.demo_data import demo_club
from fandle.store.queries import fill_demo, save_layout
from fandle.store.stored_club import StoredClub

CELLAR = replace(renamed(STANDARDS["pool-9ft"], "Cellar"), cloth_rolling=0.02)
LAID = Layout(STANDARDS["pool-9ft"], "nine-ball", (Ball("cue", 1.0, 1.0), Ball("1", 6.0, 2.0)), "1")
Names = Callable[[Path, list[str]], Club]


def in_memory(_folder: Path, layouts: list[str]) -> Club:
    club = MemoryClub(kept_cues=[own_cue("Ash", 8.0, 0.012)])
    club.kept_layouts += [KeptLayout(k, name, "", LAID) for k, name in enumerate(layouts, 1)]
    return club


def in_database(folder: Path, layouts: list[str]) -> Club:
    database = Database.open(folder)
    kept.save_cue(database, kept.CueRow("Ash", 8.0, 12.0))
    for name in layouts:
        save_layout(database, name, layout_json(LAID))
    return StoredClub(database)


@pytest.fixture(params=[in_memory, in_database])
def make(request: pytest.FixtureRequest) -> Names:
    made: Names = request.param
    return made


def test_a_table_that_comes_to_stand_is_found_by_its_name(make: Names, tmp_path: Path) -> None:
    club = make(tmp_path, [])
    row = club.add_table(CELLAR)
    assert (row.name, row.standard, row.table) == ("Cellar", None, CELLAR)
    assert [each.table for each in club.tables()][-1] == CELLAR
    assert "Cellar" in club.names_taken()
    with pytest.raises(FandleError, match="called 'Cellar' stands in the club already"):
        club.add_table(CELLAR)
    library = Library(club)
    assert library.table("Cellar") == CELLAR
    assert library.table("snooker-12ft") == STANDARDS["snooker-12ft"]
    with pytest.raises(BadInputError, match=r"unknown table 'Attic': use .*Cellar"):
        library.table("Attic")


def test_a_table_of_the_same_name_and_other_numbers_gets_a_number(make: Names, tmp_path: Path) -> None:
    library = Library(make(tmp_path, []))
    other = replace(CELLAR, cloth_rolling=0.025)
    assert library.take_in(CELLAR).name == "Cellar"
    assert library.take_in(CELLAR).name == "Cellar"
    assert library.take_in(other).name == "Cellar 2"
    assert library.table("Cellar 2").cloth_rolling == 0.025


def test_a_guest_is_known_and_not_kept(make: Names, tmp_path: Path) -> None:
    club = make(tmp_path, [])
    library = Library(club)
    guest: Table = library.visit(CELLAR)
    assert guest.name == f"Cellar ({VISITING})"
    assert library.table(guest.name) == guest
    assert guest.name not in club.names_taken()


def test_cues_and_layouts_the_newest_first(make: Names, tmp_path: Path) -> None:
    club = make(tmp_path, ["one", "two", "a third"])
    assert [cue.name for cue in club.cues()] == ["Ash"]
    assert Library(club).cue("Ash").end_ratio == 8.0
    found = club.layouts(2)
    assert [row.name for row in found] == ["a third", "two"]
    assert [row.name for row in club.layouts(5, before=found[-1].id)] == ["one"]
    assert [row.name for row in club.layouts(5, find="THIRD")] == ["a third"]
    assert found[0].layout == LAID
    assert [row.name for row in club.layouts_named(["two", "four", "one"])] == ["one", "two"]


def test_a_drill_that_ships_needs_no_club_and_one_nobody_knows_is_refused(make: Names, tmp_path: Path) -> None:
    club = make(tmp_path, [])
    assert drill_called(club, "return-3").name == "return-3"
    assert titles(club, ["return-3", "nobody's"]).keys() == {"return-3"}
    assert own_called(club, ["return-3"]) == {}
    with pytest.raises(BadInputError, match="unknown drill"):
        drill_called(club, "nobody's")


def test_records_that_cannot_be_read_stand_as_such(tmp_path: Path) -> None:
    database = Database.open(tmp_path)
    fill_demo(database, demo_club(), list)
    save_layout(database, "broken", {"format": "fandle-layout/1"})
    kept.add_table(database, "Broken", {"length": "long"})
    club = StoredClub(database)
    assert club.layouts(1)[0].layout is None
    assert club.tables()[-1].table is None
    assert "Broken" not in Library(club).tables()
    assert len(club.tables()) == len(demo_club()["tables"]) + 1
