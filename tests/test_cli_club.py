"""What the club keeps, on the command line: its tables, cues, layouts, log and drills."""

import json
from pathlib import Path
from typing import Any

import pytest
from tests.conftest import fandle

from fandle.core.practice.own import Counts, Struck, own_drill
from fandle.core.table.rails import Rail
from fandle.formats.files import layout_of
from fandle.formats.practice import OwnDrillFile
from fandle.store import club, practice
from fandle.store.database import Database
from fandle.store.demo_data import demo_club
from fandle.web.demo import fill

NINE_BALL = "examples/nine-ball.fandle.json"


@pytest.fixture
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A data folder that holds the demo club."""
    monkeypatch.setenv("FANDLE_HOME", str(tmp_path))
    database = Database.open(tmp_path)
    fill(database)
    database.close()
    return tmp_path


@pytest.fixture
def nothing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A data folder that nobody has made yet."""
    folder = tmp_path / "none"
    monkeypatch.setenv("FANDLE_HOME", str(folder))
    return folder


def told(*words: str) -> Any:
    """A verb's JSON."""
    ran = fandle(*words, "--json")
    assert ran.returncode == 0, ran.stderr
    return json.loads(ran.stdout)


def failed(*words: str) -> str:
    """What a verb says that is asked something that cannot be."""
    ran = fandle(*words)
    assert ran.returncode == 2
    return ran.stderr


@pytest.mark.parametrize(
    "verb",
    [
        ["simulate", NINE_BALL, "--aim", "far:3@nose"],
        ["aim", NINE_BALL, "--rails", "far"],
        ["count", NINE_BALL, "--method", "M3", "--rails", "far"],
        ["plan", NINE_BALL, "--draws", "40", "--strokes", "this"],
        ["diagnose", NINE_BALL, "--rails", "far", "--aim", "far:3@nose", "--landed", "0.5 short"],
    ],
    ids=lambda verb: verb[0],
)
def test_every_verb_plays_on_a_table_of_the_club(home: Path, verb: list[str]) -> None:
    own = told("table", "--club")[-1]
    here, there, standard = told(*verb, "--table", own), told(*verb), told(*verb, "--table", "pool-9ft")
    assert standard == there
    assert here != there


def test_tables_of_the_club_are_named_and_told(home: Path) -> None:
    names = told("table", "--club")
    assert "Bar box by the door" in names
    assert "Bar box by the door" not in told("table")
    assert told("table", "Bar box by the door")["name"] == "Bar box by the door"
    reference = told("check", "--list", "--table", "Bar box by the door")
    assert reference[0]["layout"]["table"]["name"] == "Bar box by the door"


def test_a_layout_file_may_name_a_table_of_the_club(home: Path, tmp_path: Path) -> None:
    laid = {**json.loads(Path(NINE_BALL).read_text("utf-8")), "table": "Damp nine-foot"}
    file = tmp_path / "damp.fandle.json"
    file.write_text(json.dumps(laid), "utf-8")
    assert told("aim", str(file), "--rails", "far") == told(
        "aim", NINE_BALL, "--rails", "far", "--table", "Damp nine-foot"
    )


def test_a_cue_of_the_club_is_played_with(home: Path) -> None:
    with_own = told("aim", NINE_BALL, "--rails", "far", "--side", "0.3", "--cue", demo_club()["cues"][0]["name"])
    assert with_own["direction"] != told("aim", NINE_BALL, "--rails", "far", "--side", "0.3")["direction"]
    assert "a broom" in failed("aim", NINE_BALL, "--rails", "far", "--cue", "a broom")


def test_layouts_are_listed_found_and_printed_as_files(home: Path, tmp_path: Path) -> None:
    names = [row["name"] for row in told("layouts")]
    assert names == [each["name"] for each in reversed(demo_club()["layouts"])]
    assert [row["name"] for row in told("layouts", "--last", "2")] == names[:2]
    assert [row["name"] for row in told("layouts", "--find", "NOTHING TO POT")] == ["Nothing to pot: leave nothing"]
    file = tmp_path / "kept.fandle.json"
    file.write_text(json.dumps(told("layouts", "Nothing to pot: leave nothing")), "utf-8")
    assert told("aim", str(file), "--rails", "near")["solved"]
    assert fandle("layouts", "Nothing to pot: leave nothing").stdout == file.read_text("utf-8") + "\n"


def test_the_log_is_told_with_its_figures(home: Path) -> None:
    whole = told("log", "--last", "200")
    figures = whole["figures"]
    assert whole["club"] == demo_club()["club"]
    assert figures["attempts"] == len(whole["attempts"]) == 98
    assert figures["hits"] == sum(each["result"] == "hit" for each in whole["attempts"])
    assert figures["low"] < figures["share"] < figures["high"]
    assert [each["made_at"] for each in whole["attempts"]] == sorted(
        (each["made_at"] for each in whole["attempts"]), reverse=True
    )
    few = told("log", "--last", "3")
    assert few == {**whole, "attempts": whole["attempts"][:3]}
    out = fandle("log", "--last", "3").stdout
    assert out.startswith(f"{figures['hits']} of 98 hit")
    assert len(out.splitlines()) == 4


def test_the_log_of_one_table(home: Path) -> None:
    label = told("log", "--last", "1")["attempts"][0]["table_label"]
    assert told("log", "--table", label)["figures"]["attempts"] == 98
    other = next(row.label for row in _tables(home) if row.label != label)
    assert told("log", "--table", other)["figures"]["attempts"] == 0
    assert failed("log", "--table", "Attic") == (
        "fandle: no table of the club is called 'Attic': fandle table --club has them\n"
    )


def _tables(home: Path) -> list[club.TableRow]:
    database = Database.open(home)
    try:
        return club.tables(database)
    finally:
        database.close()


def test_a_drill_that_a_player_made_is_set_up_by_its_name(home: Path) -> None:
    laid = layout_of(json.loads(Path(NINE_BALL).read_text("utf-8")))
    made = own_drill(laid, (Rail.FAR,), Struck(2.5, 0.0, 0.0, 0.0), "Round the eight", Counts(False, 7, 10))
    database = Database.open(home)
    practice.keep_drill(database, made.name, OwnDrillFile.of(made).model_dump())
    database.close()
    assert told("drill", made.name)["title"] == "Round the eight"
    assert told("drill", "--list")[0]["name"] == made.name


def test_where_nothing_is_kept_nothing_is_made(nothing: Path) -> None:
    assert told("layouts") == []
    assert told("table", "--club") == told("table")
    for words, says in (
        (["log"], "nothing is kept yet: start fandle serve, or take a log in with fandle import"),
        (["layouts", "one"], "no layout is kept as 'one': fandle layouts has them"),
        (
            ["aim", NINE_BALL, "--rails", "far", "--table", "Attic"],
            "unknown table 'Attic': fandle table --club has them",
        ),
        (["log", "--last", "0"], "--last 0: ask for 1 to 1000"),
        (["drill", "nobody's"], "unknown drill"),
    ):
        assert says in failed(*words)
    assert not nothing.exists()
