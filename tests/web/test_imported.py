"""Whatever is taken in can be shown: what is imported is refused with a sentence, or every page opens and it goes out
again as it came."""

import json
import random
from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from tests.amount import amount
from tests.conftest import CONTRACT_LAYOUT
from tests.demo import demo_practice
from tests.web.conftest import local_client

from fandle.formats.log import COLUMNS, csv_parts
from fandle.store import log
from fandle.web import address
from fandle.web.app import create_app
from fandle.web.settings import Settings

QUIET = settings(
    deadline=None, database=None, derandomize=True, max_examples=amount(20, 60), suppress_health_check=list(HealthCheck)
)
JSON = {"Content-Type": "application/json"}
PAGES = (
    "/", "/log", "/practice", "/club", address.LOG_CSV, address.LOG_JSON, address.RESULTS, address.SIDE_BY_SIDE,
    address.PROGRESS,
)  # fmt: skip
NASTY: tuple[Any, ...] = (
    None, True, -1, 0, 1, 2.5, 8, 99, 100, 1e308, -1e308, 5e-324, 10**400, 2**63, "", " ", "x", "²", "٣", "1e999", "NaN",
    "x" * 300, "\x00", "\u202eabc", "a\u200bb", "..", [], {}, [[]], "9999-12-31T23:59:59-23:00", "0001-01-01T00:00:00+14:00",
    "2026-11-30T10:00:00", "2026-02-30T10:00:00+00:00", "1970-01-01T00:00:00+00:00", "2199-12-31T23:59:59+00:00",
)  # fmt: skip


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    with local_client(create_app(Settings(tmp_path_factory.mktemp("home"), demo=True))) as client:
        yield client


def spoilt(data: Any, rng: random.Random) -> Any:
    """The same with something nasty in one or two places, or a part of it gone."""
    data = json.loads(json.dumps(data))
    for _ in range(rng.choice((1, 1, 2))):
        places: list[tuple[Any, Any]] = []

        def collect(part: Any, found: list[tuple[Any, Any]] = places) -> None:
            for key, value in part.items() if isinstance(part, dict) else enumerate(part):
                found.append((part, key))
                if isinstance(value, dict | list):
                    collect(value)

        collect(data)
        if not places:
            return data
        part, key = rng.choice(places)
        if rng.random() < 0.1 and isinstance(part, dict):
            del part[key]
        else:
            part[key] = rng.choice(NASTY)
    return data


def opened(club: TestClient) -> None:
    for page in PAGES:
        reply = club.get(page)
        assert reply.status_code == 200, f"{page}: {reply.text[:300]}"
        assert "breaks off here" not in reply.text


def told(reply: Any) -> bool:
    """Was it taken in? Else it was refused with a sentence."""
    if reply.status_code == 200:
        return True
    assert reply.status_code in (400, 413, 422), reply.text[:300]
    assert reply.json()["error"]
    return False


@pytest.mark.proof
@settings(QUIET)
@given(seed=st.integers(0, 2**32))
def test_an_attempt_that_is_taken_in_is_shown_and_goes_out_again(club: TestClient, seed: int) -> None:
    rng = random.Random(seed)
    row = {**vars(rng.choice(demo_practice())), "uid": f"imported-{seed:010d}", "player": "Somebody"}
    row |= {"touched": [{"rail": "far", "at": 2.0}], "stopped_x": 2.0, "stopped_y": 1.0, "off": 0.2}
    data = {"format": "fandle-log/1", "attempts": [spoilt(row, rng)]}
    reply = club.post(f"{address.LOG_IMPORT}?player=Somebody", content=json.dumps(data), headers=JSON)
    if told(reply):
        opened(club)
        out = club.get(address.LOG_JSON).content
        again = club.post(f"{address.LOG_IMPORT}?player=Somebody", content=out, headers=JSON)
        assert (again.status_code, again.json()["new"]) == (200, 0), again.text[:300]


@pytest.mark.proof
@settings(QUIET)
@given(seed=st.integers(0, 2**32), column=st.sampled_from(COLUMNS), cell=st.sampled_from([str(each) for each in NASTY]))
def test_a_cell_that_is_taken_in_is_shown(club: TestClient, seed: int, column: str, cell: str) -> None:
    row = demo_practice()[seed % 90]
    row = log.Noted(**{**vars(row), "uid": f"cell-{seed:010d}", "player": "Somebody"})
    head, line = "".join(csv_parts([row])).split("\r\n")[:2]
    parts = next(iter(_csv(line)))
    parts[head.split(",").index(column)] = cell
    text = head + "\r\n" + ",".join('"' + part.replace('"', '""') + '"' for part in parts) + "\r\n"
    reply = club.post(
        f"{address.LOG_IMPORT}?player=Somebody",
        content=text.encode("utf-8", "replace"),
        headers={"Content-Type": "text/csv"},
    )
    if told(reply):
        opened(club)


def _csv(line: str) -> Iterator[list[str]]:
    import csv

    yield from csv.reader([line])


RESULTS = {
    "format": "fandle-practice/1",
    "player": "The pupil",
    "tries": [{"uid": "t", "made_at": "2026-11-20T19:00:00+00:00", "drill": "freeze", "table": "any", "made": True}],
    "answers": [
        {"uid": "a", "made_at": "2026-11-20T19:00:00+00:00", "topic": "sum", "correct": True, "off": 0.1, "seconds": 3.0}
    ],
    "own": [
        {"title": "Mine", "say": "s", "layout": CONTRACT_LAYOUT, "rails": "far", "lengths": 2.5, "tips": 0.5,
         "height": 0.0, "hit": 0.0, "wanted_hits": 5, "out_of": 10}
    ],
}  # fmt: skip


@pytest.mark.proof
@settings(QUIET)
@given(seed=st.integers(0, 2**32))
def test_results_that_are_taken_in_are_shown(club: TestClient, seed: int) -> None:
    data = spoilt(RESULTS, random.Random(seed))
    if told(club.post(f"{address.READ_RESULTS}?player=Pupil", content=json.dumps(data), headers=JSON)):
        opened(club)


@pytest.mark.proof
@settings(QUIET)
@given(seed=st.integers(0, 2**32), what=st.sampled_from(["layout", "table", "set", "cue", "own"]))
def test_what_is_kept_is_shown(club: TestClient, seed: int, what: str) -> None:
    rng, text = random.Random(seed), {"Content-Type": "text/plain"}
    table = club.get(address.SAVE_TABLE, params={"name": "pool-9ft"}).json()
    drills = {"format": "fandle-drills/1", "name": "S", "drills": ["freeze"], "own": RESULTS["own"], "sums": True}
    routes: dict[str, tuple[str, Any, dict[str, str]]] = {
        "layout": (address.LAYOUTS, {"name": f"L{seed}", "note": "n", "layout": CONTRACT_LAYOUT}, JSON),
        "table": (address.READ_TABLE, {**table, "name": f"T{seed}", "cloth_rolling": 0.011}, text),
        "set": (address.READ_SET, drills, text),
        "cue": (address.CLUB_CUES, {"name": f"C{seed}", "end_ratio": 20.0, "tip_mm": 12.0}, JSON),
        "own": (
            address.OWN_DRILLS,
            {"query": "table=pool-9ft&balls=cue:1.2,1.1;7:5.4,0.9&target=7&rails=far", "title": "D", "say": "s"},
            JSON,
        ),
    }
    path, body, headers = routes[what]
    reply = club.post(path, content=json.dumps(spoilt(body, rng)), headers=headers)
    if reply.status_code != 409 and told(reply):
        opened(club)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"off": 1e308}, "off"),
        ({"made_at": "9999-12-31T23:59:59-23:00"}, "made_at"),
        ({"made_at": "0001-01-01T00:00:00+14:00"}, "made_at"),
        ({"made_at": "2026-11-30T10:00:00"}, "no time with its zone"),
        ({"try_number": "²"}, "try_number"),
        ({"stroke": {"speed": 1e999, "side": 0, "up": 0, "elevation": 0, "cue": "house"}}, "stroke"),
        ({"player": "a\u202eb"}, "cannot be seen"),
        ({"player": ".."}, "is no name"),
    ],
)
def test_numbers_and_names_that_took_pages_down_are_refused(
    club: TestClient, change: dict[str, Any], words: str
) -> None:
    row = {**vars(demo_practice()[0]), "uid": "refused-0001", "player": "Somebody", **change}
    data = json.dumps({"format": "fandle-log/1", "attempts": [row]}).replace("Infinity", "1e999")
    reply = club.post(address.LOG_IMPORT, content=data, headers=JSON)
    assert reply.status_code == 422
    assert words in reply.json()["error"]


def test_a_try_number_of_five_thousand_digits_is_a_sentence(club: TestClient) -> None:
    row = {**vars(demo_practice()[0]), "uid": "refused-0002", "player": "Somebody"}
    head, line = "".join(csv_parts([log.Noted(**row)])).split("\r\n")[:2]
    parts = next(iter(_csv(line)))
    parts[head.split(",").index("try_number")] = "1" * 5000
    text = head + "\r\n" + ",".join('"' + part.replace('"', '""') + '"' for part in parts) + "\r\n"
    reply = club.post(address.LOG_IMPORT, content=text.encode(), headers={"Content-Type": "text/csv"})
    assert (reply.status_code, "try_number" in reply.json()["error"]) == (422, True)
    big = json.dumps({"format": "fandle-log/1", "attempts": [{**row, "try_number": 7}]}).replace(
        '"try_number": 7', '"try_number": ' + "7" * 5000
    )
    assert club.post(address.LOG_IMPORT, content=big, headers=JSON).status_code == 422
