"""Layouts kept under a name: saved again, renamed, refused, deleted."""

from typing import Any

from fastapi.testclient import TestClient

from fandle.web import address

LAYOUT = {
    "table": "pool-9ft",
    "game": "nine-ball",
    "balls": [{"id": "cue", "x": 2, "y": 2}, {"id": "1", "x": 5, "y": 1}],
}
MOVED = {**LAYOUT, "balls": [{"id": "cue", "x": 3, "y": 2}, {"id": "1", "x": 5, "y": 1}]}


def keep(client: TestClient, name: str) -> dict[str, Any]:
    reply = client.post(address.LAYOUTS, json={"name": name, "note": "why", "layout": LAYOUT})
    assert reply.status_code == 200, reply.text
    kept: dict[str, Any] = reply.json()
    return kept


def test_it_is_saved_again_and_the_reply_takes_it_back(client: TestClient) -> None:
    here = f"{address.LAYOUTS}/{keep(client, 'Here')['id']}"
    renewed = client.patch(here, json={"layout": MOVED}).json()
    assert (renewed["name"], renewed["note"]) == ("Here", "why")
    assert "cue:3,2" in renewed["href"]
    assert renewed["before"]["layout"]["balls"][0]["x"] == 2
    back = client.patch(here, json={"layout": renewed["before"]["layout"]})
    assert "cue:2,2" in back.json()["href"]


def test_it_is_renamed_but_not_to_a_name_that_is_taken(client: TestClient) -> None:
    one = f"{address.LAYOUTS}/{keep(client, 'One / two')['id']}"
    keep(client, "Three")
    reply = client.patch(one, json={"name": " Four ", "note": "new"})
    assert (reply.json()["name"], reply.json()["note"]) == ("Four", "new")
    assert "name=Four" in reply.json()["href"]
    taken = client.patch(one, json={"name": "Three"})
    assert (taken.status_code, taken.json()["field"]) == (409, "name")
    assert client.patch(f"{address.LAYOUTS}/999999", json={"name": "x"}).status_code == 404
    nameless = client.patch(one, json={"name": "  "})
    assert (nameless.status_code, nameless.json()["field"]) == (422, "body.name")
    assert "type one" in nameless.json()["error"]
    gone = client.delete(one).json()
    assert (gone["name"], gone["note"]) == ("Four", "new")


def test_ones_own_come_before_the_demo_clubs(client: TestClient) -> None:
    keep(client, "Mine, older")
    keep(client, "Mine, newer")
    rows: list[Any] = []
    older = ""
    while older is not None:
        found = client.get(address.LAYOUTS, params={"before": older} if older else {}).json()
        rows, older = rows + found["layouts"], found["older"]
    names = [row["name"] for row in rows]
    assert names.index("Mine, newer") < names.index("Mine, older")
    assert any(row["demo"] for row in rows)  # other tests may have deleted some
    assert [row["demo"] for row in rows] == sorted(row["demo"] for row in rows)
    assert len(set(names)) == len(names)
    assert client.get("/").text.index('data-name="Mine, newer" data-edition="') > 0
