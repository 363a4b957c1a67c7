"""Settings of the server, from the environment. A mistake fails at start."""

import os
from dataclasses import dataclass
from pathlib import Path


@dataclass(frozen=True)
class Settings:
    """home: the data folder (FANDLE_HOME). demo: fill an empty database with demo data."""

    home: Path
    demo: bool = False


def from_environment(demo: bool = False) -> Settings:
    """Settings as the environment gives them."""
    home = os.environ.get("FANDLE_HOME", "")
    return Settings(Path(home).expanduser() if home else Path.home() / ".fandle", demo)
