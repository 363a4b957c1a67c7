"""Where everything is kept."""

import os
from pathlib import Path

from fandle.store.errors import StoreError


def home_folder() -> Path:
    """The data folder, as the environment names it."""
    given = os.environ.get("FANDLE_HOME", "")
    if not given:
        return Path.home() / ".fandle"
    try:
        return Path(given).expanduser().absolute()
    except RuntimeError:
        raise StoreError(f"FANDLE_HOME {given!r} names a user nobody knows: give the folder's whole path") from None
