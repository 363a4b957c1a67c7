"""Maps over HTTP: told column by column, cells as `count` says, before and after a check, faults in one sentence."""

import json
import random
from dataclasses import replace
from typing import Any, cast

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT

from fandle.core.table.fitted import Fitted
from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import table_json
from fandle.store import club
from fandle.web import address


def told(client: TestClient, url: str, body: dict[str, Any]) -> list[dict[str, Any]]:
    reply = client.post(url, json=body)
    assert reply.status_code == 200, reply.text
    assert reply.headers["content-type"] == "application/x-ndjson"
    return [json.loads(line) for line in reply.text.splitlines()]


def test_a_map_comes_in_columns_of_counts(client: TestClient) -> None:
    lines = told(client, address.MAP, {"example": {"layout": CONTRACT_LAYOUT, "rails": "far"}, "method": "M3"})
    xs, ys = lines[0]["xs"], lines[0]["ys"]
    assert (len(xs), len(ys)) == (64, 32)
    cells = [column for line in lines[:-1] for column in line["cells"]]
    assert len(cells) == 64
    assert [line["progress"] for line in lines] == sorted(line["progress"] for line in lines)
    assert lines[0]["progress"] <= 0.1
    rng, counted = random.Random(3), 0
    for _ in range(12):
        i, j = rng.randrange(64), rng.randrange(32)
        if cells[i][j] is None:
            continue
        balls = [{"id": "cue", "x": xs[i], "y": ys[j]}, *CONTRACT_LAYOUT["balls"][1:]]
        example = {"layout": {**CONTRACT_LAYOUT, "balls": balls}, "rails": "far"}
        got = client.post(f"{address.EXAMPLE}/M3", json=example).json()["system"]
        assert abs(cells[i][j][0]) == pytest.approx(got["lands"]["off_diamonds"], abs=2e-3)
        assert (cells[i][j][1] < 1.0) == got["lands"]["hits"]
        counted += 1
    assert counted > 4
    assert lines[-1] == {
        "progress": 1.0, "counted": lines[-1]["counted"], "hits": lines[-1]["hits"], "checked": False,
    }  # fmt: skip


def test_a_checked_table_is_shown_as_it_was_before_too(client: TestClient) -> None:
    damp = replace(STANDARDS["pool-9ft"], name="By the window", cushion_friction=0.26, cloth_rolling=0.014)
    checked = replace(damp, cushion_friction=0.14, fitted=Fitted("2026-11-20", ("cushion_friction",), ((1e-4,),)))
    state = cast(FastAPI, client.app).state
    kept = club.add_table(state.database, damp.name, table_json(damp))
    club.change_table(state.database, kept.id, damp.name, table_json(checked))
    state.library.forget()
    body = {"example": {"layout": {**CONTRACT_LAYOUT, "table": "By the window"}, "rails": "far"}, "method": "M3"}
    now, before = told(client, address.MAP, body), told(client, address.MAP, {**body, "before": True})
    assert now[-1]["checked"] is True
    assert before[-1]["checked"] is True
    assert now[-1]["hits"] != before[-1]["hits"]
    twin = told(client, address.MAP, {**body, "example": {"layout": CONTRACT_LAYOUT, "rails": "far"}})
    assert before[-1]["hits"] != twin[-1]["hits"]  # the club's own older numbers, not the standard ones


def test_what_cannot_be_mapped_is_told(client: TestClient) -> None:
    body = {"example": {"layout": CONTRACT_LAYOUT}, "method": "M3"}
    reply = client.post(address.MAP, json={**body, "before": True})
    assert (reply.status_code, reply.json()["field"]) == (422, "before")
    assert client.post(address.MAP, json={**body, "method": "M99"}).json()["code"] == "unknown"
    no_target = {key: value for key, value in CONTRACT_LAYOUT.items() if key != "target"}
    assert client.post(address.MAP, json={**body, "example": {"layout": no_target}}).json()["code"] == "no_target"
    assert client.post(address.PREFER, json={"example": {"layout": no_target}}).json()["code"] == "no_target"


def test_the_pictures_name_their_pieces(client: TestClient) -> None:
    lines = told(client, address.PREFER, {"example": {"layout": CONTRACT_LAYOUT}})
    pictures = lines[-1]["pictures"]
    assert [picture["rails"] for picture in pictures] == [1, 2, 3]
    for picture in pictures:
        shares = [piece["share"] for piece in picture["pieces"]]
        assert shares == sorted(shares, reverse=True)
        assert sum(shares) + picture["none"] == pytest.approx(1.0)
        assert all(piece["path"].startswith("M") for piece in picture["pieces"])
    assert pictures[0]["pieces"][0]["names"]
    assert all(0.0 <= line["progress"] <= 1.0 for line in lines)


def test_the_handbook_has_the_tables_own_numbers(client: TestClient) -> None:
    carom = {"table": "carom-10ft", "game": "three-cushion", "target": "red"}
    balls = [{"id": "cue", "x": 1, "y": 0.5}, {"id": "red", "x": 0.2, "y": 2.5}, {"id": "white", "x": 7, "y": 3.5}]
    own = client.post(f"{address.EXAMPLE}/M18/drift", json={"layout": {**carom, "balls": balls}}).json()["own"]
    assert own["starts"][0] == "5"
    assert len(own["cells"]) == len(own["starts"])
    assert {len(row) for row in own["cells"]} == {len(own["goals"])}
    assert any(cell != sum_ for row, sums in zip(own["cells"], own["sums"], strict=True) for cell, sum_ in zip(row, sums, strict=True))  # fmt: skip
    assert client.post(f"{address.EXAMPLE}/M3/drift", json={"layout": CONTRACT_LAYOUT}).json()["own"] is None
