"""The clock goes back, or an hour comes twice: what was noted stays in order, and nothing fails for it."""

import time
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from tests.conftest import CONTRACT_LAYOUT
from tests.web.conftest import local_client

from fandle.core.practice.cards import Deck
from fandle.store import log
from fandle.web import address
from fandle.web.app import create_app
from fandle.web.practice.page import days_since
from fandle.web.settings import Settings

NOTE: dict[str, Any] = {"question": {"layout": CONTRACT_LAYOUT, "rails": "far"}, "result": "hit"}


@pytest.fixture
def club(tmp_path: Path) -> Iterator[TestClient]:
    with local_client(create_app(Settings(tmp_path))) as client:
        yield client


def test_notes_made_while_the_clock_goes_back_are_all_listed_and_counted(
    club: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    for n, hours in enumerate((0, 2, 1, -48, 0, 100_000)):
        when = (datetime(2026, 11, 30, 12, tzinfo=UTC) + timedelta(hours=hours)).isoformat(timespec="seconds")
        monkeypatch.setattr(log, "now", lambda when=when: when)
        assert club.post(address.ATTEMPTS, json={**NOTE, "uid": f"clock-0{n}-x"}).status_code == 200
        tried = {"uid": f"clock-0{n}-t", "table": "pool-9ft", "drill": "freeze", "made": True}
        assert club.post(address.TRIES, json=tried).json()["attempts"] == n + 1
    rows = club.get(address.LOG_JSON).json()["attempts"]
    assert [row["made_at"] for row in rows] == sorted((row["made_at"] for row in rows), reverse=True)
    assert len(rows) == 6
    for page in ("/log", "/practice", address.PROGRESS, address.RESULTS):
        assert club.get(page).status_code == 200
    plan = club.post(address.TONIGHT, json={"table": "pool-9ft", "minutes": 20})
    assert plan.status_code == 200
    assert plan.json()["parts"]


def test_days_are_never_fewer_than_none() -> None:
    now = datetime(2026, 11, 30, tzinfo=UTC)
    assert days_since("2026-12-30T00:00:00+00:00", now) == 0.0
    assert days_since("2026-11-28T00:00:00+00:00", now) == 2.0
    assert (days_since("0001-01-01T00:00:00+14:00", now) or 0.0) > 700_000
    for text in ("yesterday", "2026-11-28T00:00:00", ""):
        assert days_since(text, now) is None


def test_a_card_answered_in_the_future_is_asked_and_answered_again() -> None:
    later = datetime(2027, 6, 1, tzinfo=UTC)
    deck = Deck({}).answered("sum", 3, later)
    for _ in range(3):
        deck = deck.answered("sum", 3, datetime(2026, 11, 30, tzinfo=UTC))
    assert deck.due(datetime(2026, 11, 30, tzinfo=UTC)) != ""
    assert set(deck.cards) == {"sum"}


def test_in_the_hour_that_comes_twice_later_is_still_later(monkeypatch: pytest.MonkeyPatch) -> None:
    """Times are kept in UTC, whatever the machine's own zone does that night."""
    monkeypatch.setenv("TZ", "Europe/Vienna")
    time.tzset()
    try:
        before = datetime.fromisoformat(log.now())
        assert before.utcoffset() == timedelta(0)
        assert abs((before - datetime.now(UTC)).total_seconds()) < 5
    finally:
        monkeypatch.delenv("TZ")
        time.tzset()
