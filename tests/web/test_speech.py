"""Which English a browser is spoken to in, and which way its drawing lies."""

import pytest
from fastapi.testclient import TestClient

from fandle.web import address

QUESTION = {
    "layout": {"table": "pool-9ft", "game": "nine-ball", "balls": [{"id": "cue", "x": 1.1, "y": 0.55}, {"id": "7", "x": 5.3, "y": 0.5}], "target": "7"},
    "rails": "far",
}  # fmt: skip


def lead(client: TestClient, cookies: dict[str, str], accept: str) -> str:
    header = {"cookie": "; ".join(f"{name}={value}" for name, value in cookies.items()), "accept-language": accept}
    shown: str = client.post(address.ANSWER, json=QUESTION, headers=header).json()["chosen"]["lead"]
    return shown


@pytest.mark.parametrize(
    ("cookies", "accept", "shown"),
    [
        ({}, "", "Top rail"),
        ({}, "en-US,en;q=0.9", "Top rail"),
        ({}, "en-GB,en;q=0.9", "Top cushion"),
        ({}, "en-AU", "Top cushion"),
        ({}, "de-DE,en-GB;q=0.5", "Top rail"),
        ({"fandle-english": "us"}, "en-GB", "Top rail"),
        ({"fandle-english": "uk"}, "en-US", "Top cushion"),
        ({"fandle-english": "??"}, "en-US", "Top rail"),
        ({"fandle-upright": "1"}, "en-US", "Left rail"),
        ({"fandle-upright": "0"}, "en-US", "Top rail"),
    ],
)
def test_what_a_rail_is_called(client: TestClient, cookies: dict[str, str], accept: str, shown: str) -> None:
    assert lead(client, cookies, accept) == shown
