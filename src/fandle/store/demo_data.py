"""The demo club that ships with the application; everybody in it is made up."""

import json
from pathlib import Path
from typing import Any


def demo_club() -> dict[str, Any]:
    """Club, players, tables and layouts worth solving."""
    data: dict[str, Any] = json.loads((Path(__file__).parent / "demo" / "club.json").read_text("utf-8"))
    return data
