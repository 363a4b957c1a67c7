"""Links that carry their table: what is packed is unpacked to the last digit, and damage is told."""

import html
import re

import pytest
from fastapi.testclient import TestClient

from fandle.app.library import MOST_VISITING, Library
from fandle.core.errors import BadInputError
from fandle.core.table.condition import conditioned
from fandle.core.table.model import renamed
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.store.club import tables
from fandle.web import address
from fandle.web.table.link import LARGEST_TABLE, known_with, packed, unpacked

OWN = renamed(conditioned(standard_table("pool-9ft"), "damp", "soft"), "Cellar")


@pytest.mark.parametrize("table", [*STANDARDS.values(), OWN], ids=lambda table: table.name)
def test_a_table_comes_out_as_it_went_in(table: object) -> None:
    assert unpacked(packed(table)) == table  # type: ignore[arg-type]
    assert len(packed(table)) < 1500  # short enough for any address


@pytest.mark.parametrize("text", ["broken", packed(OWN)[:-20], "eJw", "é", "A" * 9])
def test_damage_is_told(text: str) -> None:
    with pytest.raises(BadInputError, match="the table in this link is damaged: copy the link again"):
        unpacked(text)


def test_a_link_that_unpacks_without_end_is_refused() -> None:
    import base64
    import zlib

    bomb = base64.urlsafe_b64encode(zlib.compress(b" " * (LARGEST_TABLE * 100))).decode()
    with pytest.raises(BadInputError, match="damaged"):
        unpacked(bomb)


def test_its_own_table_comes_before_the_clubs(client: TestClient) -> None:
    library: Library = client.app.state.library  # type: ignore[attr-defined]  # FastAPI
    known = known_with(library, {"own": packed(OWN), "table": "Cellar"})
    assert known.table("Cellar") == renamed(OWN, "Cellar (from a link)")
    assert known.table("pool-8ft") == standard_table("pool-8ft")
    assert known_with(library, {}) is library.known


def test_the_page_opens_with_it_and_keeps_nothing(client: TestClient) -> None:
    """Whoever follows a link gives nothing away: the club is as it was, until they say that it is to be kept."""
    before = club_tables(client)
    page = client.get("/", params={"table": "Cellar", "balls": "cue:2,1;1:6,1", "target": "1", "own": packed(OWN)})
    assert page.status_code == 200
    assert "This link cannot" not in page.text
    assert "Keep it" in page.text
    assert '<option value="Cellar (from a link)" selected>' in page.text
    assert client.get("/table.json", params={"name": "Cellar"}).status_code == 422
    layout = {"table": "Cellar (from a link)", "game": "nine-ball", "target": "1"}
    balls = [{"id": "cue", "x": 2, "y": 1}, {"id": "1", "x": 5, "y": 1}]
    asked = client.post(address.ANSWER, json={"layout": {**layout, "balls": balls}, "rails": "far"})
    assert asked.status_code == 200, asked.text  # what the page asks next is answered on that table
    assert asked.json()["chosen"]["solved"]
    assert club_tables(client) == before
    sent = html.unescape(re.findall(r'data-do="keep" value="([^"]+)"', page.text)[0])
    kept = client.post(address.READ_TABLE, content=sent, headers={"Content-Type": "text/plain"}).json()
    assert kept == {"name": "Cellar"}  # under the name it has where it comes from
    assert club_tables(client) == [*before, "Cellar"]
    assert (
        "Keep it" not in client.get("/", params={"table": "Cellar", "balls": "cue:2,1;1:6,1", "own": packed(OWN)}).text
    )


def club_tables(client: TestClient) -> list[str]:
    """What the club's tables are called, read anew."""
    return [row.label for row in tables(client.app.state.database)]  # type: ignore[attr-defined]  # FastAPI


def test_tables_of_many_links_are_forgotten_again(client: TestClient) -> None:
    library: Library = client.app.state.library  # type: ignore[attr-defined]  # FastAPI
    for n in range(MOST_VISITING + 5):
        library.visit(renamed(OWN, f"Visitor {n}"))
    with pytest.raises(BadInputError, match="unknown table 'Visitor 0 "):
        library.table("Visitor 0 (from a link)")
    assert library.table(f"Visitor {MOST_VISITING + 4} (from a link)").cloth_rolling == OWN.cloth_rolling


def test_a_standard_table_needs_no_carrying(client: TestClient) -> None:
    layout = {"table": "pool-9ft", "game": "nine-ball", "balls": [{"id": "cue", "x": 2, "y": 2}]}
    href = client.post(address.LINK, json={"layout": layout, "query": "balls=cue:2,2&name=A+%26+B"}).json()["href"]
    assert href == "/?balls=cue:2,2&name=A+%26+B"
