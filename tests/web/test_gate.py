"""Who may do what: names, pages of others, bodies, and devices beyond this machine."""

import asyncio
import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT
from tests.web.conftest import local_client

from fandle.store.database import Database
from fandle.store.devices import devices as stored
from fandle.web import address, devices
from fandle.web.app import create_app
from fandle.web.bodies import MOST_BODY
from fandle.web.settings import Settings

QUESTION: dict[str, Any] = {"layout": CONTRACT_LAYOUT, "rails": "far"}
NOTE = {"uid": "gate-test-1", "question": QUESTION, "result": "hit"}
HERE = "http://127.0.0.1:8000"
PHONE, SERVER = ("192.168.7.20", 41000), "http://192.168.7.5:8000"


@pytest.fixture
def served(tmp_path: Path) -> Iterator[tuple[TestClient, TestClient]]:
    """One server beyond this machine: a client on it, and a phone in the room."""
    app = create_app(Settings(tmp_path, demo=True, beyond=True, outside=SERVER, hosts=("192.168.7.5",)))
    with local_client(app) as inside:
        yield inside, TestClient(app, base_url=SERVER, client=PHONE, follow_redirects=False)


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "192.168.7.5", "[::2]:8000"])
def test_a_name_that_is_not_ours_reads_and_writes_nothing(client: TestClient, host: str) -> None:
    for reply in (
        client.get(address.LOG_JSON, headers={"Host": host}),
        client.post(address.ANSWER, json=QUESTION, headers={"Host": host}),
        client.delete(f"{address.LAYOUTS}/1", headers={"Host": host}),
    ):
        assert reply.status_code == 421
        assert "open the address" in reply.json()["error"]
        assert "attempts" not in reply.text


@pytest.mark.parametrize("host", ["127.0.0.1:8000", "localhost", "LOCALHOST:9", "[::1]:8000"])
def test_our_own_names_are_let_in(client: TestClient, host: str) -> None:
    assert client.get(address.HEALTH, headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://evil.example"},
        {"Origin": "null"},
        {"Origin": "http://127.0.0.1:9999"},
        {"Origin": "https://127.0.0.1:8000"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
        {"Sec-Fetch-Site": "none"},
        {"Origin": HERE, "Sec-Fetch-Site": "cross-site"},
    ],
)
def test_another_page_writes_nothing(client: TestClient, headers: dict[str, str]) -> None:
    before = client.get(address.LOG_JSON).text
    for method, path, body in (
        ("POST", address.ATTEMPTS, NOTE),
        ("PUT", address.PREFERENCES, {"tip_mm": 11}),
        ("DELETE", f"{address.LAYOUTS}/1", None),
    ):
        reply = client.request(method, path, json=body, headers=headers)
        assert reply.status_code == 403
        assert "Fandle's own pages" in reply.json()["error"]
    assert client.get(address.LOG_JSON).text == before


@pytest.mark.parametrize("headers", [{}, {"Origin": HERE}, {"Origin": HERE, "Sec-Fetch-Site": "same-origin"}])
def test_our_own_pages_and_scripts_here_write(client: TestClient, headers: dict[str, str]) -> None:
    assert client.put(address.PREFERENCES, json={"tip_mm": 13}, headers=headers).status_code == 200


@pytest.mark.parametrize(
    "kind", ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x", ""]
)
def test_a_body_is_json_or_nothing(client: TestClient, kind: str) -> None:
    reply = client.post(address.ANSWER, content=json.dumps(QUESTION), headers={"Content-Type": kind})
    assert reply.status_code == 415
    assert "application/json" in reply.json()["error"]


def test_too_large_a_body_is_refused_before_it_is_read(client: TestClient) -> None:
    claimed = client.post(
        address.ANSWER,
        content=b"{}",
        headers={"Content-Type": "application/json", "Content-Length": str(MOST_BODY + 1)},
    )
    sent = client.post(
        address.ANSWER,
        content=(b"x" * 100_000 for _ in range(MOST_BODY // 100_000 + 2)),
        headers={"Content-Type": "application/json"},
    )
    for reply in (claimed, sent):
        assert reply.status_code == 413
        assert reply.json()["error"] == "that is more than 1 MB: send less at once"
        assert reply.headers["Connection"] == "close"


@pytest.mark.parametrize(
    ("body", "status", "words"),
    [
        (b'{"layout": ', 400, "not JSON"),
        (b"\xff\xfe{}", 422, "half a character"),
        (b'{"uid": "surrogate-1", "comment": "\\ud800"}', 422, "half a character"),
        (b"[" * 100_000, 400, "nested more than 20"),
        (
            json.dumps({**QUESTION, "speed": 1}).replace('"speed": 1', '"speed": 1' + "0" * 400).encode(),
            422,
            "too large",
        ),
        (
            json.dumps({**QUESTION, "speed": 1}).replace('"speed": 1', '"speed": 1' + "0" * 5000).encode(),
            400,
            "more than 1000 digits",
        ),
        (json.dumps({**QUESTION, "speed": "NaN"}).replace('"NaN"', "NaN").encode(), 422, "not a finite number"),
    ],
)
def test_what_is_no_question_is_one_sentence(client: TestClient, body: bytes, status: int, words: str) -> None:
    reply = client.post(address.ANSWER, content=body, headers={"Content-Type": "application/json"})
    assert reply.status_code == status
    assert words in reply.json()["error"]


def test_every_answer_carries_the_headers_and_no_folder(client: TestClient, tmp_path: Path) -> None:
    replies = [
        client.get("/"),
        client.get("/nowhere"),
        client.get(address.HEALTH, headers={"Host": "evil.example"}),
        client.put(address.HEALTH, json={}),
        client.post(address.ANSWER, content=b"x", headers={"Content-Type": "text/plain"}),
        client.get(f"{address.STATIC}/../../../etc/passwd"),
    ]
    for reply in replies:
        assert "default-src 'none'" in reply.headers["Content-Security-Policy"]
        assert reply.headers["X-Content-Type-Options"] == "nosniff"
        assert reply.headers["Referrer-Policy"] == "no-referrer"
        assert str(tmp_path.parent.parent) not in reply.text
    assert [reply.status_code for reply in replies[1:]] == [404, 421, 405, 415, 404]
    assert all(set(reply.json()) == {"error", "code", "field", "balls"} for reply in replies[1:])


def test_an_unforeseen_fault_is_a_sentence_with_the_headers(tmp_path: Path) -> None:
    app = create_app(Settings(tmp_path))

    @app.get("/api/broken")
    def broken() -> None:
        raise RuntimeError(f"secret {tmp_path}")

    client = TestClient(app, base_url=HERE, client=("127.0.0.1", 1), raise_server_exceptions=False)
    reply = client.get("/api/broken")
    assert (reply.status_code, "secret" in reply.text) == (500, False)
    assert "server's log" in reply.json()["error"]
    assert "default-src 'none'" in reply.headers["Content-Security-Policy"]


def test_a_script_elsewhere_is_not_a_page_of_ours(served: tuple[TestClient, TestClient]) -> None:
    inside, phone = served
    come_in(inside, phone)
    assert phone.put(address.PREFERENCES, json={"tip_mm": 12}).status_code == 403
    assert phone.put(address.PREFERENCES, json={"tip_mm": 12}, headers={"Origin": SERVER}).status_code == 200


def shown_pass(inside: TestClient) -> str:
    """The pass on the page "Another device"."""
    found = re.search(r'id="pass">([^<]+)<', inside.get(address.DEVICES).text)
    assert found
    return found[1]


def come_in(inside: TestClient, phone: TestClient, name: str = "Phone") -> Any:
    """The phone types the pass it is shown."""
    return phone.post(address.PASS, data={"code": shown_pass(inside), "name": name}, headers={"Origin": SERVER})


@pytest.mark.parametrize(
    "path",
    ["/", "/log", address.LOG_JSON, address.LOG_CSV, address.HEALTH, "/openapi.json", "/docs", "/static/js/main.js",
     address.DEVICES, "/club", "/compare", "/handbook/M3", "/nowhere"],
)  # fmt: skip
def test_without_a_pass_there_is_nothing_but_the_pass_page(served: tuple[TestClient, TestClient], path: str) -> None:
    _, phone = served
    page = phone.get(path, headers={"Accept": "text/html"})
    assert page.status_code == 401
    assert "This device needs the pass" in page.text
    assert "<script" not in page.text
    assert phone.get(path, headers={"Cookie": f"{devices.COOKIE}=guessed"}).status_code == 401
    for stranger in (phone.get(path), phone.post(path, json={}, headers={"Origin": SERVER})):
        assert stranger.status_code == 401
        assert "no pass" in stranger.json()["error"]


def test_a_phone_comes_in_by_the_pass_and_is_sent_away(served: tuple[TestClient, TestClient]) -> None:
    inside, phone = served
    code = shown_pass(inside)
    reply = come_in(inside, phone, "Back pocket")
    assert reply.status_code == 303
    cookie = reply.headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=lax" in cookie
    assert phone.get("/").status_code == 200
    assert phone.post(address.ANSWER, json=QUESTION, headers={"Origin": SERVER}).status_code == 200
    again = TestClient(phone.app, base_url=SERVER, client=PHONE, follow_redirects=False)
    refused = again.post(address.PASS, data={"code": code, "name": "Thief"}, headers={"Origin": SERVER})
    assert (refused.status_code, "not the pass" in refused.text) == (403, True)
    page = inside.get(address.DEVICES).text
    assert 'value="Back pocket"' in page
    (device,) = re.findall(r'data-device="(\d+)"', page)
    assert phone.get(address.DEVICES).status_code == 403
    assert phone.delete(f"{address.API_DEVICES}/{device}", headers={"Origin": SERVER}).status_code == 403
    assert inside.patch(f"{address.API_DEVICES}/{device}", json={"name": "Tablet"}).json() == {"name": "Tablet"}
    assert inside.delete(f"{address.API_DEVICES}/{device}").json() == {"name": "Tablet"}
    assert phone.get("/").status_code == 401
    assert inside.delete(f"{address.API_DEVICES}/{device}").status_code == 404


def test_who_is_in_stays_in_when_the_server_starts_again(tmp_path: Path) -> None:
    settings = Settings(tmp_path, beyond=True, outside=SERVER, hosts=("192.168.7.5",))
    with local_client(create_app(settings)) as inside:
        phone = TestClient(inside.app, base_url=SERVER, client=PHONE, follow_redirects=False)
        come_in(inside, phone)
        token = phone.cookies[devices.COOKIE]
    with TestClient(create_app(settings), base_url=SERVER, client=PHONE) as later:
        assert later.get("/", headers={"Cookie": f"{devices.COOKIE}={token}"}).status_code == 200


def test_this_machine_opened_by_its_outside_name_needs_a_pass_too(served: tuple[TestClient, TestClient]) -> None:
    inside, _ = served
    outside_name = TestClient(inside.app, base_url=SERVER, client=("127.0.0.1", 1))
    rebound = TestClient(inside.app, base_url=HERE, client=PHONE)
    assert outside_name.get(address.HEALTH).status_code == 401
    assert rebound.get(address.HEALTH).status_code == 401


def test_wrong_passes_are_looked_at_ever_more_slowly(
    served: tuple[TestClient, TestClient], monkeypatch: pytest.MonkeyPatch
) -> None:
    inside, phone = served
    slept: list[float] = []

    async def sleep(seconds: float) -> None:
        slept.append(seconds)

    monkeypatch.setattr(asyncio, "sleep", sleep)
    for n in range(6):
        reply = phone.post(address.PASS, data={"code": f"wrong{n}", "name": "x"}, headers={"Origin": SERVER})
        assert reply.status_code == 403
    assert slept == [0.5, 1.0, 2.0, 4.0, 8.0]
    assert come_in(inside, phone).status_code == 303


def test_only_this_machine_lets_devices_in_where_nobody_else_is_served(client: TestClient) -> None:
    assert "fandle serve --host" in client.get(address.DEVICES).text


@pytest.mark.parametrize(
    "headers",
    [
        {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "no-cors", "Sec-Fetch-Dest": "image"},
        {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "iframe"},
        {"Sec-Fetch-Site": "same-site", "Sec-Fetch-Mode": "cors", "Sec-Fetch-Dest": "empty"},
        {"Sec-Fetch-Site": "cross-site"},
    ],
)
def test_another_page_has_nothing_worked_out(
    client: TestClient, headers: dict[str, str], monkeypatch: pytest.MonkeyPatch
) -> None:
    """400 images of another page slowed the player's own page to 4 s: they are refused before anything is read."""
    monkeypatch.setattr(Database, "read", None)  # whoever reads anything fails
    for path in ("/", "/?balls=cue:2,1;1:6,1", address.COMPARE_ROOM, address.LOG_JSON, address.LAYOUTS):
        reply = client.get(path, headers=headers)
        assert (reply.status_code, "open the address itself" in reply.json()["error"]) == (403, True)


@pytest.mark.parametrize(
    "headers",
    [
        {},
        {"Sec-Fetch-Site": "none", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "document"},
        {"Sec-Fetch-Site": "same-origin", "Sec-Fetch-Mode": "cors", "Sec-Fetch-Dest": "empty"},
        {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "document"},
    ],
    ids=["a script", "a bookmark or a code", "our own page", "a link"],
)
def test_a_link_a_code_a_bookmark_and_our_own_pages_read(client: TestClient, headers: dict[str, str]) -> None:
    assert client.get("/?balls=cue:2,1;1:6,1&target=1", headers=headers).status_code == 200


def test_a_device_sent_away_gets_no_more_of_a_stream(served: tuple[TestClient, TestClient]) -> None:
    """What it was answering goes no further: the rest of the lines stays here."""
    inside, phone = served
    state = inside.app.state  # type: ignore[attr-defined]  # FastAPI
    token = state.devices._let_in("Phone").token
    headers = {"Cookie": f"{devices.COOKIE}={token}", "Origin": SERVER}
    body = {"layout": {**CONTRACT_LAYOUT}, "draws": 40}
    whole = phone.post(address.PLAN, json=body, headers=headers).text.splitlines()
    assert json.loads(whole[-1])["goal"] == "hit"
    told = []
    real = state.devices.knows

    def knows(given: str) -> bool:
        told.append(given)
        if len(told) == 3:  # the gate, the first line, and now: it is sent away meanwhile
            state.devices.send_away(next(row.id for row in stored(state.database) if row.name == "Phone"))
        return bool(real(given))

    state.devices.knows = knows
    cut = phone.post(address.PLAN, json={**body, "seed": 2}, headers=headers).text.splitlines()
    state.devices.knows = real
    assert len(cut) < len(whole)
    assert not any("goal" in json.loads(line) for line in cut)
    assert phone.post(address.PLAN, json=body, headers=headers).status_code == 401


def test_a_device_is_called_what_can_be_seen(served: tuple[TestClient, TestClient]) -> None:
    inside, _ = served
    state = inside.app.state  # type: ignore[attr-defined]  # FastAPI
    assert [state.devices._let_in(name).name for name in ("  Tablet ", "a\u202eb", "..", "")] == [
        "Tablet", "Device", "Device", "Device",
    ]  # fmt: skip
    device = stored(state.database)[0].id
    assert inside.patch(f"{address.API_DEVICES}/{device}", json={"name": "a\u200bb"}).status_code == 422
    assert inside.patch(f"{address.API_DEVICES}/{device}", json={"name": "Anna's"}).json() == {"name": "Anna's"}
