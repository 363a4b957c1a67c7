"""Notes over HTTP, the Log room, and exports whose figures can be recomputed."""

import csv
import io
import json
import re
import statistics
import uuid
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import event
from tests.conftest import CONTRACT_LAYOUT
from tests.web.conftest import local_client

from fandle.formats.log import COLUMNS, LogFile
from fandle.store.database import Database
from fandle.web import address
from fandle.web.app import create_app
from fandle.web.settings import Settings

QUESTION = {"layout": CONTRACT_LAYOUT, "speed": 3.1, "side": 0.1, "rails": "far"}


def note(client: TestClient, result: str = "hit", **more: Any) -> dict[str, Any]:
    uid = str(uuid.uuid4())
    reply = client.post(address.ATTEMPTS, json={"uid": uid, "question": {**QUESTION, **more}, "result": result})
    assert reply.status_code == 200, reply.text
    data: dict[str, Any] = reply.json()
    return data


def test_a_note_keeps_layout_stroke_aim_and_table(client: TestClient) -> None:
    told = note(client)["attempt"]
    assert told["layout"] == CONTRACT_LAYOUT
    assert told["stroke"] == {"speed": 3.1, "side": 0.1, "up": 0.0, "elevation": 0.0, "cue": "ideal"}
    assert set(told["aim"]) == {"nose", "sight", "centre"}
    assert (told["title"], told["rails"], told["table_label"]) == (
        "the 7 over the far rail",
        "far",
        "Back-room nine-foot",
    )


def test_a_repeated_note_is_one_note(client: TestClient) -> None:
    body = {"uid": str(uuid.uuid4()), "question": QUESTION, "result": "short"}
    replies = [client.post(address.ATTEMPTS, json=body).json()["figures"]["attempts"] for _ in range(3)]
    assert len(set(replies)) == 1


def test_more_is_said_and_the_crossing_becomes_short_or_long(client: TestClient) -> None:
    uid = note(client, "long")["attempt"]["uid"]
    url = f"{address.ATTEMPTS}/{uid}"
    told = client.patch(url, json={"at": 5.6, "side_hit": "right", "comment": "a bit firm"}).json()
    assert told["attempt"]["off"] == pytest.approx(0.3)
    assert (told["attempt"]["side_hit"], told["attempt"]["comment"]) == ("right", "a bit firm")
    assert client.patch(url, json={"result": "hit"}).json()["attempt"]["result"] == "hit"
    assert client.delete(url).status_code == 200
    assert uid not in client.get(address.LOG_CSV).text
    assert client.post(url + "/restore").status_code == 200
    assert uid in client.get(address.LOG_CSV).text


@pytest.mark.parametrize(
    ("method", "path", "body", "status", "words"),
    [
        ("POST", "", {"uid": "x", "question": QUESTION, "result": "hit"}, 422, "uid"),
        ("POST", "", {"uid": "a" * 8, "question": QUESTION, "result": "sunk"}, 422, "result"),
        (
            "POST",
            "",
            {"uid": "a" * 8, "question": {**QUESTION, "rails": None}, "result": "hit"},
            422,
            "no rail is chosen",
        ),
        (
            "POST",
            "",
            {"uid": "a" * 8, "question": {**QUESTION, "rails": "head"}, "result": "hit"},
            422,
            "no line to note",
        ),
        ("PATCH", "/aaaaaaaa", {"comment": "x"}, 404, "no attempt"),
        ("PATCH", "/aaaaaaaa", {"at": 5}, 404, "no attempt"),
        ("PATCH", "/aaaaaaaa", {"colour": "x"}, 422, "not known"),
        ("DELETE", "/aaaaaaaa", None, 404, "no attempt"),
        ("POST", "/aaaaaaaa/restore", None, 404, "no attempt"),
    ],
)
def test_bad_notes_are_sentences(
    client: TestClient, method: str, path: str, body: Any, status: int, words: str
) -> None:
    reply = client.request(method, address.ATTEMPTS + path, json=body)
    assert reply.status_code == status
    assert words in reply.json()["error"]


def read_csv(client: TestClient) -> list[dict[str, str]]:
    text = client.get(address.LOG_CSV).text
    return list(csv.DictReader(io.StringIO(text)))


def test_log_figures_equal_those_recomputed_from_the_csv(client: TestClient) -> None:
    for result, at in (("hit", 5.33), ("short", 5.0), ("long", 5.9)):
        uid = note(client, result)["attempt"]["uid"]
        told = client.patch(f"{address.ATTEMPTS}/{uid}", json={"at": at, "comment": 'says "no, no"\nand leaves'}).json()
    rows = read_csv(client)
    assert tuple(rows[0]) == COLUMNS
    mine = [row for row in rows if row["set_up"] == told["attempt"]["set_up"]]
    offs = [float(row["off_diamonds"]) for row in mine if row["off_diamonds"]]
    figures = told["figures"]
    assert figures["attempts"] == len(mine)
    assert figures["hits"] == sum(row["result"] == "hit" for row in mine)
    assert figures["bias"] == pytest.approx(statistics.fmean(offs))
    assert figures["scatter"] == pytest.approx(statistics.stdev(offs))
    page = client.get(address.LOG_ROOM).text
    every = [float(row["off_diamonds"]) for row in rows if row["off_diamonds"]]
    mean = statistics.fmean(every)
    assert f"{sum(row['result'] == 'hit' for row in rows)} of {len(rows)}" in page
    assert (
        "on average" if abs(mean) < 0.005 else f"{abs(mean):.2f} {'long' if mean > 0 else 'short'}"
    ) in page.replace("On average <b>on", "on average")
    assert f"± {statistics.stdev(every):.2f}" in page


def test_json_export_holds_every_attempt_whole(client: TestClient) -> None:
    data = client.get(address.LOG_JSON).json()
    assert data["format"] == "fandle-log/1"
    assert LogFile.model_validate_json(json.dumps(data)).attempts
    assert len(data["attempts"]) == len(read_csv(client))
    assert data["attempts"][0]["layout"]["format"] == "fandle-layout/1"


def test_the_log_is_filtered_and_attempts_reopen(client: TestClient) -> None:
    told = note(client, "missed the rail")["attempt"]
    page = client.get(address.LOG_ROOM, params={"set_up": told["set_up"], "result": "missed the rail"}).text
    assert set(re.findall(r"<td><b>(.*?)</b></td>", page)) == {"missed the rail"}
    link = re.findall(r'<a href="(/\?[^"]+)"', page)[0].replace("&amp;", "&")
    assert "speed=3.1" in link
    assert "This link cannot" not in client.get(link).text
    assert "No attempt of this kind" in client.get(address.LOG_ROOM, params={"set_up": "none"}).text


def test_comments_cannot_break_the_page(client: TestClient) -> None:
    uid = note(client)["attempt"]["uid"]
    client.patch(f"{address.ATTEMPTS}/{uid}", json={"comment": "<script>alert(1)</script>"})
    assert "<script>alert" not in client.get(address.LOG_ROOM).text


def test_named_layouts_flips_and_settings(client: TestClient) -> None:
    body = {"name": "Evening", "note": "n", "layout": CONTRACT_LAYOUT}
    kept = client.post(address.LAYOUTS, json=body).json()
    again = client.post(address.LAYOUTS, json=body)
    assert (again.status_code, again.json()["field"]) == (409, "name")
    assert "Evening" in client.get("/").text
    assert client.delete(f"{address.LAYOUTS}/{kept['id']}").json()["layout"] == CONTRACT_LAYOUT
    assert client.delete(f"{address.LAYOUTS}/{kept['id']}").status_code == 404
    flipped = client.post(
        address.EDIT, json={"layout": CONTRACT_LAYOUT, "how": "left-right", "side": 0.2, "rails": "far"}
    ).json()
    assert (flipped["side"], flipped["rails"], flipped["layout"]["balls"][0]["y"]) == (-0.2, "near", 3.45)
    client.put(address.PREFERENCES, json={"tip_mm": 13})
    before = client.post(address.ANSWER, json={**QUESTION, "side": 0.0, "tips": 1.0}).json()["stroke"]["side"]
    assert client.put(address.PREFERENCES, json={"tip_mm": 10}).status_code == 200
    after = client.post(address.ANSWER, json={**QUESTION, "side": 0.0, "tips": 1.0}).json()["stroke"]["side"]
    client.put(address.PREFERENCES, json={"tip_mm": 13})
    assert after == pytest.approx(before * 10 / 13, abs=1e-3)
    assert client.put(address.PREFERENCES, json={"tip_mm": 40}).status_code == 422


def test_a_disk_that_refuses_is_a_sentence_not_a_500(client: TestClient) -> None:
    database: Database = client.app.state.database  # type: ignore[attr-defined]  # FastAPI

    def refuse(connection: Any, _record: Any) -> None:
        connection.execute("PRAGMA query_only = ON")

    event.listen(database._writer, "connect", refuse)
    try:
        reply = client.post(address.ATTEMPTS, json={"uid": str(uuid.uuid4()), "question": QUESTION, "result": "hit"})
    finally:
        event.remove(database._writer, "connect", refuse)
    assert reply.status_code == 503
    assert "nothing was saved" in reply.json()["error"]
    assert json.loads(reply.text)["field"] == ""


FILE = {"content-type": "text/csv"}
POT = {
    **QUESTION,
    "layout": {
        "table": "pool-9ft",
        "game": "eight-ball",
        "target": "2",
        "balls": [
            {"id": "cue", "x": 3.0, "y": 0.6},
            {"id": "2", "x": 7.3, "y": 0.4},
            {"id": "11", "x": 5.15, "y": 0.5},
            {"id": "8", "x": 5.9, "y": 3.4},
        ],
    },
    "rails": "far",
    "pocket": "any",
    "kind": "kick",
}


@pytest.mark.parametrize("kind", ["csv", "json"])
def test_a_pot_with_all_that_can_be_said_of_it_goes_out_and_comes_back(
    client: TestClient, tmp_path: Path, kind: str
) -> None:
    """Exported, deleted with its database, imported elsewhere: the same; imported again: known by its name."""
    body = {"uid": f"pot-and-all-{kind}", "question": POT, "result": "hit", "potted": True}
    told = client.post(address.ATTEMPTS, json=body).json()["attempt"]
    assert (told["kind"], told["rails"], told["pocket"], told["potted"]) == ("kick", "far", "foot-near", True)
    assert told["title"] == "pot the 2 over the far rail into foot-near"
    more = {
        "side_hit": "left", "in_off": True, "left_safe": False, "try_number": 2, "comment": "a, \"b\"\nc", "at": 7.4,
        "touched": [{"rail": "near", "at": 6.15}, {"rail": "foot", "at": 1.05}], "stopped_x": 6.123, "stopped_y": 0.3,
    }  # fmt: skip
    assert client.patch(f"{address.ATTEMPTS}/{body['uid']}", json=more).status_code == 200
    want = next(row for row in client.get(address.LOG_JSON).json()["attempts"] if row["uid"] == body["uid"])
    assert (want["left_safe"], want["touched"], want["stopped_x"]) == (False, more["touched"], 6.123)
    exported = client.get(address.LOG_CSV if kind == "csv" else address.LOG_JSON).content
    with local_client(create_app(Settings(tmp_path))) as elsewhere:
        named = f"{address.LOG_IMPORT}?player=Pepper"
        first = elsewhere.post(named, content=exported, headers=FILE).json()
        assert first["new"] == first["attempts"] > 0
        assert elsewhere.post(named, content=exported, headers=FILE).json()["new"] == 0
        found = next(row for row in elsewhere.get(address.LOG_JSON).json()["attempts"] if row["uid"] == body["uid"])
        assert found == {**want, "player": "Pepper" if want["player"] == "Me" else want["player"]}
        page = elsewhere.get(address.LOG_ROOM).text
    for word in ("potted", "cue ball went in", "left open", "second try", "near 6.15", "stopped at 6.12, 0.30"):
        assert word in page, word
    again = client.get(address.LOG_ROOM).text
    assert "pocket=foot-near" in again


def test_a_csv_of_an_earlier_version_is_read(client: TestClient) -> None:
    """Without the column that came later."""
    note(client, "hit")
    rows = list(csv.reader(io.StringIO(client.get(address.LOG_CSV).text)))
    place = rows[0].index("left_safe")
    out = io.StringIO()
    csv.writer(out).writerows([cell for n, cell in enumerate(row) if n != place] for row in rows)
    reply = client.post(address.LOG_IMPORT, content=out.getvalue().encode(), headers=FILE)
    assert reply.json()["new"] == 0


def test_before_the_stroke_this_very_shots_own_record_is_told(client: TestClient) -> None:
    """None before it was played; then the hits and the attempts of the same balls over the same rails, and no others."""
    question: dict[str, Any] = QUESTION
    there = {**question, "layout": {**question["layout"], "balls": [
        {**ball, "x": ball["x"] + 0.037} if ball["id"] == "cue" else ball for ball in question["layout"]["balls"]
    ]}}  # fmt: skip
    assert client.post(address.ATTEMPTS_HERE, json=there).json() == {"attempts": 0, "hits": 0}
    for result in ("hit", "short", "hit"):
        client.post(address.ATTEMPTS, json={"uid": str(uuid.uuid4()), "question": there, "result": result})
    assert client.post(address.ATTEMPTS_HERE, json=there).json() == {"attempts": 3, "hits": 2}
    other = {**there, "rails": "near"}
    assert client.post(address.ATTEMPTS_HERE, json=other).json() == {"attempts": 0, "hits": 0}


@pytest.mark.parametrize("kind", ["csv", "json"])
def test_a_log_that_names_its_club_needs_no_other_name(client: TestClient, tmp_path: Path, kind: str) -> None:
    """The demo club's, taken in elsewhere: its "Me" is somebody else there, told by the club."""
    note(client, "hit")
    exported = client.get(address.LOG_CSV if kind == "csv" else address.LOG_JSON).content
    mine = client.get(address.LOG_JSON).json()["attempts"][0]["player"]
    with local_client(create_app(Settings(tmp_path))) as elsewhere:
        done = elsewhere.post(address.LOG_IMPORT, content=exported, headers=FILE)
        assert done.status_code == 200, done.text
        players = {row["player"] for row in elsewhere.get(address.LOG_JSON).json()["attempts"]}
    assert players == {"Me (The Tin Lantern Cue Club)" if mine == "Me" else mine}
