"""The check room over HTTP: its page, what the shots come to, the practice shooter, and the table kept."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import table_of_json
from fandle.web import address

pytestmark = pytest.mark.usefixtures("club_player")
PLAIN = {"shot": "plain", "landed": [{"rail": "far", "at": 2.95}, {"rail": "near", "at": 5.0}], "rest": None}


def asked(client: TestClient, **more: Any) -> Any:
    return client.post(address.CHECK, json={"table": "pool-9ft", **more})


@pytest.mark.parametrize("table", list(STANDARDS))
def test_the_page_lists_the_shots_of_its_table(client: TestClient, table: str) -> None:
    page = client.get(f"{address.CHECK_ROOM}?table={table}")
    assert page.status_code == 200
    assert "How does this table play?" in page.text
    assert "table lengths" in page.text


def test_an_unknown_table_is_said_on_a_page(client: TestClient) -> None:
    page = client.get(f"{address.CHECK_ROOM}?table=nowhere")
    assert page.status_code == 200
    assert "This link cannot be opened" in page.text


def test_shots_come_to_a_verdict_ranges_and_a_table(client: TestClient) -> None:
    one = asked(client, shots=[PLAIN]).json()
    assert one["who"] == "not yet"
    two = asked(client, shots=[PLAIN, PLAIN]).json()
    assert two["who"] == "table"
    assert two["plays"][0]["off"] < -0.15
    assert all(0.0 <= row["learned"] <= 1.0 for row in two["learned"])
    assert table_of_json(two["table"]).fitted is not None
    assert asked(client, shots=[]).status_code == 422
    assert asked(client, shots=[{**PLAIN, "shot": "jump"}]).status_code == 422


def test_the_practice_shooter_shows_a_hidden_table(client: TestClient) -> None:
    """Its numbers hidden, the damp table comes out damp: short over three rails, slower."""
    shots = []
    for turn in (0, 1):
        for name in ("plain", "lag", "firm", "reverse", "route", "corner"):
            read = client.post(address.SHOOTER, json={"table": "Damp nine-foot", "shot": name, "turn": turn}).json()
            shots.append({"shot": name, **read})
    found = asked(client, table="Damp nine-foot", hidden=True, shots=shots).json()
    plays = {row["kind"]: row["off"] for row in found["plays"]}
    assert plays["speed, lengthwise"] < -0.5
    assert found["who"] == "table"


def test_a_checked_table_is_kept_in_the_club_and_aims_use_it(client: TestClient) -> None:
    found = asked(client, shots=[PLAIN, PLAIN]).json()
    whole = {**found["table"], "name": "Checked"}
    kept = client.post(address.CLUB_TABLES, json={"base": "pool-9ft", "name": "Checked", "whole": whole})
    assert kept.status_code == 200
    layout = {"format": "fandle-layout/1", "table": "Checked", "game": "nine-ball", "target": "7"}
    layout["balls"] = [{"id": "cue", "x": 1.1, "y": 0.55}, {"id": "7", "x": 5.3, "y": 0.5}]  # type: ignore[assignment]
    shown = client.post(address.ANSWER, json={"layout": layout, "rails": "far"}).json()
    links = {row["label"]: row["text"] for row in shown["chosen"]["chain"]}
    assert any("table" in label for label in links)


def test_a_miss_gets_a_line_of_advice(client: TestClient) -> None:
    layout = {"format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "target": "7"}
    layout["balls"] = [{"id": "cue", "x": 1.1, "y": 0.55}, {"id": "7", "x": 5.3, "y": 0.5}]  # type: ignore[assignment]
    question = {"layout": layout, "rails": "far"}
    far = client.post(address.DIAGNOSE, json={"question": question, "result": "short", "off": -1.3}).json()
    assert far["change"] == "mark"
    assert "Next: aim at" in far["say"]
    near = client.post(address.DIAGNOSE, json={"question": question, "result": "long", "off": 0.03}).json()
    assert near == {"say": "Inside your own scatter: shoot it again.", "change": "none", "stroke": None, "carry": None}
    straight = client.post(address.DIAGNOSE, json={"question": {**question, "rails": "straight"}, "result": "short"})
    assert straight.status_code == 422
    assert "choose a line over a rail" in straight.json()["error"]


TRACKED = {
    "layout": {
        "format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "target": "7",
        "balls": [{"id": "cue", "x": 1.2, "y": 0.5}, {"id": "7", "x": 5.4, "y": 0.11}],
    },
    "rails": "far,foot,near", "speed": 4.2, "side": 0.35, "up": 0.17, "method": "M14",
}  # fmt: skip


def test_a_noted_miss_over_three_rails_is_carried_as_a_test_shot_until_it_is_forgotten(client: TestClient) -> None:
    miss = {"question": TRACKED, "result": "short", "off": -0.4}
    told = client.post(address.DIAGNOSE, json=miss).json()["carry"]
    assert told["table"] == "pool-9ft"
    assert 0.1 < told["shift"] < 0.5  # short: aimed longer
    assert "corner numbers" in told["say"]
    before = client.post(address.ANSWER, json=TRACKED).json()["count"]
    kept = client.put(address.TEST_SHOT, json={"table": told["table"], "shift": told["shift"]})
    assert kept.json() == told
    after = client.post(address.ANSWER, json=TRACKED).json()["count"]
    assert after["on_table"]["carried"] == told["shift"]
    assert after["on_table"]["own"] != before["on_table"]["own"]
    assert "longer by your test shot" in after["say"]
    page = client.get(f"{address.HANDBOOK}/M14")
    assert "A test shot is carried on this table" in page.text
    assert "A test shot is carried" not in client.get(f"{address.HANDBOOK}/M3").text
    elsewhere = {**TRACKED, "layout": {**TRACKED["layout"], "table": "pool-8ft"}}  # type: ignore[dict-item]
    assert "carried" not in client.post(address.ANSWER, json=elsewhere).json()["count"]["on_table"]
    gone = client.put(address.TEST_SHOT, json={"table": "pool-9ft", "shift": None})
    assert gone.json()["shift"] == 0.0
    assert client.post(address.ANSWER, json=TRACKED).json()["count"]["on_table"] == before["on_table"]


def test_only_a_marked_miss_of_a_system_that_carries_it_is_a_test_shot(client: TestClient) -> None:
    for change in ({"method": "M3"}, {"rails": "far"}):
        miss = {"question": {**TRACKED, **change}, "result": "short", "off": -0.4}
        assert client.post(address.DIAGNOSE, json=miss).json()["carry"] is None
    unmarked = {"question": TRACKED, "result": "short"}
    assert client.post(address.DIAGNOSE, json=unmarked).json()["carry"] is None
    assert client.put(address.TEST_SHOT, json={"table": "nowhere", "shift": 0.2}).status_code == 422
    assert client.put(address.TEST_SHOT, json={"table": "pool-9ft", "shift": 9}).status_code == 422


def test_older_numbers_are_kept_and_come_back(client: TestClient) -> None:
    """A table checked twice: the numbers before are listed, and one call brings them back."""
    found = asked(client, shots=[PLAIN, PLAIN]).json()
    first = {**found["table"], "name": "Twice"}
    kept = client.post(address.CLUB_TABLES, json={"base": "pool-9ft", "name": "Twice", "whole": first}).json()
    second = {**first, "cushion_friction": 0.21}
    url = f"{address.CLUB_TABLES}/{kept['id']}"
    assert client.put(url, json={"base": "Twice", "whole": second}).status_code == 200
    page = client.get(f"{address.CHECK_ROOM}?table=Twice").text
    assert "Earlier numbers of this table" in page
    assert page.count("Back to these") == 1
    back = client.put(url, json={"base": "Twice", "whole": first}).json()
    assert back["before"]["cushion_friction"] == 0.21
