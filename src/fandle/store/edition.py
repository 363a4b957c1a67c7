"""Which state of a record somebody has seen, so that a change does not silently undo another's."""

import hashlib
import json
from typing import Any

from fandle.store.errors import ChangedError

LENGTH = 16  # characters: 64 bits


def edition_of(*parts: Any) -> str:
    """A mark of a record's state: another state has another one."""
    text = json.dumps(parts, sort_keys=True, default=str)
    return hashlib.sha256(text.encode("utf-8", "surrogatepass")).hexdigest()[:LENGTH]


def check_seen(what: str, now: str, was: str | None) -> None:
    """Refuse a change by who has seen another state than there is now. was: None for who does not say."""
    if was is not None and was != now:
        raise ChangedError(
            f"{what} was changed elsewhere meanwhile: nothing is saved over it; look at it as it is now, or save yours "
            "under another name"
        )
