"""Which line? over HTTP: a stream of JSON lines, stopped by closing it, and how steady the player is."""

import asyncio
import json
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT, fandle

from fandle.core.layout.state import State
from fandle.core.player.scatter import STRONG
from fandle.formats.files import layout_json, read_layout
from fandle.formats.plan import PlanAnswer
from fandle.formats.player import PlayerFile
from fandle.web import address
from fandle.work.solvers import Works

LAYOUT = {**CONTRACT_LAYOUT, "target": "2"}
FAST = {"layout": LAYOUT, "draws": 40, "strokes": "this"}
pytestmark = pytest.mark.usefixtures("club_player")


def stream(client: TestClient, **asked: Any) -> list[dict[str, Any]]:
    reply = client.post(address.PLAN, json=asked)
    assert reply.status_code == 200, reply.text
    assert reply.headers["content-type"] == "application/x-ndjson"
    return [json.loads(line) for line in reply.text.splitlines()]


def test_first_rows_for_this_stroke_then_the_whole_plan(client: TestClient) -> None:
    *before, whole = stream(client, layout=LAYOUT, draws=60)
    assert len(before) >= 2
    assert all(set(each) == {"progress", "lines", "rows"} for each in before)
    assert [each["progress"] for each in before] == sorted(each["progress"] for each in before)
    assert all(row["own"] for row in before[0]["rows"])
    PlanAnswer.model_validate({name: whole[name] for name in PlanAnswer.model_fields})
    assert whole["on"] == ["2"]
    assert (whole["lines"][0]["kind"], whole["rows"][0]["percent"]) == ("straight", "100%")
    assert len(whole["rows"]) == len(whole["lines"])


def test_the_command_line_says_the_same(client: TestClient, tmp_path: Path) -> None:
    path = tmp_path / "two.fandle.json"
    path.write_text(json.dumps(LAYOUT))
    asked = ["--strokes", "this", "--draws", "40", "--seed", "5", "--speed", "3.1"]
    printed = fandle("plan", str(path), *asked, "--json").stdout
    told = stream(client, **FAST, seed=5, speed=3.1)[-1]
    assert json.loads(printed)["lines"] == told["lines"]
    assert told["lines"] != stream(client, **FAST, seed=6)[-1]["lines"]


def test_whoever_comes_back_finds_the_list_at_once(client: TestClient) -> None:
    first, again = (stream(client, layout=LAYOUT, draws=30) for _ in range(2))
    assert len(first) > 1
    assert again == first[-1:]
    assert len(stream(client, layout=LAYOUT, draws=31)) > 1  # another question


def test_a_target_that_is_not_on_is_said(client: TestClient) -> None:
    whole = stream(client, **{**FAST, "layout": CONTRACT_LAYOUT})[-1]
    assert whole["notes"] == ["target_not_on"]
    assert {line["target"] for line in whole["lines"]} == {"2"}
    shown = client.post(address.ANSWER, json={"layout": CONTRACT_LAYOUT, "rails": None}).json()
    assert shown["headline"] == {"ball": "the 7", "way": "it is not on: the 2 is"}
    assert shown["layout"]["target"] == "7"  # what the player chose stands


def test_a_pot_into_a_pocket_that_is_called(client: TestClient) -> None:
    balls = [{"id": "cue", "x": 6.2, "y": 1.8}, {"id": "1", "x": 7.6, "y": 0.4}]
    layout = {**CONTRACT_LAYOUT, "balls": balls, "target": "1"}
    whole = stream(client, layout=layout, goal="pot", pocket="foot-near", draws=40, strokes="this")[-1]
    assert {line["pocket"] for line in whole["lines"]} == {"foot-near"}
    row = whole["rows"][0]
    assert (row["target"], row["pocket"], row["kind"]) == ("1", "foot-near", "kick")
    assert row["name"] == "Straight"
    assert row["why"].startswith("into the bottom-right corner")


@pytest.mark.parametrize(
    ("wrong", "says"),
    [
        ({"goal": "win"}, "goal"),
        ({"draws": 0}, "draws"),
        ({"pocket": "foot-near"}, "a pocket belongs to a pot"),
        ({"player": {"direction_deg": 50, "speed_part": 0.1, "tip_mm": 0.5, "mark_diamonds": {"diamond": 0.1, "half": 0.1, "quarter": 0.1, "between": 0.1}}}, "is not believed"),
        ({"layout": {**LAYOUT, "state": {"group": "low"}}}, "only eight-ball has groups"),
    ],
)  # fmt: skip
def test_bad_questions_are_refused_before_anything_is_told(client: TestClient, wrong: Any, says: str) -> None:
    reply = client.post(address.PLAN, json={**FAST, **wrong})
    assert reply.status_code == 422
    assert says in reply.json()["error"]


def test_work_that_nobody_reads_any_more_stops() -> None:
    """Closed after its first word, the steps are closed too, within a slice."""
    closed = []

    def steps() -> Any:
        try:
            yield from range(10_000)
        finally:
            closed.append(True)

    async def read_one() -> int:
        works = Works(1)
        telling: Any = works.stream(steps())
        first = await anext(telling)
        await telling.aclose()
        works.close()
        return int(first)

    assert asyncio.run(read_one()) == 0
    assert closed == [True]


def test_how_steady_the_player_is(client: TestClient) -> None:
    before = client.get(address.PLAYER).json()["player"]
    try:
        told = client.put(address.PLAYER, json={"by": "strong"}).json()
        assert told["player"]["direction_deg"] == STRONG.direction_deg
        assert stream(client, **FAST)[-1]["player"] == PlayerFile.of(STRONG).json_data()
        asked = {"straight_ins": 7, "lag_off": 0.3, "mark_off": 0.1}
        said = client.put(address.PLAYER, json={"questions": asked}).json()
        assert said["player"]["from"] == "typed"
        assert "as you said" in said["say"]
        logged = client.put(address.PLAYER, json={"by": "log"})  # the demo club's practice
        assert logged.status_code == 200, logged.text
        assert logged.json()["player"]["from"] == "log"
        assert "from your log" in logged.json()["say"]
        assert client.put(address.PLAYER, json={}).status_code == 422
    finally:
        client.put(address.PLAYER, json={"figures": before})


def test_the_state_of_the_game_travels_in_address_and_file(client: TestClient) -> None:
    layout = {**LAYOUT, "game": "eight-ball", "state": {"group": "low", "on": None, "free_ball": False}}
    shown = client.post(address.ANSWER, json={"layout": layout, "rails": "far"}).json()
    assert "group=low" in shown["address"]
    assert shown["layout"]["state"]["group"] == "low"
    file = client.get(f"{address.SAVE_LAYOUT}?{shown['address']}").json()
    assert file["state"]["group"] == "low"
    kept = read_layout(json.dumps(file))
    assert kept.state == State(group="low")
    assert layout_json(kept) == file
    page = client.get(f"/?{shown['address']}").text
    assert "Eight-ball, low balls" in page


def test_systems_are_compared_by_the_chance_of_a_hit(client: TestClient) -> None:
    """The likeliest to hit leads, and says so; no verdict contradicts the shot."""
    shown = client.post(address.COMPARE, json={"layout": CONTRACT_LAYOUT}).json()["systems"]
    works = [system for system in shown if system["applies"]]
    assert all(system["chance"].startswith("hits ") for system in works)
    shares = [int(system["chance"].removeprefix("hits ").removesuffix("%")) for system in works]
    assert shares == sorted(shares, reverse=True)
    for system in works:
        lands = system["lands"]
        assert system["verdict"]["where"].startswith("hits") == lands["hits"] == (lands["off_balls"] < 1.0)
    assert any(system["lands"]["hits"] for system in works)


def test_a_safe_plan_tells_what_is_left(client: TestClient) -> None:
    whole = stream(client, **FAST, goal="safe")[-1]
    line, row = whole["lines"][0], whole["rows"][0]
    assert line["chance"]["safe"]["p"] <= line["chance"]["legal"]["p"]
    assert 0.0 <= line["leave"]["hooked"] <= 1.0
    assert "leaves " in row["why"]
    assert row["ends"][0]["id"] == "cue"
    carom = {"format": "fandle-layout/1", "table": "carom-10ft", "game": "three-cushion", "target": "red",
             "balls": [{"id": "cue", "x": 2, "y": 1}, {"id": "red", "x": 5, "y": 2}, {"id": "white", "x": 6, "y": 3}]}  # fmt: skip
    reply = client.post(address.PLAN, json={"layout": carom, "goal": "safe"})
    assert reply.status_code == 422
    assert "without pockets" in reply.json()["error"]


def test_every_row_of_a_carom_plan_has_a_key_of_its_own_and_says_what_comes_after(client: TestClient) -> None:
    balls = [{"id": "cue", "x": 2, "y": 0.5}, {"id": "red", "x": 1.1, "y": 2.6}, {"id": "white", "x": 1.7, "y": 1.7}]
    layout = {**CONTRACT_LAYOUT, "table": "carom-10ft", "game": "three-cushion", "balls": balls, "target": "red"}
    whole = stream(client, layout=layout, draws=60)[-1]
    keys = [row["key"] for row in whole["rows"]]
    assert len(keys) == len(set(keys)) > 8
    assert all(line["kind"] == "point" and line["point"]["steps"] for line in whole["lines"])
    assert len({(line["target"], *line["rails"]) for line in whole["lines"]}) < len(keys)  # some go two ways
    for row in whole["rows"]:
        assert any("within" in said for said in row["after"])
        assert not any("pot" in said for said in row["after"])
