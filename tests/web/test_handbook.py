"""The Handbook without a browser: pages stand, examples follow the table, figures and maps are the core's."""

import math
from typing import Any

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT

from fandle.core.handbook.close_work import technique_page
from fandle.core.handbook.corrections import CORRECTIONS
from fandle.core.handbook.holds import by_cloth
from fandle.core.handbook.page import page_of
from fandle.core.shot.cue import HOUSE
from fandle.core.steps import finish
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.registry import count
from fandle.core.techniques.registry import TECHNIQUES
from fandle.core.words.screen import Screen
from fandle.formats.files import layout_json
from fandle.web import address


def example(client: TestClient, method: str, **change: Any) -> Any:
    page = page_of(method)
    body = {"layout": layout_json(page.example, by_name=True), **change}
    reply = client.post(f"{address.EXAMPLE}/{method}", json=body)
    assert reply.status_code == 200, reply.text
    return reply.json()


def test_the_index_leads_to_every_page(client: TestClient) -> None:
    text = client.get(address.HANDBOOK).text
    for method in METHODS:
        assert f'href="/handbook/{method}"' in text
        page = page_of(method)
        told = client.get(f"{address.HANDBOOK}/{method}").text
        assert page.title in told
        for words in (page.rule, page.by_eye, page.sums, page.exact, page.drifts, page.dispute, page.caution):
            assert Screen().say(words)[:40].replace("'", "&#39;") in told
        assert f"at least {page.trusted.share:.0%}".removesuffix("%") + " times in 100" in told
        assert Screen(snooker=page.example.table.d_radius is not None).say(page.trusted.say) in told
    assert "yours" in text
    assert "Equal angles →" not in client.get("/handbook/M1").text


def test_the_halving_counts_bank_is_a_click_away(client: TestClient) -> None:
    text = client.get("/handbook/M3").text
    href = text.partition('<a href="/?')[2].partition('"')[0].replace("&amp;", "&")
    page = client.get(f"/?{href}").text
    assert "kind=bank" in href
    assert "Of the natural pairs that end in the bottom side pocket" in page
    assert "A bank counted so" not in client.get("/handbook/M4").text


def test_an_unknown_system_leads_back_to_the_index(client: TestClient) -> None:
    reply = client.get("/handbook/M42")
    assert reply.status_code == 404
    assert "There is no system M42: choose one of these." in reply.text


@pytest.mark.parametrize("method", METHODS)
def test_the_live_example_lands_elsewhere_on_another_cloth(client: TestClient, method: str) -> None:
    """Each live example's landing figure changes with the cushion friction of its table."""
    plain = example(client, method)
    assert plain["system"]["applies"], plain["system"]
    assert plain["system"]["lands"] != example(client, method, cloth="new")["system"]["lands"]
    assert plain["system"]["lands"] != example(client, method, cloth="damp")["system"]["lands"]
    page = page_of(method)
    found = count(method, page.example, page.rails, cue=HOUSE)
    assert isinstance(found, Count)
    assert plain["system"]["lands"]["off_diamonds"] == pytest.approx(found.lands.off_diamonds, abs=1e-3)
    assert [rival["method"] for rival in plain["rivals"]] == list(page.rivals)
    assert client.get(plain["system"]["href"]).status_code == 200
    for rival in plain["rivals"]:
        assert rival["applies"] in (True, False)
        assert rival["where"] if rival["applies"] else rival["reason"]


def test_an_example_is_kept_in_its_address(client: TestClient) -> None:
    got = example(client, "M14", cloth="damp", rubber="soft")
    assert got["address"].endswith("&cloth=damp&rubber=soft")
    page = client.get(f"/handbook/M14?{got['address']}").text
    assert "damp" in page
    assert got["system"]["verdict"]["where"] in page
    own = client.get("/handbook/M3?balls=cue:1.1,0.55;7:5.3,0.5&target=7&rails=far").text
    assert "4.2 \\u00f7 2 = 2.1" in own


def test_a_system_takes_the_rails_it_can(client: TestClient) -> None:
    """Asked over rails it does not count over, the example shows the ones it does."""
    got = example(client, "M3", rails="far,foot")
    assert got["system"]["applies"]
    assert "," not in got["rails"]
    none = client.post(
        f"{address.EXAMPLE}/M3", json={"layout": {**CONTRACT_LAYOUT, "target": None}, "rails": "far"}
    ).json()
    assert not none["system"]["applies"]
    assert "no ball is chosen" in none["system"]["reason"]
    assert none["rivals"] == []


def test_curves_are_the_cores(client: TestClient) -> None:
    page = page_of("M4")
    got = client.post(f"{address.EXAMPLE}/M4/drift", json={"layout": layout_json(page.example, by_name=True)}).json()
    assert got["axis"] == page.axis
    core = finish(by_cloth(page, page.example, page.rails))
    assert [c["name"] for c in got["cloth"]] == [c.name for c in core]
    assert [d[1] for d in got["cloth"][0]["dots"]] == pytest.approx([d.off for d in core[0].dots], abs=1e-4)
    assert got["cloth"][0]["worst"] == f"{core[0].worst:.2f}"
    assert {c["name"] for c in got["pace"]} == {"as meant", "softer", "firmer"}


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"cloth": "velvet"}, "unknown cloth 'velvet'"),
        ({"rubber": "chewing"}, "unknown rubber 'chewing'"),
        ({"rails": "left"}, "left"),
        ({"layout": {**CONTRACT_LAYOUT, "table": "tea-table"}}, "unknown table 'tea-table'"),
    ],
)
def test_bad_input_gets_a_sentence(client: TestClient, change: dict[str, Any], words: str) -> None:
    for url in (f"{address.EXAMPLE}/M3", f"{address.EXAMPLE}/M3/drift"):
        reply = client.post(url, json={"layout": CONTRACT_LAYOUT, **change})
        assert reply.status_code == 422
        assert words in reply.json()["error"]
    page = client.get("/handbook/M3?balls=cue:1,1;7:nowhere")
    assert page.status_code == 200
    assert "This link cannot be opened" in page.text
    assert client.post(f"{address.EXAMPLE}/M99", json={"layout": CONTRACT_LAYOUT}).status_code == 422


def test_hands_and_cue_come_with_the_systems_that_measure(client: TestClient) -> None:
    steps = example(client, "M8")["system"]["hands"]
    assert len(steps) == 5
    assert all(step["do"].endswith(".") for step in steps)
    span = steps[1]["things"][0]
    assert span["kind"] == "span"
    assert span["d"].startswith("M")
    assert example(client, "M14")["system"]["hands"] == []


def technique(client: TestClient, method: str, **change: Any) -> Any:
    page = technique_page(method)
    body = {"layout": layout_json(page.example, by_name=True), **change}
    reply = client.post(f"{address.TECHNIQUE}/{method}", json=body)
    assert reply.status_code == 200, reply.text
    return reply.json()


@pytest.mark.parametrize("method", list(TECHNIQUES))
def test_a_technique_has_a_page_with_its_solution_and_its_moment(client: TestClient, method: str) -> None:
    page = client.get(f"{address.HANDBOOK}/{method}").text
    assert technique_page(method).title in page
    told = technique(client, method)
    assert told["works"]
    moment = told["moment"]
    assert math.dist(moment["cue"], moment["ball"]) == pytest.approx(2 * moment["radius"], abs=0.2)
    x, y, width, height = moment["view"]
    for place in (moment["cue"], moment["ball"], moment["driven"], moment["goes"]):
        assert place is None or (x <= place[0] <= x + width and y <= place[1] <= y + height)
    assert told["ways"]
    assert max(way["share"] for way in told["ways"]) == pytest.approx(1.0)
    assert "near rail" not in told["aim_at"]  # rails as the drawing lies


def test_a_technique_follows_its_table_and_says_why_not(client: TestClient) -> None:
    dry, damp = technique(client, "M20"), technique(client, "M20", cloth="damp", rubber="dead")
    assert dry["aim_at"] != damp["aim_at"] or dry["room"] != damp["room"]
    assert "cloth=damp" in damp["address"]
    far = layout_json(technique_page("M20").example, by_name=True)
    far["balls"][1]["y"] = 2.0
    told = technique(client, "M20", layout=far)
    assert (told["works"], "not near that rail" in told["reason"]) == (False, True)
    assert client.get(f"{address.HANDBOOK}/M20?{damp['address']}").text.count("damp") > 1
    assert "cannot be opened" in client.get(f"{address.HANDBOOK}/M20?balls=cue:99,1").text
    assert client.post(f"{address.TECHNIQUE}/M99", json={"layout": far}).json()["code"] == "unknown"


@pytest.mark.parametrize(
    ("query", "there", "gone"),
    [
        ("rails=1&sums=no", ["M1", "M6", "M20"], ["M3", "M14"]),
        ("rails=3&table=strange", ["M12"], ["M14", "M18"]),
        ("use=bank", ["M3", "M25"], ["M1"]),
        ("q=midpoint", ["M10"], ["M14"]),
        ("rails=moon", ["M1", "M26"], []),
    ],
)
def test_the_finder_shows_what_suits(client: TestClient, query: str, there: list[str], gone: list[str]) -> None:
    text = client.get(f"{address.HANDBOOK}?{query}").text
    assert all(f'href="/handbook/{method}"' in text for method in there)
    assert not any(f'href="/handbook/{method}"' in text for method in gone)


def test_a_search_that_finds_nothing_says_so_and_finds_other_pages(client: TestClient) -> None:
    assert "No method suits all of that" in client.get(f"{address.HANDBOOK}?q=unicorn").text
    assert "/handbook/games" in client.get(f"{address.HANDBOOK}?q=straight+pool").text
    assert "/handbook/corrections" in client.get(f"{address.HANDBOOK}?q=slick").text


@pytest.mark.parametrize("name", ["corrections", "disputes", "games"])
@pytest.mark.parametrize("table", ["pool-9ft", "snooker-12ft", "carom-10ft"])
def test_the_other_pages_stand_on_every_table(client: TestClient, name: str, table: str) -> None:
    reply = client.get(f"{address.HANDBOOK}/{name}?table={table}")
    assert reply.status_code == 200
    assert "Infinity" not in reply.text
    assert ">None<" not in reply.text
    if name == "corrections":
        assert reply.text.count('class="shift"') == len(CORRECTIONS)
    assert "cannot be opened" in client.get(f"{address.HANDBOOK}/{name}?table=moon").text
