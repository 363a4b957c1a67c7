"""Settings of the server, from the environment and the command line. A mistake fails at start."""

from dataclasses import dataclass
from pathlib import Path

LOOPBACK = ("localhost", "127.0.0.1", "::1")  # names of the machine itself


@dataclass(frozen=True)
class Settings:
    """home: the data folder (FANDLE_HOME). demo: fill an empty database with demo data.

    beyond: other devices may come in, with a pass; outside: the address they open. hosts: further names of this
    server. secure: served over HTTPS.
    """

    home: Path
    demo: bool = False
    beyond: bool = False
    outside: str | None = None
    hosts: tuple[str, ...] = ()
    secure: bool = False
