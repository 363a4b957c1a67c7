"""Faults: one shape for programs, a page for people, and the balls that are meant."""

import pytest
from starlette.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT

from fandle.web import address

HTML = {"Accept": "text/html"}


@pytest.mark.parametrize(
    ("place", "code", "balls"),
    [
        ((3.21, 0.5), "overlap", ["7", "2"]),
        ((5.3, 0.01), "in_cushion", ["7"]),
        ((9.0, 0.5), "off_bed", ["7"]),
        ((0.0, 0.0), "in_pocket", ["7"]),
    ],
)
def test_a_fault_names_its_code_its_field_and_its_balls(
    client: TestClient, place: tuple[float, float], code: str, balls: list[str]
) -> None:
    layout = {**CONTRACT_LAYOUT, "balls": [dict(ball) for ball in CONTRACT_LAYOUT["balls"]]}
    layout["balls"][1].update(x=place[0], y=place[1])
    reply = client.post(address.ANSWER, json={"layout": layout})
    told = reply.json()
    assert (reply.status_code, told["code"], told["field"], told["balls"]) == (422, code, "balls", balls)


@pytest.mark.parametrize(
    ("url", "status", "words"),
    [
        ("/nowhere", 404, "There is nothing here"),
        ("/log?before=abc", 422, "This address is not understood"),
        ("/layout.fandle.json?balls=x", 422, "write it like 7:5.3,0.5"),
        ("/table.json?name=nothing", 422, "Unknown table"),
        ("/handbook/M99", 404, "M99"),
    ],
)
def test_a_bad_address_opens_a_page(client: TestClient, url: str, status: int, words: str) -> None:
    page = client.get(url, headers=HTML)
    assert page.status_code == status
    assert page.headers["content-type"].startswith("text/html")
    assert words in page.text
    assert 'aria-label="Rooms"' in page.text
    assert "default-src 'none'" in page.headers["Content-Security-Policy"]


def test_programs_get_json_at_the_same_addresses(client: TestClient) -> None:
    told = client.get("/nowhere").json()
    assert (told["code"], told["balls"]) == ("not_found", [])
    wrong = client.post(address.ANSWER, json={"layout": CONTRACT_LAYOUT, "speed": "fast"})
    assert (wrong.status_code, wrong.json()["field"], wrong.json()["code"]) == (422, "body.speed", "not_a_number")


def test_the_documentation_of_the_api_is_served_from_here(client: TestClient) -> None:
    page = client.get("/docs")
    assert page.status_code == 200
    assert "http" not in page.text.replace("http-equiv", "")
    assert client.get("/static/vendor/swagger-ui-dist/swagger-ui-bundle.js").status_code == 200
    spec = client.get("/openapi.json").json()
    answer = spec["paths"]["/api/answer"]["post"]["responses"]["200"]["content"]["application/json"]["schema"]
    assert answer == {"$ref": "#/components/schemas/AnswerModel"}
    bare = [
        f"{method} {path}"
        for path, methods in spec["paths"].items()
        for method, route in methods.items()
        if (body := route["responses"].get("200", {}).get("content", {}).get("application/json")) is not None
        and body["schema"] == {}
    ]
    files = ["get /layout.fandle.json", "get /drills.json", "get /table.json"]
    assert sorted(bare) == sorted(files)  # described in docs/formats.md
