"""The header's list of tables: the same layout on another table, from any room."""

import pytest
from fastapi.testclient import TestClient


@pytest.mark.parametrize(
    ("query", "leads"),
    [
        ({"to": "pool-7ft", "balls": "cue:2,1;1:6,1", "target": "1"}, "/?table=pool-7ft"),
        ({"to": "snooker-12ft", "balls": "cue:2,1;1:6,1", "target": "1"}, "target=red1"),
        ({"to": "pool-8ft"}, "/?table=pool-8ft"),
        ({"to": "nobody", "balls": "cue:2,1"}, "/"),
        ({"to": "pool-8ft", "balls": "cue:2"}, "/"),
    ],
)
def test_it_leads_to_the_table_room(client: TestClient, query: dict[str, str], leads: str) -> None:
    reply = client.get("/move", params=query, follow_redirects=False)
    assert reply.status_code == 303
    assert leads in reply.headers["location"]
    assert client.get(reply.headers["location"]).status_code == 200
