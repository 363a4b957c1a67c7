"""An application on a fresh demo database, asked without a network."""

from collections.abc import Iterator

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from fandle.web import address
from fandle.web.app import create_app
from fandle.web.settings import Settings


@pytest.fixture(scope="session")
def client(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """A client of the demo application; an unhandled error fails the test."""
    with local_client(create_app(Settings(tmp_path_factory.mktemp("home"), demo=True))) as client:
        yield client


@pytest.fixture
def club_player(client: TestClient) -> None:
    """The database is shared: other tests may have said otherwise how steady the player is, or how they stand."""
    assert client.put(address.PLAYER, json={"by": "club"}).status_code == 200
    habits = {"reach": "usual", "hand": "both", "plain": False}
    assert client.put(address.PREFERENCES, json=habits).status_code == 200


def local_client(app: FastAPI) -> TestClient:
    """A client on the machine that the application runs on."""
    return TestClient(app, base_url="http://127.0.0.1:8000", client=("127.0.0.1", 50000))
