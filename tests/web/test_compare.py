"""The Compare room without a browser: the same ranks as the command line, twins, the favourite system."""

from typing import Any

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT, all_counts

from fandle.core.layout.edit import clear
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.shot.cue import HOUSE
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.registry import count
from fandle.core.systems.twin import twin_of
from fandle.core.table.rails import Rail
from fandle.formats.files import layout_of
from fandle.web import address

SIDE_BALLS = [{"id": "cue", "x": 1.5, "y": 0.3}, {"id": "7", "x": 4.0, "y": 0.2}]


def compare(client: TestClient, **change: Any) -> Any:
    reply = client.post(address.COMPARE, json={"layout": CONTRACT_LAYOUT, **change})
    assert reply.status_code == 200, reply.text
    return reply.json()


def test_every_system_is_told_in_the_order_of_the_core(client: TestClient) -> None:
    got = compare(client)["systems"]
    core = {found.method: found for found in all_counts(layout_of(CONTRACT_LAYOUT), cue=HOUSE)}
    kept = [core[system["method"]] for system in got]
    assert [system["applies"] for system in got] == [isinstance(c, Count) for c in kept]
    shares = [int(system["chance"].strip("hits %")) if system["applies"] else -1 for system in got]
    assert shares == sorted(shares, reverse=True)  # the likeliest to hit first, what does not apply last
    assert {system["method"] for system in got} == set(METHODS)
    for system in got:
        if system["applies"]:
            assert system["twin"].endswith(".")
            assert system["shot"].startswith("M")
            assert client.get(system["href"]).status_code == 200
        else:
            assert system["reason"]


def test_twins_are_the_mirror_and_the_played_line() -> None:
    layout = layout_of(CONTRACT_LAYOUT)
    m1 = count("M1", layout, (Rail.FAR,))
    assert isinstance(m1, Count)
    twin = twin_of(layout, m1)
    assert twin is not None
    assert twin.counted == pytest.approx(twin.mirror, abs=1e-9)  # M1 is the mirror in the nose
    assert twin.played is not None
    m14 = count("M14", layout, (Rail.FAR, Rail.FOOT, Rail.NEAR))
    assert isinstance(m14, Count)
    third = twin_of(layout, m14)
    assert third is not None
    assert third.counted == pytest.approx(m14.aim.sight or 0.0, abs=1e-9)
    m4 = count("M4", layout_of({**CONTRACT_LAYOUT, "balls": SIDE_BALLS}), (Rail.FAR,))
    assert isinstance(m4, Count)
    other = twin_of(layout_of({**CONTRACT_LAYOUT, "balls": SIDE_BALLS}), m4)
    assert other is not None
    assert m4.aim.sight is not None
    assert other.counted == pytest.approx(m4.aim.sight, abs=1e-9)  # read where the system reads it
    assert other.mirror != pytest.approx(other.counted, abs=0.02)


def test_the_favourite_system_is_kept_and_leads_the_table_room(client: TestClient) -> None:
    assert client.put(address.PREFERENCES, json={"system": "M4"}).status_code == 200
    try:
        assert compare(client)["favourite"] == "M4"
        page = client.get("/").text
        assert "method=M4" in page
        assert client.put(address.PREFERENCES, json={"tip_mm": 12.5}).status_code == 200
        assert compare(client)["favourite"] == "M4"
    finally:
        client.put(address.PREFERENCES, json={"system": "M3", "tip_mm": 13.0})
    wrong = client.put(address.PREFERENCES, json={"system": "M99"})
    assert (wrong.status_code, "unknown method 'M99'" in wrong.text) == (422, True)


def test_the_page_opens_on_any_layout(client: TestClient) -> None:
    assert "Which system works from here?" in client.get("/compare").text
    assert "This link cannot be opened" in client.get("/compare?balls=x").text
    snooker = "/compare?table=snooker-12ft&game=snooker&balls=cue:2.5,1;black:6.6,1.2&target=black"
    assert client.get(snooker).status_code == 200
    bare = compare(client, layout={**CONTRACT_LAYOUT, "target": None})
    assert bare["systems"] == []


def test_the_played_twin_is_the_solved_aim_next_to_the_count() -> None:
    """Found from the count outwards, it is one of the aims the full search over the rails finds."""
    layout = layout_of(CONTRACT_LAYOUT)
    compared = 0
    for found in all_counts(layout):
        if not isinstance(found, Count):
            continue
        twin, solved = twin_of(layout, found), solve_kick(clear(layout), found.rails, found.stroke, with_chain=False)
        if twin is None or twin.played is None or not isinstance(solved, Aim):
            continue
        full = [getattr(s.corrected, found.frame) for s in solved.solutions if s.fullness > 0.99]
        if full:
            assert min(abs(at - twin.played) for at in full) < 1e-4, found.method
            compared += 1
    assert compared >= 5
