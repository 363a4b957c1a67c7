"""The web without a browser: answers equal the command line's, bad questions are sentences."""

import json
import re
from typing import Any

import jsonschema
import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from tests.conftest import CONTRACT_LAYOUT

from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.registry import count
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table
from fandle.formats.answers import aim_answer, count_answer
from fandle.formats.files import layout_of
from fandle.formats.tables import table_json
from fandle.store.demo_data import demo_club
from fandle.web import address

QUESTION: dict[str, Any] = {"layout": CONTRACT_LAYOUT, "speed": 3.1, "side": 0.17, "rails": "far"}


def ask(client: TestClient, **change: Any) -> Any:
    reply = client.post(address.ANSWER, json={**QUESTION, **change})
    assert reply.status_code == 200, reply.text
    return reply.json()


def test_the_answer_equals_the_cores(client: TestClient) -> None:
    got = ask(client)
    layout = layout_of(CONTRACT_LAYOUT)
    aim = solve_kick(layout, (Rail.FAR,), Stroke(3.1, 0.17))
    assert isinstance(aim, Aim)
    assert got["chosen"]["answer"] == json.loads(json.dumps(aim_answer(aim).json_data()))
    counted = json.loads(json.dumps(count_answer(count("M3", layout, (Rail.FAR,))).json_data()))
    said = ("say", "steps", "adjust")  # as this screen says it: tests/core/words/test_screen.py
    assert {name: got["count"][name] for name in counted if name not in said} == {
        name: value for name, value in counted.items() if name not in said
    }
    assert got["chosen"]["big"] == f"{aim.best.corrected.nose:.2f}"


def test_the_address_holds_the_answer(client: TestClient) -> None:
    got = ask(client)
    state = address.read(dict(part.split("=") for part in got["address"].split("&")))
    assert (state.layout.balls, state.stroke.speed, state.stroke.side) == (
        layout_of(CONTRACT_LAYOUT).balls,
        3.1,
        0.17,
    )
    page = client.get("/?" + got["address"])
    assert page.status_code == 200
    assert f"{got['chosen']['big']}" in page.text


def test_figures_on_the_chain_add_up(client: TestClient) -> None:
    for side in (-0.3, -0.1, 0.0, 0.17, 0.3):
        rows = ask(client, side=side, up=0.1)["chosen"]["chain"]
        total = float(rows[0]["text"])
        for row in rows[1:]:
            total = round(total + float(row["text"].replace("−", "-")), 2)
        assert total == pytest.approx(rows[-1]["to"])


def test_lengths_and_tips_are_converted_here(client: TestClient) -> None:
    got = ask(client, speed=None, lengths=2.5, side=0.0, tips=0.5)
    assert got["stroke"]["speed_text"] == "medium, 2½"
    assert got["stroke"]["side_text"] == "½ tip right"
    assert got["chosen"]["running"] == "running"
    assert got["stroke"]["side"] == pytest.approx(0.173, abs=0.001)


def test_frames_and_methods(client: TestClient) -> None:
    got = ask(client, frame="sight", method="M2")
    assert got["chosen"]["big"] == f"{got['chosen']['answer']['corrected']['sight']:.2f}"
    assert got["chosen"]["other"]["frame"] == "nose"
    assert got["count"]["method"] == "M2"


def test_a_cue_with_squirt_moves_the_mark_and_is_a_link_of_its_own(client: TestClient) -> None:
    """The ball leaves left of the cue's line for right side, so the line of the cue lies to the right of the ball's."""
    ideal, house = ask(client), ask(client, cue="house")
    links = {link["link"]: link["shift"] for link in house["chosen"]["answer"]["chain"]}
    moved = house["chosen"]["answer"]["corrected"]["nose"] - ideal["chosen"]["answer"]["corrected"]["nose"]
    assert links["squirt and swerve"] == pytest.approx(moved, abs=1e-9)
    assert moved > 0.02
    assert "cue=house" in house["address"]
    assert "cue=" not in ideal["address"]


def test_the_film_says_how_the_ball_sets_off(client: TestClient) -> None:
    """Struck 2/5 R above centre it rolls at once; struck in the centre it slides first."""
    texts = [ask(client, up=up, side=0.0)["chosen"]["drawing"]["moments"][0]["text"] for up in (0.0, 0.4)]
    assert texts == ["struck, still sliding", "struck, rolling at once"]


def test_a_bank_is_answered_with_its_contact_and_its_mirror(client: TestClient) -> None:
    balls = [{"id": "cue", "x": 3.0, "y": 2.5}, {"id": "7", "x": 5.0, "y": 1.2}]
    layout = {**CONTRACT_LAYOUT, "balls": balls}
    got = ask(client, layout=layout, kind="bank", rails=None, side=0.0, speed=3.0)
    chosen = got["chosen"]
    assert chosen["contact"].startswith("into the top-right corner, cut 34°")
    assert (chosen["lead"], chosen["counted_from"]) == ("Bottom rail", "from the left")
    assert chosen["drawing"]["line"]["whole"] == 8  # short and long are read through the pocket's mouth
    assert chosen["results"][0] == {"id": "hit", "label": "Pocketed", "potted": None}
    assert len(chosen["drawing"]["mirror"]["tables"]) == 2
    assert "pocket=side-far" in ask(client, layout=layout, kind="bank", pocket="side-far", rails="near")["address"]


def test_the_mirror_view_is_straight_where_nothing_bends(client: TestClient) -> None:
    """The natural line is one straight stroke from the cue ball to the last image of the target."""
    mirror = ask(client, rails="far,foot", speed=4.0, side=0.0)["chosen"]["drawing"]["mirror"]
    start, end = (tuple(map(float, part.split())) for part in mirror["natural"][1:].split("L"))
    cue = next(ball["at"] for ball in mirror["tables"][0]["balls"] if ball["id"] == "cue")
    target = next(ball["at"] for ball in mirror["tables"][-1]["balls"] if ball["id"] == "7")
    assert start == pytest.approx(cue)
    assert end == pytest.approx(target)
    assert [joint["rail"] for joint in mirror["joints"]] == ["far", "foot"]


def test_a_held_mark_gives_a_stroke_or_a_reason(client: TestClient) -> None:
    held = {"question": {**QUESTION, "side": 0.0}, "mark": 2.75, "change": "side"}
    got = client.post(address.INSTEAD, json=held).json()
    assert got["solved"]
    again = ask(client, side=round(got["stroke"]["side"], 4))
    assert again["chosen"]["answer"]["corrected"]["nose"] == pytest.approx(2.75, abs=2e-3)  # addresses keep four places
    none = client.post(address.INSTEAD, json={**held, "mark": 0.2, "change": "up"}).json()
    assert (none["solved"], bool(none["reason"])) == (False, True)
    straight = {**held, "question": {**QUESTION, "rails": "straight"}}
    assert client.post(address.INSTEAD, json=straight).status_code == 422


def test_refused_rails_are_told(client: TestClient) -> None:
    got = ask(client, rails="foot", side=0.0)
    assert got["chosen"]["solved"] is False
    assert "the 2 is in the way before the rail" in got["chosen"]["reason"]
    assert got["headline"]["way"] == "it is not on: the 2 is"
    assert got["lines"] is None


def test_no_target_asks_for_one(client: TestClient) -> None:
    got = ask(client, layout={**CONTRACT_LAYOUT, "target": None})
    assert got["chosen"] is None
    assert "Choose" in got["headline"]["way"]


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"cue": "broom"}, "unknown cue"), ({"speed": 13}, "faster than any break"), ({"side": 0.6}, "miscue"), ({"speed": True}, "not a number"),
        ({"rails": "up"}, "unknown rail"), ({"method": "M99"}, "unknown method"), ({"frame": "moon"}, "unknown frame"),
        ({"layout": {**CONTRACT_LAYOUT, "balls": []}}, "no cue ball"), ({"extra": 1}, "not known"), ({"lengths": 0}, "greater than 0"),
        ({"layout": {**CONTRACT_LAYOUT, "table": "moon"}}, "unknown table"),
    ],
)  # fmt: skip
def test_bad_questions_are_sentences(client: TestClient, change: dict[str, Any], words: str) -> None:
    reply = client.post(address.ANSWER, json={**QUESTION, **change})
    assert reply.status_code == 422
    assert words in reply.json()["error"]
    assert "\n" not in reply.json()["error"]


def test_bodies_that_are_not_json(client: TestClient) -> None:
    reply = client.post(address.ANSWER, content=b"{", headers={"Content-Type": "application/json"})
    assert (reply.status_code, reply.json()["field"]) == (400, "body")
    reply = client.post(address.ANSWER, content=b'{"layout": NaN}', headers={"Content-Type": "application/json"})
    assert reply.status_code in (400, 422)


def test_add_read_and_save(client: TestClient) -> None:
    grown = client.post(address.ADD_BALL, json=CONTRACT_LAYOUT).json()
    assert [b["id"] for b in grown["balls"]] == ["cue", "7", "2", "1"]
    read = client.post(address.READ_LAYOUT, content=json.dumps(CONTRACT_LAYOUT), headers={"Content-Type": "text/plain"})
    assert read.json()["layout"] == CONTRACT_LAYOUT
    worn = {
        **CONTRACT_LAYOUT,
        "table": {**table_json(standard_table("pool-9ft")), "name": "worn", "cushion_friction": 0.3},
    }
    own = client.post(address.READ_LAYOUT, content=json.dumps(worn), headers={"Content-Type": "text/plain"}).json()
    assert (own["layout"]["table"], own["href"]) == ("worn", None)
    kept = client.get(address.CLUB_ROOM, params={"table": "worn"}).text
    assert "unknown table" in kept  # reading is reading: the club has no such table by it
    put = client.post(address.READ_TABLE, content=json.dumps(own["table"]), headers={"Content-Type": "text/plain"})
    assert put.json() == {"name": "worn"}
    there = client.post(address.READ_LAYOUT, content=json.dumps(worn), headers={"Content-Type": "text/plain"}).json()
    assert there["table"] is None
    assert client.get(there["href"]).status_code == 200
    wrong = client.post(address.READ_LAYOUT, content="{", headers={"Content-Type": "text/plain"})
    assert wrong.status_code == 422
    saved = client.get(address.SAVE_LAYOUT + "?" + ask(client)["address"])
    assert saved.json() == CONTRACT_LAYOUT
    assert "layout.fandle.json" in saved.headers["content-disposition"]


def test_pages_are_strict_about_scripts_and_strangers(client: TestClient) -> None:
    page = client.get("/")
    policy = page.headers["content-security-policy"]
    assert "script-src 'self'" in policy
    assert "unsafe" not in policy
    assert re.findall(r"<script(?![^>]*\bsrc=)", page.text) == []
    assert re.findall(r"\bon[a-z]+=", re.sub(r'data-\w+="[^"]*"', "", page.text)) == []
    assert re.findall(r'(?:src|href)="(?:https?:)?//', page.text) == []
    assert "style=" not in page.text


@pytest.mark.parametrize(
    "query",
    [
        "balls=cue:1",
        "balls=cue:a,b",
        "table=moon",
        "balls=cue:1,1&target=5",
        "speed=fast&balls=cue:1,1",
        "balls=cue:9,9",
        "frame=x&balls=cue:1,1",
        "speed=nan&balls=cue:1,1",
    ],
)
def test_a_broken_link_shows_a_sentence_and_a_table(client: TestClient, query: str) -> None:
    page = client.get("/?" + query)
    assert page.status_code == 200
    assert "This link cannot be opened" in page.text


def test_every_demo_layout_opens_with_an_answer(client: TestClient) -> None:
    links = re.findall(r'data-demo><a href="(/\?[^"]+)"><b>', client.get("/").text)
    assert len(demo_club()["layouts"]) >= len(links) > 5  # other tests may have deleted some
    for link in links:
        assert "This link cannot" not in client.get(link.replace("&amp;", "&")).text


@settings(
    max_examples=80,
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.function_scoped_fixture],
)
@given(
    balls=st.lists(st.tuples(st.sampled_from(["cue", "1", "2", "x"]), st.floats(-1, 9), st.floats(-1, 5)), max_size=4),
    speed=st.floats(-1, 14), side=st.floats(-0.6, 0.6), rails=st.sampled_from(["far", "near", "head", "foot", "", None]),
)  # fmt: skip
def test_any_layout_is_answered_or_refused(
    client: TestClient, balls: Any, speed: float, side: float, rails: str | None
) -> None:
    scene = {**CONTRACT_LAYOUT, "balls": [{"id": i, "x": x, "y": y} for i, x, y in balls], "target": "1"}
    reply = client.post(address.ANSWER, json={"layout": scene, "speed": speed, "side": side, "rails": rails})
    assert reply.status_code in (200, 422)


def answers_as_declared(client: TestClient, cases: Any, declared: dict[str, Any], parts: dict[str, Any]) -> int:
    """Random requests to one route: how many it answered with 200. Every status and body must be as declared."""
    answered = 0

    @settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck))
    @given(case=cases)
    def check(case: Any) -> None:
        nonlocal answered
        body = case.body if isinstance(case.body, dict | list) else None
        reply = client.request(case.method, case.formatted_path, params=case.query, json=body)
        told = declared.get(str(reply.status_code))
        assert told is not None, (reply.status_code, reply.text)
        answered += reply.status_code == 200
        if "application/json" in told.get("content", {}):
            jsonschema.validate(reply.json(), {**told["content"]["application/json"]["schema"], **parts})

    check()
    return answered


def test_the_published_interface_holds_under_random_requests(client: TestClient) -> None:
    """schemathesis over the application's own OpenAPI: no 500, every status and every body as declared."""
    spec = client.app.openapi()  # type: ignore[attr-defined]  # FastAPI
    answered = {}
    for operation in schemathesis.openapi.from_dict(spec).get_all_operations():
        found = operation.ok()
        declared = spec["paths"][found.path][found.method.lower()]["responses"]
        parts = {"components": spec["components"]}
        answered[found.label] = answers_as_declared(client, found.as_strategy(), declared, parts)
    assert sum(count > 0 for count in answered.values()) >= 8, answered
