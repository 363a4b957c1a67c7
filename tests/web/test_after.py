"""After the hit over HTTP: changes tried out, the three goals side by side, zones and the next ball in addresses."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT

from fandle.core.choice.position import Next
from fandle.core.choice.wish import Then, Zone
from fandle.web import address
from fandle.web.table.after import moved_words

LAYOUT = {**CONTRACT_LAYOUT, "target": "2"}
ZONES = {"zones": [{"x": 4.0, "y": 2.0, "r": 1.0}], "away": [{"x": 1.0, "y": 1.0, "r": 0.5}]}


def test_changes_of_a_line_each_with_its_mark(client: TestClient) -> None:
    rows = client.post(address.POSITION, json={"layout": LAYOUT, "rails": "far"}).json()
    names = [row["name"] for row in rows]
    assert names[0] == "as it is"
    assert {"harder", "softer", "higher", "lower", "thinner"} <= set(names)
    assert all(row["percent"].endswith("%") and row["mark"] for row in rows)
    taken = next(row for row in rows if row["name"] == "harder")
    asked = {"layout": LAYOUT, "rails": "far", **{k: taken["stroke"][k] for k in ("speed", "side", "up")}}
    shown = client.post(address.ANSWER, json=asked).json()
    assert shown["chosen"]["big"] == taken["mark"]


def test_no_line_no_changes(client: TestClient) -> None:
    walled = {**CONTRACT_LAYOUT, "target": "7"}
    assert client.post(address.POSITION, json={"layout": walled, "rails": "straight"}).json() == []


def test_three_goals_as_they_become_known(client: TestClient) -> None:
    reply = client.post(address.STRATEGY, json={"layout": LAYOUT})
    told: list[dict[str, Any]] = [json.loads(line) for line in reply.text.splitlines()]
    assert [each["progress"] for each in told] == sorted(each["progress"] for each in told)
    last = told[-1]
    assert [goal["goal"] for goal in last["goals"]] == ["hit", "pot", "safe"]
    assert all(0 < len(goal["rows"]) <= 5 for goal in last["goals"])
    assert last["say"].endswith("You decide.")
    assert all("foul" in row["risk"] for goal in last["goals"] for row in goal["rows"])
    assert all(each["say"] == "" for each in told[:-1])


def test_zones_and_the_next_ball_travel_in_the_address(client: TestClient) -> None:
    asked = {"layout": LAYOUT, "goal": "pot", "next": "7:foot-far", **ZONES}
    shown = client.post(address.ANSWER, json=asked).json()
    assert (shown["zones"], shown["away"], shown["next"]) == (ZONES["zones"], ZONES["away"], "7:foot-far")
    query = dict(part.split("=", 1) for part in shown["address"].split("&"))
    then = address.read(query).then
    assert then == Then((Zone(4.0, 2.0, 1.0),), (Zone(1.0, 1.0, 0.5),), Next("7", "foot-far"))


def test_a_plan_with_zones_and_a_next_ball(client: TestClient) -> None:
    asked = {"layout": LAYOUT, "draws": 40, "strokes": "this", **ZONES}
    whole = json.loads(client.post(address.PLAN, json=asked).text.splitlines()[-1])
    shares = [line["wanted"]["p"] for line in whole["lines"]]
    assert shares == sorted(shares, reverse=True)
    assert all(line["wanted"]["p"] <= line["chance"]["legal"]["p"] for line in whole["lines"])


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"zones": [{"x": 9.0, "y": 2.0, "r": 1.0}]}, "zones"),
        ({"next": "15"}, "not on the table"),
        ({"next": "7:top"}, "unknown pocket"),
    ],
)
def test_what_is_not_understood_is_refused(client: TestClient, wrong: dict[str, Any], said: str) -> None:
    reply = client.post(address.PLAN, json={"layout": LAYOUT, "draws": 40, **wrong})
    assert reply.status_code in (400, 422)
    assert said in reply.text


def test_a_link_with_a_zone_off_the_table_says_so(client: TestClient) -> None:
    page = client.get("/?stop=9,2,1&balls=cue:1,1;1:3,1&target=1")
    assert "does not lie on the table" in page.text


def test_where_the_cue_ball_goes_in_words() -> None:
    assert moved_words((0.45, 0.1)) == "46 cm to the foot rail"
    assert moved_words((0.0, -0.3)) == "30 cm to the near rail"
    assert moved_words((0.01, 0.0)) == "the same place"
    assert moved_words((float("nan"), 0.0)) == "goes in"
