"""The Club room without a browser: tables and cues made, changed, kept, sent out and taken in."""

import json
import re
import sqlite3
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from unittest.mock import patch
from urllib.parse import quote

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT
from tests.web.conftest import local_client

from fandle.core.errors import EngineError
from fandle.core.table.model import Table
from fandle.core.table.standards import standard_table
from fandle.core.tablecheck import response
from fandle.core.tablecheck.response import Rebound
from fandle.formats.tables import table_json
from fandle.store import club as club_store
from fandle.web import address
from fandle.web.app import create_app
from fandle.web.settings import Settings

PLAIN = {"Content-Type": "text/plain"}


@pytest.fixture
def club(tmp_path: Path) -> Iterator[TestClient]:
    """A club of its own for each test."""
    with local_client(create_app(Settings(tmp_path, demo=True))) as client:
        yield client


def make(client: TestClient, name: str = "Mine", **form: Any) -> Any:
    return client.post(address.CLUB_TABLES, json={"base": "pool-9ft", "name": name, **form})


def table_url(client: TestClient, name: str) -> str:
    """Where the club's table of this name is changed."""
    library = client.app.state.library  # type: ignore[attr-defined]
    return f"{address.CLUB_TABLES}/{next(row.id for row in library.standing() if row.label == name)}"


def answer_on(client: TestClient, table: str, **question: Any) -> Any:
    asked = {"layout": {**CONTRACT_LAYOUT, "table": table}, "speed": 4.0, "rails": "far", **question}
    reply = client.post(address.ANSWER, json=asked)
    assert reply.status_code == 200, reply.text
    return reply.json()


def test_a_table_is_made_used_changed_and_let_go(club: TestClient) -> None:
    mine = make(club, values={"cushion_compression": 3.0}, cloth="damp").json()
    assert mine["name"] == "Mine"
    url = f"{address.CLUB_TABLES}/{mine['id']}"
    page = club.get("/club?table=Mine").text
    assert "All changes are saved" in page
    assert "cloth damp, rubber own numbers" in page
    soft = answer_on(club, "Mine")
    assert "table=Mine" in soft["address"]
    assert "the rubber gives" in soft["chosen"]["give"]
    assert any(row["label"].startswith("the rubber gives") for row in soft["chosen"]["chain"])
    form = {"base": "Mine", "name": "Ours", "values": {"cushion_compression": 0.0}}
    changed = club.put(url, json=form).json()
    assert changed["name"] == "Ours"
    back = club.put(url, json={"base": "Ours", "whole": changed["before"]}).json()
    assert (back["name"], answer_on(club, "Mine")["chosen"]["give"] == "") == ("Mine", False)
    assert club.put(url, json=form).status_code == 200
    assert answer_on(club, "Ours")["chosen"]["give"] == ""
    assert club.post(address.ANSWER, json={"layout": {**CONTRACT_LAYOUT, "table": "Mine"}}).status_code == 422
    gone = club.delete(url).json()
    assert club.post(address.ANSWER, json={"layout": {**CONTRACT_LAYOUT, "table": "Ours"}}).status_code == 422
    assert club.post(address.CLUB_BACK, json={"id": gone["id"]}).json()["name"] == "Ours"
    assert club.post(address.CLUB_BACK, json={"id": gone["id"]}).status_code == 404
    assert answer_on(club, "Ours")["chosen"]["solved"]


def test_a_table_goes_out_with_its_layout_and_gives_the_same_answer_elsewhere(
    club: TestClient, tmp_path_factory: pytest.TempPathFactory
) -> None:
    """To the last digit, in another club that has a different table of that name already."""
    make(club, values={"cushion_compression": 2.2, "cue_ball_mass": 181.0, "cloth_rolling": 0.0123}, rubber="lively")
    make(club, "Odd", values={"length": 2300.0, "pockets.side_mouth": 140.0, "nose_height": 36.5})
    with local_client(create_app(Settings(tmp_path_factory.mktemp("elsewhere")))) as other:
        make(other, "Odd", values={"cushion_restitution": 0.7})
        for name, there in (("Mine", "Mine"), ("Odd", "Odd 2")):
            here = answer_on(club, name, side=0.2)
            sent = club.get(f"{address.SAVE_LAYOUT}?{here['address']}")
            assert sent.json()["table"]["name"] == name
            read = other.post(address.READ_LAYOUT, content=sent.text, headers=PLAIN).json()
            assert (read["layout"]["table"], read["href"]) == (name, None)
            put = other.post(address.READ_TABLE, content=json.dumps(read["table"]), headers=PLAIN).json()
            assert put == {"name": there}
            again = other.post(address.READ_LAYOUT, content=sent.text, headers=PLAIN).json()
            assert again["layout"]["table"] == there  # not taken in twice
            assert again["table"] is None
            reply = answer_on(other, there, side=0.2)
            assert reply["chosen"]["answer"] == here["chosen"]["answer"]
            table = club.get(f"{address.SAVE_TABLE}?name={name}").json()
            assert other.get(f"{address.SAVE_TABLE}?name={there}").json() == {**table, "name": there}


def test_a_bank_tells_the_give_without_a_depth_it_does_not_know(club: TestClient) -> None:
    """The ball that meets the rail is the object ball; the page knows the cue ball's path."""
    balls = [{"id": "cue", "x": 3, "y": 2.5}, {"id": "7", "x": 5, "y": 1.2}]
    layout = {**CONTRACT_LAYOUT, "table": "Bar box by the door", "balls": balls}
    got = club.post(address.ANSWER, json={"layout": layout, "kind": "bank", "rails": "near", "speed": 4.0}).json()
    assert got["chosen"]["solved"]
    labels = [row["label"] for row in got["chosen"]["chain"]]
    assert "the rubber gives" in labels
    assert got["chosen"]["give"] == ""


def test_named_layouts_follow_their_table(club: TestClient) -> None:
    """Renamed and changed, the table of a kept layout is still found, and it is the changed one."""
    before = club.get("/").text
    assert "table=Bar%20box%20by%20the%20door" in before
    form = {"base": "Bar box by the door", "name": "Bar box", "values": {"cloth_rolling": 0.02}}
    assert club.put(table_url(club, "Bar box by the door"), json=form).json()["name"] == "Bar box"
    link = re.findall(r'href="(/\?table=Bar%20box&[^"]+)"', club.get("/").text)[0].replace("&amp;", "&")
    page = club.get(link).text
    assert "This link cannot" not in page
    saved = club.get(address.SAVE_LAYOUT + link[1:]).json()
    assert (saved["table"]["name"], saved["table"]["cloth_rolling"]) == ("Bar box", 0.02)


def test_a_file_that_calls_itself_like_a_standard_table(club: TestClient) -> None:
    pretender = {**table_json(standard_table("pool-9ft")), "cushion_friction": 0.3}
    read = club.post(address.READ_TABLE, content=json.dumps(pretender), headers=PLAIN).json()
    assert read == {"name": "pool-9ft 2"}
    honest = json.dumps(table_json(standard_table("pool-9ft")))
    assert club.post(address.READ_TABLE, content=honest, headers=PLAIN).json() == {"name": "pool-9ft"}


@pytest.mark.parametrize(
    ("form", "status", "sentence"),
    [
        ({"name": "Back-room nine-foot"}, 409, "stands in the club already"),
        ({"name": "pool-8ft"}, 422, "is a standard table"),
        ({"name": "  "}, 422, "a name needs a character"),
        ({"name": None}, 422, "needs a name"),
        ({"name": "X", "values": {"ball_radius": 900.0}}, 422, "outside 20 to 100 mm"),
        ({"name": "X", "values": {"cushion_compression": 20.0}}, 422, "outside 0 to 6 mm per m/s"),
        ({"name": "X", "values": {"nose_height": 20.0}}, 422, "50 % to 75 %"),
        ({"name": "X", "values": {"wood": 1.0}}, 422, "has no number 'wood'"),
        ({"name": "X", "cloth": "velvet"}, 422, "unknown cloth"),
        ({"name": "X", "base": "nowhere"}, 422, "unknown table 'nowhere'"),
    ],
)
def test_bad_tables_are_sentences_and_nothing_is_kept(
    club: TestClient, form: dict[str, Any], status: int, sentence: str
) -> None:
    before = club.get("/club").text
    reply = club.post(address.CLUB_TABLES, json={"base": "pool-9ft", **form})
    assert reply.status_code == status, reply.text
    assert sentence in reply.json()["error"]
    assert club.get("/club").text == before


def test_standard_tables_stay_as_they_are(club: TestClient) -> None:
    form = {"base": "pool-9ft", "name": "Changed"}
    for url in (table_url(club, "Back-room nine-foot"), f"{address.CLUB_TABLES}/999999"):
        assert club.put(url, json=form).status_code == 404
        assert club.delete(url).status_code == 404
    assert club.delete(f"{address.CLUB_TABLES}/pool-9ft").status_code == 422  # records have numbers
    assert "a standard table stays as it is" in club.get("/club?table=snooker-12ft").text
    assert "unknown table" in club.get("/club?table=nowhere").text
    for wrong in ("{", "[]", '{"name": "x"}'):
        assert club.post(address.READ_TABLE, content=wrong, headers=PLAIN).status_code == 422


def test_the_preview_is_what_would_be_kept(club: TestClient) -> None:
    seen = club.post(address.CLUB_PREVIEW, json={"base": "Bar box by the door", "rubber": "standard"}).json()
    assert seen["values"]["cushion_compression"] == 0.0
    assert (seen["cloth"], seen["rubber"]) == ("worn", "standard")
    assert seen["plot"]["here"] == seen["plot"]["rigid"]
    soft = club.post(address.CLUB_PREVIEW, json={"base": "Bar box by the door"}).json()
    assert soft["plot"]["here"] != soft["plot"]["rigid"]
    assert any("the rubber gives" in line for line in soft["told"])
    assert soft["shot"] != soft["standard"]


def test_cues_are_kept_changed_and_used(club: TestClient) -> None:
    cue = {"name": "Ash", "end_ratio": 12.0, "tip_mm": 9.0}
    ash = club.post(address.CLUB_CUES, json=cue).json()
    assert ash["name"] == "Ash"
    url = f"{address.CLUB_CUES}/{ash['id']}"
    assert club.post(address.CLUB_CUES, json=cue).status_code == 409
    with_ash, ideal = (answer_on(club, "pool-9ft", side=0.3, cue=name) for name in ("Ash", None))
    assert with_ash["chosen"]["answer"]["direction"] != ideal["chosen"]["answer"]["direction"]
    assert "cue=Ash" in with_ash["address"]
    assert with_ash["stroke"]["tips"] == pytest.approx(ideal["stroke"]["tips"] * 13 / 9)  # its own, thinner tip
    assert "Ash" in club.get("/?" + with_ash["address"]).text
    thick = {**cue, "tip_mm": 13.0}
    assert club.put(url, json=thick).json()["name"] == "Ash"
    assert answer_on(club, "pool-9ft", side=0.3, cue="Ash")["stroke"]["tips"] == pytest.approx(ideal["stroke"]["tips"])
    assert club.post(address.CLUB_CUES, json={**cue, "end_ratio": 1.0, "name": "X"}).status_code == 422
    assert club.put(f"{address.CLUB_CUES}/999999", json=cue).status_code == 404
    assert club.delete(url).json() == thick
    assert club.delete(url).status_code == 404
    assert club.post(address.ANSWER, json={"layout": CONTRACT_LAYOUT, "cue": "Ash"}).status_code == 422


def test_a_layout_moves_to_another_table(club: TestClient) -> None:
    def moved(table: str, layout: Any = CONTRACT_LAYOUT) -> str:
        reply = club.post(address.MOVE, json={"layout": layout, "table": table})
        assert reply.status_code == 200, reply.text
        href: str = reply.json()["href"]
        assert "This link cannot" not in club.get(href).text
        return href

    assert "balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7" in moved("pool-7ft")
    assert "game=snooker&balls=cue:1.1,0.55;red1:5.3,0.5;red2:3.2,0.5&target=red1" in moved("snooker-12ft")
    assert "game=three-cushion&balls=cue:1.1,0.55;red:5.3,0.5;white:3.2,0.5&target=red" in moved("carom-10ft")
    assert club.post(address.MOVE, json={"layout": CONTRACT_LAYOUT, "table": "nowhere"}).status_code == 422


def test_snooker_is_told_in_marks_and_by_tape(club: TestClient) -> None:
    balls = [{"id": "cue", "x": 1.5, "y": 1.0}, {"id": "black", "x": 5.5, "y": 1.1}]
    layout = {
        "format": "fandle-layout/1",
        "table": "snooker-12ft",
        "game": "snooker",
        "balls": balls,
        "target": "black",
    }
    got = club.post(address.ANSWER, json={"layout": layout, "rails": "far", "speed": 3.5}).json()
    assert got["chosen"]["other"] is None
    assert "mm" in got["chosen"]["measured"]
    assert "diamond" not in got["count"].get("say", "")
    head = club.post(address.ANSWER, json={"layout": layout, "rails": "head", "speed": 3.5}).json()
    assert "aulk" in head["chosen"].get("lead", "baulk")
    page = club.get("/?" + got["address"]).text
    assert '<option value="marks">' in page
    assert "[[&#34;baulk&#34;," in page
    assert "black spot" in page


@pytest.mark.parametrize("name", ["Hall 1/2", "a/b/../c", "50 % #1?", "ü ß", "  spaced"])
def test_names_with_any_sign_are_changed_and_removed(club: TestClient, name: str) -> None:
    made = make(club, name)
    assert (made.status_code, made.json()["name"]) == (200, name.strip())
    url = f"{address.CLUB_TABLES}/{made.json()['id']}"
    form = {"base": name.strip(), "values": {"cloth_rolling": 0.02}}
    assert club.put(url, json=form).status_code == 200
    assert club.get(f"/club?table={quote(name.strip())}").status_code == 200
    assert club.delete(url).status_code == 200
    cue = club.post(address.CLUB_CUES, json={"name": name, "end_ratio": 20, "tip_mm": 12}).json()
    assert club.delete(f"{address.CLUB_CUES}/{cue['id']}").status_code == 200
    layout = club.post(address.LAYOUTS, json={"name": name, "layout": CONTRACT_LAYOUT}).json()
    assert club.delete(f"{address.LAYOUTS}/{layout['id']}").status_code == 200


def test_an_edit_is_never_followed_by_an_older_table(club: TestClient) -> None:
    """A reading that began before a change must not be kept after it."""
    mine = make(club).json()["id"]
    state = club.app.state  # type: ignore[attr-defined]
    library = state.library
    started, go_on = threading.Event(), threading.Event()

    def slow_tables(database: Any) -> Any:
        rows = kept(database)
        started.set()
        go_on.wait(5)
        return rows

    kept = club_store.tables
    library.forget()
    with patch.object(club_store, "tables", slow_tables):
        reader = threading.Thread(target=library.tables)
        reader.start()
        started.wait(5)
        form = {"base": "pool-9ft", "name": "Mine", "values": {"cloth_rolling": 0.033}}
        with patch.object(club_store, "tables", kept):
            library.forget()
            club_store.change_table(
                state.database, mine, "Mine", {**table_json(library.table("Mine")), "cloth_rolling": 0.033}
            )
            library.forget()
        go_on.set()
        reader.join(5)
    assert form["name"] in library.tables()
    assert library.table("Mine").cloth_rolling == 0.033


def test_sixty_tables_of_one_name_stay_quick(club: TestClient) -> None:
    table = table_json(standard_table("pool-8ft"))
    for n in range(60):
        own = {**table, "name": "From next door", "cloth_rolling": 0.008 + n * 1e-5}
        assert club.post(address.READ_TABLE, content=json.dumps(own), headers=PLAIN).status_code == 200
    again = {**table, "name": "From next door", "cloth_rolling": 0.008 + 50 * 1e-5}
    start = time.perf_counter()
    assert club.post(address.READ_TABLE, content=json.dumps(again), headers=PLAIN).json()["name"] == "From next door 51"
    assert club.get("/club").status_code == 200
    assert time.perf_counter() - start < 2.0  # it was minutes; no figure, only that it does not grow with every name


def test_a_malformed_record_is_shown_as_such_and_takes_nothing_with_it(club: TestClient) -> None:
    mine = make(club).json()["id"]
    uid = "malformed-1"
    note = {"uid": uid, "question": {"layout": CONTRACT_LAYOUT, "rails": "far"}, "result": "hit"}
    assert club.post(address.ATTEMPTS, json=note).status_code == 200
    connection = sqlite3.connect(club.app.state.database.path)  # type: ignore[attr-defined]
    connection.execute("update club_table set data = '{broken' where label = 'Mine'")
    connection.execute("update named_layout set data = '[1, 2' where id = 1")
    connection.execute("update named_layout set data = '{}' where id = 2")
    connection.execute("update attempt set layout = 'x', stroke = '[]', aim = 'null' where uid = ?", (uid,))
    connection.commit()
    connection.close()
    club.app.state.library.forget()  # type: ignore[attr-defined]
    room, log_room, club_room = club.get("/"), club.get("/log"), club.get("/club?table=Mine")
    assert [reply.status_code for reply in (room, log_room, club_room)] == [200, 200, 200]
    assert room.text.count("This record cannot be read") == 2
    assert "this record cannot be read" in log_room.text
    assert "this record cannot be read" in club_room.text
    assert club.get(address.LOG_JSON).status_code == 200
    assert uid in club.get(address.LOG_CSV).text
    assert club.delete(f"{address.CLUB_TABLES}/{mine}").status_code == 200


def test_a_table_that_cannot_be_played_on_is_refused_when_it_is_saved(
    club: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Every number within its limits, and still no shot can be played: the number that does it is named.

    No such table is known any more (`make campaign` looks for one), so the engine is made to give up here.
    """

    def gives_up(table: Table) -> list[Rebound]:
        if table.cushion_friction > 0.35:
            raise EngineError("a cushion impact never ended: check the table's cushion and cloth numbers")
        return []

    monkeypatch.setattr(response, "rebounds", gives_up)
    reply = make(club, values={"cushion_friction": 0.39, "cloth_rolling": 0.02})
    assert reply.status_code == 422
    assert reply.json()["field"] == "table.cushion_friction"
    assert "cannot be played on with a cushion_friction of 0.39" in reply.json()["error"]
    assert "Mine" not in club.get("/club").text
