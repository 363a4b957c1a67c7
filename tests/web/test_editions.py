"""One record in two tabs: the later one is told, and nothing is lost silently."""

from typing import Any

from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT

from fandle.web import address


def told(reply: Any) -> None:
    assert (reply.status_code, reply.json()["code"]) == (409, "changed")
    assert "changed elsewhere meanwhile" in reply.json()["error"]


def moved(x: float) -> dict[str, Any]:
    return {**CONTRACT_LAYOUT, "balls": [{"id": "cue", "x": x, "y": 2.0}, *CONTRACT_LAYOUT["balls"][1:]]}


def test_a_layout_saved_in_two_tabs(client: TestClient) -> None:
    kept = client.post(address.LAYOUTS, json={"name": "Two tabs", "layout": CONTRACT_LAYOUT}).json()
    url, seen = f"{address.LAYOUTS}/{kept['id']}", kept["edition"]
    first = client.patch(url, json={"layout": moved(2.0), "was": seen}).json()
    told(client.patch(url, json={"layout": moved(3.0), "was": seen}))
    told(client.patch(url, json={"name": "Other", "was": seen}))
    now = next(row for row in client.get(address.LAYOUTS, params={"find": "Two tabs"}).json()["layouts"])
    assert (now["edition"], "cue:2,2" in now["href"]) == (first["edition"], True)
    assert client.patch(url, json={"layout": moved(3.0), "was": first["edition"]}).status_code == 200
    assert client.patch(url, json={"layout": moved(4.0)}).status_code == 200  # a script that does not say what it saw
    page = client.get("/", params={"balls": "cue:2,1;1:6,1", "target": "1", "name": "Two tabs"}).text
    edition = client.get(address.LAYOUTS, params={"find": "two tabs"}).json()["layouts"][0]["edition"]
    assert f'data-id="{kept["id"]}" data-edition="{edition}"' in page
    client.delete(url)


def test_a_table_changed_in_two_tabs(client: TestClient) -> None:
    kept = client.post(address.CLUB_TABLES, json={"base": "pool-9ft", "name": "Two tabs"}).json()
    url, form = f"{address.CLUB_TABLES}/{kept['id']}", {"base": "Two tabs", "values": {"cloth_rolling": 0.011}}
    first = client.put(url, json={**form, "was": kept["edition"]}).json()
    told(client.put(url, json={**form, "values": {"cloth_rolling": 0.02}, "was": kept["edition"]}))
    assert client.get(address.SAVE_TABLE, params={"name": "Two tabs"}).json()["cloth_rolling"] == 0.011
    assert client.put(url, json={**form, "was": first["edition"]}).status_code == 200
    assert f'data-edition="{first["edition"]}"' in client.get("/club?table=Two+tabs").text
    client.delete(url)


def test_a_cue_changed_in_two_tabs(client: TestClient) -> None:
    cue = {"name": "Two tabs", "end_ratio": 20.0, "tip_mm": 12.0}
    kept = client.post(address.CLUB_CUES, json=cue).json()
    url = f"{address.CLUB_CUES}/{kept['id']}"
    assert client.put(url, json={**cue, "tip_mm": 11.0, "was": kept["edition"]}).status_code == 200
    told(client.put(url, json={**cue, "tip_mm": 10.0, "was": kept["edition"]}))
    assert client.delete(url).json()["tip_mm"] == 11.0


def test_what_is_said_of_an_attempt_in_two_tabs(client: TestClient) -> None:
    note = {"uid": "two-tabs-1", "question": {"layout": CONTRACT_LAYOUT, "rails": "far"}, "result": "short"}
    noted = client.post(address.ATTEMPTS, json=note).json()
    url = f"{address.ATTEMPTS}/two-tabs-1"
    first = client.patch(url, json={"comment": "lifted my head", "was": noted["edition"]}).json()
    told(client.patch(url, json={"comment": "too much side", "was": noted["edition"]}))
    second = client.patch(url, json={"side_hit": "left", "was": first["edition"]}).json()
    assert (second["attempt"]["comment"], second["attempt"]["side_hit"]) == ("lifted my head", "left")
