"""What I am called in files that I hand on: asked for once."""

from fandle.store.database import Database
from fandle.store.preferences import preference, set_preference
from fandle.store.standing import FIRST_PLAYER, my_nickname, name_me

ASKED = "nickname_asked"  # among the settings


def to_be_asked(database: Database) -> bool:
    """Has the nickname to be asked for before a file is handed on?"""
    return not preference(database, ASKED, False) and my_nickname(database) == FIRST_PLAYER


def answer(database: Database, nickname: str | None) -> str:
    """Take a nickname, None to stay as I am called; either way it is asked for no more. Returns what I am called."""
    if nickname is not None:
        name_me(database, nickname)
    set_preference(database, ASKED, True)
    return my_nickname(database)
