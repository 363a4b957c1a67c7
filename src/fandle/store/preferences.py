"""The player's settings, by name."""

from collections.abc import Iterable
from typing import Any

from sqlalchemy import select

from fandle.store.database import Database
from fandle.store.models import Preference

PREFERRED = "school"  # the favourite system's place among the settings, as the first versions called it
MY_CUE = "cue"  # the cue the player plays with


def preference(database: Database, name: str, default: Any) -> Any:
    """One of the player's settings."""
    with database.read() as session:
        kept = session.execute(select(Preference.value).where(Preference.name == name)).first()
        return default if kept is None else kept.value


def preferences(database: Database, names: Iterable[str]) -> dict[str, Any]:
    """Those of some of the player's settings that were made."""
    with database.read() as session:
        rows = session.execute(select(Preference.name, Preference.value).where(Preference.name.in_(list(names))))
        return {row.name: row.value for row in rows}


def set_preference(database: Database, name: str, value: Any) -> None:
    """Keep a setting."""
    with database.write() as session:
        session.merge(Preference(name=name, value=value))
